"""The series that proves a machine dead: which meter showed its source, and which points it read in between.

EN 50110-1 and EN 61243-3 from memory: the meter is proved before and after, on the kind of voltage that it is to find.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field, replace
from datetime import datetime, timedelta
from functools import lru_cache

from ohmcensus.core.job.reading import Reading
from ohmcensus.core.machine import MachineTest, dead_tests
from ohmcensus.core.machine.dead_tests import SOURCE_DC, SUPPLY_PAIRS, charges_by_point, points
from ohmcensus.core.machine.discharge import discharge_of
from ohmcensus.core.meter import Function
from ohmcensus.core.quantity import Bound, Interval
from ohmcensus.core.sheet import Sheet

# A discharged capacitor creeps back: only a reading a minute later counts (common practice).
CREEPS_BACK = timedelta(minutes=1)
# Two-pole testers light a lamp from their lowest step on; this step and "none" will do (SAFETY).
LOWEST_STEP_V = 12.0


@dataclass(frozen=True, slots=True)
class Tool:
    """A meter in a series: its source before the first point, whether it was shown again after the last one."""

    before: Reading
    is_shown_again: bool = False


@dataclass(frozen=True, slots=True)
class Series:
    """How far a series has come.

    Parameters
    ----------
    tools
        Meters by id that showed their known source.
    points
        Last reading of each point that counts.
    direct
        Meters that showed a known DC source.
    fell
        Charges that were read over their limit and lower since: the meter that saw it can read DC.
    is_short
        Whether a machine that stayed cut off after a lapse is proved again: the charges but the link are left out.
    """

    tools: Mapping[str, Tool] = field(default_factory=dict)
    points: Mapping[str, Reading] = field(default_factory=dict)
    direct: frozenset[str] = frozenset()
    fell: frozenset[str] = frozenset()
    is_short: bool = False

    def after_source(self, reading: Reading, sheet: Sheet) -> Series:
        """Return the series after a known source was shown, or was not."""
        meter = reading.meter.id
        if not is_inside(reading, sheet):
            own = {name: row for name, row in self.points.items() if row.meter.id != meter}
            tools = {name: tool for name, tool in self.tools.items() if name != meter}
            return replace(self, tools=tools, points=own)
        if reading.test == SOURCE_DC:
            return replace(self, direct=self.direct | {meter})
        known = self.tools.get(meter)
        has_read = any(row.meter.id == meter for row in self.points.values())
        tool = replace(known, is_shown_again=True) if known and has_read else Tool(reading)
        return replace(self, tools={**self.tools, meter: tool})

    def after_point(self, reading: Reading) -> Series:
        """Return the series after a point was read; only a meter that showed its source counts."""
        known = self.tools.get(reading.meter.id)
        if known is None or reading.test is None:
            return self
        tools = {**self.tools, reading.meter.id: replace(known, is_shown_again=False)}
        return replace(self, tools=tools, points={**self.points, reading.test: reading})

    def is_whole(self, sheet: Sheet) -> bool:
        """Tell whether every point reads dead, each proved by a meter that showed its source before and after."""
        if not self.holds_all(sheet):
            return False
        wanted = wanted_points(sheet, is_short=self.is_short)
        pairs = {self.points[name].meter.id for name in SUPPLY_PAIRS}
        charges = {self.points[name].meter.id for name in wanted if name not in SUPPLY_PAIRS}
        if len(pairs) > 1 or len(charges) > 1:
            return False
        shown = all(self.tools[name].is_shown_again for name in pairs | charges if name in self.tools)
        return shown and (pairs | charges) <= self.tools.keys()

    def holds_all(self, sheet: Sheet) -> bool:
        """Tell whether every point of a sheet was read dead in this series, those that can hurt by a proper source."""
        wanted = wanted_points(sheet, is_short=self.is_short)
        is_read = all(name in self.points and is_inside(self.points[name], sheet) for name in wanted)
        return is_read and not self.unproved_direct(sheet)

    def unproved_direct(self, sheet: Sheet) -> tuple[str, ...]:
        """Return the points whose charge can hurt and whose meter showed no DC source in this series."""
        return tuple(
            name
            for name in wanted_points(sheet, is_short=self.is_short)
            if is_dangerous(name, sheet)
            and name in self.points
            and self.points[name].meter.id not in self.direct
            and name not in self.fell
        )


def wanted_points(sheet: Sheet, *, is_short: bool) -> tuple[str, ...]:
    """Return the points of a series, in order."""
    charges = charges_by_point(sheet)
    return tuple(
        test.id
        for test in points(sheet)
        if test.id in SUPPLY_PAIRS or not is_short or (test.id in charges and charges[test.id].is_link)
    )


@lru_cache(maxsize=256)
def is_dangerous(point: str, sheet: Sheet) -> bool:
    """Tell whether the charge behind a point of the proof can hurt."""
    charge = charges_by_point(sheet).get(point)
    return charge is not None and discharge_of(charge).is_dangerous


def is_inside(reading: Reading, sheet: Sheet) -> bool:
    """Tell whether a reading of the proof lies inside its limit with its meter's whole error."""
    test = _by_id(sheet).get(reading.test or "")
    if test is None or reading.function is not test.function:
        return False
    if is_no_lamp(reading):
        return True
    return test.window.interval.contains(interval_of(reading))


def interval_of(reading: Reading) -> Interval:
    """Return all values that a reading may stand for."""
    return reading.meter.interval_of(reading.indication, reading.function)


def is_no_lamp(reading: Reading) -> bool:
    """Tell whether a two-pole tester lit no lamp at a pair of supply terminals."""
    step = reading.meter.lowest_step_v
    is_none = reading.indication.bound is Bound.BELOW and reading.indication.value == step
    return step is not None and step <= LOWEST_STEP_V and is_none and reading.test in SUPPLY_PAIRS


def is_over(reading: Reading, sheet: Sheet) -> bool:
    """Tell whether a point surely shows voltage: over its limit with the meter's whole error."""
    test = _by_id(sheet).get(reading.test or "")
    if test is None or test.part == "source" or is_no_lamp(reading):
        return False
    interval, limit = interval_of(reading), test.window.interval
    return interval.lo > limit.hi or interval.hi < limit.lo


def is_charged(reading: Reading, sheet: Sheet) -> bool:
    """Tell whether a DC point shows more than may be left, however little more."""
    test = _by_id(sheet).get(reading.test or "")
    value = reading.indication.value
    is_point = test is not None and test.part != "source" and reading.function is Function.VOLTS_DC
    return is_point and test is not None and (value is None or abs(value) > test.window.interval.hi)


@lru_cache(maxsize=64)
def _by_id(sheet: Sheet) -> dict[str, MachineTest]:
    return {test.id: test for test in dead_tests(sheet)}


def is_a_minute_later(at: str, since: datetime) -> bool:
    """Tell whether a moment lies far enough behind another for a charge to have crept back."""
    return datetime.fromisoformat(at) - since >= CREEPS_BACK
