"""Every line of a machine: who has answered, who answered wrongly, who has not been asked."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from ohmcensus.core.event import Changed
from ohmcensus.core.job.case import Case
from ohmcensus.core.job.mains_plug import is_plug_turned_freely
from ohmcensus.core.job.reading import Reading
from ohmcensus.core.judgement.instrument import Use
from ohmcensus.core.judgement.judge import Judgement, are_apart, judge
from ohmcensus.core.judgement.limited import held_on, is_paired
from ohmcensus.core.judgement.parts_out import without
from ohmcensus.core.judgement.verdict import Verdict
from ohmcensus.core.machine import MachineTest, dead_tests, is_proof, machine_tests
from ohmcensus.core.machine.expected import ROOM_C
from ohmcensus.core.machine.seen import reaches
from ohmcensus.core.meter import Function
from ohmcensus.core.quantity import Interval, show_indication


@dataclass(frozen=True, slots=True)
class Answer:
    """A standing reading with its judgement."""

    reading: Reading
    judgement: Judgement


@dataclass(frozen=True, slots=True)
class CensusLine:
    """One line of the census sheet: a test, or a pair of points that no test names.

    Parameters
    ----------
    test
        The test, None for a pair of points.
    between
        Both points.
    answers
        Standing readings, oldest first; the last one is the line's.
    at_odds
        Two of them that differ by more than their meters allow, nothing having been changed between; None for most.
    of_rest
        Readings of the whole machine that were made with parts of it off, oldest first: they are of the rest.
    """

    test: MachineTest | None
    between: tuple[str, str]
    answers: tuple[Answer, ...]
    at_odds: tuple[Answer, Answer] | None = None
    of_rest: tuple[Answer, ...] = ()

    @property
    def answer(self) -> Answer | None:
        """The reading that the line shows, None while it was not asked."""
        return self.answers[-1] if self.answers else None

    @property
    def every(self) -> tuple[Answer, ...]:
        """All readings of the line, those of the rest among them."""
        return (*self.answers, *self.of_rest)

    @property
    def comes_and_goes(self) -> bool:
        """Whether it reads one thing and then another, or moved while it was read."""
        return self.at_odds is not None or (self.answer is not None and self.answer.judgement.comes_and_goes)

    @property
    def verdict(self) -> Verdict | None:
        """What the line says: of readings at odds the outside one's, *unsure* where both are inside."""
        if self.answer is None:
            return None
        if self.at_odds is None:
            return self.answer.judgement.verdict
        found = [each.judgement.verdict for each in self.at_odds]
        return next((each for each in reversed(found) if each.is_outside), Verdict.UNSURE)

    @property
    def reads(self) -> str:
        """What is shown for it: its reading, or both that are at odds."""
        answers = self.at_odds or ((self.answer,) if self.answer else ())
        return ", then ".join(show_indication(each.reading.indication) for each in answers)

    @property
    def sentence(self) -> str:
        """Its verdict in one sentence."""
        if self.answer is None:
            return ""
        said = self.answer.judgement.sentence
        return said if self.at_odds is None else f"comes and goes: it read {self.reads}; the last by itself: {said}"

    @property
    def remark(self) -> str:
        """A few words for the line."""
        if self.comes_and_goes:
            return "comes and goes"
        return self.answer.judgement.remark if self.answer else ""


def census_lines(
    case: Case, known: Mapping[str, Answer] | None = None, leak_tests: Sequence[Reading] = ()
) -> tuple[CensusLine, ...]:
    """Return all lines of a case in the order in which current passes the parts, loose pairs last.

    Parameters
    ----------
    case
        Sheet and readings.
    known
        Answers already judged on this sheet, by the id of their reading; but for an output, which goes by the supply
        that was measured, and an outlet's voltages to earth, which go by one another, an answer never changes.
    leak_tests
        Leak tests that are a test of the sheet, as readings: the whole machine's is ``cord.insulation``.
    """
    answers = known or {}
    by_test: dict[str, list[Answer]] = {}
    of_rest: dict[str, list[Answer]] = {}
    by_pair: dict[tuple[str, str], list[Answer]] = {}
    for reading in sorted((*case.standing, *leak_tests), key=lambda row: row.order):
        if is_proof(reading.test):
            continue
        known_one = answers.get(reading.id)
        window = known_one.judgement.window if known_one else None
        is_settled = window is None or (window.rails is None and not is_paired(reading.test or ""))
        answer = known_one if known_one is not None and is_settled else judged(reading, case)
        if answer.judgement.window is None:
            by_pair.setdefault(reading.between, []).append(answer)
        else:
            kept = of_rest if without(reading, case) else by_test
            kept.setdefault(reading.test or "", []).append(answer)
    changed = [(event.body.part, event.order) for event in case.of(Changed)]
    lines = []
    is_turned = is_plug_turned_freely(case)
    for test in machine_tests(case.sheet, None):
        found = tuple(by_test.get(test.id, ()))
        if test.is_reversed and not is_turned and not found:
            continue
        orders = [order for part, order in changed if part in moved_by(test, case)] if len(found) > 1 else []
        rest = tuple(of_rest.get(test.id, ()))
        lines.append(CensusLine(held_on(test, case), test.between, found, _at_odds(test, found, orders), rest))
    lines += [CensusLine(None, pair, tuple(found)) for pair, found in by_pair.items()]
    return tuple(lines)


def moved_by(test: MachineTest, case: Case) -> frozenset[str]:
    """Return the parts that move what a test reads: its own, and all that it reaches."""
    return frozenset({test.part, *reaches(case.sheet, test.part, test.name)})


def last_moved(test: MachineTest, case: Case) -> float:
    """Return the order of the last change of a part that moves what a test reads, -1 where none was changed.

    What was read before is of the machine as it was.
    """
    moved = moved_by(test, case) if case.of(Changed) else frozenset()
    return max((event.order for event in case.of(Changed) if event.body.part in moved), default=-1)


def _at_odds(test: MachineTest, answers: Sequence[Answer], changed: Sequence[int]) -> tuple[Answer, Answer] | None:
    """Return the last two readings of a line that contradict each other with nothing changed between, None for most.

    Notes
    -----
    Only readings in the same state are held against each other: by the same kind of instrument, on its plugs or off,
    wet or dried. Ohms, continuity, the diode test and µF contradict by differing at all; volts, currents and insulation
    drift by themselves and contradict where one is inside and the other outside.
    """
    since = max(changed, default=-1)
    own = [each for each in answers if each.reading.order > since]
    if not own:
        return None
    last = own[-1]
    for earlier in reversed(own[:-1]):
        if _state(earlier) == _state(last) and _contradict(test, earlier, last):
            return earlier, last
    return None


def _state(answer: Answer) -> tuple[object, ...]:
    row = answer.reading
    return row.function, row.alone, row.loose, row.condition, row.stated_celsius


_STEADY = frozenset({Function.OHM, Function.CONTINUITY, Function.DIODE, Function.CAPACITANCE})


def _contradict(test: MachineTest, one: Answer, other: Answer) -> bool:
    intervals = [each.judgement.interval for each in (one, other)]
    verdicts = [each.judgement.verdict for each in (one, other)]
    if one.reading.function in _STEADY and test.nominal_at is not None and one.reading.stated_celsius is None:
        ends = [test.nominal_at(celsius) for celsius in ROOM_C]
        warmed = intervals[1]
        intervals[1] = Interval(warmed.lo * min(ends) / max(ends), warmed.hi * max(ends) / min(ends))
    if not are_apart(intervals[0], intervals[1]):
        return False
    is_split = Verdict.INSIDE in verdicts and any(verdict.is_outside for verdict in verdicts)
    return is_split or (one.reading.function in _STEADY and test.window.rails is None and not _may_climb(test))


def _may_climb(test: MachineTest) -> bool:
    """Tell whether a good one climbs while it is read: an open contact or a charged capacitor has no upper end."""
    return test.window.interval.finite_hi is None


def judged(reading: Reading, case: Case) -> Answer:
    """Judge a stored reading against sheet and limits as they are now, at the temperature of the reading."""
    tests = dead_tests(case.sheet) if is_proof(reading.test) else machine_tests(case.sheet, reading.stated_celsius)
    test = next((held_on(test, case) for test in tests if test.id == reading.test), None)
    lesser = test.weaker if test and test.weaker and reading.function is not test.function else None
    use = Use(reading.meter, reading.function, reading.indication, lesser)
    return Answer(reading, judge(use, test))


def next_line(lines: tuple[CensusLine, ...], after: str | None) -> CensusLine | None:
    """Return the next line that was not asked, behind the given test and then from the top."""
    ids = [line.test.id if line.test else "" for line in lines]
    start = ids.index(after) + 1 if after in ids else 0
    for line in (*lines[start:], *lines[:start]):
        if line.test is not None and not line.answers and line.test.function.needs_dead_circuit:
            return line
    return None
