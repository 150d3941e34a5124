"""The pressure switch that tells the water level: one changeover contact moved by the air in a tube."""

from __future__ import annotations

from dataclasses import replace

from ohmcensus.core.meter import Function
from ohmcensus.core.parts.build import fixed, plain
from ohmcensus.core.parts.element import ClosedWhen, Element, contact
from ohmcensus.core.parts.expect import Expect, closed_contact, open_contact
from ohmcensus.core.parts.fault import FaultMode
from ohmcensus.core.parts.kind import (
    MachineState,
    Nominal,
    NoRatings,
    PartCheck,
    PartKind,
    Pin,
    Role,
    TestSpec,
)
from ohmcensus.core.symptom import Symptom

_MUST_BE_OPEN = frozenset({"rest", "left"})


def _elements(ratings: NoRatings, nominal: Nominal) -> tuple[Element, ...]:
    """Return both contacts; the level moves them."""
    return (
        contact("full", "c", "full", ClosedWhen("water", frozenset({"at level"}))),
        contact("empty", "c", "empty", ClosedWhen("water", frozenset({"empty"}))),
    )


def _tests(ratings: NoRatings) -> tuple[TestSpec, ...]:
    """Return both contacts with the tub empty, and with the tube blown."""
    at_rest = "Tub empty, tube on."
    blown = "By mouth, gently, into the tube at the switch: a click, and it must hold."
    return (
        _contact("empty", "empty contact, tub empty", "empty", closed_contact(), at_rest),
        _contact("rest", "full contact, tub empty", "full", open_contact("open until the level is reached"), at_rest),
        _contact("full", "full contact, tube blown", "full", closed_contact(), blown, "at level"),
        _contact(
            "left",
            "empty contact, tube blown",
            "empty",
            open_contact("open once the level is reached"),
            blown,
            "at level",
        ),
    )


def _contact(name: str, title: str, pin: str, expect: Expect, advice: str, water: str = "empty") -> TestSpec:
    """Build the test of one contact; one that should be open shows welding, one that should be closed the rest."""
    blind = (FaultMode.STUCK_OPEN, FaultMode.BAD_JOINT) if name in _MUST_BE_OPEN else (FaultMode.WELDED,)
    return TestSpec(
        name=name,
        title=title,
        between=("c", pin),
        function=Function.OHM,
        expect=expect,
        blind_to=blind,
        state=MachineState.PLUG_PULLED,
        minutes=0.7,
        advice=advice,
        sets={"water": water},
    )


KIND = PartKind(
    kind="pressure_switch",
    title="Pressure switch",
    traits=replace(plain(Role.LEVEL), governs_heat=True),
    fault_modes=(FaultMode.STUCK_OPEN, FaultMode.WELDED, FaultMode.BAD_JOINT),
    priors={
        FaultMode.STUCK_OPEN: 0.4,
        FaultMode.WELDED: 0.3,
        FaultMode.BAD_JOINT: 0.3,
    },
    checks=(PartCheck("tube", "Air tube and trap", "off, holed, water or fluff in it", mechanical=0.5),),
    repair="clear the tube or replace the switch",
    tricks=(
        "To clean the tube pull it off the switch and blow towards the trap. It hangs without a dip, or water stays.",
    ),
    repair_minutes=15.0,
    explains={
        Symptom.NO_TURN: 0.15,
        Symptom.NO_SPIN: 0.1,
        Symptom.OVERHEATS: 0.15,
        Symptom.NO_HEAT: 0.1,
        Symptom.OVERFILLS: 0.35,
        Symptom.NO_WATER: 0.15,
        Symptom.LEAKS: 0.15,
        Symptom.STOPS: 0.1,
        Symptom.CODE: 0.1,
    },
    ratings=NoRatings,
    pins=fixed(Pin("c", "common"), Pin("empty", "empty", may_be_free=True), Pin("full", "full", may_be_free=True)),
    elements=_elements,
    tests=_tests,
)
