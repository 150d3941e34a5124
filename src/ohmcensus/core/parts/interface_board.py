"""The board with knob, keys and lamps, and the line by which it talks to the others."""

from __future__ import annotations

from ohmcensus.core.parts.build import electronic, fixed, output_test, supply_test
from ohmcensus.core.parts.element import Element, resistor
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


def _elements(ratings: LowSupply, nominal: Nominal) -> tuple[Element, ...]:
    """Return what it is electrically."""
    return (resistor("supply", "vcc", "gnd", 3300.0, is_linear=False),)


def _tests(ratings: LowSupply) -> tuple[TestSpec, ...]:
    """Return its supply, and the line by which it talks."""
    listen = "A line that talks never stands at a rail; a meter shows its mean, or moves."
    return (supply_test(ratings), output_test("link", "communication line", "line", ratings, listen, may_rest=True))


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
    ratings=LowSupply,
    pins=fixed(
        Pin("vcc", "supply", may_be_free=True),
        Pin("gnd", "ground"),
        Pin("line", "communication line", may_be_free=True),
    ),
    elements=_elements,
    tests=_tests,
)
