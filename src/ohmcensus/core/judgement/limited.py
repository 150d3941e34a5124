"""Insulation tests held to the limits that the firm has chosen."""

from __future__ import annotations

from dataclasses import replace

from ohmcensus.core.limits import LimitProfile
from ohmcensus.core.machine import MachineTest
from ohmcensus.core.meter import Function
from ohmcensus.core.quantity import Interval, Unit, show_value
from ohmcensus.core.sheet import Sheet
from ohmcensus.core.window import Source, Window

OHM_PER_MEGOHM = 1e6


def limited(test: MachineTest, sheet: Sheet, limits: LimitProfile) -> MachineTest:
    """Return a test with the profile's limit in its window, where it is an insulation test.

    A figure of the sheet's own stands; so does a window that already ends at the limit.
    """
    if test.function is not Function.INSULATION or test.window.source is not Source.COMMON:
        return test
    part = sheet.part(test.part)
    assert part is not None  # noqa: S101 - a test of the sheet names a part of the sheet
    least = limits.least_megohm(part.kind, sheet.protection_class) * OHM_PER_MEGOHM
    if least == test.window.interval.lo:
        return test
    basis = f"{limits.title}: at least {show_value(least, Unit.OHM, figures=2)}; a good one reads over 20 MΩ"
    return replace(test, window=Window(Interval(least), Unit.OHM, Source.COMMON, basis))
