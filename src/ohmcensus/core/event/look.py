"""Checks by eye and hand."""

from __future__ import annotations

from enum import StrEnum
from typing import Literal

from ohmcensus.core.event.record import Name, Record
from ohmcensus.core.text.trimmed import Words


class CheckOutcome(StrEnum):
    """What a look or a touch found."""

    GOOD = "good"
    BAD = "bad"
    NOT_SEEN = "not_seen"


class Checked(Record):
    """A check by eye or hand."""

    kind: Literal["checked"] = "checked"
    check: Name
    outcome: CheckOutcome
    words: Words = ""
