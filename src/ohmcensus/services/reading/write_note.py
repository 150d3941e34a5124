"""A note on a line of the census sheet."""

from __future__ import annotations

from typing import Annotated
from uuid import UUID

from pydantic import BaseModel, ConfigDict, Field, StringConstraints

from ohmcensus.core.errors import UnknownNameError
from ohmcensus.core.layout.ohm_ruler import line_key
from ohmcensus.core.text.trimmed import Trimmed
from ohmcensus.services.at_hand.context import Context
from ohmcensus.services.at_hand.job import put, refuse_ended, take, used_id
from ohmcensus.services.at_hand.summarise import summarise
from ohmcensus.services.reading.view import TraceView, trace_view
from ohmcensus.storage import jobs, notes
from ohmcensus.storage.tables import NoteRow


class NewNote(BaseModel):
    """A note; an empty text takes the standing one back."""

    model_config = ConfigDict(extra="forbid")

    id: UUID
    revision: int = Field(ge=1, strict=True)
    line: Annotated[str, StringConstraints(min_length=1, max_length=120)]
    text: Annotated[str, Trimmed(1000)]


def write_note(context: Context, job_id: str, new: NewNote) -> TraceView:
    """Write a note down; the older ones stay in the store.

    Raises
    ------
    UnknownNameError
        If the job has no such line.
    StaleRevisionError
        If the job has moved on.
    """
    with context.store.write() as session:
        job = take(context, session, job_id)
        before = notes.get(session, str(new.id))
        if before is not None:
            if (before.job_id, before.line, before.text) != (job_id, new.line, new.text):
                raise used_id(str(new.id), "note")
            return trace_view(job, context.clock())
        refuse_ended(job)
        if new.line not in {line_key(line) for line in job.lines}:
            what = f"no line '{new.line}' on this machine"
            raise UnknownNameError(what=what, remedy="choose a line of the sheet", field="line")
        now = context.now()
        stored = jobs.advance(session, job.stored, new.revision, now)
        row = NoteRow(
            id=str(new.id),
            job_id=job_id,
            revision=stored.revision,
            line=new.line,
            text=new.text,
            at=now,
            who=job.settings.technician,
        )
        notes.append(session, row)
        after = job.with_note(stored, new.line, new.text)
        summarise(session, after, new.text)
    put(context, after)
    return trace_view(after, context.clock())
