"""The short ruler of one line: its window in the middle, its reading beside or in it."""

from __future__ import annotations

from dataclasses import dataclass

from ohmcensus.core.quantity import Interval, show_value
from ohmcensus.core.quantity.window import Window


@dataclass(frozen=True, slots=True)
class ShortRuler:
    """Positions as fractions of the width, and the two labels under the window's ends.

    ``pin`` and the reading's ``lo`` and ``hi`` are None while there is no reading. An end of the
    window that is unbounded stands at the ruler's own end and has an empty label.
    """

    window_lo: float
    window_hi: float
    label_lo: str
    label_hi: str
    lo: float | None = None
    hi: float | None = None
    pin: float | None = None


def short_ruler(window: Window, reading: Interval | None, value: float | None) -> ShortRuler:
    """Lay out one line's ruler, linear, in the unit of its window.

    Parameters
    ----------
    window
        What it should read.
    reading
        All values that the reading may stand for, None where there is none.
    value
        The figure shown, None for over-range.
    """
    lo, hi = window.interval.finite_lo, window.interval.finite_hi
    left, right = (lo or 0.0), (hi if hi is not None else 2 * (lo or 0.5))
    margin = 0.5 * ((right - left) or 1.0)
    start, end = max(0.0, left - margin) if lo is not None and left >= 0 else left - margin, right + margin

    def place(number: float) -> float:
        return min(1.0, max(0.0, (number - start) / (end - start)))

    return ShortRuler(
        window_lo=0.0 if lo is None else place(lo),
        window_hi=1.0 if hi is None else place(hi),
        label_lo="" if lo is None else show_value(lo, window.unit),
        label_hi="" if hi is None else show_value(hi, window.unit),
        lo=None if reading is None else place(reading.lo),
        hi=None if reading is None else place(reading.hi),
        pin=None if reading is None else place(value if value is not None else reading.hi),
    )
