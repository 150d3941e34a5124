"""Readings of like pieces held against one another: what one window each cannot tell."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace

from ohmcensus.core.judgement.census_sheet import Answer, CensusLine
from ohmcensus.core.judgement.verdict import Verdict
from ohmcensus.core.parts.comparison import Comparison, Relation
from ohmcensus.core.quantity import Interval, Unit, show_value
from ohmcensus.core.sheet import Part, Sheet


@dataclass(frozen=True, slots=True)
class ComparedLine:
    """A line that is drawn from the readings of others.

    Parameters
    ----------
    part, title
        Whose it is, and what is compared: "windings alike".
    lines
        The lines that it is drawn from.
    reads, should
        What is compared, in print, and what it should be.
    verdict
        *inside*, *outside* where the readings surely differ, *unsure* where the meters' errors leave it open.
    remark
        A few words for the line.
    """

    part: str
    title: str
    lines: tuple[str, ...]
    reads: str
    should: str
    verdict: Verdict
    remark: str


@dataclass(frozen=True, slots=True)
class _Read:
    """One reading with what it may stand for beside others of the same meter."""

    title: str
    value: float
    interval: Interval
    unit: Unit


def compared_lines(sheet: Sheet, lines: Sequence[CensusLine]) -> tuple[ComparedLine, ...]:
    """Return every comparison for which all readings stand.

    Parameters
    ----------
    sheet
        The machine's type.
    lines
        Its census sheet.

    Notes
    -----
    Like readings are held against their mean with what the meter leaves open between two of its own readings: the
    last digit shown. Its gain and its leads are the same for all of them. Readings by different meters, or on different
    ranges, are held against one another with their whole errors.
    """
    asked = {line.test.id: line for line in lines if line.test is not None}
    free = {frozenset(line.between): line for line in lines if line.test is None}
    found = [
        drawn
        for part in sheet.parts
        for comparison in part.part_kind.comparisons
        if (drawn := _within(part, comparison, asked, free)) is not None
    ]
    return (*found, *_like_parts(sheet, asked))


def _within(
    part: Part, comparison: Comparison, asked: dict[str, CensusLine], free: dict[frozenset[str], CensusLine]
) -> ComparedLine | None:
    """Return a comparison of one part's own readings."""
    names = [f"{part.id}.{name}" for name in comparison.tests]
    wanted = [asked.get(name) for name in names]
    if comparison.whole is not None:
        ends = frozenset(part.point(pin) for pin in comparison.whole)
        wanted.append(free.get(ends))
        names.append(" ".join(sorted(ends)))
    reads = _reads([line for line in wanted if line is not None])
    if len(reads) < len(wanted):
        return None
    return _drawn(part.id, comparison, tuple(names), reads)


def _like_parts(sheet: Sheet, asked: dict[str, CensusLine]) -> Iterator[ComparedLine]:
    """Yield the comparisons of parts of one kind that should read the same: like valves."""
    groups: dict[tuple[str, object], list[Part]] = {}
    for part in sheet.parts:
        name = part.part_kind.alike
        line = asked.get(f"{part.id}.{name}") if name else None
        if line is not None and line.test is not None:
            groups.setdefault((part.kind, line.test.window.interval), []).append(part)
    for parts in groups.values():
        kind = parts[0].part_kind
        names = tuple(f"{part.id}.{kind.alike}" for part in parts)
        reads = _reads([asked[name] for name in names])
        if len(reads) < 2:  # noqa: PLR2004 - two can be compared
            continue
        comparison = Comparison(
            "alike", f"{kind.title.lower()}s of one type alike", (), Relation.ALIKE, kind.alike_within
        )
        named = [replace(read, title=title) for read, title in zip(reads, _titles(names, asked), strict=False)]
        yield _drawn(parts[0].id, comparison, names, named)


def _titles(names: Sequence[str], asked: dict[str, CensusLine]) -> list[str]:
    """Return the titles of the parts of those lines that can be compared."""
    tests = (asked[name].test for name in names if _reads([asked[name]]))
    return [test.part_title for test in tests if test is not None]


def _reads(lines: Sequence[CensusLine]) -> list[_Read]:
    """Return what the standing readings of some lines stand for beside one another; one-sided ones are left out."""
    answers = [
        (line, line.answer)
        for line in lines
        if line.answer is not None and not line.comes_and_goes and line.answer.judgement.interval.finite_hi is not None
    ]
    are_of_one = len({_meter_of(answer) for _, answer in answers}) == 1
    return [_read(line, answer, are_of_one=are_of_one) for line, answer in answers]


def _meter_of(answer: Answer) -> tuple[object, ...]:
    row = answer.reading
    return row.meter.id, row.function, row.meter.resolution_at(row.indication.value or 0.0, row.function)


def _read(line: CensusLine, answer: Answer, *, are_of_one: bool) -> _Read:
    row = answer.reading
    value = row.indication.value or 0.0
    interval = answer.judgement.interval
    if are_of_one:
        resolution = row.meter.resolution_at(value, row.function)
        digit = max(resolution, row.meter.rounding_of(row.indication, row.function))
        interval = Interval(max(0.0, value - digit), value + digit)
    title = line.test.title if line.test is not None else "both in a row"
    return _Read(title, value, interval, row.function.unit)


def _drawn(part: str, comparison: Comparison, lines: tuple[str, ...], reads: Sequence[_Read]) -> ComparedLine:
    draw = {Relation.ALIKE: _alike, Relation.ASCENDING: _ascending, Relation.SUM: _sum}[comparison.relation]
    verdict, remark, should = draw(reads, comparison.within)
    shown = ", ".join(show_value(row.value, row.unit) for row in reads)
    return ComparedLine(part, comparison.title, lines, shown, should, verdict, remark)


def _alike(reads: Sequence[_Read], within: float) -> tuple[Verdict, str, str]:
    """Judge readings against their mean."""
    mean = sum(row.value for row in reads) / len(reads)
    should = f"within {within * 100:g} % of their mean"
    odd = max(reads, key=lambda row: abs(row.value - mean))
    if mean <= 0:
        return Verdict.UNSURE, "no mean", should
    deviations = [_deviation(row, reads) for row in reads]
    if all(-within <= each.lo and each.hi <= within for each in deviations):
        return Verdict.INSIDE, "alike", should
    if any(each.lo > within or each.hi < -within for each in deviations):
        side = "over" if odd.value > mean else "under"
        verdict = Verdict.OUTSIDE_HIGH if odd.value > mean else Verdict.OUTSIDE_LOW
        share = abs(odd.value - mean) / mean * 100
        return verdict, f"{odd.title}: {share:.0f} % {side} their mean of {show_value(mean, odd.unit)}", should
    return Verdict.UNSURE, "within the meter's error", should


def _deviation(row: _Read, reads: Sequence[_Read]) -> Interval:
    """Return how far one reading may lie from the mean of all, as a share of it.

    d = x / mean − 1 rises with its own value and falls with the others', so its ends are at the ends of theirs.
    """
    others = [each.interval for each in reads if each is not row]
    count = len(reads)
    low_mean = (row.interval.lo + sum(each.hi for each in others)) / count
    high_mean = (row.interval.hi + sum(each.lo for each in others)) / count
    lo = row.interval.lo / low_mean - 1 if low_mean > 0 else -1.0
    return Interval(lo, max(lo, row.interval.hi / high_mean - 1 if high_mean > 0 else count - 1.0))


def _ascending(reads: Sequence[_Read], _within: float) -> tuple[Verdict, str, str]:
    """Judge two readings of which the first must be the smaller."""
    small, large = reads[0], reads[1]
    should = f"{small.title} under {large.title}"
    if small.interval.hi < large.interval.lo:
        return Verdict.INSIDE, "as it should be", should
    if small.interval.lo > large.interval.hi:
        return Verdict.OUTSIDE_HIGH, f"{small.title} is over {large.title}", should
    return Verdict.UNSURE, "within the meter's error", should


def _sum(reads: Sequence[_Read], within: float) -> tuple[Verdict, str, str]:
    """Judge the last reading as the sum of the others."""
    *pieces, whole = reads
    total = Interval(sum(row.interval.lo for row in pieces), sum(row.interval.hi for row in pieces))
    slack = Interval(total.lo * (1 - within), total.hi * (1 + within))
    should = f"the sum, {show_value(sum(row.value for row in pieces), whole.unit)}"
    if whole.interval.hi < slack.lo:
        return Verdict.OUTSIDE_LOW, "under their sum", should
    if whole.interval.lo > slack.hi:
        return Verdict.OUTSIDE_HIGH, "over their sum", should
    return Verdict.INSIDE if slack.contains(whole.interval) else Verdict.UNSURE, "their sum", should
