"""The series that proves a machine dead, row by row: what was read, and which reading is due."""

from __future__ import annotations

from dataclasses import dataclass

from ohmcensus.core.event import CutOff
from ohmcensus.core.job.case import Case
from ohmcensus.core.job.reading import Reading
from ohmcensus.core.machine import dead_tests
from ohmcensus.core.machine.dead_tests import SOURCE, SOURCE_DC, SUPPLY_PAIRS
from ohmcensus.core.safety.series import is_dangerous, is_inside, wanted_points
from ohmcensus.core.safety.state import Safety
from ohmcensus.core.safety.words import SafetyState


@dataclass(frozen=True, slots=True)
class SeriesRow:
    """One reading of the series.

    Parameters
    ----------
    test, title
        Which test of the sheet, and what it is in the series.
    reading
        What stands, None while it was not read.
    is_good
        None while it was not read.
    is_due
        Whether it is the next one.
    """

    test: str
    title: str
    reading: Reading | None
    is_good: bool | None
    is_due: bool


def series_rows(case: Case, safety: Safety) -> tuple[SeriesRow, ...]:
    """Return the whole series: known source, every point, known source again; the first one missing is due."""
    titles = {test.id: test.title for test in dead_tests(case.sheet)}
    series = safety.walk.series
    wanted = wanted_points(case.sheet, is_short=series.is_short)
    after = safety.walk.proved if safety.state is SafetyState.DEAD else None
    rows: list[tuple[str, Reading | None, str]] = [(SOURCE, safety.source_before, "Known source, before")]
    rows += [(name, safety.points.get(name), titles[name]) for name in wanted]
    if any(is_dangerous(name, case.sheet) and name not in series.fell for name in wanted):
        direct = next((row for row in reversed(case.standing) if row.test == SOURCE_DC), None)
        is_shown = direct is not None and bool(series.direct)
        rows.append((SOURCE_DC, direct if is_shown else None, "Known DC source, a 9 V block"))
    rows.append((SOURCE, after, "Known source again"))
    is_due, found = safety.isolated, []
    for name, reading, title in rows:
        is_good = None if reading is None else is_inside(reading, case.sheet)
        found.append(SeriesRow(name, title, reading, is_good, is_due=is_due and is_good is not True))
        is_due = is_due and is_good is True
    return tuple(found)


def hand_rows(safety: Safety) -> tuple[SeriesRow, ...]:
    """Return the two readings that come first with the plug in the hand, none where it is not there."""
    if safety.cut is not CutOff.PLUG_IN_HAND:
        return ()
    has_source, is_proved = bool(safety.walk.hand_meter), safety.walk.is_hand_proved
    rows = ((SOURCE, has_source, "Known source"), (SUPPLY_PAIRS[0], is_proved, "No voltage between the plug's pins"))
    due = next((name for name, is_good, _ in rows if not is_good), "")
    return tuple(
        SeriesRow(name, title, None, is_good=True if is_good else None, is_due=name == due)
        for name, is_good, title in rows
    )
