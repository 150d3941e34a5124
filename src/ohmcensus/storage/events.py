"""Events of a job: appended, never changed."""

from __future__ import annotations

from pydantic import TypeAdapter
from sqlalchemy import bindparam, func, select
from sqlalchemy.exc import IntegrityError
from sqlmodel import Session

from ohmcensus.core.errors import InputError
from ohmcensus.core.event import Body, Event, StripStep
from ohmcensus.storage.tables import EventRow, JobRow, MachineRow, table_of

_EVENT, _JOB, _MACHINE = table_of(EventRow), table_of(JobRow), table_of(MachineRow)
_BODY: TypeAdapter[Body] = TypeAdapter(Body)
_OF_JOB = (
    select(_EVENT)
    .where(_EVENT.c.job_id == bindparam("job"), _EVENT.c.revision > bindparam("after"))
    .order_by(_EVENT.c.revision)
)

_UNDONE = _EVENT.alias("undone")
# Ids of events that were taken back.
WITHDRAWN = select(func.json_extract(_UNDONE.c.body, "$.record")).where(_UNDONE.c.kind == "record_withdrawn")
_STRIP_STEPS = (
    select(_EVENT.c.id, _EVENT.c.body, _EVENT.c.at)
    .join(_JOB, _JOB.c.id == _EVENT.c.job_id)
    .join(_MACHINE, _MACHINE.c.id == _JOB.c.machine_id)
    .where(_EVENT.c.kind == "strip_step", _MACHINE.c.sheet_id == bindparam("sheet"), _JOB.c.id != bindparam("job"))
    .where(_EVENT.c.id.not_in(WITHDRAWN))
    .order_by(_EVENT.c.at.desc())
    .limit(200)
)


def append(session: Session, job_id: str, event: Event) -> None:
    """Write one event; its order is the revision of the job.

    Raises
    ------
    InputError
        If its id belongs to another event.
    """
    row = {
        "id": event.id,
        "job_id": job_id,
        "revision": event.order,
        "kind": event.body.kind,
        "body": event.body.model_dump_json(),
        "at": event.at,
        "who": event.who,
        "device": event.device,
        "refused": event.refused,
    }
    try:
        session.connection().execute(_EVENT.insert(), row)
    except IntegrityError as error:
        what = f"the id {event.id} belongs to another event"
        raise InputError(what=what, remedy="send a new id", field="id") from error


def of_job(session: Session, job_id: str, *, after: int = 0) -> list[Event]:
    """Return all events of a job written after a revision, oldest first."""
    rows = session.connection().execute(_OF_JOB, {"job": job_id, "after": after})
    return [
        Event(row.id, _BODY.validate_json(row.body), row.at, row.who, row.revision, row.device, row.refused)
        for row in rows
    ]


def strip_steps(session: Session, sheet_id: str, *, but: str) -> list[Event[StripStep]]:
    """Return what came off on the jobs of a type, but for one job, the newest first; at most 200 steps."""
    rows = session.connection().execute(_STRIP_STEPS, {"sheet": sheet_id, "job": but})
    return [Event(row.id, StripStep.model_validate_json(row.body), row.at) for row in rows]
