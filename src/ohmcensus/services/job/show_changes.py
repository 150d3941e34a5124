"""What happened on a job after a revision that a reader knows."""

from __future__ import annotations

from pydantic import BaseModel

from ohmcensus.core.quantity import show_indication
from ohmcensus.services.at_hand.context import Context
from ohmcensus.storage import events, jobs, notes, readings


class Change(BaseModel):
    """One thing written: a reading, a withdrawal, a note, or an event by its kind."""

    revision: int
    what: str
    line: str
    text: str
    at: str
    who: str


class Changes(BaseModel):
    """Changes in order, and the revision that they lead to.

    A revision without a change of its own was the intake, or a photo.
    """

    revision: int
    changes: list[Change]


def show_changes(context: Context, job_id: str, after: int) -> Changes:
    """Return what was written after a revision.

    Raises
    ------
    NotFoundError
        If there is no such job.
    """
    with context.store.read() as session:
        job = jobs.get(session, job_id)
        found = [
            Change(
                revision=revision,
                what="withdrawal" if row.withdrawn else "reading",
                line=row.line,
                text=show_indication(row.indication),
                at=row.at,
                who=row.who,
            )
            for revision, row in readings.of_job(session, job_id, after=after)
        ]
        found += [
            Change(revision=n.revision, what="note", line=n.line, text=n.text, at=n.at, who=n.who)
            for n in notes.of_job(session, job_id, after=after)
        ]
        found += [
            Change(revision=e.order, what=e.body.kind, line="", text="", at=e.at, who=e.who)
            for e in events.of_job(session, job_id, after=after)
        ]
        return Changes(revision=job.revision, changes=sorted(found, key=lambda change: change.revision))
