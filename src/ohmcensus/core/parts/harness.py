"""The harness: the leads between the plugs of the machine, each measured plug to plug."""

from __future__ import annotations

from dataclasses import replace
from itertools import pairwise

from pydantic import Field, field_validator

from ohmcensus.core.meter import Function
from ohmcensus.core.parts.build import plain
from ohmcensus.core.parts.element import CHASSIS, Element, between, wire
from ohmcensus.core.parts.expect import closed_contact
from ohmcensus.core.parts.fault import FaultMode
from ohmcensus.core.parts.kind import (
    MachineState,
    Nominal,
    PartCheck,
    PartKind,
    Pin,
    Ratings,
    Role,
    TestSpec,
)
from ohmcensus.core.parts.to_earth import to_earth
from ohmcensus.core.symptom import Symptom

LEAD_OHM = 0.05
LEAD_LIMIT_OHM = 0.5
# To take every plug off, read, and put them back (ours).
BARE_MINUTES = 6.0


class HarnessRatings(Ratings):
    """Names of the leads, as they are spoken of: heater, motor, lock."""

    leads: tuple[str, ...] = Field(min_length=1, max_length=40, strict=False)

    @field_validator("leads")
    @classmethod
    def _leads_differ(cls, leads: tuple[str, ...]) -> tuple[str, ...]:
        if len(set(leads)) != len(leads):
            msg = "a lead is named twice: give each its own name"
            raise ValueError(msg)
        return leads


def _pins(ratings: HarnessRatings) -> tuple[Pin, ...]:
    """Return both ends of every lead."""
    return tuple(
        Pin(f"{lead}_{end}", f"{lead} lead, {word}")
        for lead in ratings.leads
        for end, word in (("board", "board end"), ("part", "part end"))
    )


def _elements(ratings: HarnessRatings, nominal: Nominal) -> tuple[Element, ...]:
    """Return every lead; each may chafe on the chassis, and two on one another."""
    leads = tuple(wire(lead, f"{lead}_board", f"{lead}_part", LEAD_OHM) for lead in ratings.leads)
    pairs = pairwise(ratings.leads)
    chafed = tuple(between(f"{one}_{other}", f"{one}_part", f"{other}_part") for one, other in pairs)
    return (*leads, *chafed)


def _tests(ratings: HarnessRatings) -> tuple[TestSpec, ...]:
    """Return every lead, end to end, and all of them to the chassis."""
    return (*(_lead(lead) for lead in ratings.leads), _chafed(ratings.leads))


def _lead(lead: str) -> TestSpec:
    """Build the test of one lead."""
    return TestSpec(
        name=lead,
        title=f"{lead} lead",
        between=(f"{lead}_board", f"{lead}_part"),
        function=Function.OHM,
        expect=closed_contact(LEAD_LIMIT_OHM),
        blind_to=(FaultMode.LEAK, FaultMode.SHORT),
        state=MachineState.PLUG_PULLED,
        minutes=1.5,
        advice="Wiggle the lead at both plugs while you read.",
    )


def _chafed(leads: tuple[str, ...]) -> TestSpec:
    """Build the test of all leads to the chassis."""
    test = to_earth(
        (f"{leads[0]}_board", CHASSIS),
        (FaultMode.OPEN, FaultMode.BAD_JOINT, FaultMode.SHORT),
        "Every plug off, so that nothing but leads is asked. Discharge after 500 V.",
        title="leads to earth, every plug off",
        joined=tuple(f"{lead}_board" for lead in leads),
    )
    return replace(test, is_bare=True, minutes=BARE_MINUTES)


KIND = PartKind(
    kind="harness",
    title="Harness",
    traits=replace(plain(Role.HARNESS), governs_heat=True),
    fault_modes=(FaultMode.OPEN, FaultMode.BAD_JOINT, FaultMode.LEAK, FaultMode.SHORT),
    priors={
        FaultMode.OPEN: 0.5,
        FaultMode.BAD_JOINT: 0.9,
        FaultMode.LEAK: 0.4,
        FaultMode.SHORT: 0.1,
    },
    checks=(PartCheck("chafe", "Harness along tub and edges", "chafed through, green plugs"),),
    repair="mend the lead",
    repair_minutes=30.0,
    explains={
        Symptom.STOPS: 0.25,
        Symptom.TRIPS: 0.15,
        Symptom.NO_TURN: 0.1,
        Symptom.NO_HEAT: 0.1,
        Symptom.CODE: 0.1,
        Symptom.DEAD: 0.05,
        Symptom.SMELLS: 0.1,
    },
    is_spare=False,
    tools=("tags, sleeves and a crimping tool",),
    tricks=(
        "Where the cabinet lifts off in one piece: its front lip goes under the base bar first, then it is let down.",
        "Every clip and tie goes back where it was: a lead that hangs free rubs through.",
    ),
    cautions=("Low-voltage wiring counts as mains while the machine is plugged in: most boards are not isolated.",),
    ratings=HarnessRatings,
    pins=_pins,
    elements=_elements,
    tests=_tests,
)
