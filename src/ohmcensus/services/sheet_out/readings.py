"""Readings as the job sheet prints them: those that decided it, what they cannot see, and what they read since."""

from __future__ import annotations

from collections.abc import Iterator, Sequence

from ohmcensus.core.diagnosis.changes import former_since
from ohmcensus.core.job.case import Case
from ohmcensus.core.judgement import CensusLine, Verdict
from ohmcensus.core.judgement.census_sheet import last_moved
from ohmcensus.core.layout import short_ruler
from ohmcensus.core.layout.ohm_ruler import END_OHM, position
from ohmcensus.core.quantity import Unit
from ohmcensus.exchange.report import ReportAfter, ReportReading

MOST_DECIDING = 6
_QUIET = frozenset({Verdict.INSIDE, Verdict.NOT_JUDGED, Verdict.UNSURE})


def deciding_lines(rows: list[CensusLine], named: Sequence[str]) -> list[CensusLine]:
    """Return the lines that decided it: what reads outside, of the named parts first, then their other lines."""
    outside = [row for row in rows if is_outside(row)]
    outside.sort(key=lambda row: row.test is None or row.test.part not in named)
    own = [row for row in rows if row.test and row.test.part in named and row not in outside]
    return [*outside, *own][:MOST_DECIDING]


def is_outside(row: CensusLine) -> bool:
    """Tell whether a line reads what it should not."""
    return bool(row.verdict) and row.verdict not in _QUIET


def printed(row: CensusLine, case: Case | None = None) -> ReportReading:
    """Return an answered line as it is printed; of a piece that has come out, it says so."""
    assert row.answer is not None  # noqa: S101 - the caller kept the answered ones
    assert row.test is not None  # noqa: S101 - the same
    judgement, indication = row.answer.judgement, row.answer.reading.indication
    window, is_ohm = judgement.window or row.test.window, indication.unit is Unit.OHM
    own = short_ruler(window, judgement.interval, indication.value)
    value = indication.value if indication.value is not None else END_OHM
    said = "comes and goes" if row.comes_and_goes else (row.verdict or judgement.verdict).value.replace("_", " ")
    if case is not None and row.answer.reading.order < former_since(case, row.test.part):
        said = f"former piece: {said}"
    elif case is not None and row.answer.reading.order < last_moved(row.test, case):
        said = f"before: {said.removeprefix('outside ')}" if is_outside(row) else "before"
    return ReportReading(
        what=titled(row),
        reads=row.reads,
        should=window.shown,
        verdict=said,
        is_outside=is_outside(row),
        position=position(value) if is_ohm else own.pin,
        band=(position(window.interval.lo), position(window.interval.hi)) if is_ohm else (own.window_lo, own.window_hi),
        labels=None if is_ohm else (own.label_lo, own.label_hi),
    )


def titled(row: CensusLine) -> str:
    """Return the name of a line with its part."""
    return f"{row.test.part_title}, {row.test.title}" if row.test else ""


def blind_words(rows: Sequence[CensusLine]) -> tuple[str, ...]:
    """Say what answered lines cannot see, those with the same blind spots in one sentence."""
    by_modes: dict[str, list[str]] = {}
    for row in rows:
        if row.answer is not None and row.answer.judgement.blind_to:
            modes = ", ".join(mode.words for mode in row.answer.judgement.blind_to)
            by_modes.setdefault(modes, []).append(titled(row))
    return tuple(f"{'; '.join(titles)}: {modes}." for modes, titles in by_modes.items())


def read_again(deciding: Sequence[CensusLine], lines: Sequence[CensusLine], since: float) -> Iterator[ReportAfter]:
    """Yield every deciding line that read outside and was read again after the first change.

    Parameters
    ----------
    deciding
        As they stood before it.
    lines
        As they stand now.
    since
        Order of the first change.
    """
    now = {row.test.id: row for row in lines if row.test and row.answer and row.answer.reading.order > since}
    for row in deciding:
        again = now.get(row.test.id) if row.test else None
        if again is not None and again.test is not None and is_outside(row):
            yield ReportAfter(titled(row), row.reads, again.reads, again.test.window.shown)
