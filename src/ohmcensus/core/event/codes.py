"""Listening to the machine: stored codes, service mode, its own test."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field, StrictBool, StringConstraints

from ohmcensus.core.codes import Outcome
from ohmcensus.core.event.record import Name, Record
from ohmcensus.core.event.safety import When


class CodesRead(Record):
    """Stored codes in the order in which they were shown; none where nothing is stored."""

    kind: Literal["codes_read"] = "codes_read"
    scheme: Name
    was: When | None = None
    codes: tuple[Annotated[str, StringConstraints(min_length=1, max_length=20)], ...] = Field(max_length=20)


class EntryTried(Record):
    """An attempt to enter a service mode."""

    kind: Literal["entry_tried"] = "entry_tried"
    sequence: Name
    is_in: StrictBool


class CycleBegun(Record):
    """An automatic test was started."""

    kind: Literal["cycle_begun"] = "cycle_begun"
    cycle: Name


class CycleTicked(Record):
    """A step of the running test passed, failed or did not happen."""

    kind: Literal["cycle_ticked"] = "cycle_ticked"
    cycle: Name
    step: Name
    outcome: Outcome
    was: When | None = None
