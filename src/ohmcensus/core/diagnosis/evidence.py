"""Everything observed on a job as evidence, each piece with its likelihood under every hypothesis."""

from __future__ import annotations

import math
from collections.abc import Callable, Iterator, Mapping, Sequence, Set

import numpy as np

from ohmcensus.core.codes import Outcome, track
from ohmcensus.core.diagnosis.hypothesis import Hypothesis
from ohmcensus.core.diagnosis.outcomes import Array, Outcomes, OutcomeTable
from ohmcensus.core.diagnosis.posterior import SLIP, Observation, read_as, told_as
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
from ohmcensus.core.job.reading import Reading
from ohmcensus.core.judgement import CensusLine, Verdict
from ohmcensus.core.judgement.census_sheet import Answer
from ohmcensus.core.judgement.compare import compared_lines
from ohmcensus.core.judgement.ghost_volts import ghost_volts_below
from ohmcensus.core.machine import machine_tests
from ohmcensus.core.machine.asked import RUN, THROUGH, looks, run_outcomes
from ohmcensus.core.machine.expected import ROOM_C
from ohmcensus.core.machine.likely import is_of_earth, symptom_chances
from ohmcensus.core.meter import Function
from ohmcensus.core.parts.fault import FaultMode
from ohmcensus.core.physics.temperature import REFERENCE_CELSIUS
from ohmcensus.core.quantity import Interval, show_indication
from ohmcensus.core.sheet import Sheet
from ohmcensus.core.symptom import Device, Moment, Symptom
from ohmcensus.core.trip.isolate import State, isolate
from ohmcensus.core.trip.of_case import problem_of, run_records
from ohmcensus.core.trip.problem import Method
from ohmcensus.core.trip.triage import triage

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
# Two readings of one test agree within this factor, or by both being over-range.
AGREE = 1.15
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
# What trips only hot, after rest or at random is not cleared by one pass: never less likely than this beside the rest.
COLD_PASS = 0.5
_COMES_LATER = frozenset({Moment.HOT_ONLY, Moment.AFTER_REST, Moment.RANDOM})
_AS_IT_TRIPS = ("hot", "wet")
BAD_SEEN, BAD_FALSE = 0.9, 0.02
# Like pieces that differ though each is within its own window: how often by a fault of one, how often all the same;
# any of the readings that were made once may be a slip (ours).
UNLIKE_SEEN, UNLIKE_FALSE = 0.6, 0.02
_UNLIKE = frozenset(
    {FaultMode.SHORTED_TURNS, FaultMode.DRIFT, FaultMode.BAD_JOINT, FaultMode.OPEN, FaultMode.SHORT, FaultMode.LEAK}
)


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
        *(symptom_told(table, symptom) for symptom in case.complaint.symptoms),
        *_trip(case, table),
        *_codes(case, table),
        *_cycle(case, table),
        *_eye(case, table),
        *_run(case, table),
        *allow_for_variants(table, tuple(_readings(case, lines, table)), stamped),
        *_compared(case, lines, table),
        *_could_not(case, table),
        *_isolated(case, table),
        *_changed(case, table),
    )


def symptom_told(table: OutcomeTable, symptom: Symptom) -> Observation:
    """Return what a symptom says."""
    sheet, even = table.sheet, 1 / len(Symptom)
    chance = [_chance_told(sheet, row, symptom) if row.parts else even for row in table.hypotheses]
    log = np.log((1 - STRAY) * np.array(chance) + STRAY * even)
    return Observation(f"symptom {symptom.value}", f"Told: {symptom.words}", log)


def agree(one: Interval, other: Interval) -> bool:
    """Tell whether two readings of one test agree."""
    if math.isinf(one.hi) or math.isinf(other.hi):
        return math.isinf(one.hi) and math.isinf(other.hi)
    return one.lo / AGREE <= other.hi and other.lo / AGREE <= one.hi


def _chance_told(sheet: Sheet, row: Hypothesis, symptom: Symptom) -> float:
    """Return how likely a symptom is told of a hypothesis; of a double, by the fault that shows more.

    Where the earth is broken too it is by that alone: what leaks then does not trip.
    """
    earth = next((fault for fault in row.faults if is_of_earth(fault)), None)
    if earth is not None:
        return symptom_chances(sheet, sheet.known_part(earth.part), earth)[symptom]
    parts = [part for part in sheet.parts if part.id in row.parts]
    faults = {fault.part: fault for fault in row.faults}
    return max(symptom_chances(sheet, part, faults.get(part.id))[symptom] for part in parts)


def _log(table: OutcomeTable, chance: Callable[[Hypothesis], float]) -> Array:
    return np.asarray(np.log([chance(row) for row in table.hypotheses]))


def _pointing(table: OutcomeTable, parts: Set[str], hit: float, miss: float) -> Array:
    """Return what speaks with one chance for every hypothesis on some parts, with another for all others."""
    return _log(table, lambda row: hit if parts & set(row.parts) else miss)


def _weighing(table: OutcomeTable, weights: Mapping[str, float], least: float) -> Array:
    """Return what speaks for each hypothesis as the heaviest of its parts weighs, at least a little."""
    return _log(table, lambda row: max([least, *(weights.get(part, 0.0) for part in row.parts)]))


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

    yield Observation("trip", f"{found.device.words}, {found.moment.words}", _log(table, chance))


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
            log = _told(outcomes, told)
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


def _readings(case: Case, lines: Sequence[CensusLine], table: OutcomeTable) -> Iterator[Observation]:
    changed = {event.body.part: event.order for event in case.of(Changed)}
    comes_later = triage(case).moment in _COMES_LATER
    # A leak test that stands on a line as well speaks by what the runs prove, once.
    typed = {row.id for row in case.standing}
    for line in lines:
        test = line.test
        if test is None or test.id not in table.tests:
            continue
        since = changed.get(test.part, -1)
        answers = [row for row in line.answers if row.reading.order > since and row.reading.id in typed]
        if answers:
            is_tempered = comes_later and test.function in {Function.INSULATION, Function.LEAKAGE}
            row = _reading(test.id, f"{test.part_title}, {test.title}", answers, table, is_tempered=is_tempered)
            if row is not None:
                yield row


def _without_ghosts(interval: Interval, reading: Reading, outcomes: Outcomes) -> Interval:
    """Return what a reading of mains volts stands for: little of it, by a high impedance, may be none at all."""
    below = ghost_volts_below(reading.function, reading.meter, outcomes.window) if outcomes.window else 0.0
    return Interval(0.0, below) if interval.hi < below else interval


def _reading(
    test: str, title: str, answers: Sequence[Answer], table: OutcomeTable, *, is_tempered: bool
) -> Observation | None:
    """Return the last reading of a test as evidence; None where it says nothing."""
    last, outcomes = answers[-1], table.tests[test]
    verdict, interval = last.judgement.verdict, last.judgement.interval
    said = f"{title}: {show_indication(last.reading.indication)}"
    if not outcomes.is_measured:
        if verdict in {Verdict.UNSURE, Verdict.NOT_JUDGED}:
            return None
        is_bad = verdict is not Verdict.INSIDE
        convicts = frozenset({test.partition(".")[0]}) if is_bad else frozenset[str]()
        verdicts = [row.judgement.verdict for row in answers]
        told = [row is not Verdict.INSIDE for row in verdicts if row not in {Verdict.UNSURE, Verdict.NOT_JUDGED}]
        is_confirmed = len(told) > 1 and told[-1] is told[-2]
        log = _told(outcomes, told)
        return Observation(test, said, log, outcomes, is_confirmed=is_confirmed, convicts=convicts)
    is_lesser = outcomes.function is Function.INSULATION and last.reading.function is not Function.INSULATION
    if is_lesser and verdict is Verdict.INSIDE:
        return None
    is_confirmed = any(agree(row.judgement.interval, interval) for row in answers[:-1])
    moved = _at_reference(interval, table.sheet, test, last.reading.stated_celsius)
    moved = _without_ghosts(moved, last.reading, outcomes)
    log = read_as(outcomes, moved, is_confirmed=is_confirmed)
    is_inside = verdict is Verdict.INSIDE
    if is_inside and is_tempered and not any(word in last.reading.condition for word in _AS_IT_TRIPS):
        log = np.maximum(log, log.max() + math.log(COLD_PASS))
    return Observation(test, said, log, outcomes, moved, is_confirmed=is_confirmed, is_inside=is_inside)


def _told(outcomes: Outcomes, told: Sequence[bool]) -> Array:
    """Return what looks or yes-and-no tests say together: each is nearly as independent as the first."""
    return np.asarray(sum(told_as(outcomes, int(is_bad)) for is_bad in told))


def _compared(case: Case, lines: Sequence[CensusLine], table: OutcomeTable) -> Iterator[Observation]:
    """Yield what like pieces say that differ, or do not, though each is within its own window."""
    known = {line.test.id: line for line in lines if line.test is not None}
    changed = {event.body.part: event.order for event in case.of(Changed)}
    for row in compared_lines(case.sheet, lines):
        own = [known[name] for name in row.lines if name in known]
        parts = {name.partition(".")[0] for name in row.lines}
        answers = [line.answer for line in own if line.answer is not None]
        since = max(changed.get(part, -1) for part in parts)
        is_plain = all(each.judgement.verdict is Verdict.INSIDE and each.reading.order > since for each in answers)
        if row.verdict is Verdict.UNSURE or not is_plain:
            continue
        once = sum(len(line.answers) < 2 for line in own)  # noqa: PLR2004 - read again, it is no slip
        seen, false = UNLIKE_SEEN, UNLIKE_FALSE + SLIP * once
        if row.verdict is Verdict.INSIDE:
            seen, false = 1 - seen, 1 - false

        def chance(each: Hypothesis, parts: set[str] = parts, seen: float = seen, false: float = false) -> float:
            return seen if any(f.part in parts and f.mode in _UNLIKE for f in each.faults) else false

        yield Observation(f"compared {row.part}", f"{row.title}: {row.remark}", _log(table, chance))


def _at_reference(interval: Interval, sheet: Sheet, test: str, celsius: float | None) -> Interval:
    """Return a reading as it were at the temperature of the outcomes; all of a room where none was stated."""
    degrees = ROOM_C if celsius is None else (celsius,)
    found = [interval.scaled(_to_reference(sheet, test, each)) for each in degrees]
    return Interval(min(each.lo for each in found), max(each.hi for each in found))


def _to_reference(sheet: Sheet, test: str, celsius: float) -> float:
    """Return the factor that moves a reading from its temperature to that of the outcomes."""
    at, reference = (
        next(row.window for row in machine_tests(sheet, degrees) if row.id == test)
        for degrees in (celsius, REFERENCE_CELSIUS)
    )
    middle = [window.nominal or window.interval.finite_lo or window.interval.finite_hi for window in (at, reference)]
    return middle[1] / middle[0] if middle[0] and middle[1] else 1.0


def _could_not(case: Case, table: OutcomeTable) -> Iterator[Observation]:
    """Yield tests that could not be made because it trips: an outcome of its own."""
    trips = {e.body.test for e in case.of(Skipped) if e.body.why is WhySkipped.TRIPS}
    if trips:

        def chance(row: Hypothesis) -> float:
            return TRIPPED_BY if any(fault.mode in _LETS_THROUGH for fault in row.faults) else TRIPPED_OTHER

        yield Observation("could not measure", "Could not measure: it trips", _log(table, chance))


def _isolated(case: Case, table: OutcomeTable) -> Iterator[Observation]:
    """Yield what the runs of a leakage test have proved."""
    for method in Method:
        # Insulation that was typed as a line speaks as that line; here it would count twice.
        problem = problem_of(case, method, records=run_records(case, method, with_lines=False))
        if not problem.runs:
            continue
        found = isolate(problem)
        if found.is_refused or found.conflict:
            continue
        guilty = {name for name, row in found.parts.items() if row.state is State.GUILTY}
        cleared = {name for name, row in found.parts.items() if row.state is State.CLEARED}

        def chance(row: Hypothesis, guilty: set[str] = guilty, cleared: set[str] = cleared) -> float:
            leaks = {fault.part for fault in row.faults if fault.mode is FaultMode.LEAK}
            if guilty and not leaks & guilty:
                return PROVED_BY_RUNS
            return PROVED_BY_RUNS if leaks & cleared else 1.0

        if guilty | cleared:
            title = f"Proved by {method.value} runs"
            yield Observation(f"runs {method.value}", title, _log(table, chance), convicts=frozenset(guilty))


def _changed(case: Case, table: OutcomeTable) -> Iterator[Observation]:
    """Yield what a change says that did not cure the fault: a failing run was watched after it."""
    for event in case.of(Changed):
        body = event.body
        after = [row.body for row in case.of(RunWatched) if row.order > event.order]
        if any(run.outcome != THROUGH for run in after):
            stays = STAYS_AFTER.get(body.intervention, STAYS_AFTER_LESS)
            log = _pointing(table, {body.part}, stays, 1.0)
            part = case.sheet.part(body.part)
            title = f"{part.title if part else body.part}, {body.intervention.words}: the fault stayed"
            yield Observation(f"change {event.id}", title, log)
