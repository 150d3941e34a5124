"""The stages of a job in working order, how each stands, and the one thing to do next."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from enum import StrEnum

from ohmcensus.core.course.following import Next, NextKind
from ohmcensus.core.event import Changed, CodesRead, Isolated, RunMade, RunWatched, Tripped
from ohmcensus.core.job.case import Case
from ohmcensus.core.job.first_look import is_begun
from ohmcensus.core.job.strip_down import unfinished
from ohmcensus.core.machine import is_proof, machine_tests
from ohmcensus.core.machine.asked import THROUGH
from ohmcensus.core.proof import blocking, is_asked, proofs
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


@dataclass(frozen=True, slots=True)
class Step:
    """The one thing to do next, the stage where it is done, and the part and the line that it is about."""

    stage: str
    words: str
    part: str = ""
    test: str = ""


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


def next_step(case: Case, safety: Safety, act: Next | None = None) -> Step:
    """Return the one thing to do next.

    Parameters
    ----------
    case
        Sheet and everything observed.
    safety
        State of safety now.
    act
        What the search wants next, None where that is not known or nothing is.
    """
    return next(_wanted(case, safety, act))


def _wanted(case: Case, safety: Safety, act: Next | None) -> Iterator[Step]:
    """Yield what is to be done, the most urgent first."""
    end, forbidding = case.ended, _forbidding(safety)
    if end is not None:
        yield Step("intake", f"Ended: {end.body.why}")
    # Where somebody measures already, the beginning is over.
    is_new = not case.standing
    if not case.complaint.symptoms and is_new:
        yield Step("intake", "Take the complaint: what does it do?")
    if safety.shout:
        yield Step("safe", f"Hands off: {safety.shout}")
    if safety.state is SafetyState.LIVE:
        yield Step("trace", f"Live: {safety.reason}")
    if not is_begun(case) and is_new:
        yield Step("intake", "Look outside the machine first: outlet, cord, filter, door")
    yield from _repairing(case, safety, act)
    if act is not None and _wants_power(case, act) and not forbidding:
        yield _asked(act)
    if safety.state is SafetyState.DEAD:
        yield _asked(act)
    if _can_tell_codes(case) and not _codes_read(case) and not forbidding and not _was_isolated(case):
        yield Step("codes", "Read the stored codes before anything is unplugged or tested")
    if forbidding:
        yield Step("safe", f"Make it safe. No power: {forbidding[0].lifted_by}")
    yield Step("safe", "Prove it dead again" if safety.lapsed else "Make it safe and prove it dead")


def _repairing(case: Case, safety: Safety, act: Next | None) -> Iterator[Step]:
    """Yield the repair that is due, and what a machine on which something was changed still wants."""
    if act is not None and act.kind is NextKind.REPAIR and not _was_changed_since(case, act.part):
        yield Step("repair", act.words, act.part)
    if act is not None and act.kind in _BEFORE_RUN and not _was_run(case):
        return
    if bool(case.of(Changed)) and (act is None or act.kind is NextKind.REPAIR or not _fails_yet(case)):
        yield from _after_change(case, safety)


# What a change wants before the machine is put together and run.
_BEFORE_RUN = frozenset({NextKind.TEST, NextKind.LEAK_TEST})


def _was_run(case: Case) -> bool:
    """Tell whether a run was watched after the last change, or nothing was changed."""
    run, change = case.last(RunWatched), case.last(Changed)
    return change is None or (run is not None and run.order > change.order)


def _asked(act: Next | None) -> Step:
    """Return what is measured next."""
    if act is None:
        return Step("trace", "Measure the next line of the sheet")
    return Step("trip" if act.kind is NextKind.LEAK_TEST else "trace", act.words, act.part, act.test)


def _wants_power(case: Case, act: Next) -> bool:
    """Tell whether what is next is done with the machine plugged in."""
    if act.kind is NextKind.RUN:
        return True
    tests = (test for test in machine_tests(case.sheet, None) if test.id == act.test)
    return any(not test.function.needs_dead_circuit for test in tests)


def _was_changed_since(case: Case, part: str) -> bool:
    """Tell whether a part was changed and nothing failed after that."""
    changed = max((event.order for event in case.of(Changed) if event.body.part == part), default=-1)
    failed = max((run.order for run in case.of(RunWatched) if run.body.outcome != THROUGH), default=-1)
    return changed > failed


def _fails_yet(case: Case) -> bool:
    """Tell whether the last run that was watched failed after the last change."""
    run, change = case.last(RunWatched), case.last(Changed)
    return run is not None and change is not None and run.order > change.order and run.body.outcome != THROUGH


def _after_change(case: Case, safety: Safety) -> Iterator[Step]:
    """Yield what a machine on which something was changed still wants."""
    for missing in unfinished(case):
        yield Step("repair", f"Put it together: {missing}")
    for row in proofs(case, safety):
        if row.is_good is False or (row.is_good is None and not row.criterion.is_optional):
            word = "Prove it" if row.is_good is None else "Mend it, then show it again"
            yield Step("prove", f"{word}: {row.criterion.title.lower()}")
    if not blocking(case, safety):
        yield Step("prove", "Sign it off: everything is shown")


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


def _was_isolated(case: Case) -> bool:
    return bool(case.of(Isolated))
