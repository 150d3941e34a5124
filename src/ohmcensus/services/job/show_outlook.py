"""How far the search of a job is, who is named and what to do next: what every room of it ends with."""

from __future__ import annotations

from pydantic import BaseModel

from ohmcensus.core.diagnosis.conclusion import Standing
from ohmcensus.services.at_hand.choice import Choice
from ohmcensus.services.at_hand.context import Context
from ohmcensus.services.at_hand.job import take
from ohmcensus.services.at_hand.outcome_tables import is_being_worked_out
from ohmcensus.services.at_hand.outlook import outlook_of
from ohmcensus.services.job.undo import UndoView, undo_view
from ohmcensus.services.job.view import NextView, next_view


class OutlookView(BaseModel):
    """What a job comes to.

    Attributes
    ----------
    standing, named, sentence
        How far the search is, who is named, and both in words.
    next_step
        The one thing to do next.
    undo
        What was done last and can be taken back, None where nothing can.
    """

    revision: int
    standing: Standing
    named: list[Choice]
    sentence: str
    next_step: NextView
    undo: UndoView | None


def show_outlook(context: Context, job_id: str) -> OutlookView:
    """Return what a job comes to now.

    Raises
    ------
    NotFoundError
        If there is no such job.
    """
    with context.store.read() as session:
        job = take(context, session, job_id)
    now, sheet = context.clock(), job.case.sheet
    if is_being_worked_out(context, sheet):
        following, revision = next_view(job, now, None), job.stored.revision
        return OutlookView(
            revision=revision,
            standing=Standing.UNDECIDED,
            named=[],
            sentence="",
            next_step=following,
            undo=undo_view(job.case),
        )
    found = outlook_of(context, job)
    return OutlookView(
        revision=job.stored.revision,
        standing=found.standing,
        named=[Choice(id=part, words=sheet.known_part(part).title) for part in found.named],
        sentence=found.sentence,
        next_step=next_view(job, now, found.next),
        undo=undo_view(job.case),
    )
