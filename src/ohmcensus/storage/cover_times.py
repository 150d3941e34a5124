"""What covers took to come off, by the type of the machine."""

from __future__ import annotations

from sqlalchemy import bindparam, delete, func, select, update
from sqlmodel import Session

from ohmcensus.core.job.cover_minutes import Timed
from ohmcensus.storage import settings
from ohmcensus.storage.tables import CoverTimeRow, JobRow, table_of

COUNTER = "covers:"
_TIME, _JOB = table_of(CoverTimeRow), table_of(JobRow)
_OF_SHEET = (
    select(_TIME.c.panel, func.sum(_TIME.c.minutes), func.count())
    .where(_TIME.c.sheet_id == bindparam("sheet"), _TIME.c.job_id != bindparam("job"))
    .group_by(_TIME.c.panel)
)


def append(session: Session, row: CoverTimeRow) -> None:
    """Write one time down."""
    session.add(row)
    settings.count(session, COUNTER, row.sheet_id)


def remove(session: Session, event_id: str, sheet_id: str) -> None:
    """Remove the time of a step that was taken back; nothing where it had none."""
    found = session.execute(delete(_TIME).where(_TIME.c.event_id == event_id))
    if found.rowcount:  # type: ignore[attr-defined]
        settings.count(session, COUNTER, sheet_id)


def of_sheet(session: Session, sheet_id: str, *, but: str) -> dict[str, Timed]:
    """Return what covers took on the jobs of a type, but for one job, by cover."""
    rows = session.connection().execute(_OF_SHEET, {"sheet": sheet_id, "job": but})
    return {panel: Timed(minutes, count) for panel, minutes, count in rows}


def move(session: Session, machine_id: str, sheet_id: str) -> None:
    """Let the times of a machine count for another type: it was taken for the wrong one."""
    of_machine = select(_JOB.c.id).where(_JOB.c.machine_id == machine_id)
    before = session.execute(select(_TIME.c.sheet_id).where(_TIME.c.job_id.in_(of_machine)).distinct()).scalars().all()
    session.execute(update(_TIME).where(_TIME.c.job_id.in_(of_machine)).values(sheet_id=sheet_id))
    for touched in {*before, sheet_id} if before else ():
        settings.count(session, COUNTER, touched)
