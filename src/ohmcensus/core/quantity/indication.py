"""One value as a meter shows it: an exact figure, or a one-sided fact such as OL or ">299 MΩ"."""

from __future__ import annotations

from dataclasses import dataclass
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
    """

    value: float | None
    unit: Unit
    bound: Bound = Bound.EXACT
    last_place: float = 0.0

    @property
    def is_over_range(self) -> bool:
        """Whether the display showed over-range without a figure."""
        return self.value is None
