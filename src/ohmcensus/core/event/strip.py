"""The strip-down: what came off, with what held it, and what is back."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from ohmcensus.core.event.record import Name, Record, RowId, Said, Words

Count = Annotated[int, Field(ge=0, le=200, strict=True)]


class StripStep(Record):
    """One thing came off.

    Attributes
    ----------
    words
        What was done: "back panel off".
    fasteners, head, size, kept
        How many held it, of what head and size (mm or inch), and where they are kept.
    panel
        Cover of the sheet that is off by it, empty where it is none.
    plugs
        Plugs of the sheet that were pulled.
    """

    kind: Literal["strip_step"] = "strip_step"
    words: Said
    fasteners: Count = 0
    head: Words = ""
    size: Words = ""
    kept: Words = ""
    panel: Name | Literal[""] = ""
    plugs: tuple[Name, ...] = Field(default=(), max_length=40)


class StripBack(Record):
    """Something is back: with so many of its fasteners, and its plugs."""

    kind: Literal["strip_back"] = "strip_back"
    step: RowId
    fasteners: Count = 0
    plugs: tuple[Name, ...] = Field(default=(), max_length=40)
