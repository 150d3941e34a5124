"""Writing down what happens on a job: made safe, powered, looked at, listened to, ended."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from typing import Any
from uuid import UUID

from pydantic import BaseModel, ConfigDict, Field, TypeAdapter
from sqlmodel import Session

from ohmcensus.core.errors import OhmcensusError
from ohmcensus.core.event import (
    Body,
    Changed,
    ConnectorNoted,
    Ended,
    Event,
    PhotosChosen,
    ProofMade,
    RecordWithdrawn,
    Reopened,
    RunMade,
    StripStep,
)
from ohmcensus.core.job.strip_down import minutes_until
from ohmcensus.core.proof import refuse_sign_off, taken_proof
from ohmcensus.core.safety import refuse_event
from ohmcensus.core.safety.leak_test import taken_leak_test
from ohmcensus.core.safety.named import with_known_names
from ohmcensus.services.at_hand.context import Context
from ohmcensus.services.at_hand.frames import framed
from ohmcensus.services.at_hand.job import JobAtHand, put, refuse_ended, take, used_id
from ohmcensus.services.at_hand.meters import DeviceId, bag_of, meters_for
from ohmcensus.services.at_hand.summarise import summarise
from ohmcensus.services.at_hand.ways_on import offered
from ohmcensus.services.job.view import JobView, job_view
from ohmcensus.services.photo.keep_photo import refuse_unknown_photo
from ohmcensus.services.sheet_out.keep_signed import prepare_to_sign, sign
from ohmcensus.services.shelf.keep_spare import fitted_from_shelf
from ohmcensus.storage import cover_times, events, jobs
from ohmcensus.storage.search_text import words_in
from ohmcensus.storage.tables import CoverTimeRow

_BODY: TypeAdapter[Body] = TypeAdapter(Body)


class NewEvent(BaseModel):
    """Something that happened.

    Attributes
    ----------
    id
        UUID made by the writer: sent twice it is stored once.
    revision
        Revision of the job that the writer had seen.
    body
        What happened.
    device
        The device that writes it: a random id that it keeps.
    """

    model_config = ConfigDict(extra="forbid")

    id: UUID
    revision: int = Field(ge=1, strict=True)
    body: Body
    device: DeviceId = ""


def record_event(context: Context, job_id: str, new: NewEvent) -> JobView:
    """Store an event and return the job as it then is; see ``write_event``. A job that ends keeps its sheet."""
    if isinstance(new.body, Ended):
        prepare_to_sign(context, job_id)
    after = write_event(context, job_id, new, signs=sign)
    return job_view(after, context.clock())


Signs = Callable[[Context, Session, JobAtHand], None]


def write_event(
    context: Context, job_id: str, new: NewEvent, who: str | None = None, signs: Signs | None = None
) -> JobAtHand:
    """Store an event and return the job after it.

    Parameters
    ----------
    context, job_id, new
        Where, and what happened.
    who
        Whoever writes it; the technician of the setup where None.
    signs
        Keeps the sheet of a job that ends, in the same transaction; None where none is kept.

    Raises
    ------
    SafetyRefusalError
        If safety forbids it now.
    OhmcensusError
        If it names what the machine does not have, the job has ended, or the revision is stale. Nothing
        is stored then.
    """
    with context.store.write() as session:
        job = take(context, session, job_id)
        if _is_retry(job, new):
            return job
        if not isinstance(new.body, Reopened):
            refuse_ended(job)
        body = _admitted(context, session, job, new)
        now = context.now()
        stored = jobs.advance(session, job.stored, new.revision, now)
        job = job.with_case(framed(session, job_id, job.case, stored.revision))
        name = job.settings.technician if who is None else who
        event = Event(str(new.id), body, at=now, who=name, order=stored.revision, device=new.device)
        events.append(session, job_id, event)
        after = job.with_event(stored, event)
        _follow(session, after, event)
        if signs is not None and isinstance(body, Ended):
            signs(context, session, after)
    put(context, after)
    return after


def _admitted(context: Context, session: Session, job: JobAtHand, new: NewEvent) -> Body:
    """Return an event as it is stored; refuse what the machine does not have and what safety forbids."""
    now = context.clock()
    safety = job.safety(now)

    def checked(body: Body) -> Body:
        known = with_known_names(job.case, body)
        refuse_event(job.case, known, safety, new.device)
        if isinstance(known, Ended):
            refuse_sign_off(job.case, known, safety)
        return _completed(context, session, job, known)

    def again(more: Mapping[str, Any]) -> object:
        return checked(_BODY.validate_python({**new.body.model_dump(exclude_unset=True), **more}))

    try:
        return checked(new.body)
    except OhmcensusError as error:
        raise offered(error, job, now, new.device, again) from None


def _follow(session: Session, job: JobAtHand, event: Event) -> None:
    """Write what follows from an event: the summary, whether the job is over, what a cover took."""
    body, job_id = event.body, job.stored.id
    summarise(session, job, words_in(body.model_dump_json()))
    if isinstance(body, Ended | Reopened):
        jobs.end(session, job_id, is_ended=isinstance(body, Ended))
    if isinstance(body, RecordWithdrawn):
        cover_times.remove(session, body.record, job.stored.sheet_id)
    if isinstance(body, StripStep) and body.panel and body.minutes is not None:
        row = CoverTimeRow(
            event_id=event.id, job_id=job_id, sheet_id=job.stored.sheet_id, panel=body.panel, minutes=body.minutes
        )
        cover_times.append(session, row)


# What a writer may not state of an instrument: it is taken from the setup.
_NEVER_SENT = frozenset({"instrument", "device"})


def _completed(context: Context, session: Session, job: JobAtHand, body: Body) -> Body:
    """Return the event with its instrument, its minutes or its piece; refuse what no record of the store bears out."""
    match body:
        case RunMade():
            return taken_leak_test(job.case, body, job.safety(context.clock()), meters_for(job, body.meter or None))
        case ProofMade():
            return taken_proof(job.case, body, job.safety(context.clock()), bag_of(job))
        case StripStep(minutes=None):
            return body.model_copy(update={"minutes": minutes_until(job.case, context.clock())})
        case Changed() if body.spare:
            return fitted_from_shelf(session, job.case.sheet, body)
        case ConnectorNoted():
            refuse_unknown_photo(session, job.stored.id, body.photo)
        case PhotosChosen():
            for photo in body.photos:
                refuse_unknown_photo(session, job.stored.id, photo)
    return body


def _is_retry(job: JobAtHand, new: NewEvent) -> bool:
    """Tell whether this very event is stored already; refuse its id for another one (of another job: the store)."""
    wanted = str(new.id)
    stored = next((event for event in job.case.events if event.id == wanted), None)
    if stored is None:
        return False
    # What was filled in when it was stored was not sent: it does not tell one from another.
    left_out = {name for name in new.body.filled_in if not new.body.model_dump()[name] or name in _NEVER_SENT}
    sent, kept = new.body.model_dump(exclude=left_out), stored.body.model_dump(exclude=left_out)
    if sent != kept:
        raise used_id(wanted, "event")
    return True
