"""Events of a job: appended, never changed."""

from __future__ import annotations

from pydantic import TypeAdapter
from sqlalchemy import bindparam, select
from sqlalchemy.exc import IntegrityError
from sqlmodel import Session

from ohmcensus.core.errors import InputError
from ohmcensus.core.event import Body, Event
from ohmcensus.storage.tables import EventRow, table_of

_EVENT = table_of(EventRow)
_BODY: TypeAdapter[Body] = TypeAdapter(Body)
_OF_JOB = (
    select(_EVENT)
    .where(_EVENT.c.job_id == bindparam("job"), _EVENT.c.revision > bindparam("after"))
    .order_by(_EVENT.c.revision)
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
    }
    try:
        session.connection().execute(_EVENT.insert(), row)
    except IntegrityError as error:
        what = f"the id {event.id} belongs to another event"
        raise InputError(what=what, remedy="send a new id", field="id") from error


def of_job(session: Session, job_id: str, *, after: int = 0) -> list[Event]:
    """Return all events of a job written after a revision, oldest first."""
    rows = session.connection().execute(_OF_JOB, {"job": job_id, "after": after})
    return [Event(row.id, _BODY.validate_json(row.body), row.at, row.who, row.revision, row.device) for row in rows]
