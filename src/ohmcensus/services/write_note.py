"""A note on a line of the census sheet."""

from __future__ import annotations

from typing import Annotated
from uuid import UUID

from pydantic import BaseModel, ConfigDict, Field, StringConstraints

from ohmcensus.core.errors import UnknownNameError
from ohmcensus.services.context import Context
from ohmcensus.services.keep_settings import settings_in
from ohmcensus.services.show_trace import TraceView, trace_view
from ohmcensus.storage import jobs, notes
from ohmcensus.storage.tables import NoteRow


class NewNote(BaseModel):
    """A note; an empty text takes the standing one back."""

    model_config = ConfigDict(extra="forbid")

    id: UUID
    revision: int = Field(ge=1, strict=True)
    line: Annotated[str, StringConstraints(min_length=1, max_length=120)]
    text: Annotated[str, StringConstraints(strip_whitespace=True, max_length=1000)]


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
        job, machine = jobs.get(session, job_id)
        if notes.exists(session, str(new.id)):
            return trace_view(session, job, machine)
        if new.line not in {line.key for line in trace_view(session, job, machine).lines}:
            what = f"no line '{new.line}' on this machine"
            raise UnknownNameError(what=what, remedy="choose a line of the sheet", field="line")
        now, who = context.now(), settings_in(session).technician
        revision = jobs.advance(job, new.revision, now)
        notes.append(
            session,
            NoteRow(id=str(new.id), job_id=job_id, revision=revision, line=new.line, text=new.text, at=now, who=who),
        )
        session.flush()
        return trace_view(session, job, machine)
