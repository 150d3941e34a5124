"""The shelf of spares, and the parts that jobs want; each row counts its writes."""

from __future__ import annotations

from pydantic import BaseModel
from sqlalchemy import func, select
from sqlmodel import Session, col
from sqlmodel import select as select_rows

from ohmcensus.core.errors import InputError, StaleRevisionError
from ohmcensus.core.event import Intervention
from ohmcensus.core.shelf import Fitting, Spare, WantedPart
from ohmcensus.storage.events import WITHDRAWN
from ohmcensus.storage.tables import EventRow, JobRow, MachineRow, SpareRow, WantedPartRow, table_of

_EVENT, _JOB, _MACHINE = table_of(EventRow), table_of(JobRow), table_of(MachineRow)
_BODY = _EVENT.c.body
_FITTINGS = (
    select(
        _JOB.c.id,
        _MACHINE.c.id,
        _MACHINE.c.name,
        func.json_extract(_BODY, "$.part"),
        func.coalesce(func.json_extract(_BODY, "$.spare"), ""),
        _EVENT.c.at,
    )
    .select_from(_EVENT)
    .join(_JOB, _JOB.c.id == _EVENT.c.job_id)
    .join(_MACHINE, _MACHINE.c.id == _JOB.c.machine_id)
    .where(_EVENT.c.kind == "changed", func.json_extract(_BODY, "$.intervention") == Intervention.REPLACED.value)
    .where(_EVENT.c.id.not_in(WITHDRAWN))
    .order_by(_EVENT.c.at, _EVENT.c.revision)
)


def fittings(session: Session) -> list[Fitting]:
    """Return every part that was replaced by another piece, oldest first."""
    return [Fitting(*row) for row in session.connection().execute(_FITTINGS)]


def spares(session: Session) -> dict[str, tuple[int, Spare]]:
    """Return every piece with its revision, by id."""
    rows = session.exec(select_rows(SpareRow)).all()
    return {row.id: (row.revision, Spare.model_validate_json(row.body)) for row in rows}


def keep_spare(session: Session, spare_id: str, stated: int, spare: Spare) -> None:
    """Write a piece, new at revision nought.

    Raises
    ------
    StaleRevisionError
        If somebody else wrote it meanwhile.
    """
    row = session.get(SpareRow, spare_id)
    session.merge(SpareRow(id=spare_id, revision=_counted(row, stated), body=_json(spare)))
    session.flush()


def wanted_parts(session: Session, job_id: str) -> dict[str, tuple[int, WantedPart]]:
    """Return what a job wants with its revision, by id."""
    rows = session.exec(select_rows(WantedPartRow).where(col(WantedPartRow.job_id) == job_id)).all()
    return {row.id: (row.revision, WantedPart.model_validate_json(row.body)) for row in rows}


def keep_wanted(session: Session, wanted_id: str, job_id: str, stated: int, wanted: WantedPart) -> None:
    """Write what a job wants, new at revision nought.

    Raises
    ------
    InputError
        If its id belongs to another job.
    StaleRevisionError
        If somebody else wrote it meanwhile.
    """
    row = session.get(WantedPartRow, wanted_id)
    if row is not None and row.job_id != job_id:
        what = f"the id {wanted_id} belongs to another job's part"
        raise InputError(what=what, remedy="send a new id", field="id")
    counted = _counted(row, stated)
    session.merge(WantedPartRow(id=wanted_id, job_id=job_id, revision=counted, body=_json(wanted)))
    session.flush()


def remove_wanted(session: Session, wanted_id: str, job_id: str) -> bool:
    """Take a wish back; return whether the job had it."""
    row = session.get(WantedPartRow, wanted_id)
    if row is None or row.job_id != job_id:
        return False
    session.delete(row)
    return True


def _counted(row: SpareRow | WantedPartRow | None, stated: int) -> int:
    current = 0 if row is None else row.revision
    if current != stated:
        raise StaleRevisionError(stated=stated, current=current)
    return stated + 1


def _json(body: BaseModel) -> str:
    return body.model_dump_json()
