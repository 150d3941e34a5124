"""Tables of the job sheet: readings, leak tests, before and after, the proof, what it costs."""

from __future__ import annotations

from typing import Any

from reportlab.platypus import Table

from ohmcensus.exchange.paper.style import INK, OUTSIDE, QUIET, SMALL, WIDTH, lined, style, words
from ohmcensus.exchange.report import ReportAfter, ReportLeakTest, ReportProof, ReportReading

SMALLEST_PRINT = 6.5


def readings(rows: tuple[ReportReading, ...], size: float = 9.5) -> Table:
    """Return readings with what they should read."""
    head = [words(name, style(9, colour=QUIET)) for name in ("What", "Reads", "Should read", "Says")]
    body = [
        [
            words(row.what, style(size)),
            words(row.reads, style(size, bold=True)),
            words(row.should, style(size)),
            words(row.verdict, style(size, colour=OUTSIDE if row.is_outside else INK)),
        ]
        for row in rows
    ]
    widths = [WIDTH * share for share in (0.38, 0.19, 0.23, 0.20)]
    return Table([head, *body], colWidths=widths, repeatRows=1, style=lined(_padding(size)), hAlign="LEFT")


def two_columns(rows: tuple[ReportReading, ...], size: float) -> Table:
    """Return many readings side by side, in small print, so that a sheet keeps to its pages."""
    half = (len(rows) + 1) // 2
    blank = [""] * 4
    head = [words(name, style(8, colour=QUIET)) for name in ("What", "Reads", "Should be", "Says")]
    sides = [[_small(row, size) for row in part] for part in (rows[:half], rows[half:])]
    body = [[*left, "", *(sides[1][at] if at < len(sides[1]) else blank)] for at, left in enumerate(sides[0])]
    widths = [WIDTH * share for share in (0.257, 0.08, 0.092, 0.066)]
    columns = [*widths, WIDTH * 0.01, *widths]
    looks = lined(padding=2.0 if size > SMALLEST_PRINT else 0.3)
    return Table([[*head, "", *head], *body], colWidths=columns, repeatRows=1, style=looks, hAlign="LEFT")


def _small(row: ReportReading, size: float) -> list[Any]:
    return [
        words(row.what, style(size)),
        words(row.reads, style(size, bold=True)),
        words(row.should, style(size)),
        words(row.verdict, style(size, colour=OUTSIDE if row.is_outside else INK)),
    ]


def leak_tests(rows: tuple[ReportLeakTest, ...], zone: str) -> Table:
    """Return the tests that isolated a leak."""
    head = [words(name, style(9, colour=QUIET)) for name in (f"When, {zone}", "Connected", "Reads", "Proves")]
    body = [
        [
            words(row.at, style(9.5, colour=QUIET)),
            words(row.connected, style(9.5)),
            words(row.reads, style(9.5, bold=True)),
            words(row.proved, style(9.5)),
        ]
        for row in rows
    ]
    widths = [WIDTH * share for share in (0.11, 0.35, 0.14, 0.40)]
    return Table([head, *body], colWidths=widths, repeatRows=1, style=lined(), hAlign="LEFT")


def read_again(rows: tuple[ReportAfter, ...], size: float = 9.5) -> Table:
    """Return what read outside beside what the same test reads since the change."""
    head = [words(name, style(9, colour=QUIET)) for name in ("What", "Before", "After", "Should read")]
    body = [
        [
            words(row.what, style(size)),
            words(row.before, style(size, colour=OUTSIDE)),
            words(row.after, style(size, bold=True)),
            words(row.should, style(size)),
        ]
        for row in rows
    ]
    widths = [WIDTH * share for share in (0.40, 0.18, 0.18, 0.24)]
    return Table([head, *body], colWidths=widths, repeatRows=1, style=lined(_padding(size)), hAlign="LEFT")


def proofs(rows: tuple[ReportProof, ...], size: float = 9.5) -> Table:
    """Return the proof, a criterion a row."""
    head = [words(name, style(9, colour=QUIET)) for name in ("Shown", "Limit", "Before", "Reads", "Says", "By")]
    body = [
        [
            words(row.what, style(size)),
            words(row.limit, style(size)),
            words(row.before, style(size, colour=QUIET)),
            words(row.reads, style(size, bold=True)),
            words(row.state, style(size, colour=INK if row.state == "good" else OUTSIDE)),
            words(row.shown_by, style(size - 1, colour=QUIET)),
        ]
        for row in rows
    ]
    widths = [WIDTH * share for share in (0.23, 0.15, 0.16, 0.12, 0.11, 0.23)]
    return Table([head, *body], colWidths=widths, repeatRows=1, style=lined(_padding(size)), hAlign="LEFT")


def _padding(size: float) -> float:
    """Return the padding of a table whose print has a size, in points."""
    return 2.0 if size > SMALL else 0.8


def costs(rows: tuple[tuple[str, str], ...]) -> Table:
    """Return the costs, amounts to the right, the total in bold."""
    last = len(rows) - 1
    body = [
        [words(name, style(bold=at == last)), words(amount, style(bold=at == last, right=True))]
        for at, (name, amount) in enumerate(rows)
    ]
    return Table(body, colWidths=[WIDTH * 0.75, WIDTH * 0.25], style=lined(), hAlign="LEFT")
