"""A part that a job wants."""

from __future__ import annotations

from enum import StrEnum

from pydantic import BaseModel, ConfigDict, Field

from ohmcensus.core.event.record import Name
from ohmcensus.core.text.trimmed import Caption, Words
from ohmcensus.core.worth import Condition


class OrderState(StrEnum):
    """How far an order is."""

    WANTED = "wanted"
    ORDERED = "ordered"
    ARRIVED = "arrived"
    FITTED = "fitted"
    RETURNED = "returned"

    @property
    def words(self) -> str:
        """The state in words."""
        return _STATE_WORDS[self]


_STATE_WORDS = {
    OrderState.WANTED: "wanted, not ordered",
    OrderState.ORDERED: "ordered",
    OrderState.ARRIVED: "arrived",
    OrderState.FITTED: "fitted",
    OrderState.RETURNED: "sent back",
}


class PartOffer(BaseModel):
    """One place where it can be had.

    Attributes
    ----------
    source, condition
        Who sells it, and new or used.
    price, days
        In the currency of the firm; days until it is here.
    """

    model_config = ConfigDict(frozen=True, extra="forbid")

    source: Caption
    condition: Condition = Condition.NEW
    price: float = Field(ge=0, le=1e5, allow_inf_nan=False)
    days: float = Field(default=0.0, ge=0, le=365, allow_inf_nan=False)


class WantedPart(BaseModel):
    """A part for the exact type and variant.

    Attributes
    ----------
    part
        Part of the machine's sheet.
    type_number, variant
        Of the machine as its plate says; the form of the plug and whatever else tells variants apart.
    offers, chosen
        Where it can be had, and which of them was taken, counted from nought; None while none is.
    state
        How far the order is.
    words
        What there is to say.
    """

    model_config = ConfigDict(frozen=True, extra="forbid")

    part: Name
    type_number: Caption = ""
    variant: Caption = ""
    offers: tuple[PartOffer, ...] = Field(default=(), max_length=10)
    chosen: int | None = Field(default=None, ge=0, le=9, strict=True)
    state: OrderState = OrderState.WANTED
    words: Words = ""

    @property
    def taken(self) -> PartOffer | None:
        """The offer that was taken; the only one where there is just one."""
        if self.chosen is not None and self.chosen < len(self.offers):
            return self.offers[self.chosen]
        return self.offers[0] if len(self.offers) == 1 else None
