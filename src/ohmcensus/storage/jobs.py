"""Jobs and the machines that they are about."""

from __future__ import annotations

from sqlmodel import Session, col, select

from ohmcensus.core.errors import NotFoundError, StaleRevisionError
from ohmcensus.storage.tables import JobRow, MachineRow


def add(session: Session, machine: MachineRow, job: JobRow) -> None:
    """Write a new job and, where it is new too, its machine."""
    if session.get(MachineRow, machine.id) is None:
        session.add(machine)
        session.flush()
    session.add(job)


def get(session: Session, job_id: str) -> tuple[JobRow, MachineRow]:
    """Return a job and its machine.

    Raises
    ------
    NotFoundError
        If there is no such job.
    """
    found = session.exec(
        select(JobRow, MachineRow).join(MachineRow, col(JobRow.machine_id) == MachineRow.id).where(JobRow.id == job_id)
    ).first()
    if found is None:
        raise NotFoundError(what=f"no job '{job_id[:40]}'", remedy="choose one from the list of jobs", field="job")
    return found


def newest_first(session: Session) -> list[tuple[JobRow, MachineRow]]:
    """Return all jobs with their machines, the last changed one first."""
    rows = session.exec(
        select(JobRow, MachineRow)
        .join(MachineRow, col(JobRow.machine_id) == MachineRow.id)
        .order_by(col(JobRow.changed_at).desc())
    )
    return list(rows.all())


def advance(job: JobRow, stated: int, at: str) -> int:
    """Count a job's revision up by one, if the writer had seen the newest.

    The session that read the job must be a writing one: it is the only writer, so nothing comes between.

    Parameters
    ----------
    job
        As read in a writing session.
    stated
        The revision that the writer worked from.
    at
        Moment of the change.

    Returns
    -------
    int
        The new revision.

    Raises
    ------
    StaleRevisionError
        If the job has moved on.
    """
    if job.revision != stated:
        raise StaleRevisionError(stated=stated, current=job.revision)
    job.revision = stated + 1
    job.changed_at = at
    return job.revision
