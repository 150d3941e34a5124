"""A closed range of the real line, either end of which may be unbounded."""

from __future__ import annotations

import math
from dataclasses import dataclass


@dataclass(frozen=True, slots=True)
class Interval:
    """All values from ``lo`` to ``hi``, ends included, in one SI unit.

    Parameters
    ----------
    lo, hi
        Ends; ``-inf`` and ``inf`` where unbounded.

    Raises
    ------
    ValueError
        If an end is not a number or ``lo`` lies above ``hi``; callers check what people type before.
    """

    lo: float = -math.inf
    hi: float = math.inf

    def __post_init__(self) -> None:
        """Refuse ends out of order, and what is no number."""
        if not self.lo <= self.hi:
            raise ValueError(self.lo, self.hi)

    def contains(self, other: Interval) -> bool:
        """Tell whether every value of the other lies in this one."""
        return self.lo <= other.lo and other.hi <= self.hi

    def scaled(self, factor: float) -> Interval:
        """Return the interval with both ends multiplied by a positive factor."""
        return Interval(self.lo * factor, self.hi * factor)

    @property
    def finite_lo(self) -> float | None:
        """The lower end, None where unbounded."""
        return self.lo if math.isfinite(self.lo) else None

    @property
    def finite_hi(self) -> float | None:
        """The upper end, None where unbounded."""
        return self.hi if math.isfinite(self.hi) else None
