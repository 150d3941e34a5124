"""The cam timer of an older machine: contacts that a switch chart opens and closes."""

from __future__ import annotations

from typing import Annotated

from pydantic import Field

from ohmcensus.core.parts.build import closed, opened, plain
from ohmcensus.core.parts.element import ClosedWhen, Element, contact
from ohmcensus.core.parts.fault import FaultMode
from ohmcensus.core.parts.kind import (
    Nominal,
    PartCheck,
    PartKind,
    Pin,
    Ratings,
    Role,
    TestSpec,
)
from ohmcensus.core.symptom import Symptom

Steps = Annotated[tuple[str, ...], Field(min_length=1, strict=False)]


class CamTimerRatings(Ratings):
    """The switch chart: for each contact the programme steps in which it is closed."""

    chart: dict[str, Steps] = Field(min_length=1)


def _pins(ratings: CamTimerRatings) -> tuple[Pin, ...]:
    """Return the common and one point for each contact."""
    return (Pin("c", "common"), *(Pin(name, f"{name} contact") for name in ratings.chart))


def _elements(ratings: CamTimerRatings, nominal: Nominal) -> tuple[Element, ...]:
    """Return the contacts, each closed in its own steps."""
    return tuple(
        contact(name, "c", name, ClosedWhen("programme", frozenset(steps))) for name, steps in ratings.chart.items()
    )


def _tests(ratings: CamTimerRatings) -> tuple[TestSpec, ...]:
    """Return each contact in the first step that closes it, and at rest."""
    return tuple(test for name, steps in ratings.chart.items() for test in _of_contact(name, steps))


def _of_contact(name: str, steps: Steps) -> tuple[TestSpec, ...]:
    called = closed(
        name,
        f"{name} contact, at {steps[0]}",
        ("c", name),
        blind_to=(FaultMode.WELDED,),
        minutes=0.7,
        sets={"programme": steps[0]},
        advice="Turn the knob to the step, then read; turn on and it must open.",
    )
    rest = opened(
        f"{name}_rest",
        f"{name} contact, at rest",
        ("c", name),
        "an idle contact is open; closed, its load runs at once",
        blind_to=(FaultMode.STUCK_OPEN, FaultMode.BAD_JOINT),
        minutes=0.7,
        advice="Knob at off.",
    )
    return called, rest


KIND = PartKind(
    kind="cam_timer",
    title="Cam timer",
    traits=plain(Role.TIMER),
    fault_modes=(FaultMode.STUCK_OPEN, FaultMode.WELDED, FaultMode.BAD_JOINT),
    priors={
        FaultMode.STUCK_OPEN: 1.0,
        FaultMode.WELDED: 0.3,
        FaultMode.BAD_JOINT: 0.6,
    },
    explains={
        Symptom.DEAD: 0.15,
        Symptom.NO_START: 0.25,
        Symptom.STOPS: 0.35,
        Symptom.NO_TURN: 0.2,
        Symptom.NO_SPIN: 0.2,
        Symptom.NO_DRAIN: 0.15,
    },
    checks=(PartCheck("knob", "Knob and its shaft", "turns without its clicks", mechanical=0.3),),
    repair="replace the timer",
    repair_minutes=25.0,
    ratings=CamTimerRatings,
    pins=_pins,
    elements=_elements,
    tests=_tests,
)
