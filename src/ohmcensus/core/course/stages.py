"""The stages of a job in working order, and how each stands."""

from __future__ import annotations

from dataclasses import dataclass
from enum import StrEnum

from ohmcensus.core.event import Changed, CodesRead, RunMade, Tripped
from ohmcensus.core.job.case import Case
from ohmcensus.core.machine import is_proof, machine_tests
from ohmcensus.core.proof import is_asked, proofs
from ohmcensus.core.safety import Danger, Safety, SafetyState
from ohmcensus.core.symptom import Symptom


class StageState(StrEnum):
    """How a stage stands."""

    OPEN = "open"
    DONE = "done"
    BLOCKED = "blocked"


@dataclass(frozen=True, slots=True)
class Stage:
    """One stage of the job, and in a few words why it stands so."""

    id: str
    state: StageState
    words: str


def stages(case: Case, safety: Safety) -> tuple[Stage, ...]:
    """Return the stages in working order.

    Parameters
    ----------
    case
        Sheet and everything observed.
    safety
        State of safety now.
    """
    return (
        _intake(case),
        _safe(safety),
        _codes(case, safety),
        _trace(case, safety),
        _trip(case),
        _repair(case),
        _prove(case, safety),
        _sheet_out(case),
    )


def _forbidding(safety: Safety) -> list[Danger]:
    return [danger for danger in safety.dangers if danger.forbids_power]


def _intake(case: Case) -> Stage:
    if not case.complaint.symptoms:
        return Stage("intake", StageState.OPEN, "no symptom yet")
    return Stage("intake", StageState.DONE, ", ".join(symptom.words for symptom in case.complaint.symptoms[:2]))


def _safe(safety: Safety) -> Stage:
    if safety.state is SafetyState.DEAD:
        return Stage("safe", StageState.DONE, "proved dead")
    if safety.state is SafetyState.LIVE:
        return Stage("safe", StageState.OPEN, "live")
    if safety.state is SafetyState.UNDER_VOLTAGE:
        return Stage("safe", StageState.BLOCKED, "under voltage")
    return Stage("safe", StageState.OPEN, "no power yet" if _forbidding(safety) else "not proved dead")


def _codes(case: Case, safety: Safety) -> Stage:
    if not _can_tell_codes(case):
        return Stage("codes", StageState.DONE, "none on this type")
    if _codes_read(case):
        return Stage("codes", StageState.DONE, "read")
    if _forbidding(safety):
        return Stage("codes", StageState.BLOCKED, "no power yet")
    return Stage("codes", StageState.OPEN, "not read")


def _trace(case: Case, safety: Safety) -> Stage:
    tests = [test.id for test in machine_tests(case.sheet, None) if test.function.needs_dead_circuit]
    asked = {reading.test for reading in case.standing if not is_proof(reading.test)}
    left = sum(test not in asked for test in tests)
    if not left:
        return Stage("trace", StageState.DONE, "every line asked")
    if safety.state is not SafetyState.DEAD:
        return Stage("trace", StageState.BLOCKED, "prove it dead first")
    return Stage("trace", StageState.OPEN, f"{left} lines to ask")


def _trip(case: Case) -> Stage:
    runs = len(case.of(RunMade))
    if runs:
        return Stage("trip", StageState.OPEN, f"{runs} run{'s' if runs > 1 else ''}")
    has_tripped = Symptom.TRIPS in case.complaint.symptoms or bool(case.of(Tripped))
    return Stage("trip", StageState.OPEN, "a leak to isolate" if has_tripped else "nothing tripped")


def _repair(case: Case) -> Stage:
    changes = len(case.of(Changed))
    said = f"{changes} change{'s' if changes > 1 else ''}" if changes else "nothing changed"
    return Stage("repair", StageState.OPEN, said)


def _prove(case: Case, safety: Safety) -> Stage:
    rows = proofs(case, safety)
    good = sum(row.is_good is True for row in rows)
    if any(row.is_good is False for row in rows):
        return Stage("prove", StageState.BLOCKED, "a test failed")
    if not is_asked(safety):
        return Stage("prove", StageState.OPEN, "nothing changed")
    if good == len(rows):
        return Stage("prove", StageState.DONE, "proved")
    return Stage("prove", StageState.OPEN, f"{len(rows) - good} to show")


def _sheet_out(case: Case) -> Stage:
    end = case.ended
    if end is not None:
        return Stage("sheet-out", StageState.DONE, "labelled unsafe" if end.body.is_labelled_unsafe else "signed off")
    return Stage("sheet-out", StageState.OPEN, "not signed off")


def _can_tell_codes(case: Case) -> bool:
    return bool(case.sheet.service.schemes)


def _codes_read(case: Case) -> bool:
    return bool(case.of(CodesRead))
