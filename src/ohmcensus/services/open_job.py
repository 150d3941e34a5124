"""A new job, and the list of jobs."""

from __future__ import annotations

from typing import Annotated
from uuid import UUID

from pydantic import BaseModel, ConfigDict, StringConstraints
from sqlmodel import Session

from ohmcensus.core.case import Case
from ohmcensus.core.errors import InputError
from ohmcensus.core.judgement import CensusLine, census_lines
from ohmcensus.core.safety import SafetyState
from ohmcensus.services.build_case import build_case
from ohmcensus.services.context import Context
from ohmcensus.services.find_sheet import find_sheet
from ohmcensus.services.keep_settings import Settings, settings_in
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
        existing = session.get(JobRow, job_id)
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
            session.flush()
        elif jobs.get(session, job_id)[1].name != new.machine:
            raise InputError(what=f"the id {job_id} belongs to another job", remedy="send a new id", field="id")
        return _view(session, *jobs.get(session, job_id), settings_in(session))


def list_jobs(context: Context) -> list[JobView]:
    """Return all jobs, the last changed one first."""
    with context.store.read() as session:
        settings = settings_in(session)
        return [_view(session, job, machine, settings) for job, machine in jobs.newest_first(session)]


def _view(session: Session, job: JobRow, machine: MachineRow, settings: Settings) -> JobView:
    """Return a job as stored."""
    case = build_case(session, job, machine, settings)
    return job_view(job, machine, case, census_lines(case))


def job_view(job: JobRow, machine: MachineRow, case: Case, lines: tuple[CensusLine, ...]) -> JobView:
    """Return a job with the counts of its lines."""
    answers = [line.answer for line in lines if line.answer]
    return JobView(
        id=job.id,
        machine=machine.name,
        place=machine.place,
        sheet=machine.sheet_id,
        sheet_title=case.sheet.title,
        supply=case.sheet.supply,
        watts=case.sheet.watts,
        serial=machine.serial,
        complaint=job.complaint,
        opened_at=job.opened_at,
        changed_at=job.changed_at,
        revision=job.revision,
        safety=case.safety,
        safety_at=job.safety_at,
        safety_reason=job.safety_reason,
        asked=len(answers),
        lines=len(lines),
        outside=sum(answer.judgement.verdict.is_outside for answer in answers),
    )
