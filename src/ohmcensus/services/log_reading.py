"""Writing readings: fresh, as a correction, or taking one back."""

from __future__ import annotations

from uuid import UUID

from pydantic import BaseModel, ConfigDict, Field
from sqlmodel import Session

from ohmcensus.core.case import Case, Reading
from ohmcensus.core.errors import InputError, NotFoundError
from ohmcensus.services.build_case import build_case
from ohmcensus.services.context import Context
from ohmcensus.services.keep_settings import settings_in
from ohmcensus.services.preview_line import TypedLine, meters_for, understand
from ohmcensus.services.show_trace import TraceView, trace_view
from ohmcensus.storage import jobs, readings


class NewReading(TypedLine):
    """A line to be stored.

    Attributes
    ----------
    id
        UUID made by the writer: sent twice it is stored once.
    revision
        Revision of the job that the writer had seen.
    supersedes
        Id of the reading that this one corrects.
    """

    id: UUID
    revision: int = Field(ge=1)
    supersedes: UUID | None = None


class Withdrawal(BaseModel):
    """Taking back one reading; it stays in the history."""

    model_config = ConfigDict(extra="forbid")

    id: UUID
    revision: int = Field(ge=1)


def log_reading(context: Context, job_id: str, new: NewReading) -> TraceView:
    """Store a reading and return the job as it then is.

    Raises
    ------
    OhmcensusError
        If the line cannot be understood, safety forbids it, the revision is stale, or the corrected
        reading does not stand. Nothing is stored then.
    """
    with context.store.write() as session:
        job, machine = jobs.get(session, job_id)
        if _is_retry(session, job_id, str(new.id), new.text):
            return trace_view(session, job, machine)
        case = build_case(session, job, machine)
        corrected = _standing(case, str(new.supersedes)) if new.supersedes else None
        understood = understand(case, new, meters_for(session, new.meter))
        line, use = understood.line, understood.use
        if corrected and set(corrected.between) != set(line.between):
            what = f"'{new.text.strip()}' is another line than the reading it corrects"
            raise InputError(what=what, remedy="log it by itself and undo the wrong one", field="line")
        celsius = case.celsius if line.celsius is None else line.celsius
        row = Reading(
            id=str(new.id),
            between=line.between,
            test=line.test.id if line.test else None,
            function=use.function,
            meter=use.meter,
            indication=use.indication,
            text=new.text.strip(),
            celsius=celsius,
            alone=line.alone,
            at=context.now(),
            who=settings_in(session).technician,
            supersedes=corrected.id if corrected else None,
        )
        revision = jobs.advance(session, job_id, new.revision, row.at)
        readings.append(session, job_id, revision, row, understood.judgement)
        return _fresh(session, job_id)


def withdraw_reading(context: Context, job_id: str, reading_id: str, new: Withdrawal) -> TraceView:
    """Take a reading back; what it had corrected stands again.

    Raises
    ------
    OhmcensusError
        If the reading does not stand or the revision is stale.
    """
    with context.store.write() as session:
        job, machine = jobs.get(session, job_id)
        if _is_retry(session, job_id, str(new.id), ""):
            return trace_view(session, job, machine)
        gone = _standing(build_case(session, job, machine), reading_id)
        row = Reading(
            id=str(new.id),
            between=gone.between,
            test=gone.test,
            function=gone.function,
            meter=gone.meter,
            indication=gone.indication,
            text="",
            celsius=gone.celsius,
            at=context.now(),
            who=settings_in(session).technician,
            supersedes=gone.id,
            withdrawn=True,
        )
        revision = jobs.advance(session, job_id, new.revision, row.at)
        readings.append(session, job_id, revision, row, None)
        return _fresh(session, job_id)


def _fresh(session: Session, job_id: str) -> TraceView:
    """Return the job as it is after what was just written."""
    session.flush()
    session.expire_all()
    return trace_view(session, *jobs.get(session, job_id))


def _is_retry(session: Session, job_id: str, reading_id: str, text: str) -> bool:
    """Tell whether this very reading is stored already; refuse its id for another one."""
    found = readings.find(session, reading_id)
    if found is None:
        return False
    stored_job, stored = found
    if stored_job != job_id or stored.text != text.strip():
        raise InputError(what=f"the id {reading_id} belongs to another reading", remedy="send a new id", field="id")
    return True


def _standing(case: Case, reading_id: str) -> Reading:
    """Return a reading of the case that stands."""
    for reading in case.standing():
        if reading.id == reading_id:
            return reading
    what = "that reading does not stand any more"
    raise NotFoundError(what=what, remedy="it was corrected or taken back: look at the line again", field="supersedes")
