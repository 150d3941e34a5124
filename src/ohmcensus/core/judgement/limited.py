"""Insulation and the protective conductor held to the limits that the firm has chosen."""

from __future__ import annotations

import math
from dataclasses import replace

from ohmcensus.core.limits import LimitProfile
from ohmcensus.core.machine import MachineTest
from ohmcensus.core.meter import Function
from ohmcensus.core.parts.kind import Proves
from ohmcensus.core.quantity import Interval, Unit, show_value
from ohmcensus.core.sheet import Sheet
from ohmcensus.core.window import Source, Window

OHM_PER_MEGOHM = 1e6


def limited(test: MachineTest, sheet: Sheet, limits: LimitProfile) -> MachineTest:
    """Return a test with the profile's limit in its window, where it is an insulation test.

    A figure of the sheet's own stands; so does a window that already ends at the limit.
    """
    if test.proves is Proves.EARTH:
        return _earth_limited(test, limits)
    if test.function is not Function.INSULATION or test.window.source is not Source.COMMON:
        return test
    part = sheet.part(test.part)
    assert part is not None  # noqa: S101 - a test of the sheet names a part of the sheet
    least = limits.least_megohm(part.kind, sheet.protection_class) * OHM_PER_MEGOHM
    if least == test.window.interval.lo:
        return test
    basis = f"{limits.title}: at least {show_value(least, Unit.OHM, figures=2)}; a good one reads over 20 MΩ"
    return replace(test, window=Window(Interval(least), Unit.OHM, Source.COMMON, basis))


def _earth_limited(test: MachineTest, limits: LimitProfile) -> MachineTest:
    """Return the protective conductor's test with the profile's limit, where it has one of its own."""
    if limits.earth_ohm is None or test.window.source is Source.SHEET:
        return test
    cord = test.window.nominal or 0.0
    most = limits.earth_ohm + (cord if limits.is_cord_added else 0.0)
    on_top = f", {limits.earth_ohm:g} Ω and the cord's {cord:.3f} Ω" if limits.is_cord_added else ""
    basis = f"{limits.title}: at most {show_value(most, Unit.OHM, figures=2)}{on_top}"
    window = Window(Interval(-math.inf, most), Unit.OHM, test.window.source, basis, nominal=test.window.nominal)
    return replace(test, window=window)
