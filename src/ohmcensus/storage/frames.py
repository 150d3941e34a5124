"""Frames of a job: which sheet, complaint, plate and limits held from which revision on; appended, never changed."""

from __future__ import annotations

from sqlalchemy import bindparam, select
from sqlmodel import Session

from ohmcensus.storage.tables import FrameRow, table_of

_FRAME = table_of(FrameRow)
_OF_JOB = select(_FRAME).where(_FRAME.c.job_id == bindparam("job")).order_by(_FRAME.c.revision, _FRAME.c.id)


def append(session: Session, job_id: str, revision: int, body: str) -> None:
    """Write one frame, as JSON, that holds from a revision on."""
    session.connection().execute(_FRAME.insert(), {"job_id": job_id, "revision": revision, "body": body})


def of_job(session: Session, job_id: str) -> list[tuple[int, str]]:
    """Return the frames of a job with the revision from which each held, oldest first."""
    return [(row.revision, row.body) for row in session.connection().execute(_OF_JOB, {"job": job_id})]
