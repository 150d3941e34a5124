"""Questions that were not answered by a meter: left out, or answered by watching a run."""

from __future__ import annotations

from enum import StrEnum
from typing import Literal

from ohmcensus.core.event.record import Name, Record


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


class RunWatched(Record):
    """The machine was run through its programme: the first step that failed, ``through`` or ``trips``."""

    kind: Literal["run_watched"] = "run_watched"
    outcome: Name
