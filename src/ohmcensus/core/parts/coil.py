"""What all kinds with one coil between two tags share: pumps and valves."""

from __future__ import annotations

import math
from dataclasses import replace
from typing import Any

from pydantic import Field

from ohmcensus.core.parts.build import TWO_TAGS, plain, winding
from ohmcensus.core.parts.element import CHASSIS, Element, load
from ohmcensus.core.parts.fault import FaultMode
from ohmcensus.core.parts.kind import Nominal, PartKind, Ratings, Role, TestSpec
from ohmcensus.core.parts.to_earth import to_earth
from ohmcensus.core.physics.supply import LOW_VOLTS
from ohmcensus.core.quantity import Interval, Unit
from ohmcensus.core.quantity.window import Source, Window

# Reactance of pump and valve coils over their resistance, at mains frequency (our choice).
REACTANCE_PER_OHM = 1.7
MAINS_HZ = 50.0
# Lower end, upper end in ohms, and the range in words.
Range = tuple[float, float, str]
PUMP_AT_230: Range = (100.0, 250.0, "100–250 Ω for a 230 V pump")
PUMP_AT_120: Range = (10.0, 40.0, "10–40 Ω for a 120 V pump")
VALVE_AT_230: Range = (2000.0, 5000.0, "2–5 kΩ for a 230 V valve")
VALVE_AT_120: Range = (500.0, 1500.0, "0.5–1.5 kΩ for a 120 V valve")


# What an ohmmeter is taken to see of electronics before a coil; under the second it is a short all the same (ours).
ELECTRONICS_OHM, SHORTED_OHM = 1e6, 1.0
# A valve of at most so many volts is a low-voltage one, with its electronics in it (DOMAIN: 12 and 24 V).
LOW_VOLTAGE_V = 50.0


class CoilRatings(Ratings):
    """Supply that the coil is made for, and whether electronics lie before it, as in a brushless pump."""

    volts: float = Field(gt=0, le=500)
    electronics: bool = False

    @property
    def is_hidden(self) -> bool:
        """Whether an ohmmeter sees electronics and not the coil."""
        return self.electronics or self.volts <= LOW_VOLTAGE_V


def _behind_electronics(_celsius: float) -> Window:
    """Return what an ohmmeter may see of electronics: megohms and a diode are no fault, next to nothing is."""
    basis = "common range: electronics in it: megohms or a diode are no fault by themselves; a short is"
    span = Interval(SHORTED_OHM)
    return Window(span, Unit.OHM, Source.COMMON, basis, ELECTRONICS_OHM, "no short")


def coil_kind(kind: str, title: str, at_230: Range, at_120: Range, **more: Any) -> PartKind[CoilRatings]:
    """Return a kind that is a coil held by plastic, two wires; it states its usual ranges at either supply.

    Parameters
    ----------
    kind, title
        Its name in sheets, its title.
    at_230, at_120
        Common ranges at either supply.
    more
        Whatever else a ``PartKind`` states.
    """

    def tests(ratings: CoilRatings) -> tuple[TestSpec, ...]:
        lo, hi, rule = at_120 if ratings.volts < LOW_VOLTS else at_230
        blind_to = (FaultMode.LEAK, FaultMode.BAD_JOINT, FaultMode.SHORTED_TURNS)
        coil = winding("coil", "coil", ("a", "b"), lo, hi, rule, blind_to=blind_to)
        if ratings.is_hidden:
            coil = replace(coil, expect=_behind_electronics, copper=False, blind_to=(*blind_to, FaultMode.OPEN))
        return (
            coil,
            to_earth(
                ("a", CHASSIS),
                (FaultMode.OPEN, FaultMode.SHORT, FaultMode.SHORTED_TURNS, FaultMode.BAD_JOINT),
                "Held by plastic: it leaks when it is wet. Discharge after 500 V.",
            ),
        )

    return PartKind(
        kind=kind,
        title=title,
        traits=plain(Role.LOAD),
        ratings=CoilRatings,
        fault_modes=(FaultMode.OPEN, FaultMode.SHORT, FaultMode.SHORTED_TURNS, FaultMode.LEAK, FaultMode.BAD_JOINT),
        pins=TWO_TAGS,
        elements=_elements,
        tests=tests,
        **more,
    )


def _elements(_ratings: CoilRatings, nominal: Nominal) -> tuple[Element, ...]:
    """Return the coil; its inductance is set by a power factor of about a half."""
    ohm = nominal("coil")
    return (load("coil", "a", "b", ohm, henry=REACTANCE_PER_OHM * ohm / (2 * math.pi * MAINS_HZ)),)
