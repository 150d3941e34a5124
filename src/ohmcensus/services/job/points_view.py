"""Readings of a proof, one after the other: the whole series, and the two that come first with the plug in the hand."""

from __future__ import annotations

from pydantic import BaseModel

from ohmcensus.core.event import CutOff
from ohmcensus.core.job.case import Case
from ohmcensus.core.job.reading import Reading
from ohmcensus.core.machine import dead_tests
from ohmcensus.core.machine.dead_tests import SOURCE, SOURCE_DC, SUPPLY_PAIRS
from ohmcensus.core.quantity import show_indication
from ohmcensus.core.safety import Safety, SafetyState
from ohmcensus.core.safety.series import is_dangerous, is_inside, wanted_points


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
    tests = {test.id: test for test in dead_tests(case.sheet)}
    series = safety.walk.series
    wanted = wanted_points(case.sheet, is_short=series.is_short)
    after = safety.walk.proved if safety.state is SafetyState.DEAD else None
    rows: list[tuple[str, Reading | None, str]] = [(SOURCE, safety.source_before, "Known source, before")]
    rows += [(name, safety.points.get(name), tests[name].title) for name in wanted]
    if any(is_dangerous(name, case.sheet) and name not in series.fell for name in wanted):
        direct = next((row for row in reversed(case.standing) if row.test == SOURCE_DC), None)
        is_shown = direct is not None and bool(series.direct)
        rows.append((SOURCE_DC, direct if is_shown else None, "Known DC source, a 9 V block"))
    rows.append((SOURCE, after, "Known source again"))
    is_due, found = safety.isolated, []
    for name, reading, title in rows:
        is_good = None if reading is None else is_inside(reading, case.sheet)
        found.append(
            PointView(
                id=name,
                typed=f"{tests[name].part} {tests[name].name} ",
                title=title,
                between=[] if name.startswith("source") else [case.sheet.points.get(p, p) for p in tests[name].between],
                limit=tests[name].window.shown,
                reads=show_indication(reading.indication) if reading else "",
                is_good=is_good,
                is_next=is_due and is_good is not True,
            )
        )
        is_due = is_due and is_good is True
    return found


def hand_points(case: Case, safety: Safety) -> list[PointView]:
    """Return the two readings that come first with the plug in the hand, empty where it is not there."""
    if safety.cut is not CutOff.PLUG_IN_HAND:
        return []
    tests = {test.id: test for test in dead_tests(case.sheet)}
    has_source, is_proved = bool(safety.walk.hand_meter), safety.walk.is_hand_proved
    rows = ((SOURCE, has_source, "Known source"), (SUPPLY_PAIRS[0], is_proved, "No voltage between the plug's pins"))
    due = next((name for name, is_good, _ in rows if not is_good), "")
    return [
        PointView(
            id=name,
            typed=f"{tests[name].part} {tests[name].name} ",
            title=title,
            between=[] if name == SOURCE else ["plug, line pin", "plug, neutral pin"],
            limit=tests[name].window.shown,
            reads="shown" if is_good else "",
            is_good=True if is_good else None,
            is_next=name == due,
        )
        for name, is_good, title in rows
    ]
