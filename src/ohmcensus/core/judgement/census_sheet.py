"""Every line of a machine: who has answered, who answered wrongly, who has not been asked."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

from ohmcensus.core.job.case import Case
from ohmcensus.core.job.reading import Reading
from ohmcensus.core.judgement.instrument import Use
from ohmcensus.core.judgement.judge import Judgement, judge
from ohmcensus.core.judgement.limited import limited
from ohmcensus.core.machine import MachineTest, dead_tests, is_proof, machine_tests


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
    """

    test: MachineTest | None
    between: tuple[str, str]
    answers: tuple[Answer, ...]

    @property
    def answer(self) -> Answer | None:
        """The reading that the line shows, None while it was not asked."""
        return self.answers[-1] if self.answers else None


def census_lines(case: Case, known: Mapping[str, Answer] | None = None) -> tuple[CensusLine, ...]:
    """Return all lines of a case in the order in which current passes the parts, loose pairs last.

    Parameters
    ----------
    case
        Sheet and readings.
    known
        Answers already judged on this sheet, by the id of their reading; an answer never changes.
    """
    answers = known or {}
    by_test: dict[str, list[Answer]] = {}
    by_pair: dict[tuple[str, str], list[Answer]] = {}
    for reading in case.standing:
        if is_proof(reading.test):
            continue
        answer = answers.get(reading.id) or judged(reading, case)
        if answer.judgement.window is None:
            by_pair.setdefault(reading.between, []).append(answer)
        else:
            by_test.setdefault(reading.test or "", []).append(answer)
    lines = [
        CensusLine(limited(test, case.terms), test.between, tuple(by_test.get(test.id, ())))
        for test in machine_tests(case.sheet, case.celsius)
    ]
    lines += [CensusLine(None, pair, tuple(found)) for pair, found in by_pair.items()]
    return tuple(lines)


def judged(reading: Reading, case: Case) -> Answer:
    """Judge a stored reading against sheet and limits as they are now, at the temperature of the reading."""
    tests = dead_tests(case.sheet) if is_proof(reading.test) else machine_tests(case.sheet, reading.celsius)
    test = next((limited(test, case.terms) for test in tests if test.id == reading.test), None)
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
