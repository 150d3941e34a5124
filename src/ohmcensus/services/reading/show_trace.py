"""Everything the trace screen shows of a job, in one answer."""

from __future__ import annotations

from ohmcensus.services.at_hand.context import Context
from ohmcensus.services.at_hand.job import take
from ohmcensus.services.reading.view import TraceView, trace_view


def show_trace(context: Context, job_id: str) -> TraceView:
    """Return the trace of a job.

    Raises
    ------
    NotFoundError
        If there is no such job.
    """
    with context.store.read() as session:
        return trace_view(take(context, session, job_id), context.clock())
