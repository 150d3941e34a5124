"""Readings as evidence: what each says by its value, what it says that comes and goes, and like pieces side by side."""

from __future__ import annotations

import math
from collections.abc import Callable, Iterator, Sequence
from dataclasses import replace
from itertools import combinations

import numpy as np

from ohmcensus.core.diagnosis.hypothesis import Hypothesis
from ohmcensus.core.diagnosis.outcomes import Array, Outcomes, OutcomeTable
from ohmcensus.core.diagnosis.posterior import SLIP, Observation, read_as, told_as
from ohmcensus.core.event import Changed
from ohmcensus.core.job.case import Case
from ohmcensus.core.job.reading import Reading
from ohmcensus.core.judgement import CensusLine, Verdict
from ohmcensus.core.judgement.census_sheet import Answer
from ohmcensus.core.judgement.compare import compared_lines
from ohmcensus.core.judgement.ghost_volts import ghost_volts_below
from ohmcensus.core.machine import machine_tests
from ohmcensus.core.machine.expected import ROOM_C
from ohmcensus.core.meter import Function
from ohmcensus.core.parts.fault import FaultMode
from ohmcensus.core.physics.temperature import REFERENCE_CELSIUS
from ohmcensus.core.quantity import Interval, show_indication
from ohmcensus.core.sheet import Sheet
from ohmcensus.core.symptom import Moment
from ohmcensus.core.trip.triage import triage

# A line that reads one thing and then another: how often by a fault that comes and goes, how often by a slip of the
# hand; where it is outside twice hardly ever by that. One odd reading before two that agree leaves it in question.
FLICKERS, STILL_FLICKERS = 0.5, 0.3
FLICKER_FALSE, FLICKER_FALSE_APART, FLICKER_FALSE_TWICE = 0.05, 4e-3, 4e-4
_FLICKER = frozenset({FaultMode.BAD_JOINT, FaultMode.OPEN, FaultMode.STUCK_OPEN, FaultMode.LEAK, FaultMode.SHORT})
# Two readings of one test agree within this factor, or by both being over-range.
AGREE = 1.15
# What trips only hot, after rest or at random is not cleared by one pass: never less likely than this beside the rest.
COLD_PASS = 0.5
_COMES_LATER = frozenset({Moment.HOT_ONLY, Moment.AFTER_REST, Moment.RANDOM})
_AS_IT_TRIPS = ("hot", "wet")
# Like pieces that differ though each is within its own window: how often by a fault of one, how often all the same;
# any of the readings that were made once may be a slip (ours).
UNLIKE_SEEN, UNLIKE_FALSE = 0.6, 0.02
_UNLIKE = frozenset(
    {FaultMode.SHORTED_TURNS, FaultMode.DRIFT, FaultMode.BAD_JOINT, FaultMode.OPEN, FaultMode.SHORT, FaultMode.LEAK}
)


def agree(one: Interval, other: Interval) -> bool:
    """Tell whether two readings of one test agree."""
    if math.isinf(one.hi) or math.isinf(other.hi):
        return math.isinf(one.hi) and math.isinf(other.hi)
    return one.lo / AGREE <= other.hi and other.lo / AGREE <= one.hi


def readings(case: Case, lines: Sequence[CensusLine], table: OutcomeTable) -> Iterator[Observation]:
    """Yield what each line says by its readings since any part that moves it was changed last."""
    changed = {event.body.part: event.order for event in case.of(Changed)}
    comes_later = triage(case).moment in _COMES_LATER
    # A leak test that stands on a line as well speaks by what the runs prove, once.
    typed = {row.id for row in case.standing}
    for line in lines:
        test = line.test
        if test is None or test.id not in table.tests:
            continue
        since = max(changed.get(part, -1) for part in (test.part, *table.moved_by[test.id]))
        answers = [row for row in line.answers if row.reading.order > since and row.reading.id in typed]
        if answers:
            is_tempered = comes_later and test.function in {Function.INSULATION, Function.LEAKAGE}
            row = _reading(test.id, f"{test.part_title}, {test.title}", answers, table, is_tempered=is_tempered)
            if row is not None and line.at_odds is not None and row.outcome and row.outcome.is_measured:
                row = _flickering(row, line, answers, table)
            if row is not None:
                yield row


def _flickering(row: Observation, line: CensusLine, answers: Sequence[Answer], table: OutcomeTable) -> Observation:
    """Return the evidence of a line that reads one thing and then another."""
    moves = table.moved_by[row.id]
    own = np.array([any(f.part in moves and f.mode in _FLICKER for f in each.faults) for each in table.hypotheses])
    if row.is_confirmed and row.is_inside:
        return replace(row, log=np.where(own, np.maximum(row.log, row.log.max() + math.log(STILL_FLICKERS)), row.log))
    outside = [each.judgement.interval for each in answers if each.judgement.verdict.is_outside]
    is_confirmed = len(outside) > 1
    # Two slips in a row read anything; two outside that agree are none.
    are_alike = any(agree(one, other) for one, other in combinations(outside, 2))
    false = FLICKER_FALSE_TWICE if are_alike else FLICKER_FALSE_APART if is_confirmed else FLICKER_FALSE
    log = np.log(np.where(own, FLICKERS, false))
    title = f"{row.title.partition(':')[0]}: comes and goes, {line.reads}"
    convicts = moves if len(moves) == 1 else frozenset[str]()
    return replace(
        row, title=title, log=log, interval=None, is_confirmed=is_confirmed, is_inside=False, convicts=convicts
    )


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
        log = told_each(outcomes, told)
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


def compared(case: Case, lines: Sequence[CensusLine], table: OutcomeTable) -> Iterator[Observation]:
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

        yield Observation(f"compared {row.part}", f"{row.title}: {row.remark}", log_of(table, chance))


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


def told_each(outcomes: Outcomes, told: Sequence[bool]) -> Array:
    """Return what looks or yes-and-no tests say together: each is nearly as independent as the first."""
    return np.asarray(sum(told_as(outcomes, int(is_bad)) for is_bad in told))


def log_of(table: OutcomeTable, chance: Callable[[Hypothesis], float]) -> Array:
    """Return the logarithms of a chance that is told of each hypothesis."""
    return np.asarray(np.log([chance(row) for row in table.hypotheses]))
