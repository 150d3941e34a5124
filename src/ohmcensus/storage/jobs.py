"""Jobs and the machines that they are about."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, fields, replace
from typing import Any

from sqlalchemy import bindparam, select, update
from sqlmodel import Session

from ohmcensus.core.errors import NotFoundError, StaleRevisionError
from ohmcensus.storage import settings
from ohmcensus.storage.tables import JobRow, MachineRow, table_of


@dataclass(frozen=True, slots=True)
class StoredJob:
    """A job with its machine as stored; ``setup_revision`` grows with every change of settings and meters."""

    id: str
    machine: str
    place: str
    sheet_id: str
    serial: str
    complaint: str
    opened_at: str
    changed_at: str
    revision: int
    safety: str
    safety_at: str
    safety_reason: str
    setup_revision: str | None


# Statements are built once: building one takes longer than running it.
_JOB, _MACHINE = table_of(JobRow), table_of(MachineRow)
_ALL = select(
    _JOB.c.id,
    _MACHINE.c.name,
    _MACHINE.c.place,
    _MACHINE.c.sheet_id,
    _MACHINE.c.serial,
    _JOB.c.complaint,
    _JOB.c.opened_at,
    _JOB.c.changed_at,
    _JOB.c.revision,
    _JOB.c.safety,
    _JOB.c.safety_at,
    _JOB.c.safety_reason,
    settings.revision_query(),
).join_from(_JOB, _MACHINE)
_ONE = _ALL.where(_JOB.c.id == bindparam("job"))
_NEWEST_FIRST = _ALL.order_by(_JOB.c.changed_at.desc())
_ADVANCE = (
    update(_JOB)
    .where(_JOB.c.id == bindparam("job"))
    .values(
        {name: bindparam(f"new_{name}") for name in ("revision", "changed_at", "safety", "safety_at", "safety_reason")}
    )
)


def add(session: Session, machine: MachineRow, job: JobRow) -> None:
    """Write a new job and, where it is new too, its machine."""
    if session.get(MachineRow, machine.id) is None:
        session.add(machine)
        session.flush()
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


def newest_first(session: Session) -> list[StoredJob]:
    """Return all jobs, the last changed one first."""
    return [_stored(row) for row in session.connection().execute(_NEWEST_FIRST)]


def advance(session: Session, job: StoredJob, stated: int, at: str, **changes: str) -> StoredJob:
    """Count a job's revision up by one, if the writer had seen the newest.

    Parameters
    ----------
    session
        The writing session that read the job: it is the only writer, so nothing comes between.
    job
        As read.
    stated
        The revision that the writer worked from.
    at
        Moment of the change.
    **changes
        ``safety``, ``safety_at`` or ``safety_reason`` to set with it.

    Returns
    -------
    StoredJob
        The job as it then is.

    Raises
    ------
    StaleRevisionError
        If the job has moved on.
    """
    if job.revision != stated:
        raise StaleRevisionError(stated=stated, current=job.revision)
    after = replace(job, revision=stated + 1, changed_at=at, **changes)
    session.connection().execute(
        _ADVANCE,
        {
            "job": job.id,
            "new_revision": after.revision,
            "new_changed_at": after.changed_at,
            "new_safety": after.safety,
            "new_safety_at": after.safety_at,
            "new_safety_reason": after.safety_reason,
        },
    )
    return after


def _stored(row: Sequence[Any]) -> StoredJob:
    return StoredJob(**dict(zip(_FIELDS, row, strict=True)))


_FIELDS = tuple(field.name for field in fields(StoredJob))
