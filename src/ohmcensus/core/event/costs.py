"""What a job costs."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from ohmcensus.core.event.record import Record, Said
from ohmcensus.core.text.trimmed import Trimmed

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
    currency, tax_name, tax_percent
        What the amounts are in, and the tax that comes on top of them, as the firm had them that day.
    """

    kind: Literal["costs_noted"] = "costs_noted"
    minutes: Annotated[float, Field(ge=0, le=6000, strict=True, allow_inf_nan=False)]
    hour: Amount
    call_out: Amount
    lines: tuple[CostLine, ...] = Field(default=(), max_length=40)
    currency: Annotated[str, Trimmed(6)] = ""
    tax_name: Annotated[str, Trimmed(20)] = ""
    tax_percent: Annotated[float, Field(ge=0, le=60, strict=True, allow_inf_nan=False)] = 0.0

    @property
    def work(self) -> float:
        """What the work comes to, to the cent."""
        return round(self.minutes / 60 * self.hour, 2)

    @property
    def net(self) -> float:
        """All of it before tax, to the cent."""
        return round(self.work + self.call_out + sum(line.amount for line in self.lines), 2)

    @property
    def tax(self) -> float:
        """The tax on it, to the cent."""
        return round(self.net * self.tax_percent / 100, 2)

    @property
    def total(self) -> float:
        """All of it with tax, to the cent."""
        return round(self.net + self.tax, 2)
