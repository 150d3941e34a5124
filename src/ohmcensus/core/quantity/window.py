"""What a reading should be, and on what ground: the yardstick of every judgement."""

from __future__ import annotations

from dataclasses import dataclass
from enum import StrEnum
from functools import cached_property

from ohmcensus.core.quantity import Interval, Unit, show_range


class Source(StrEnum):
    """Where a window comes from, the strongest ground first."""

    SHEET = "sheet"
    PLATE = "plate"
    CENSUS = "census"
    COMMON = "common"


@dataclass(frozen=True)
class Rails:
    """What an output that toggles stands at, low and high; both are read while it is moved.

    Parameters
    ----------
    low, high
        Admitted values at either.
    may_rest
        Whether a meter may show a steady mean between the two, as on a line that talks all the time.
    """

    low: Interval
    high: Interval
    may_rest: bool = False


@dataclass(frozen=True)
class Window:
    """Values that a good part may read.

    Parameters
    ----------
    interval
        Admitted values, in the SI base of ``unit``.
    unit
        Unit of the interval.
    source
        Kind of ground.
    basis
        The ground in words, with its figures: "the plate: 2000 W at 230 V, +5/−10 %".
    nominal
        Most likely good value, None where there is none.
    words
        How the window is said where figures would mislead ("OL"); empty to say it in figures.
    others
        Further ranges that are as good, where the part comes in several types.
    rails
        For an output that toggles, None for everything else.
    """

    interval: Interval
    unit: Unit
    source: Source
    basis: str
    nominal: float | None = None
    words: str = ""
    others: tuple[Interval, ...] = ()
    rails: Rails | None = None

    @cached_property
    def shown(self) -> str:
        """The window as printed in a line of the census sheet."""
        return self.words or show_range(self.interval, self.unit)
