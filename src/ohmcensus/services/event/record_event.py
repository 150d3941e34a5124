"""Writing down what happens on a job: made safe, powered, looked at, listened to, ended."""

from __future__ import annotations

from collections.abc import Callable, Collection, Mapping
from uuid import UUID

from pydantic import BaseModel, ConfigDict, Field
from sqlmodel import Session

from ohmcensus.core.errors import UnknownNameError
from ohmcensus.core.event import (
    Body,
    Changed,
    Checked,
    CodesRead,
    ConnectorNoted,
    ConnectorTicked,
    CycleBegun,
    CycleTicked,
    EarthLifted,
    EarthRefitted,
    Ended,
    EntryTried,
    Event,
    Opened,
    ProofMade,
    Reopened,
    RunDoubted,
    RunMade,
    RunWatched,
    RunWithdrawn,
    Shut,
    Skipped,
    Stamped,
    StepTicked,
    StripBack,
    StripStep,
)
from ohmcensus.core.job.case import Case
from ohmcensus.core.job.connector import refuse_ticks
from ohmcensus.core.job.first_look import EYE_CHECKS
from ohmcensus.core.job.strip_down import minutes_until, refuse_strip
from ohmcensus.core.machine.asked import RUN, looks, run_outcomes
from ohmcensus.core.proof import refuse_sign_off, taken_proof
from ohmcensus.core.safety import refuse_event
from ohmcensus.core.safety.leak_test import taken_leak_test
from ohmcensus.core.safety.steps import step_ids
from ohmcensus.core.text.names import nearest
from ohmcensus.services.at_hand.context import Context
from ohmcensus.services.at_hand.frames import framed
from ohmcensus.services.at_hand.job import JobAtHand, put, refuse_ended, take, used_id
from ohmcensus.services.at_hand.summarise import summarise
from ohmcensus.services.job.show_job import JobView, job_view
from ohmcensus.services.photo.keep_photo import refuse_unknown_photo
from ohmcensus.services.reading.preview_line import DeviceId, bag_of, meters_for
from ohmcensus.services.sheet_out.keep_signed import prepare_to_sign, sign
from ohmcensus.services.shelf.keep_spare import fitted_from_shelf
from ohmcensus.storage import cover_times, events, jobs
from ohmcensus.storage.search_text import words_in
from ohmcensus.storage.tables import CoverTimeRow


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
        safety, body = job.safety(context.clock()), _checked(job.case, new.body)
        refuse_event(job.case, body, safety, new.device)
        if isinstance(body, Ended):
            refuse_sign_off(job.case, body, safety)
        body = _completed(context, session, job, body)
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


def _follow(session: Session, job: JobAtHand, event: Event) -> None:
    """Write what follows from an event: the summary, whether the job is over, what a cover took."""
    body, job_id = event.body, job.stored.id
    summarise(session, job, words_in(body.model_dump_json()))
    if isinstance(body, Ended | Reopened):
        jobs.end(session, job_id, is_ended=isinstance(body, Ended))
    if isinstance(body, StripStep) and body.panel and body.minutes is not None:
        row = CoverTimeRow(
            event_id=event.id, job_id=job_id, sheet_id=job.stored.sheet_id, panel=body.panel, minutes=body.minutes
        )
        cover_times.append(session, row)


# What the store fills in where the writer left it out.
_FILLED: Mapping[type, tuple[str, ...]] = {
    RunMade: ("instrument", "device"),
    ProofMade: ("instrument",),
    StripStep: ("minutes",),
    Changed: ("fitted",),
}


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
    return body


def _is_retry(job: JobAtHand, new: NewEvent) -> bool:
    """Tell whether this very event is stored already; refuse its id for another one (of another job: the store)."""
    wanted = str(new.id)
    stored = next((event for event in job.case.events if event.id == wanted), None)
    if stored is None:
        return False
    filled = {
        name: getattr(stored.body, name)
        for name in _FILLED.get(type(new.body), ())
        if type(stored.body) is type(new.body) and (name in {"instrument", "device"} or not getattr(new.body, name))
    }
    if stored.body != new.body.model_copy(update=filled):
        raise used_id(wanted, "event")
    return True


def _checked(case: Case, body: Body) -> Body:
    """Return the event with its codes as the scheme writes them; refuse names that the machine does not have."""
    service = case.sheet.service
    match body:
        case Opened() | Shut():
            _refuse_unknown(body.panel, case.sheet.panels, "panel")
        case StepTicked():
            _refuse_unknown(body.step, step_ids(case), "step")
        case Checked():
            _refuse_unknown(body.check, [*(check.id for check in EYE_CHECKS), *looks(case.sheet)], "check")
        case EntryTried():
            _refuse_unknown(body.sequence, [row.id for row in service.sequences], "sequence")
        case CycleBegun():
            _refuse_unknown(body.cycle, [row.id for row in service.cycles], "cycle")
        case CycleTicked():
            _refuse_unknown(body.cycle, [row.id for row in service.cycles], "cycle")
            cycle = service.cycle(body.cycle)
            _refuse_unknown(body.step, [step.id for step in cycle.steps] if cycle else (), "step")
        case CodesRead():
            _refuse_unknown(body.scheme, [row.id for row in service.schemes], "scheme")
            scheme = service.scheme(body.scheme)
            codes = tuple(scheme.decode(scheme.encode(code)) for code in body.codes) if scheme else ()
            return body.model_copy(update={"codes": codes})
        case RunDoubted() | RunWithdrawn():
            runs = [event.id for event in case.events if isinstance(event.body, RunMade)]
            _refuse_unknown(body.run, runs, "run")
        case Changed() | EarthLifted() | EarthRefitted() | Stamped():
            _refuse_unknown(body.part, [part.id for part in case.sheet.parts], "part")
        case _:
            _refuse_unknown_answer(case, body)
    return body


def _refuse_unknown_strip(case: Case, body: StripStep | StripBack) -> None:
    """Refuse a cover or a plug that the machine does not have, and what never came off."""
    if isinstance(body, StripStep) and body.panel:
        _refuse_unknown(body.panel, case.sheet.panels, "panel")
    for plug in body.plugs:
        _refuse_unknown(plug, case.sheet.plugs, "plug")
    refuse_strip(case, body)


def _refuse_unknown_answer(case: Case, body: Body) -> None:
    """Refuse a question, an outcome, or what came off, that the machine does not have."""
    if isinstance(body, Skipped):
        tests = [f"{part.id}.{spec.name}" for part in case.sheet.parts for spec in part.tests()]
        _refuse_unknown(body.test, [*tests, *looks(case.sheet), RUN], "test")
    if isinstance(body, StripStep | StripBack):
        _refuse_unknown_strip(case, body)
    if isinstance(body, ConnectorNoted) and body.plug:
        _refuse_unknown(body.plug, case.sheet.plugs, "plug")
    if isinstance(body, ConnectorTicked):
        refuse_ticks(case, body)
    if isinstance(body, RunWatched):
        _refuse_unknown(body.outcome, run_outcomes(case.sheet), "outcome of a run")


def _refuse_unknown(name: str, known: Collection[str], what: str) -> None:
    if name in known:
        return
    close = nearest(name, known)
    remedy = f"did you mean '{close}'?" if close else f"known are {', '.join(sorted(known)) or 'none'}"
    raise UnknownNameError(what=f"no {what} '{name[:40]}' on this machine", remedy=remedy, field=what)
