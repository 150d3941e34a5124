"""Working on a stored job, always on top of its newest revision."""

from __future__ import annotations

import math
from uuid import uuid4

from ohmcensus.core.event import (
    Body,
    CircuitNoted,
    HeatRise,
    Isolated,
    PluggedIn,
    ProofMade,
    RecordWithdrawn,
    RunWatched,
    Shut,
    Way,
)
from ohmcensus.core.judgement.passes import named_test
from ohmcensus.core.limits.terms import Terms
from ohmcensus.core.meter import Function
from ohmcensus.core.proof import ShownBy
from ohmcensus.core.proof.stands import Stand, stands
from ohmcensus.core.symptom import Device
from ohmcensus.services.at_hand.context import Context
from ohmcensus.services.at_hand.job import take
from ohmcensus.services.event.record_event import NewEvent, record_event
from ohmcensus.services.job.list_jobs import JobsQuery, ListedJob, list_jobs
from ohmcensus.services.job.show_changes import show_changes
from ohmcensus.services.job.view import JobView
from ohmcensus.services.proof.show_proof import show_proof
from ohmcensus.services.reading.log_reading import NewReading, log_reading
from ohmcensus.services.reading.view import TraceView
from ohmcensus.services.safety.show_safe import show_safe
from ohmcensus.storage import jobs
from tests.core.case_of import proof_of


def revision(context: Context, job_id: str) -> int:
    return show_changes(context, job_id, 2**53).revision


def happened(context: Context, job_id: str, body: Body) -> JobView:
    return record_event(context, job_id, NewEvent(id=uuid4(), revision=revision(context, job_id), body=body))


def undone(context: Context, job_id: str) -> JobView:
    """Take back the event that was written last and counts still."""
    with context.store.read() as session:
        case = take(context, session, job_id).case
    left = [event for event in case.events if event.id not in case.withdrawn]
    return happened(context, job_id, RecordWithdrawn(record=left[-1].id))


def logged(context: Context, job_id: str, text: str, override: str = "") -> TraceView:
    new = NewReading(id=uuid4(), revision=revision(context, job_id), text=text, override=override)
    return log_reading(context, job_id, new)


def read_what_is_missing(context: Context, job_id: str) -> None:
    """Log a good reading of every line that stands before power, as Safe asks for them one after the other."""
    for _ in range(30):
        missing = show_safe(context, job_id).missing
        if not missing:
            return
        with context.store.read() as session:
            terms = take(context, session, job_id).case.terms
        logged(context, job_id, f"{missing[0].typed}{good(missing[0].key, terms)}")


def shut_up(context: Context, job_id: str) -> None:
    """Note every cover as back."""
    for panel in show_safe(context, job_id).panels:
        if panel.is_off:
            happened(context, job_id, Shut(panel=panel.id))


def good(line: str, terms: Terms) -> str:
    """Return a reading that is surely inside."""
    test = named_test(line.replace(" ", "."), terms)
    assert test is not None, line
    lo, hi = test.window.interval.lo, test.window.interval.hi
    if math.isinf(hi):
        return ">299M" if test.function is Function.INSULATION else "OL"
    return f"{(lo + hi) / 2 if lo > 0 else hi / 4:.4g}"


def prove_dead(context: Context, job_id: str) -> int:
    """Cut a machine off and log the whole series; return the job's revision."""
    happened(context, job_id, Isolated())
    with context.store.read() as session:
        sheet = take(context, session, job_id).case.sheet
    for text in proof_of(sheet):
        logged(context, job_id, text)
    return revision(context, job_id)


def show_all(context: Context, job_id: str) -> None:
    """Show everything that blocks signing off, in its order, as Prove asks for it."""
    for _ in range(30):
        view = show_proof(context, job_id)
        row = next((row for row in view.criteria if row.state != "good"), None)
        if row is None or not view.blocking:
            return
        with context.store.read() as session:
            terms = take(context, session, job_id).case.terms
        if row.kind is ShownBy.READING:
            _stand(context, job_id, row.needs)
            logged(context, job_id, f"{row.line}{good(row.line.strip(), terms)}")
            continue
        _stand(context, job_id, row.needs)
        if row.kind is ShownBy.SEEN:
            body: Body = ProofMade(criterion=row.id, is_good=True)
        elif row.kind is ShownBy.CURRENT:
            body = ProofMade(criterion=row.id, text="0.3 mA", way=Way.DIRECT, serial="OC-T7", calibrated="2026-03-01")
        else:
            if row.kind is ShownBy.GFCI:
                happened(context, job_id, CircuitNoted(device=Device.GFCI))
            warmed = HeatRise(litres=10.0, from_celsius=15.0, to_celsius=40.0, minutes=9.5)
            body = RunWatched(outcome="through", heat=warmed if view.heats else None)
        happened(context, job_id, body)


def _stand(context: Context, job_id: str, needs: Stand) -> None:
    """Have the machine stand as a criterion needs it."""
    with context.store.read() as session:
        job = take(context, session, job_id)
    if needs is Stand.ANY or stands(needs, job.safety(context.clock())):
        return
    if needs in {Stand.DEAD, Stand.PROVED_DEAD}:
        prove_dead(context, job_id)
    else:
        happened(context, job_id, PluggedIn() if needs is Stand.POWERED else Isolated())


def job_on(context: Context, machine: str) -> str:
    """Return the newest job on a machine that goes on, else the newest that has ended."""
    with context.store.read() as session:
        on_it = [row.id for row in jobs.newest_first(session) if row.machine == machine]
        return min(on_it, key=lambda job: take(context, session, job).case.ended is not None)


def every_job(context: Context, find: str = "") -> list[ListedJob]:
    """Return every job that holds some words, those that go on first."""
    found = []
    for is_ended in (False, True):
        page = list_jobs(context, JobsQuery(find=find, ended=is_ended))
        found += page.jobs
        while page.more:
            page = list_jobs(context, JobsQuery(find=find, ended=is_ended, after=page.more))
            found += page.jobs
    return found
