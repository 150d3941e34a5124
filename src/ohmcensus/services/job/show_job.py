"""A job at a glance."""

from __future__ import annotations

from ohmcensus.services.at_hand.context import Context
from ohmcensus.services.at_hand.job import take
from ohmcensus.services.job.view import JobView, job_view


def show_job(context: Context, job_id: str) -> JobView:
    """Return a job at a glance.

    Raises
    ------
    NotFoundError
        If there is no such job.
    """
    with context.store.read() as session:
        return job_view(take(context, session, job_id), context.clock())
