"""A run or start capacitor: what is printed on its can, and the charge that it keeps."""

from __future__ import annotations

import math
from typing import Literal

from pydantic import Field

from ohmcensus.core.meter import Function
from ohmcensus.core.parts.build import fixed, opened, plain
from ohmcensus.core.parts.element import Element, between, capacitor
from ohmcensus.core.parts.expect import Expect
from ohmcensus.core.parts.fault import FaultMode
from ohmcensus.core.parts.kind import (
    MachineState,
    Nominal,
    PartCheck,
    PartKind,
    Pin,
    Ratings,
    Role,
    StoredCharge,
    TestSpec,
)
from ohmcensus.core.quantity import Interval, Unit, show_value
from ohmcensus.core.quantity.window import Source, Window
from ohmcensus.core.symptom import Symptom

# IEC 60252-1 (run) and -2 (start), from memory: the usual tolerances.
_TOLERANCE = {"run": (-0.05, 0.05), "start": (0.0, 0.20)}


class MotorCapacitorRatings(Ratings):
    """Value, voltage, duty and tolerance as printed on the can; the usual tolerance of its duty where none is."""

    farad: float = Field(gt=0, le=1e-3)
    volts: float = Field(gt=0, le=600)
    duty: Literal["run", "start"] = "run"
    tolerance_percent: float | None = Field(default=None, gt=0, le=50)


def _stored_charges(ratings: MotorCapacitorRatings) -> tuple[StoredCharge, ...]:
    """Return the charge at the crest of its rated voltage, with no bleed to rely on."""
    return (StoredCharge("charge", ("a", "b"), ratings.farad, ratings.volts * math.sqrt(2), None),)


def _elements(ratings: MotorCapacitorRatings, nominal: Nominal) -> tuple[Element, ...]:
    """Return the capacitor and its insulation to the can."""
    return (capacitor("film", "a", "b", nominal("value")), between("can", "a", "can", FaultMode.LEAK))


def _tests(ratings: MotorCapacitorRatings) -> tuple[TestSpec, ...]:
    """Return its value, the kick of the ohmmeter, and tag to can."""
    return (
        TestSpec(
            name="value",
            title="value",
            between=("a", "b"),
            function=Function.CAPACITANCE,
            expect=_value(ratings),
            aliases=("uf", "microfarad"),
            state=MachineState.PLUG_PULLED,
            advice="Discharged first, both tags off.",
            at_zero="near 0: open",
        ),
        opened(
            "kick",
            "ohms, settled, both ways",
            ("a", "b"),
            "climbs toward OL and swaps on reversal: alive, no proof of its value",
            blind_to=(FaultMode.DRIFT, FaultMode.OPEN),
        ),
        opened("can", "tag to can", ("a", "can"), "a tag to the can reads OL", minutes=0.5),
    )


def _value(ratings: MotorCapacitorRatings) -> Expect:
    """Return the window from the print on the can."""
    under, over = _TOLERANCE[ratings.duty]
    if ratings.tolerance_percent is not None:
        under, over = -ratings.tolerance_percent / 100, ratings.tolerance_percent / 100
    basis = f"its print: {show_value(ratings.farad, Unit.FARAD)} {100 * under:+g}/{100 * over:+g} %"
    span = Interval(1 + under, 1 + over).scaled(ratings.farad)
    window = Window(span, Unit.FARAD, Source.PLATE, basis, nominal=ratings.farad * (1 + (under + over) / 2))
    return lambda _celsius: window


KIND = PartKind(
    kind="motor_capacitor",
    title="Motor capacitor",
    traits=plain(Role.CAPACITOR),
    fault_modes=(FaultMode.OPEN, FaultMode.SHORT, FaultMode.DRIFT, FaultMode.LEAK),
    priors={FaultMode.OPEN: 0.5, FaultMode.SHORT: 0.2, FaultMode.DRIFT: 1.2},
    explains={
        Symptom.HUMS: 0.5,
        Symptom.NO_TURN: 0.35,
        Symptom.NO_SPIN: 0.2,
        Symptom.SMELLS: 0.1,
    },
    checks=(PartCheck("can", "Can", "bulged, oily, burst"),),
    cautions=("It keeps its charge after the plug is out: discharge through the resistor, then measure.",),
    repair="replace it by one of the same value, at least the same voltage and the same safety class",
    repair_minutes=10.0,
    ratings=MotorCapacitorRatings,
    pins=fixed(Pin("a", "tag 1"), Pin("b", "tag 2"), Pin("can", "can")),
    stored_charges=_stored_charges,
    elements=_elements,
    tests=_tests,
)
