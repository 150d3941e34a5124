"""Machines where they stand."""

from __future__ import annotations

from pydantic import BaseModel

from ohmcensus.services.at_hand.context import Context
from ohmcensus.storage import machines


class MachineView(BaseModel):
    """A machine where it stands."""

    id: str
    name: str
    place: str
    sheet: str


def list_machines(context: Context) -> list[MachineView]:
    """Return every machine at a place that is not archived."""
    with context.store.read() as session:
        found = machines.with_place(session)
    return [
        MachineView(id=machine.id, name=machine.name, place=place.name, sheet=machine.sheet_id)
        for machine, place in found
        if not place.is_archived
    ]
