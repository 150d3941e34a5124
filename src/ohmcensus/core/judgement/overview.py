"""The machine as one line a part: the marks of all its tests, and the reading that says most of it."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass

from ohmcensus.core.event import Checked, CheckOutcome
from ohmcensus.core.job.case import Case
from ohmcensus.core.judgement.census_sheet import CensusLine
from ohmcensus.core.judgement.verdict import Verdict
from ohmcensus.core.machine.asked import looks


@dataclass(frozen=True, slots=True)
class MeasuredPart:
    """A part with its lines, in the order of the sheet.

    Parameters
    ----------
    part, title
        Its id and name.
    lines
        Its lines, at least one.
    """

    part: str
    title: str
    lines: tuple[CensusLine, ...]

    @property
    def worst(self) -> CensusLine | None:
        """The line that says most: an outside one before an unsure one, those before one inside; of two the later."""
        asked = [line for line in self.lines if line.answer is not None]
        return max(asked, key=_weight, default=None)

    @property
    def outside(self) -> int:
        """How many of its lines stand outside."""
        return sum(line.verdict is not None and line.verdict.is_outside for line in self.lines)


@dataclass(frozen=True, slots=True)
class LookedPart:
    """A part that no meter tells about: its name, and how it was found, None while nobody looked."""

    part: str
    title: str
    outcome: CheckOutcome | None


def _weight(line: CensusLine) -> tuple[int, int]:
    verdict = line.verdict
    if verdict is None or line.answer is None:
        return (0, 0)
    rank = (
        3 if verdict.is_outside or line.comes_and_goes else {Verdict.UNSURE: 2, Verdict.NOT_JUDGED: 0}.get(verdict, 1)
    )
    return (rank, line.answer.reading.order)


def measured_parts(lines: Iterable[CensusLine]) -> tuple[MeasuredPart, ...]:
    """Return every part that has a line, in the order in which current meets them; pairs of points are nobody's."""
    by_part: dict[str, list[CensusLine]] = {}
    for line in lines:
        if line.test is not None:
            by_part.setdefault(line.test.part, []).append(line)
    return tuple(
        MeasuredPart(part, rows[0].test.part_title, tuple(rows)) for part, rows in by_part.items() if rows[0].test
    )


def looked_parts(case: Case, measured: Iterable[MeasuredPart]) -> tuple[LookedPart, ...]:
    """Return every part that has checks by eye or hand and no line, bad where the last of one of its checks is bad."""
    known = {row.part for row in measured}
    last = {event.body.check: event.body.outcome for event in case.of(Checked)}
    found: dict[str, CheckOutcome] = {}
    for check, outcome in last.items():
        part = check.partition(".")[0]
        if found.get(part) is not CheckOutcome.BAD:
            found[part] = outcome
    parts = {part.id: part.title for part, _ in looks(case.sheet).values() if part.id not in known}
    return tuple(LookedPart(part, title, found.get(part)) for part, title in parts.items())
