"""Jobs and the machines that they are about."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Any

from sqlalchemy import bindparam, func, select, update
from sqlmodel import Session

from ohmcensus.core.errors import NotFoundError, StaleRevisionError
from ohmcensus.storage import cover_times, settings
from ohmcensus.storage.tables import AddressRow, JobRow, MachineRow, table_of


@dataclass(frozen=True, slots=True)
class StoredJob:
    """A job with its machine as stored.

    ``setup_revision`` grows with every change of settings, meters and sheets, ``covers_revision`` with every cover of
    its type that was timed.
    """

    id: str
    machine_id: str
    machine: str
    place_id: str
    place: str
    customer: str
    sheet_id: str
    plate: str
    complaint: str
    opened_at: str
    changed_at: str
    revision: int
    intake_revision: int
    setup_revision: str | None
    covers_revision: str | None


@dataclass(frozen=True, slots=True)
class Intake:
    """What an intake writes: complaint and plate as JSON of the core's models."""

    complaint: str
    machine: str
    place_id: str
    sheet_id: str
    plate: str


# Statements are built once: building one takes longer than running it.
_JOB, _MACHINE, _PLACE = table_of(JobRow), table_of(MachineRow), table_of(AddressRow)
_CUSTOMER = _PLACE.alias("customer")
_ALL = (
    select(
        _JOB.c.id,
        _MACHINE.c.id,
        _MACHINE.c.name,
        _PLACE.c.id,
        _PLACE.c.name,
        func.coalesce(_CUSTOMER.c.name, ""),
        _MACHINE.c.sheet_id,
        _MACHINE.c.plate,
        _JOB.c.complaint,
        _JOB.c.opened_at,
        _JOB.c.changed_at,
        _JOB.c.revision,
        _JOB.c.intake_revision,
        settings.revision_query(),
        settings.counter_query(cover_times.COUNTER, _MACHINE.c.sheet_id),
    )
    .select_from(_JOB)
    .join(_MACHINE, _MACHINE.c.id == _JOB.c.machine_id)
    .join(_PLACE, _PLACE.c.id == _MACHINE.c.place_id)
    .outerjoin(_CUSTOMER, _CUSTOMER.c.id == _PLACE.c.customer_id)
)
_ONE = _ALL.where(_JOB.c.id == bindparam("job"))
_NEWEST_FIRST = _ALL.order_by(_JOB.c.changed_at.desc())
_OF_MACHINE = _ALL.where(_MACHINE.c.id == bindparam("machine")).order_by(_JOB.c.opened_at.desc())
_OF_SERIAL = _ALL.where(_MACHINE.c.serial == bindparam("serial")).order_by(
    _JOB.c.opened_at.desc(), _JOB.c.changed_at.desc()
)
_ADVANCE = (
    update(_JOB)
    .where(_JOB.c.id == bindparam("job"), _JOB.c.revision == bindparam("stated"))
    .values({name: bindparam(f"new_{name}") for name in ("revision", "changed_at")})
)


def add(session: Session, job: JobRow) -> None:
    """Write a new job."""
    session.add(job)
    session.flush()


def find(session: Session, job_id: str) -> StoredJob | None:
    """Return a job, None where there is none."""
    row = session.connection().execute(_ONE, {"job": job_id}).first()
    return None if row is None else _stored(row)


def get(session: Session, job_id: str) -> StoredJob:
    """Return a job.

    Raises
    ------
    NotFoundError
        If there is no such job.
    """
    found = find(session, job_id)
    if found is None:
        raise NotFoundError(what=f"no job '{job_id[:40]}'", remedy="choose one from the list of jobs", field="job")
    return found


def unknown_keys(session: Session, job_id: str) -> str:
    """Return what the file of a job held that this version does not know, as JSON."""
    row = session.get(JobRow, job_id)
    return row.unknown_keys if row else "{}"


def newest_first(session: Session) -> list[StoredJob]:
    """Return all jobs, the last changed one first."""
    return [_stored(row) for row in session.connection().execute(_NEWEST_FIRST)]


def of_machine(session: Session, machine_id: str) -> list[StoredJob]:
    """Return all jobs on a machine, the last opened one first."""
    return [_stored(row) for row in session.connection().execute(_OF_MACHINE, {"machine": machine_id})]


def of_serial(session: Session, serial: str) -> list[StoredJob]:
    """Return all jobs on machines of a serial number, the last opened one first."""
    return [_stored(row) for row in session.connection().execute(_OF_SERIAL, {"serial": serial})]


def advance(session: Session, job: StoredJob, stated: int, at: str) -> StoredJob:
    """Count a job's revision up by one, if the writer had seen the newest.

    Parameters
    ----------
    session
        The writing session that read the job.
    job
        As read.
    stated
        The revision that the writer worked from.
    at
        Moment of the change.

    Returns
    -------
    StoredJob
        The job as it then is.

    Raises
    ------
    StaleRevisionError
        If the job has moved on.
    """
    after = replace(job, revision=stated + 1, changed_at=at)
    told = {"job": job.id, "stated": stated, "new_revision": after.revision, "new_changed_at": after.changed_at}
    if job.revision != stated or session.connection().execute(_ADVANCE, told).rowcount != 1:
        raise StaleRevisionError(stated=stated, current=job.revision)
    return after


def end(session: Session, job_id: str, *, is_ended: bool) -> None:
    """Write down whether a job is over."""
    session.execute(update(_JOB).where(_JOB.c.id == job_id).values(is_ended=is_ended))


def write_intake(session: Session, job: StoredJob, stated: int, at: str, intake: Intake) -> None:
    """Write what is known of job and machine, if the writer had seen the newest intake.

    Raises
    ------
    StaleRevisionError
        If somebody else wrote the intake meanwhile; readings and events in between do no harm.
    """
    if job.intake_revision != stated:
        raise StaleRevisionError(stated=stated, current=job.intake_revision)
    advance(session, job, job.revision, at)
    session.execute(
        update(_JOB).where(_JOB.c.id == job.id).values(complaint=intake.complaint, intake_revision=job.revision + 1)
    )
    session.execute(
        update(_MACHINE)
        .where(_MACHINE.c.id == job.machine_id)
        .values(name=intake.machine, place_id=intake.place_id, sheet_id=intake.sheet_id, plate=intake.plate)
    )
    if intake.sheet_id != job.sheet_id:
        cover_times.move(session, job.machine_id, intake.sheet_id)


def _stored(row: Sequence[Any]) -> StoredJob:
    return StoredJob(*row)
