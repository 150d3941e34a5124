"""Places of proved brackets: a bar from the lower to the upper bound of a leak, on one logarithmic scale."""

from __future__ import annotations

import math
from dataclasses import dataclass

from ohmcensus.core.quantity import Interval

# Ends of the scale by multiples of the limit (ours): what lies beyond stands at the end.
LOWEST, HIGHEST = 1e-3, 1e3


@dataclass(frozen=True, slots=True)
class Bracket:
    """A proved bracket as fractions of the width; the limit stands in the middle.

    Parameters
    ----------
    lo, hi
        Ends of the bar.
    is_open_above
        Nothing bounds it from above: the bar runs to the end without a mark.
    """

    lo: float
    hi: float
    is_open_above: bool


def bracket(bounds: Interval, limit: float) -> Bracket:
    """Lay out the bracket of one part against its limit."""
    return Bracket(_place(bounds.lo / limit), _place(bounds.hi / limit), math.isinf(bounds.hi))


def _place(multiple: float) -> float:
    if multiple <= LOWEST:
        return 0.0
    if multiple >= HIGHEST:
        return 1.0
    return math.log(multiple / LOWEST) / math.log(HIGHEST / LOWEST)
