"""How the machine of a job stands right now: asked every other second, and carried by every answer."""

from __future__ import annotations

from ohmcensus.services.at_hand.context import Context
from ohmcensus.services.at_hand.job import take
from ohmcensus.services.job.view import power_view
from ohmcensus.services.safety.view import PowerNow


def show_power(context: Context, job_id: str) -> PowerNow:
    """Return how the machine stands.

    Raises
    ------
    NotFoundError
        If there is no such job.
    """
    with context.store.read() as session:
        job = take(context, session, job_id)
    return PowerNow(revision=job.stored.revision, now=context.now(), power=power_view(job.safety(context.clock())))
