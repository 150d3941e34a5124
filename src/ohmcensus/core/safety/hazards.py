"""Dangers that are open on a job, and what closes them.

A shock, a trip, a burnt smell or water inside forbid power until earth continuity and insulation have
passed after it. A bypassed interlock stays open until it is out; an earth that was lifted until it is back and
a reading from the plug's earth pin to that part shows it.
"""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

from ohmcensus.core.case import Case, Reading
from ohmcensus.core.event import (
    TRIPS,
    BypassRemoved,
    EarthLifted,
    EarthRefitted,
    Hazard,
    HazardFound,
    RunMade,
    RunWatched,
    Tripped,
)
from ohmcensus.core.machine import MachineTest, machine_tests
from ohmcensus.core.meter import Function
from ohmcensus.core.parts.kind import Proves
from ohmcensus.core.symptom import Symptom

EARTH_PIN = "cord.plug_pe"
_OF_SYMPTOM = {
    Symptom.SHOCK: Hazard.SHOCK,
    Symptom.TRIPS: Hazard.TRIP,
    Symptom.SMELLS: Hazard.BURNT_SMELL,
}


@dataclass(frozen=True, slots=True)
class OpenHazard:
    """A danger that is open.

    Parameters
    ----------
    hazard
        Which.
    words
        The same, with what was said of it.
    since
        Order of the event that told of it, 0 where the complaint did.
    forbids_power
        Whether the machine may not be switched on meanwhile.
    remedy
        What closes it.
    """

    hazard: Hazard
    words: str
    since: int
    forbids_power: bool
    remedy: str


def open_hazards(case: Case) -> tuple[OpenHazard, ...]:
    """Return the dangers that are open, each once, with its latest mention."""
    latest: dict[Hazard, tuple[int, str]] = {
        _OF_SYMPTOM[symptom]: (0, "") for symptom in case.complaint.symptoms if symptom in _OF_SYMPTOM
    }
    for event in case.events:
        if isinstance(event.body, Tripped):
            latest[Hazard.TRIP] = (event.order, event.body.device.words)
        elif isinstance(event.body, RunMade) and event.body.has_tripped:
            latest[Hazard.TRIP] = (event.order, "in a run")
        elif isinstance(event.body, RunWatched) and event.body.outcome == TRIPS:
            latest[Hazard.TRIP] = (event.order, "in a watched run")
        elif isinstance(event.body, HazardFound):
            latest[event.body.hazard] = (event.order, event.body.words)
    latest.pop(Hazard.BYPASS, None)
    latest.pop(Hazard.EARTH_OFF, None)
    found = [_power_hazard(hazard, order, words, case) for hazard, (order, words) in latest.items()]
    return (*(hazard for hazard in found if hazard is not None), *_earths_off(case), *_bypass(case))


def earths_off(case: Case) -> dict[str, tuple[int, int | None]]:
    """Return the parts whose earth was lifted and is not shown to hold again: when it went off, and when it came back.

    The second order is None while the wire is still off.
    """
    found: dict[str, tuple[int, int | None]] = {}
    for event in case.events:
        match event.body:
            case EarthLifted(part=part):
                found[part] = (event.order, None)
            case EarthRefitted(part=part) if part in found:
                found[part] = (found[part][0], event.order)
    return {part: (off, back) for part, (off, back) in found.items() if back is None or not _holds(case, part, back)}


def power_hazards(case: Case) -> tuple[OpenHazard, ...]:
    """Return the dangers that forbid power."""
    return tuple(hazard for hazard in open_hazards(case) if hazard.forbids_power)


def missing_proofs(case: Case, since: int) -> tuple[MachineTest, ...]:
    """Return the tests of earth and insulation that have not passed after a moment of the job."""
    tests = machine_tests(case.sheet, case.celsius)
    return tuple(test for test in tests if test.proves is not None and not _passes(case, test, since))


def _power_hazard(hazard: Hazard, since: int, words: str, case: Case) -> OpenHazard | None:
    missing = missing_proofs(case, since)
    if not missing:
        return None
    named = " and ".join(_PROOF_WORDS[proof] for proof in Proves if any(test.proves is proof for test in missing))
    said = f"{hazard.words}: {words}" if words else hazard.words
    return OpenHazard(hazard, said, since, forbids_power=True, remedy=f"{named} must pass first")


def _earths_off(case: Case) -> Iterator[OpenHazard]:
    """Yield one danger for each part whose earth is off, or is back without a reading."""
    for name, (off, back) in earths_off(case).items():
        part = case.sheet.part(name)
        title = part.title if part else name
        refit = f"put the earth back on the {title.lower()}, then " if back is None else ""
        remedy = f"{refit}read from the plug's earth pin to it: between {EARTH_PIN} {name}.pe 0.1"
        yield OpenHazard(Hazard.EARTH_OFF, f"the earth of the {title.lower()}", off, forbids_power=True, remedy=remedy)


def _holds(case: Case, part: str, since: int) -> bool:
    """Tell whether the last reading from the plug's earth pin to a part lies inside the limit with its whole error."""
    ends = {EARTH_PIN, f"{part}.pe"}
    rows = [row for row in case.standing if set(row.between) == ends and row.order > since]
    limits = [test.window.interval for test in machine_tests(case.sheet, case.celsius) if test.proves is Proves.EARTH]
    if not rows or not limits or rows[-1].function not in {Function.OHM, Function.CONTINUITY}:
        return False
    return limits[0].contains(rows[-1].meter.interval_of(rows[-1].indication, rows[-1].function))


def _bypass(case: Case) -> tuple[OpenHazard, ...]:
    """Return the bypassed interlock, where more were found than taken out."""
    altered = [row.words for row in case.complaint.alterations if row.is_bypass]
    found = [e for e in case.events if isinstance(e.body, HazardFound) and e.body.hazard is Hazard.BYPASS]
    removed = sum(isinstance(event.body, BypassRemoved) for event in case.events)
    if len(altered) + len(found) <= removed:
        return ()
    said = [*altered, *(e.body.words for e in found if isinstance(e.body, HazardFound))][-1]
    words = f"{Hazard.BYPASS.words}: {said}" if said else Hazard.BYPASS.words
    since = found[-1].order if found else 0
    remedy = "take it out and try the interlock; until then the machine does not go out as safe"
    return (OpenHazard(Hazard.BYPASS, words, since, forbids_power=False, remedy=remedy),)


def _passes(case: Case, test: MachineTest, since: int) -> bool:
    """Tell whether the last reading of a test after a moment lies inside with its meter's whole error."""
    rows = [row for row in case.standing if row.test == test.id and row.order > since]
    return bool(rows) and _is_good(rows[-1], test)


def _is_good(row: Reading, test: MachineTest) -> bool:
    """Tell whether a reading passes; an ohmmeter cannot pass for an insulation tester."""
    if row.function is not test.function and test.proves is not Proves.EARTH:
        return False
    return test.window.interval.contains(row.meter.interval_of(row.indication, row.function))


_PROOF_WORDS = {Proves.EARTH: "earth continuity", Proves.INSULATION: "insulation at 500 V"}
