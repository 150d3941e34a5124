"""The end of a job."""

from __future__ import annotations

from enum import StrEnum
from typing import Literal

from pydantic import Field, StrictBool

from ohmcensus.core.event.record import Name, Record, Said


class LeftAs(StrEnum):
    """How a machine is left behind."""

    UNPLUGGED = "unplugged"
    LOCKED_OFF = "locked_off"
    CUSTOMER_REFUSED = "customer_refused"

    @property
    def words(self) -> str:
        """The same in words."""
        return {"unplugged": "unplugged", "locked_off": "locked off", "customer_refused": "the customer refused"}[
            self.value
        ]


class Ended(Record):
    """The job is over; a machine that is not safe is labelled so, and the customer told.

    Attributes
    ----------
    why
        How it ended.
    is_labelled_unsafe
        Whether the machine goes out with the unsafe label.
    left_as
        How the machine is left.
    not_tested
        Lines of the proof that were not shown, where the customer was told so: no label, and never the word safe.
    outlet_reported
        Whether the outlet has no earth, was reported, and the machine stays unplugged.
    """

    kind: Literal["ended"] = "ended"
    why: Said
    is_labelled_unsafe: StrictBool = False
    left_as: LeftAs = LeftAs.UNPLUGGED
    not_tested: tuple[Name, ...] = Field(default=(), max_length=20)
    outlet_reported: StrictBool = False


class Reopened(Record):
    """The job goes on after all."""

    kind: Literal["reopened"] = "reopened"
