"""Values to text, with the prefix a technician would say and no more digits than were there."""

from __future__ import annotations

import math
from functools import lru_cache

from ohmcensus.core.quantity.indication import Bound, Indication
from ohmcensus.core.quantity.interval import Interval
from ohmcensus.core.quantity.unit import Unit

OVER_RANGE = "OL"
_MOST_DECIMALS = 6


@lru_cache(maxsize=4096)
def show_indication(indication: Indication) -> str:
    """Write an indication back with all the digits that were typed: "2.20 kΩ", "> 299 MΩ", "OL"."""
    if indication.has_moved:
        first, last = (show_indication(end) for end in indication.ends)
        figure, _, unit = first.partition(" ")
        return f"{figure} to {last}" if last.endswith(f" {unit}") else f"{first} to {last}"
    if indication.value is None:
        return OVER_RANGE
    factor, prefix = _prefix(indication.value, indication.unit)
    decimals = 0
    if indication.last_place > 0:
        decimals = min(_MOST_DECIMALS, max(0, -math.floor(math.log10(indication.last_place / factor) + 1e-9)))
    mark = {Bound.EXACT: "", Bound.ABOVE: "> ", Bound.BELOW: "< "}[indication.bound]
    return f"{mark}{_minus(f'{indication.value / factor:.{decimals}f}')} {prefix}{indication.unit.symbol}"


def show_value(value: float, unit: Unit, *, figures: int = 3) -> str:
    """Write a computed value (SI base) to so many significant figures: "25.2 Ω", "300 kΩ".

    Parameters
    ----------
    value, unit
        In SI.
    figures
        Significant ones.
    """
    factor, prefix = _prefix(float(f"{value:.{figures}g}"), unit)
    return f"{_trimmed(value / factor, figures)} {prefix}{unit.symbol}"


def show_range(interval: Interval, unit: Unit, *, figures: int = 3) -> str:
    """Write a range with one prefix: "25.2–29.4 Ω", "< 0.1 Ω", "> 300 kΩ"."""
    lo, hi = interval.finite_lo, interval.finite_hi
    if lo is None and hi is None:
        return "anything"
    if lo is None:
        return f"< {show_value(hi or 0.0, unit, figures=figures)}"
    if hi is None:
        return f"> {show_value(lo, unit, figures=figures)}"
    factor, prefix = _prefix(hi, unit)
    return f"{_trimmed(lo / factor, figures)}–{_trimmed(hi / factor, figures)} {prefix}{unit.symbol}"


def _prefix(value: float, unit: Unit) -> tuple[float, str]:
    """Return the largest printed prefix not above the value's size; none for zero."""
    shown = unit.notation.shown
    size = abs(value)
    if size == 0:
        return next(row for row in shown if not row[1])
    fitting = [row for row in shown if row[0] <= size * (1 + 1e-12)]
    return fitting[-1] if fitting else shown[0]


def _trimmed(number: float, figures: int) -> str:
    """Write a number to significant figures, without trailing zeros or an exponent."""
    if number == 0:
        return "0"
    decimals = max(0, figures - 1 - math.floor(math.log10(abs(number)) + 1e-12))
    text = f"{number:.{decimals}f}"
    return _minus(text.rstrip("0").rstrip(".") if "." in text else text)


def _minus(text: str) -> str:
    """Use the true minus sign in print."""
    return text.replace("-", "−")
