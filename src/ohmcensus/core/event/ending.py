"""The end of a job."""

from __future__ import annotations

from typing import Literal

from pydantic import StrictBool

from ohmcensus.core.event.record import Record, Said


class Ended(Record):
    """The job is over; a machine that is not safe is labelled so, and the customer told."""

    kind: Literal["ended"] = "ended"
    why: Said
    is_labelled_unsafe: StrictBool = False


class Reopened(Record):
    """The job goes on after all."""

    kind: Literal["reopened"] = "reopened"
