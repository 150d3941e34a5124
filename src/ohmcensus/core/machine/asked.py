"""Questions besides tests by meter, by the names that records give them: looks at parts, and a run watched."""

from __future__ import annotations

from ohmcensus.core.machine.specs import listed_tests
from ohmcensus.core.parts.kind import PartCheck
from ohmcensus.core.sheet import Part, Sheet

LOOK = "look_"
# A whole run through the programme.
RUN = "machine.run"
THROUGH, TRIPS = "through", "trips"
REST = "off"
# What a live test costs on top, in minutes, for whoever would rather not (ours, a setting).
LIVE_PENALTY_MINUTES = 6.0


def look_id(part: Part, check: PartCheck) -> str:
    """Return the name of a check by eye and hand: "heater.look_tags"."""
    return f"{part.id}.{LOOK}{check.id}"


def looks(sheet: Sheet) -> dict[str, tuple[Part, PartCheck]]:
    """Return every check by eye and hand of a machine, by its name."""
    return {look_id(part, check): (part, check) for part in sheet.parts for check in part.part_kind.checks}


def steps(sheet: Sheet) -> tuple[str, ...]:
    """Return the steps of the programme in order, rest left out."""
    return tuple(step for step in sheet.states.get("programme", ()) if step != REST)


def run_outcomes(sheet: Sheet) -> tuple[str, ...]:
    """Return what a watched run may come to: the first step that fails, *through*, *trips*."""
    return (*steps(sheet), THROUGH, TRIPS)


def run_words(sheet: Sheet) -> dict[str, str]:
    """Return what a watched run may come to, in words by outcome."""
    words = {THROUGH: "runs through", TRIPS: "it trips"}
    return {row: words.get(row, f"fails at {row}") for row in run_outcomes(sheet)}


def is_interlock_contact(sheet: Sheet, part_id: str, test: str) -> bool:
    """Tell whether a test reads an interlock's contact at rest, which says nothing without how the door stands."""
    part = sheet.part(part_id)
    lock = part.part_kind.interlock if part is not None else None
    return lock is not None and test == lock.at_rest


def asked_words(name: str, sheet: Sheet) -> str:
    """Return the name of a test, a look or the run as it is printed: "Heater, between its tabs"."""
    part_id, _, own = name.partition(".")
    part = sheet.part(part_id)
    if name == RUN or part is None:
        return "the run" if name == RUN else name
    seen = looks(sheet).get(name)
    title = seen[1].title if seen else next((s.title for s in listed_tests(sheet, part_id) if s.name == own), own)
    return f"{part.title}, {title}"


def held_by_voltage(sheet: Sheet) -> frozenset[str]:
    """Return the tests of a contact that only voltage closes: nobody is asked for them on a machine without it."""
    locks = ((part, part.part_kind.interlock) for part in sheet.parts)
    return frozenset(f"{part.id}.{lock.held}" for part, lock in locks if lock is not None and not lock.by_hand)
