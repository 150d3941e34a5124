"""The technician's own meters."""

from __future__ import annotations

from sqlmodel import Session, select

from ohmcensus.core.meter import Meter
from ohmcensus.storage import settings
from ohmcensus.storage.tables import MeterRow


def all_own(session: Session) -> list[Meter]:
    """Return all own meters by title."""
    found = [Meter.model_validate_json(row.body) for row in session.exec(select(MeterRow))]
    return sorted(found, key=lambda meter: meter.title)


def revisions(session: Session) -> dict[str, int]:
    """Return how often each own meter was written, by its id."""
    return {row.id: row.revision for row in session.exec(select(MeterRow))}


def keep(session: Session, meter: Meter, revision: int) -> None:
    """Write a meter, new or changed; readings keep the meter as it was when they were taken."""
    session.merge(MeterRow(id=meter.id, body=meter.model_dump_json(), revision=revision))
    settings.count_up(session)


def remove(session: Session, meter_id: str) -> bool:
    """Remove a meter; return whether there was one."""
    row = session.get(MeterRow, meter_id)
    if row is not None:
        session.delete(row)
        settings.count_up(session)
    return row is not None
