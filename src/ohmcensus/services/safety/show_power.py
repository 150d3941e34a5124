"""How the machine of a job stands right now: asked every other second, and carried by every answer."""

from __future__ import annotations

from pydantic import BaseModel

from ohmcensus.services.at_hand.context import Context
from ohmcensus.services.at_hand.job import take
from ohmcensus.services.job.show_job import PowerView, power_view


class PowerNow(BaseModel):
    """The state of a machine, the revision of the job, and the server's clock."""

    revision: int
    now: str
    power: PowerView


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
