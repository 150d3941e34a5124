"""Everything observed on a job as evidence, each piece with its likelihood under every hypothesis."""

from __future__ import annotations

import math
from collections.abc import Iterator, Mapping, Sequence, Set
from functools import partial

import numpy as np

from ohmcensus.core.codes import Outcome, track
from ohmcensus.core.diagnosis.hypothesis import Hypothesis
from ohmcensus.core.diagnosis.outcomes import Array, OutcomeTable
from ohmcensus.core.diagnosis.posterior import Observation, told_as
from ohmcensus.core.diagnosis.read_evidence import compared, log_of, readings, told_each
from ohmcensus.core.diagnosis.variant import allow_for_variants
from ohmcensus.core.event import (
    Changed,
    Checked,
    CheckOutcome,
    CodesRead,
    CycleTicked,
    Intervention,
    RunWatched,
    Skipped,
    Stamped,
    WhySkipped,
)
from ohmcensus.core.job.case import Case
from ohmcensus.core.judgement import CensusLine
from ohmcensus.core.machine.asked import RUN, THROUGH, looks, run_outcomes
from ohmcensus.core.parts.fault import FaultMode
from ohmcensus.core.symptom import Device, Moment, Symptom
from ohmcensus.core.trip.isolate import State, isolate
from ohmcensus.core.trip.of_case import convicted, problem_of, run_records
from ohmcensus.core.trip.problem import Method
from ohmcensus.core.trip.triage import triage
from ohmcensus.core.trip.words import cleared_words, guilty_words

# One customer in so many tells something that has nothing to do with the fault.
STRAY = 0.1
# Chances of what is seen, under a suspect that it points at and under any other (ours, common practice).
CODE_POINTS, CODE_OTHER = 1.0, 0.05
STEP_POINTS, STEP_OTHER = 0.9, 0.08
STEP_PASSED = 0.15
TRIPPED_BY, TRIPPED_OTHER = 0.8, 0.03
PROVED_BY_RUNS = 0.01
# The fault stays after another part was fitted: it was hardly the part; after it was reseated, rather not.
STAYS_AFTER = {Intervention.REPLACED: 0.05, Intervention.MENDED: 0.2}
STAYS_AFTER_LESS = 0.7
# Another piece is bad itself so rarely, against the one that was there before.
NEW_IS_BAD = 0.05
# A symptom that is told this much more rarely of a fault than of any is not explained by it.
NOT_TOLD_OF = 0.25
# How an observation of what was told begins.
SYMPTOM = "symptom "
_LETS_THROUGH = frozenset({FaultMode.LEAK, FaultMode.SHORT})
# How readily a device goes on a fault: a residual current, or too much of it; a solid earth fault takes a breaker too,
# where no RCD is before it (common practice, no source).
_RESIDUAL = {FaultMode.LEAK: 1.0, FaultMode.SHORT: 0.08}
_TOO_MUCH = {FaultMode.SHORT: 1.0, FaultMode.SHORTED_TURNS: 0.4, FaultMode.LEAK: 0.12}
SENSED_BY: Mapping[Device, Mapping[FaultMode, float]] = {
    Device.RCD: _RESIDUAL,
    Device.GFCI: _RESIDUAL,
    Device.BREAKER: _TOO_MUCH,
    Device.FUSE: _TOO_MUCH,
    Device.UNKNOWN: {FaultMode.LEAK: 1.0, FaultMode.SHORT: 1.0, FaultMode.SHORTED_TURNS: 0.2},
}
BAD_SEEN, BAD_FALSE = 0.9, 0.02


def observations(case: Case, lines: Sequence[CensusLine], table: OutcomeTable) -> tuple[Observation, ...]:
    """Return the evidence of a case.

    Parameters
    ----------
    case
        Sheet and everything observed.
    lines
        Its readings, judged.
    table
        Hypotheses and outcomes of the sheet.

    Notes
    -----
    Readings of one test are one piece of evidence, the last; a second that agrees confirms it. What was read on a
    part before it was changed says nothing of what sits there now.
    """
    stamped = {event.body.part for event in case.of(Stamped)}
    return (
        *_told_yet(case, lines, table),
        *_trip(case, table),
        *_codes(case, table),
        *_cycle(case, table),
        *_eye(case, table),
        *_run(case, table),
        *allow_for_variants(table, tuple(readings(case, lines, table)), stamped),
        *compared(case, lines, table),
        *_could_not(case, table),
        *_isolated(case, table),
        *_changed(case, table),
    )


def _told_yet(case: Case, lines: Sequence[CensusLine], table: OutcomeTable) -> Iterator[Observation]:
    """Yield what the symptoms say; one that a piece explains which was bad and is out now says nothing any more."""
    outside = [
        (line.test.part, row.reading.order)
        for line in lines
        if line.test is not None
        for row in line.answers
        if row.judgement.verdict.is_outside
    ]
    mended = {
        event.body.part
        for event in case.of(Changed)
        if sum(part == event.body.part and order < event.order for part, order in outside) > 1
    }
    for symptom in case.complaint.symptoms:
        row = symptom_told(table, symptom)
        by = max((float(row.log[h]) for h, each in enumerate(table.hypotheses) if set(each.parts) & mended), default=-9)
        if math.exp(by) < NOT_TOLD_OF / len(Symptom):
            yield row


def symptom_told(table: OutcomeTable, symptom: Symptom) -> Observation:
    """Return what a symptom says."""
    log = np.log((1 - STRAY) * table.told[symptom] + STRAY / len(Symptom))
    return Observation(f"{SYMPTOM}{symptom.value}", f"Told: {symptom.words}", log)


def _pointing(table: OutcomeTable, parts: Set[str], hit: float, miss: float) -> Array:
    """Return what speaks with one chance for every hypothesis on some parts, with another for all others."""
    return log_of(table, lambda row: hit if parts & set(row.parts) else miss)


def _weighing(table: OutcomeTable, weights: Mapping[str, float], least: float) -> Array:
    """Return what speaks for each hypothesis as the heaviest of its parts weighs, at least a little."""
    return log_of(table, lambda row: max([least, *(weights.get(part, 0.0) for part in row.parts)]))


def _trip(case: Case, table: OutcomeTable) -> Iterator[Observation]:
    """Yield what the moment of a trip says: parts that were new by then, that held before, that were not reached."""
    found = triage(case)
    if found.moment is Moment.UNKNOWN and found.device is Device.UNKNOWN:
        return
    most = max((row.stood for row in found.parts), default=1.0)
    stood = {row.part: row.stood / most for row in found.parts}

    senses = SENSED_BY.get(found.device, SENSED_BY[Device.UNKNOWN])

    def chance(row: Hypothesis) -> float:
        likely = [senses.get(fault.mode, 0.0) * stood.get(fault.part, TRIPPED_OTHER) for fault in row.faults]
        return max([TRIPPED_OTHER, *likely])

    yield Observation("trip", f"{found.device.words}, {found.moment.words}", log_of(table, chance))


def _codes(case: Case, table: OutcomeTable) -> Iterator[Observation]:
    last = {event.body.scheme: event.body for event in case.of(CodesRead)}
    for scheme, body in last.items():
        for code in body.codes:
            meaning = case.sheet.service.meaning(scheme, code)
            if meaning is not None and meaning.suspects:
                weights = {part: CODE_POINTS * weight for part, weight in meaning.suspects.items()}
                log = _weighing(table, weights, CODE_OTHER)
                yield Observation(f"code {scheme} {code}", f"Code {code}: {meaning.words}", log)


def _cycle(case: Case, table: OutcomeTable) -> Iterator[Observation]:
    """Yield what the steps of an automatic test say: the first that failed, and the parts that worked."""
    for cycle in case.sheet.service.cycles:
        ticks: dict[str, Outcome] = {}
        for event in case.of(CycleTicked):
            if event.body.cycle == cycle.id:
                ticks[event.body.step] = event.body.outcome
        found = track(cycle, ticks)
        worked, points = set(found.shown_to_work), set(found.points_at)
        if found.failed is not None:
            log = _pointing(table, points, STEP_POINTS, STEP_OTHER)
            yield Observation(f"cycle {cycle.id} failed", f"Failed in the test: {found.failed.title}", log)
        if worked - points:
            log = _pointing(table, worked - points, STEP_PASSED, 1.0)
            yield Observation(f"cycle {cycle.id} passed", "Steps that passed in the test", log)


def _eye(case: Case, table: OutcomeTable) -> Iterator[Observation]:
    last = {event.body.check: event.body for event in case.of(Checked)}
    known = looks(case.sheet)
    for name, body in last.items():
        if body.outcome is CheckOutcome.NOT_SEEN:
            continue
        is_bad = body.outcome is CheckOutcome.BAD
        said = "bad" if is_bad else "good"
        if name in known:
            part, check = known[name]
            outcomes = table.tests[name]
            title = f"{part.title}, {check.title}: {said}"
            told = [row.body.outcome is CheckOutcome.BAD for row in case.of(Checked) if row.body.check == name]
            is_confirmed = len(told) > 1 and told[-1] is told[-2]
            log = told_each(outcomes, told)
            convicts = frozenset({part.id}) if is_bad else frozenset[str]()
            yield Observation(name, title, log, outcomes, is_confirmed=is_confirmed, convicts=convicts)
        elif parts := {part.id for part in case.sheet.parts if name in part.part_kind.seen_outside}:
            seen, false = (BAD_SEEN, BAD_FALSE) if is_bad else (1 - BAD_SEEN, 1 - BAD_FALSE)
            log = _pointing(table, parts, seen, false)
            yield Observation(f"look {name}", f"Looked at outside, {name.replace('_', ' ')}: {said}", log)


def _run(case: Case, table: OutcomeTable) -> Iterator[Observation]:
    """Yield what the last watched run says; one made before a change says nothing of the machine as it is now."""
    run, change = case.last(RunWatched), case.last(Changed)
    if run is not None and (change is None or run.order > change.order):
        outcome = run.body.outcome
        place = run_outcomes(case.sheet).index(outcome)
        outcomes = table.tests[RUN]
        yield Observation(RUN, f"Run through: {outcome}", told_as(outcomes, place), outcomes)


def _could_not(case: Case, table: OutcomeTable) -> Iterator[Observation]:
    """Yield tests that could not be made because it trips: an outcome of its own."""
    trips = {e.body.test for e in case.of(Skipped) if e.body.why is WhySkipped.TRIPS}
    if trips:

        def chance(row: Hypothesis) -> float:
            return TRIPPED_BY if any(fault.mode in _LETS_THROUGH for fault in row.faults) else TRIPPED_OTHER

        yield Observation("could not measure", "Could not measure: it trips", log_of(table, chance))


def _isolated(case: Case, table: OutcomeTable) -> Iterator[Observation]:
    """Yield what the runs of a leakage test have proved."""
    for method in Method:
        # Insulation that was typed as a line speaks as that line; here it would count twice.
        records = run_records(case, method, with_lines=False)
        problem = problem_of(case, method, records=records)
        if not problem.runs:
            continue
        found = isolate(problem)
        if found.is_refused or found.conflict:
            continue
        guilty = set(found.guilty)
        cleared = {name for name, row in found.parts.items() if row.state is State.CLEARED}

        def chance(row: Hypothesis, guilty: set[str] = guilty, cleared: set[str] = cleared) -> float:
            leaks = {fault.part for fault in row.faults if fault.mode is FaultMode.LEAK}
            if guilty and not leaks & guilty:
                return PROVED_BY_RUNS
            return PROVED_BY_RUNS if leaks & cleared else 1.0

        every = run_records(case, method)
        beside = isolate(problem_of(case, method, records=every))
        convicts = convicted(case, method, beside.guilty, every)
        if convicts or cleared:
            title = guilty_words(case, beside, every, method) if convicts else cleared_words(case.sheet, cleared)
            yield Observation(f"runs {method.value}", title, log_of(table, chance), convicts=convicts)


def _new_is_bad(part: str, row: Hypothesis) -> float:
    return NEW_IS_BAD if part in row.parts else 1.0


def _changed(case: Case, table: OutcomeTable) -> Iterator[Observation]:
    """Yield what a change says: another piece is rarely bad, and a fault that stays after it was hardly that part."""
    for event in case.of(Changed):
        body = event.body
        if body.intervention is Intervention.REPLACED:
            part = case.sheet.part(body.part)
            title = f"{part.title if part else body.part}: another piece sits there"
            yield Observation(f"new {event.id}", title, log_of(table, partial(_new_is_bad, body.part)))
        after = [row.body for row in case.of(RunWatched) if row.order > event.order]
        if any(run.outcome != THROUGH for run in after):
            stays = STAYS_AFTER.get(body.intervention, STAYS_AFTER_LESS)
            log = _pointing(table, {body.part}, stays, 1.0)
            part = case.sheet.part(body.part)
            title = f"{part.title if part else body.part}, {body.intervention.words}: the fault stayed"
            yield Observation(f"change {event.id}", title, log)
