"""What all kinds with one coil between two tags share: pumps and valves."""

from __future__ import annotations

import math
from typing import ClassVar

from pydantic import Field

from ohmcensus.core.meter import Function
from ohmcensus.core.parts.element import CHASSIS, Element, load
from ohmcensus.core.parts.expect import common
from ohmcensus.core.parts.fault import FaultMode
from ohmcensus.core.parts.kind import MachineState, Nominal, PartKind, Pin, Ratings, TestSpec
from ohmcensus.core.parts.to_earth import to_earth
from ohmcensus.core.quantity import Unit

LOW_SUPPLY_V = 180.0
# Reactance of pump and valve coils over their resistance, at mains frequency (our choice).
REACTANCE_PER_OHM = 1.7
MAINS_HZ = 50.0


class CoilRatings(Ratings):
    """Supply that the coil is made for."""

    volts: float = Field(gt=0, le=500)


class CoilKind(PartKind[CoilRatings]):
    """A coil held by plastic, two wires; a kind states its usual ranges.

    ``at_230`` and ``at_120`` are lower end, upper end, and the range in words.
    """

    at_230: ClassVar[tuple[float, float, str]]
    at_120: ClassVar[tuple[float, float, str]]
    fault_modes = (FaultMode.OPEN, FaultMode.SHORT, FaultMode.SHORTED_TURNS, FaultMode.LEAK, FaultMode.BAD_JOINT)
    ratings = CoilRatings

    def pins(self, ratings: CoilRatings) -> tuple[Pin, ...]:
        """Return the two tags."""
        return (Pin("a", "tag 1"), Pin("b", "tag 2"))

    def elements(self, ratings: CoilRatings, nominal: Nominal) -> tuple[Element, ...]:
        """Return the coil; its inductance is set by a power factor of about a half."""
        ohm = nominal("coil")
        return (load("coil", "a", "b", ohm, henry=REACTANCE_PER_OHM * ohm / (2 * math.pi * MAINS_HZ)),)

    def tests(self, ratings: CoilRatings) -> tuple[TestSpec, ...]:
        """Return the coil, and its way to earth when it is wet."""
        lo, hi, rule = self.at_120 if ratings.volts < LOW_SUPPLY_V else self.at_230
        return (
            TestSpec(
                name="coil",
                title="coil",
                between=("a", "b"),
                function=Function.OHM,
                expect=common(lo, hi, Unit.OHM, rule),
                blind_to=(FaultMode.LEAK, FaultMode.BAD_JOINT, FaultMode.SHORTED_TURNS),
                state=MachineState.PLUG_PULLED,
                copper=True,
            ),
            to_earth(
                ("a", CHASSIS),
                (FaultMode.OPEN, FaultMode.SHORT, FaultMode.SHORTED_TURNS, FaultMode.BAD_JOINT),
                "Held by plastic: it leaks when it is wet. Discharge after 500 V.",
            ),
        )
