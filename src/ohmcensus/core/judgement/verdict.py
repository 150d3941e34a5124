"""What an interval says against a window."""

from __future__ import annotations

from enum import StrEnum

from ohmcensus.core.quantity import Bound, Indication, Interval, Unit

SHORT_FRACTION = 0.05


class Verdict(StrEnum):
    """Outcome of judging one reading."""

    INSIDE = "inside"
    OUTSIDE_LOW = "outside_low"
    OUTSIDE_HIGH = "outside_high"
    UNSURE = "unsure"
    OPEN = "open"
    SHORT = "short"
    NOT_JUDGED = "not_judged"

    @property
    def is_outside(self) -> bool:
        """Whether the reading is surely not that of a good part."""
        return self in {Verdict.OUTSIDE_LOW, Verdict.OUTSIDE_HIGH, Verdict.OPEN, Verdict.SHORT}


def verdict_of(indication: Indication, interval: Interval, window: Interval) -> Verdict:
    """Judge a reading with its meter's error.

    Parameters
    ----------
    indication
        As shown.
    interval
        All values it may stand for, in the same unit as ``window``.
    window
        Values that a good part reads.

    Returns
    -------
    Verdict
        *inside* only where the whole interval is (guarded acceptance); *open* for over-range where
        the window has an upper end; *short* where a whole interval in ohms is under 5 % of the lower end;
        *unsure* where the interval straddles an end. Plain over-range is inside wherever the window
        has no upper end.
    """
    if window.contains(interval) or (indication.is_over_range and window.finite_hi is None):
        return Verdict.INSIDE
    if interval.lo > window.hi:
        return Verdict.OPEN if indication.bound is Bound.ABOVE else Verdict.OUTSIDE_HIGH
    lower_end = window.finite_lo
    if lower_end is not None and interval.hi < lower_end:
        is_ohms = indication.unit is Unit.OHM
        is_short = is_ohms and lower_end > 0 and interval.hi < SHORT_FRACTION * lower_end
        return Verdict.SHORT if is_short else Verdict.OUTSIDE_LOW
    return Verdict.UNSURE
