"""Readings of a proof, one after the other: the whole series, and the two that come first with the plug in the hand."""

from __future__ import annotations

from pydantic import BaseModel

from ohmcensus.core.job.case import Case
from ohmcensus.core.machine import MachineTest, dead_tests
from ohmcensus.core.machine.dead_tests import SOURCE
from ohmcensus.core.quantity import show_indication
from ohmcensus.core.safety import Safety
from ohmcensus.core.safety.series_rows import SeriesRow, hand_rows, series_rows


class PointView(BaseModel):
    """A reading of the proof: what to type, between what, and what stands.

    ``is_good`` is None while it was not read; ``is_next`` marks the one that is due.
    """

    id: str
    typed: str
    title: str
    between: list[str]
    limit: str
    reads: str
    is_good: bool | None
    is_next: bool


def series_points(case: Case, safety: Safety) -> list[PointView]:
    """Return the series: known source, every point, known source again; the first one missing is next."""
    tests, points = {test.id: test for test in dead_tests(case.sheet)}, case.sheet.points
    return [
        _point(
            row,
            tests[row.test],
            [] if row.test.startswith("source") else [points.get(p, p) for p in tests[row.test].between],
            show_indication(row.reading.indication) if row.reading else "",
        )
        for row in series_rows(case, safety)
    ]


def hand_points(case: Case, safety: Safety) -> list[PointView]:
    """Return the two readings that come first with the plug in the hand, empty where it is not there."""
    tests = {test.id: test for test in dead_tests(case.sheet)}
    return [
        _point(
            row,
            tests[row.test],
            [] if row.test == SOURCE else ["plug, line pin", "plug, neutral pin"],
            "shown" if row.is_good else "",
        )
        for row in hand_rows(safety)
    ]


def _point(row: SeriesRow, test: MachineTest, between: list[str], reads: str) -> PointView:
    return PointView(
        id=row.test,
        typed=f"{test.part} {test.name} ",
        title=row.title,
        between=between,
        limit=test.window.shown,
        reads=reads,
        is_good=row.is_good,
        is_next=row.is_due,
    )
