"""Taking a leak test as it was typed: parsed where it is stored, answered with what it proves."""

from __future__ import annotations

from typing import Annotated
from uuid import UUID

from pydantic import Field, StrictBool, StringConstraints

from ohmcensus.core.event import RunMade
from ohmcensus.core.trip.problem import Method
from ohmcensus.core.trip.typed_test import typed_test
from ohmcensus.services.at_hand.context import Context
from ohmcensus.services.at_hand.job import JobAtHand, take
from ohmcensus.services.at_hand.meters import DeviceId
from ohmcensus.services.event.record_event import NewEvent, write_event
from ohmcensus.services.trip.preview_run import TypedRun
from ohmcensus.services.trip.show_trip import trip_view
from ohmcensus.services.trip.view import TripView


class NewLeakTest(TypedRun):
    """A leak test as typed.

    Attributes
    ----------
    id
        UUID made by the writer: sent twice it is stored once.
    revision
        Revision of the job that the writer had seen.
    meter
        Which meter, where the person says so.
    are_wires_insulated
        The loose wires are insulated one by one and the earth is on.
    device
        The device that writes it: a random id that it keeps.
    """

    id: UUID
    revision: int = Field(ge=1, strict=True)
    meter: Annotated[str, StringConstraints(max_length=60)] = ""
    are_wires_insulated: StrictBool = False
    device: DeviceId = ""


def take_leak_test(context: Context, job_id: str, new: NewLeakTest) -> TripView:
    """Store a leak test and return what is proved then; see ``write_leak_test``."""
    after = write_leak_test(context, job_id, new)
    method = next(event.body.method for event in after.case.of(RunMade) if event.id == str(new.id))
    return trip_view(after, context.clock(), Method(method))


def write_leak_test(context: Context, job_id: str, new: NewLeakTest, who: str | None = None) -> JobAtHand:
    """Store a leak test and return the job after it.

    Raises
    ------
    OhmcensusError
        If the line cannot be read, safety forbids the test, or the revision is stale. Nothing is stored then.
    """
    with context.store.read() as session:
        case = take(context, session, job_id).case
    said = typed_test(new.line, case, Method(new.method))
    body = said.record(meter=new.meter, are_wires_insulated=new.are_wires_insulated)
    event = NewEvent(id=new.id, revision=new.revision, body=body, device=new.device)
    return write_event(context, job_id, event, who)
