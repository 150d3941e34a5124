"""What a job costs."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from ohmcensus.core.event.record import Record, Said

Amount = Annotated[float, Field(ge=0, le=1e5, strict=True, allow_inf_nan=False)]


class CostLine(Record):
    """One part or other thing that is charged, in the currency of the firm."""

    words: Said
    amount: Amount


class CostsNoted(Record):
    """What is charged for a job; the newest record stands.

    Attributes
    ----------
    minutes, hour
        Work, and the price of an hour of it.
    call_out
        Price of the visit.
    lines
        Parts and whatever else.
    """

    kind: Literal["costs_noted"] = "costs_noted"
    minutes: Annotated[float, Field(ge=0, le=6000, strict=True, allow_inf_nan=False)]
    hour: Amount
    call_out: Amount
    lines: tuple[CostLine, ...] = Field(default=(), max_length=40)

    @property
    def work(self) -> float:
        """What the work comes to, to the cent."""
        return round(self.minutes / 60 * self.hour, 2)

    @property
    def total(self) -> float:
        """All of it, to the cent."""
        return round(self.work + self.call_out + sum(line.amount for line in self.lines), 2)
