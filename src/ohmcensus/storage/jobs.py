"""Jobs and the machines that they are about."""

from __future__ import annotations

from sqlalchemy import update
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


def advance(session: Session, job_id: str, stated: int, at: str, **changes: str) -> int:
    """Count the job's revision up by one, if the writer had seen the newest.

    Parameters
    ----------
    session
        A writing session.
    job_id, stated
        The job, and the revision that the writer worked from.
    at
        Moment of the change.
    **changes
        Columns of the job to set with it.

    Returns
    -------
    int
        The new revision.

    Raises
    ------
    NotFoundError, StaleRevisionError
    """
    done = session.execute(
        update(JobRow)
        .where(col(JobRow.id) == job_id, col(JobRow.revision) == stated)
        .values(revision=stated + 1, changed_at=at, **changes)
        .execution_options(synchronize_session=False)
    )
    if getattr(done, "rowcount", 0) != 1:
        current = session.exec(select(JobRow.revision).where(JobRow.id == job_id)).first()
        if current is None:
            raise NotFoundError(what=f"no job '{job_id[:40]}'", remedy="choose one from the list of jobs", field="job")
        raise StaleRevisionError(stated=stated, current=current)
    return stated + 1
