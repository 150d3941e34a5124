"""The board with knob, keys and lamps, and the line by which it talks to the others."""

from __future__ import annotations

from ohmcensus.core.meter import Function
from ohmcensus.core.parts.build import electronic, fixed
from ohmcensus.core.parts.element import Element, resistor
from ohmcensus.core.parts.expect import common
from ohmcensus.core.parts.fault import FaultMode
from ohmcensus.core.parts.kind import (
    MachineState,
    Nominal,
    NoRatings,
    PartKind,
    Pin,
    Role,
    TestSpec,
)
from ohmcensus.core.quantity import Unit
from ohmcensus.core.symptom import Symptom


def _elements(ratings: NoRatings, nominal: Nominal) -> tuple[Element, ...]:
    """Return what it is electrically."""
    return (resistor("supply", "vcc", "gnd", 3300.0, is_linear=False),)


KIND = PartKind(
    kind="interface_board",
    title="Interface board",
    traits=electronic(Role.BOARD),
    fault_modes=(
        FaultMode.OPEN,
        FaultMode.DRIFT,
        FaultMode.BAD_JOINT,
    ),
    priors={FaultMode.OPEN: 0.4, FaultMode.BAD_JOINT: 0.5},
    explains={
        Symptom.DEAD: 0.2,
        Symptom.NO_START: 0.25,
        Symptom.CODE: 0.15,
        Symptom.STOPS: 0.1,
    },
    repair="reseat the link at both ends and look at its pins; only then another board",
    repair_minutes=25.0,
    ratings=NoRatings,
    pins=fixed(
        Pin("vcc", "supply", may_be_free=True),
        Pin("gnd", "ground"),
        Pin("line", "communication line", may_be_free=True),
    ),
    elements=_elements,
    tests=fixed(
        TestSpec(
            name="supply",
            title="supply",
            between=("vcc", "gnd"),
            function=Function.VOLTS_DC,
            expect=common(4.5, 15.5, Unit.VOLT, "5 or 12 V by type"),
            state=MachineState.LIVE,
            advice="A live test: the wiring counts as mains. No earthed instrument.",
        ),
        TestSpec(
            name="link",
            title="communication line",
            between=("line", "gnd"),
            function=Function.VOLTS_DC,
            expect=common(0.5, 11.0, Unit.VOLT, "moving, at neither rail"),
            state=MachineState.LIVE,
        ),
    ),
)
