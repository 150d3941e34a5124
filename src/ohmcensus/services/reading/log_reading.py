"""Writing readings: fresh, as a correction, or taking one back."""

from __future__ import annotations

from dataclasses import replace
from datetime import datetime
from uuid import UUID

from pydantic import BaseModel, ConfigDict, Field
from sqlmodel import Session

from ohmcensus.core.errors import InputError, NotFoundError, OhmcensusError
from ohmcensus.core.job.case import Case
from ohmcensus.core.job.reading import Reading
from ohmcensus.core.judgement import Judgement
from ohmcensus.core.safety.typed_line import Taken
from ohmcensus.services.at_hand.context import Context
from ohmcensus.services.at_hand.frames import framed
from ohmcensus.services.at_hand.job import JobAtHand, put, refuse_ended, take, used_id
from ohmcensus.services.at_hand.meters import DeviceId
from ohmcensus.services.at_hand.summarise import summarise
from ohmcensus.services.reading.preview_line import TypedLine, refused, understood
from ohmcensus.services.reading.view import TraceView, trace_view
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
    revision: int = Field(ge=1, strict=True)
    supersedes: UUID | None = None


class Withdrawal(BaseModel):
    """Taking back one reading; it stays in the history."""

    model_config = ConfigDict(extra="forbid")

    id: UUID
    revision: int = Field(ge=1, strict=True)
    device: DeviceId = ""


def log_reading(context: Context, job_id: str, new: NewReading) -> TraceView:
    """Store a reading and return the job as it then is; see ``write_reading``."""
    return trace_view(write_reading(context, job_id, new), context.clock())


def write_reading(context: Context, job_id: str, new: NewReading, who: str | None = None) -> JobAtHand:
    """Store a reading and return the job after it.

    Parameters
    ----------
    context, job_id, new
        Where, and what was read.
    who
        Whoever writes it; the technician of the setup where None.

    Raises
    ------
    OhmcensusError
        If the line cannot be understood, safety forbids it, the revision is stale, or the corrected
        reading does not stand. Nothing is stored then.
    """
    with context.store.write() as session:
        job = take(context, session, job_id)
        if _is_retry(job, new):
            return job
        refuse_ended(job)
        corrected = _standing(job.case, str(new.supersedes)) if new.supersedes else None
        said = _understood(job, new, context.clock())
        _refuse_other_line(said.reading, corrected)
        row = replace(
            said.reading,
            id=str(new.id),
            at=context.now(),
            who=job.settings.technician if who is None else who,
            supersedes=corrected.id if corrected else None,
        )
        after = _append(session, job, new.revision, row, said.judgement)
    put(context, after)
    return after


def _understood(job: JobAtHand, new: NewReading, now: datetime) -> Taken:
    try:
        return understood(job, new, now)
    except OhmcensusError as error:
        raise refused(error, job, new, now) from None


def _refuse_other_line(reading: Reading, corrected: Reading | None) -> None:
    """Refuse to correct the reading of another line."""
    if corrected and set(corrected.between) != set(reading.between):
        what = f"'{reading.text}' is another line than the reading it corrects"
        raise InputError(what=what, remedy="log it by itself and undo the wrong one", field="line")


def withdraw_reading(context: Context, job_id: str, reading_id: str, new: Withdrawal) -> TraceView:
    """Take a reading back; what it had corrected stands again; see ``write_withdrawal``."""
    return trace_view(write_withdrawal(context, job_id, reading_id, new), context.clock())


def write_withdrawal(
    context: Context, job_id: str, reading_id: str, new: Withdrawal, who: str | None = None
) -> JobAtHand:
    """Take a reading back and return the job after it.

    Raises
    ------
    OhmcensusError
        If the reading does not stand or the revision is stale.
    """
    with context.store.write() as session:
        job = take(context, session, job_id)
        if _is_taken_back(job, str(new.id), reading_id):
            return job
        refuse_ended(job)
        gone = _standing(job.case, reading_id)
        row = replace(
            gone,
            id=str(new.id),
            text="",
            at=context.now(),
            who=job.settings.technician if who is None else who,
            supersedes=gone.id,
            withdrawn=True,
            device=new.device,
        )
        after = _append(session, job, new.revision, row, None)
    put(context, after)
    return after


def _append(session: Session, job: JobAtHand, stated: int, row: Reading, judgement: Judgement | None) -> JobAtHand:
    """Write a row on top of the revision that its writer had seen."""
    stored = jobs.advance(session, job.stored, stated, row.at)
    job = job.with_case(framed(session, stored.id, job.case, stored.revision))
    row = replace(row, order=stored.revision, told=judgement.verdict.value if judgement else "")
    readings.append(session, stored.id, stored.revision, row, judgement)
    after = job.with_reading(stored, row)
    summarise(session, after, f"{row.line} {row.text}")
    return after


def _is_retry(job: JobAtHand, new: NewReading) -> bool:
    """Tell whether this very reading is stored already; refuse its id for another one (of another job: the store)."""
    row = _stored(job, str(new.id))
    if row is None:
        return False
    says = (new.whole.strip(), new.meter or row.meter.id, str(new.supersedes) if new.supersedes else None, new.device)
    if says != (row.text, row.meter.id, row.supersedes, row.device) or row.withdrawn:
        raise used_id(str(new.id), "reading")
    return True


def _is_taken_back(job: JobAtHand, new_id: str, reading_id: str) -> bool:
    """Tell whether this very withdrawal is stored already; refuse its id for another one."""
    row = _stored(job, new_id)
    if row is not None and not (row.withdrawn and row.supersedes == reading_id):
        raise used_id(new_id, "reading")
    return row is not None


def _stored(job: JobAtHand, reading_id: str) -> Reading | None:
    """Return a reading of a job by its id."""
    return next((row for row in job.case.readings if row.id == reading_id), None)


def _standing(case: Case, reading_id: str) -> Reading:
    """Return a reading of the case that stands."""
    for reading in case.standing:
        if reading.id == reading_id:
            return reading
    what = "that reading does not stand any more"
    raise NotFoundError(what=what, remedy="it was corrected or taken back: look at the line again", field="supersedes")
