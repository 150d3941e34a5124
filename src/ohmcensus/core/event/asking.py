"""Questions that were not answered by a meter: left out, or answered by watching a run."""

from __future__ import annotations

from enum import StrEnum
from typing import Annotated, Literal, Self

from pydantic import Field, StrictBool, model_validator

from ohmcensus.core.event.record import Name, Record
from ohmcensus.core.event.safety import When


class WhySkipped(StrEnum):
    """Why a test was not made."""

    CANNOT_REACH = "cannot_reach"
    NO_METER = "no_meter"
    TRIPS = "trips"

    @property
    def words(self) -> str:
        """The reason in words."""
        return {"cannot_reach": "could not reach", "no_meter": "no such meter", "trips": "could not measure: it trips"}[
            self.value
        ]


class Skipped(Record):
    """A test was not made, and why; *it trips* is an outcome of its own."""

    kind: Literal["skipped"] = "skipped"
    test: Name
    why: WhySkipped


class HeatRise(Record):
    """How water warmed while the machine ran: litres in the tub, temperatures by thermometer, minutes of heating."""

    litres: Annotated[float, Field(gt=0, le=200, strict=True, allow_inf_nan=False)]
    from_celsius: Annotated[float, Field(ge=0, le=100, strict=True, allow_inf_nan=False)]
    to_celsius: Annotated[float, Field(ge=0, le=100, strict=True, allow_inf_nan=False)]
    minutes: Annotated[float, Field(gt=0, le=240, strict=True, allow_inf_nan=False)]

    @model_validator(mode="after")
    def _warms(self) -> Self:
        if not self.to_celsius > self.from_celsius:
            msg = f"from {self.from_celsius:g} to {self.to_celsius:g} °C is not a rise: swap them, or leave them out"
            raise ValueError(msg)
        return self


class RunWatched(Record):
    """The machine was run through its programme.

    Attributes
    ----------
    outcome
        The first step that failed, ``through`` or ``trips``.
    heat
        How the water warmed meanwhile, None where nobody timed it.
    was
        Whether it was now, or before the machine was cut off; said where it is cut off.
    guarded
        Whether it was the one run to dry or warm a part whose lines are unread: it lifts and proves nothing.
    on_gfci
        Whether it ran on a GFCI, one of the house or one that was brought along; None where nobody was asked.
    """

    kind: Literal["run_watched"] = "run_watched"
    outcome: Name
    heat: HeatRise | None = None
    was: When | None = None
    guarded: StrictBool = False
    on_gfci: StrictBool | None = None
