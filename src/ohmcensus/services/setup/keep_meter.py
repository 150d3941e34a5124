"""One's own meters: shown, kept and removed."""

from __future__ import annotations

from pydantic import Field

from ohmcensus.core.errors import InputError, NotFoundError, StaleRevisionError
from ohmcensus.core.meter import GENERIC_METERS, Meter
from ohmcensus.services.at_hand.context import Context
from ohmcensus.services.at_hand.settings import known_meters, settings_in
from ohmcensus.storage import meters, settings

GENERIC_IDS = frozenset(meter.id for meter in GENERIC_METERS)


class NewMeter(Meter):
    """A meter as it is written; ``revision`` that the writer had seen, nought for a new one."""

    revision: int = Field(default=0, ge=0, le=2**53)


def meter_revisions(context: Context) -> dict[str, int]:
    """Return how often each own meter was written, by its id."""
    with context.store.read() as session:
        return meters.revisions(session)


def show_meters(context: Context) -> list[Meter]:
    """Return every meter: one's own, then the generic ones."""
    with context.store.read() as session:
        return known_meters(session)


def keep_meter(context: Context, new: NewMeter) -> Meter:
    """Keep a meter; a new one goes to the front of the bag.

    Raises
    ------
    InputError
        If it takes the id of a generic one.
    StaleRevisionError
        If somebody else wrote it meanwhile; both are told.
    """
    meter = Meter(**new.model_dump(exclude={"revision"}))
    if meter.id in GENERIC_IDS:
        raise InputError(what=f"'{meter.id}' is a generic meter", remedy="give yours another name", field="id")
    with context.store.write() as session:
        before = next((row for row in meters.all_own(session) if row.id == meter.id), None)
        current = meters.revisions(session).get(meter.id, 0)
        if before == meter:
            return meter
        if current != new.revision:
            both = f"the meter '{meter.id}' is '{before.title if before else 'gone'}' since another window changed it"
            raise StaleRevisionError(stated=new.revision, current=current, thing="meter", field="id", both=both)
        meters.keep(session, meter, current + 1)
        bag = settings_in(session).bag
        if meter.id not in bag:
            settings.keep(session, "bag", [meter.id, *bag])
    return meter


def remove_meter(context: Context, meter_id: str) -> None:
    """Remove one's own meter; readings taken with it keep its accuracy.

    Raises
    ------
    NotFoundError
        If it is not one's own.
    """
    with context.store.write() as session:
        if not meters.remove(session, meter_id):
            remedy = "generic meters stay; take them out of the bag instead"
            raise NotFoundError(what=f"no meter of your own '{meter_id[:40]}'", remedy=remedy, field="id")
        bag = [kept for kept in settings_in(session).bag if kept != meter_id]
        settings.keep(session, "bag", bag or [GENERIC_METERS[0].id])
