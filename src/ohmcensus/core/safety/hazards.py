"""Dangers that are open on a job, and what closes them.

A shock, a trip, a burnt smell or water inside forbid power until earth continuity and insulation have
passed after it. A bypassed interlock stays open until it is out.
"""

from __future__ import annotations

from dataclasses import dataclass

from ohmcensus.core.case import Case, Reading
from ohmcensus.core.event import BypassRemoved, Hazard, HazardFound, Tripped
from ohmcensus.core.machine import MachineTest, machine_tests
from ohmcensus.core.parts.kind import Proves
from ohmcensus.core.symptom import Symptom

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
        elif isinstance(event.body, HazardFound):
            latest[event.body.hazard] = (event.order, event.body.words)
    latest.pop(Hazard.BYPASS, None)
    found = [_power_hazard(hazard, order, words, case) for hazard, (order, words) in latest.items()]
    return (*(hazard for hazard in found if hazard is not None), *_bypass(case))


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
