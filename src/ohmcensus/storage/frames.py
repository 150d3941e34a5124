"""Frames of a job: which sheet, complaint, plate and limits held from which revision on; appended, never changed."""

from __future__ import annotations

from sqlalchemy import bindparam, func, select
from sqlmodel import Session

from ohmcensus.storage.tables import FrameRow, JobRow, table_of

_FRAME, _JOB = table_of(FrameRow), table_of(JobRow)
_LAST = select(func.max(_FRAME.c.id)).group_by(_FRAME.c.job_id)
_NEWEST = select(_JOB.c.id, _JOB.c.revision, _FRAME.c.body).join(_JOB, _JOB.c.id == _FRAME.c.job_id)
_NEWEST = _NEWEST.where(_FRAME.c.id.in_(_LAST))
_OF_JOB = select(_FRAME).where(_FRAME.c.job_id == bindparam("job")).order_by(_FRAME.c.revision, _FRAME.c.id)


def append(session: Session, job_id: str, revision: int, body: str) -> None:
    """Write one frame, as JSON, that holds from a revision on."""
    session.connection().execute(_FRAME.insert(), {"job_id": job_id, "revision": revision, "body": body})


def newest(session: Session) -> dict[str, tuple[int, str]]:
    """Return for every job its revision and its newest frame."""
    return {row.id: (row.revision, row.body) for row in session.connection().execute(_NEWEST)}


def of_job(session: Session, job_id: str) -> list[tuple[int, str]]:
    """Return the frames of a job with the revision from which each held, oldest first."""
    return [(row.revision, row.body) for row in session.connection().execute(_OF_JOB, {"job": job_id})]
