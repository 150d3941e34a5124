"""The way back, as it is shown."""

from __future__ import annotations

from collections.abc import Sequence

from pydantic import BaseModel

from ohmcensus.core.course.way_back import BackKind, BackRow, next_back
from ohmcensus.core.event import Shut, StripBack


class BackView(BaseModel):
    """One row of the way back.

    Attributes
    ----------
    kind
        Whether a new piece is read, something goes back, or the machine is read.
    words, detail
        What it is, and more on it: what it reads, what held it.
    is_done, is_next
        Whether it is done, and whether it is the next one.
    test, part
        What is read, and on which part; empty where nothing is.
    step, panel
        The record that goes back, or the cover that is shut; each empty where it is none.
    """

    kind: BackKind
    words: str
    detail: str
    is_done: bool
    is_next: bool
    test: str
    part: str
    step: str
    panel: str


def way_back_view(rows: Sequence[BackRow]) -> list[BackView]:
    """Return the way back in print."""
    due = next_back(rows)
    return [
        BackView(
            kind=row.kind,
            words=row.words,
            detail=row.detail,
            is_done=row.is_done,
            is_next=row is due,
            test=row.test,
            part=row.part,
            step=row.do.step if isinstance(row.do, StripBack) else "",
            panel=row.do.panel if isinstance(row.do, Shut) else "",
        )
        for row in rows
    ]
