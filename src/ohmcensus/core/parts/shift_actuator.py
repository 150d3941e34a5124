"""The small motor that shifts from wash to spin, its position switch and its optical tacho."""

from __future__ import annotations

from ohmcensus.core.parts.build import closed, fixed, opened, output_test, plain, winding
from ohmcensus.core.parts.element import ClosedWhen, Element, contact, load, resistor
from ohmcensus.core.parts.expect import LowSupply
from ohmcensus.core.parts.fault import FaultMode
from ohmcensus.core.parts.kind import (
    Nominal,
    PartKind,
    Pin,
    Role,
    TestSpec,
)
from ohmcensus.core.symptom import Symptom

_TURN = "A live test at low voltage: no earthed instrument. Turn the drum slowly by hand."


def _elements(ratings: LowSupply, nominal: Nominal) -> tuple[Element, ...]:
    """Return what it is electrically."""
    return (
        load("motor", "m_a", "m_b", nominal("motor"), henry=6.0),
        contact("switch", "s_a", "s_b", ClosedWhen("shifter", frozenset({"wash"}))),
        resistor("tacho", "vcc", "gnd", 1000.0, is_linear=False),
    )


def _tests(ratings: LowSupply) -> tuple[TestSpec, ...]:
    """Return its coil, its position switch either way, and its tacho."""
    return (
        winding("motor", "motor coil", ("m_a", "m_b"), 1000.0, 4000.0, "1–4 kΩ for a 120 V motor"),
        closed("switch", "position switch, at wash", ("s_a", "s_b"), sets={"shifter": "wash"}),
        opened(
            "spin", "position switch, at spin", ("s_a", "s_b"), "open in the spin position", sets={"shifter": "spin"}
        ),
        output_test("tacho", "tacho output, drum turned by hand", "out", ratings, _TURN),
    )


KIND = PartKind(
    kind="shift_actuator",
    title="Shift actuator",
    traits=plain(Role.LOAD),
    fault_modes=(
        FaultMode.OPEN,
        FaultMode.SHORTED_TURNS,
        FaultMode.STUCK_OPEN,
        FaultMode.WELDED,
        FaultMode.BAD_JOINT,
    ),
    priors={
        FaultMode.OPEN: 0.8,
        FaultMode.STUCK_OPEN: 0.8,
        FaultMode.BAD_JOINT: 0.4,
    },
    explains={
        Symptom.NO_SPIN: 0.45,
        Symptom.NO_TURN: 0.25,
        Symptom.NOISY: 0.2,
        Symptom.CODE: 0.2,
        Symptom.STOPS: 0.1,
    },
    repair="replace it",
    tricks=("Note where its lever stands before it comes off: it goes back so, or the basket spins in the wash.",),
    repair_minutes=15.0,
    ratings=LowSupply,
    pins=fixed(
        Pin("m_a", "motor 1"),
        Pin("m_b", "motor 2"),
        Pin("s_a", "switch 1"),
        Pin("s_b", "switch 2"),
        Pin("vcc", "tacho supply"),
        Pin("gnd", "tacho ground"),
        Pin("out", "tacho output", may_be_free=True),
    ),
    elements=_elements,
    tests=_tests,
)
