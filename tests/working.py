"""Working on a stored job, always on top of its newest revision."""

from __future__ import annotations

from uuid import uuid4

from ohmcensus.core.event import Body, Isolated
from ohmcensus.services.context import Context
from ohmcensus.services.log_reading import NewReading, log_reading
from ohmcensus.services.record_event import NewEvent, record_event
from ohmcensus.services.show_changes import show_changes
from ohmcensus.services.show_job import JobView
from ohmcensus.services.show_trace import TraceView
from tests.core.case_of import PROOF


def revision(context: Context, job_id: str) -> int:
    return show_changes(context, job_id, 2**53).revision


def happened(context: Context, job_id: str, body: Body) -> JobView:
    return record_event(context, job_id, NewEvent(id=uuid4(), revision=revision(context, job_id), body=body))


def logged(context: Context, job_id: str, text: str, override: str = "") -> TraceView:
    new = NewReading(id=uuid4(), revision=revision(context, job_id), text=text, override=override)
    return log_reading(context, job_id, new)


def prove_dead(context: Context, job_id: str) -> int:
    """Cut a machine off and log the whole series; return the job's revision."""
    happened(context, job_id, Isolated())
    for text in PROOF:
        logged(context, job_id, text)
    return revision(context, job_id)
