"""What was done last on a job and can be taken back, for the button that stands in every room."""

from __future__ import annotations

from typing import Literal

from pydantic import BaseModel

from ohmcensus.core.event import RunMade
from ohmcensus.core.job.case import Case
from ohmcensus.core.job.reading import Reading
from ohmcensus.core.job.record_words import record_words
from ohmcensus.core.judgement.passes import named_test
from ohmcensus.core.quantity import show_indication
from ohmcensus.core.safety.danger import title_of
from ohmcensus.core.safety.withdrawal import last_act


class UndoView(BaseModel):
    """What was done last.

    Attributes
    ----------
    id
        Its id, by which whoever did it knows it again.
    of
        Which way it is taken back.
    words
        What was done.
    """

    id: str
    of: Literal["reading", "leak_test", "record"]
    words: str


def undo_view(case: Case) -> UndoView | None:
    """Return what was done last, None where it cannot be taken back."""
    last = None if case.ended is not None else last_act(case)
    if last is None:
        return None
    if isinstance(last, Reading):
        test = named_test(last.test, case.terms) if last.test else None
        name = f"{test.part_title}, {test.title}" if test else title_of(" ".join(last.between), case.terms)
        return UndoView(id=last.id, of="reading", words=f"{name}: {show_indication(last.indication)}")
    of: Literal["leak_test", "record"] = "leak_test" if isinstance(last.body, RunMade) else "record"
    return UndoView(id=last.id, of=of, words=record_words(case, last.body))
