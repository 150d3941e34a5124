"""Which meters are at hand on a job."""

from __future__ import annotations

from typing import Annotated

from pydantic import StringConstraints

from ohmcensus.core.errors import UnknownNameError
from ohmcensus.core.meter import Meter
from ohmcensus.services.at_hand.job import JobAtHand

DeviceId = Annotated[str, StringConstraints(max_length=60)]


def meters_for(job: JobAtHand, meter_id: str | None) -> list[Meter]:
    """Return the one meter that was named, else those in the bag.

    Raises
    ------
    UnknownNameError
        If there is no such meter.
    """
    if meter_id is None:
        return bag_of(job)
    if meter_id not in job.meters:
        raise UnknownNameError(what=f"no meter '{meter_id[:40]}'", remedy="choose one from Setup", field="meter")
    return [job.meters[meter_id]]


def bag_of(job: JobAtHand) -> list[Meter]:
    """Return the meters in the bag, the preferred one first."""
    return [job.meters[meter_id] for meter_id in job.settings.bag if meter_id in job.meters]
