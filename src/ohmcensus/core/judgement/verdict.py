"""What an interval says against a window."""

from __future__ import annotations

import math
from enum import StrEnum

from ohmcensus.core.meter import Function
from ohmcensus.core.quantity import Indication, Interval, Unit
from ohmcensus.core.quantity.window import Rails, Window

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


def verdict_of(
    indication: Indication, interval: Interval, window: Interval, function: Function = Function.OHM
) -> Verdict:
    """Judge a reading with its meter's error.

    Parameters
    ----------
    indication
        As shown.
    interval
        All values it may stand for, in the same unit as ``window``.
    window
        Values that a good part reads.
    function
        What the meter did.

    Returns
    -------
    Verdict
        *inside* only where the whole interval is (guarded acceptance); *open* for over-range where the window has an
        upper end, in ohms, continuity and the diode test only: elsewhere over-range is *outside, high*; *short*
        where a whole interval in ohms is under 5 % of the lower end; *unsure* where the interval straddles an end.
        Plain over-range is inside wherever the window has no upper end.
    """
    if window.contains(interval) or (indication.is_over_range and window.finite_hi is None):
        return Verdict.INSIDE
    if interval.lo > window.hi:
        return Verdict.OPEN if math.isinf(interval.hi) and function.shows_open else Verdict.OUTSIDE_HIGH
    lower_end = window.finite_lo
    if lower_end is not None and interval.hi < lower_end:
        is_ohms = indication.unit is Unit.OHM
        is_short = is_ohms and lower_end > 0 and interval.hi < SHORT_FRACTION * lower_end
        return Verdict.SHORT if is_short else Verdict.OUTSIDE_LOW
    return Verdict.UNSURE


def verdict_in(indication: Indication, ends: tuple[Interval, Interval], window: Window, function: Function) -> Verdict:
    """Judge a reading against a whole window: a display that moved, an output that toggles, several types.

    Parameters
    ----------
    indication
        As shown.
    ends
        All values that either end of the display may stand for; twice the same where it stood still.
    window
        What a good part reads.
    function
        What the meter did.

    Returns
    -------
    Verdict
        Of a display that moved, that of the worse end. An output that toggles is inside where both its ends stand at
        their rails, and outside where it stands still at one while it should move.
    """
    if window.rails is not None:
        return _toggled(indication, ends, window.rails)
    shown = indication.ends
    found = [_nearest(each, end, window, function) for each, end in zip(shown, ends, strict=True)]
    return next((each for each in found if each.is_outside), found[0] if found[0] is Verdict.UNSURE else found[1])


def _nearest(indication: Indication, interval: Interval, window: Window, function: Function) -> Verdict:
    """Return the verdict against the range that suits best, where a window has several."""
    found = [verdict_of(indication, interval, span, function) for span in (window.interval, *window.others)]
    return min(found, key=_badness)


def _badness(verdict: Verdict) -> int:
    return 0 if verdict is Verdict.INSIDE else 1 if verdict is Verdict.UNSURE else 2


def _toggled(indication: Indication, ends: tuple[Interval, Interval], rails: Rails) -> Verdict:
    """Judge an output that should toggle."""
    low, high = sorted(ends, key=lambda end: end.lo)
    if indication.has_moved:
        if high.lo > rails.high.hi:
            return Verdict.OUTSIDE_HIGH
        if rails.may_rest:
            return Verdict.INSIDE
        found = (verdict_of(indication, low, rails.low), verdict_of(indication, high, rails.high))
        return next((each for each in found if each is not Verdict.INSIDE), Verdict.INSIDE)
    if low.lo > rails.high.hi or rails.high.contains(low):
        return Verdict.OUTSIDE_HIGH
    if rails.low.contains(low):
        return Verdict.OUTSIDE_LOW
    between = Interval(rails.low.hi, rails.high.lo)
    return Verdict.INSIDE if rails.may_rest and between.contains(low) else Verdict.UNSURE
