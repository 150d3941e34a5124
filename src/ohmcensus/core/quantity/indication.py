"""One value as a meter shows it: an exact figure, or a one-sided fact such as OL or ">299 MΩ"."""

from __future__ import annotations

import math
from dataclasses import dataclass, replace
from enum import StrEnum

from ohmcensus.core.quantity.unit import Unit


class Bound(StrEnum):
    """What the shown figure says of the value."""

    EXACT = "exact"
    ABOVE = "above"
    BELOW = "below"


@dataclass(frozen=True, slots=True)
class Indication:
    """What the display said (an *indication* in the vocabulary of metrology).

    Parameters
    ----------
    value
        In the unit's SI base, None where the display gives no figure (OL).
    unit
        Unit of ``value``.
    bound
        Whether the true value is near, above or below the figure.
    last_place
        Weight of the last digit typed, in the SI base; 0 where there is no figure.
    until
        Where the display moved: its other end, in the SI base, infinite for over-range; None where it stood still.
    """

    value: float | None
    unit: Unit
    bound: Bound = Bound.EXACT
    last_place: float = 0.0
    until: float | None = None

    @property
    def is_over_range(self) -> bool:
        """Whether the display showed over-range without a figure."""
        return self.value is None

    @property
    def has_moved(self) -> bool:
        """Whether the display moved from one value to another."""
        return self.until is not None

    @property
    def ends(self) -> tuple[Indication, Indication]:
        """Both ends of a display that moved, as it showed them; the same one twice where it stood still."""
        if self.until is None:
            return self, self
        is_over = math.isinf(self.until)
        last = replace(self, value=None if is_over else self.until, bound=Bound.ABOVE if is_over else Bound.EXACT)
        return replace(self, until=None), replace(last, until=None)
