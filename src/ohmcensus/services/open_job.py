"""A new job, and the list of jobs."""

from __future__ import annotations

from typing import Annotated
from uuid import UUID

from pydantic import BaseModel, ConfigDict, StringConstraints

from ohmcensus.core.errors import InputError
from ohmcensus.core.safety import SafetyState
from ohmcensus.services.at_hand import JobAtHand, at_hand, take
from ohmcensus.services.context import Context
from ohmcensus.services.find_sheet import find_sheet
from ohmcensus.storage import jobs
from ohmcensus.storage.tables import JobRow, MachineRow

Line = Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=120)]
Words = Annotated[str, StringConstraints(strip_whitespace=True, max_length=2000)]


class NewJob(BaseModel):
    """A job as it is taken.

    Attributes
    ----------
    id
        UUID made by the writer, so that a retry is recognised.
    machine, place, sheet
        What the machine is called, where it stands, and its type.
    complaint, serial
        The customer's words; the serial number. Both may be empty.
    """

    model_config = ConfigDict(extra="forbid")

    id: UUID
    machine: Line
    place: Line
    sheet: str
    complaint: Words = ""
    serial: Annotated[str, StringConstraints(strip_whitespace=True, max_length=80)] = ""


class JobView(BaseModel):
    """A job in the list."""

    id: str
    machine: str
    place: str
    sheet: str
    sheet_title: str
    supply: str
    watts: float
    serial: str
    complaint: str
    opened_at: str
    changed_at: str
    revision: int
    safety: SafetyState
    safety_at: str
    safety_reason: str
    asked: int
    lines: int
    outside: int


def open_job(context: Context, new: NewJob) -> JobView:
    """Open a job on a machine.

    Raises
    ------
    UnknownNameError
        If there is no such sheet.
    InputError
        If the id was used for another job.
    """
    sheet, now, job_id = find_sheet(new.sheet), context.now(), str(new.id)
    with context.store.write() as session:
        existing = jobs.find(session, job_id)
        if existing is None:
            machine = MachineRow(id=job_id, sheet_id=sheet.id, name=new.machine, place=new.place, serial=new.serial)
            job = JobRow(
                id=job_id,
                machine_id=machine.id,
                complaint=new.complaint,
                opened_at=now,
                changed_at=now,
                safety=SafetyState.NOT_PROVED.value,
            )
            jobs.add(session, machine, job)
        elif existing.machine != new.machine:
            raise InputError(what=f"the id {job_id} belongs to another job", remedy="send a new id", field="id")
    with context.store.read() as session:
        return job_view(take(context, session, job_id))


def list_jobs(context: Context) -> list[JobView]:
    """Return all jobs, the last changed one first."""
    with context.store.read() as session:
        return [job_view(at_hand(context, session, stored)) for stored in jobs.newest_first(session)]


def job_view(job: JobAtHand) -> JobView:
    """Return a job with the counts of its lines."""
    stored, sheet = job.stored, job.case.sheet
    answers = [line.answer for line in job.lines if line.answer]
    return JobView(
        id=stored.id,
        machine=stored.machine,
        place=stored.place,
        sheet=stored.sheet_id,
        sheet_title=sheet.title,
        supply=sheet.supply,
        watts=sheet.watts,
        serial=stored.serial,
        complaint=stored.complaint,
        opened_at=stored.opened_at,
        changed_at=stored.changed_at,
        revision=stored.revision,
        safety=job.case.safety,
        safety_at=stored.safety_at,
        safety_reason=stored.safety_reason,
        asked=len(answers),
        lines=len(job.lines),
        outside=sum(answer.judgement.verdict.is_outside for answer in answers),
    )
