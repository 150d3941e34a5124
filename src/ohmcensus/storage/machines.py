"""Machines where they stand."""

from __future__ import annotations

from sqlmodel import Session, col, select

from ohmcensus.storage.tables import AddressRow, MachineRow


def get(session: Session, machine_id: str) -> MachineRow | None:
    """Return a machine, None where there is none."""
    return session.get(MachineRow, machine_id)


def add(session: Session, machine: MachineRow) -> None:
    """Write a new machine."""
    session.add(machine)
    session.flush()


def with_place(session: Session) -> list[tuple[MachineRow, AddressRow]]:
    """Return all machines with their places, by place and name."""
    rows = session.exec(
        select(MachineRow, AddressRow)
        .where(col(MachineRow.place_id) == col(AddressRow.id))
        .order_by(col(AddressRow.name), col(MachineRow.name))
    )
    return [(machine, place) for machine, place in rows.all()]


def at(session: Session, name: str, place_id: str) -> MachineRow | None:
    """Return the machine of a name at a place, None where there is none."""
    wanted = select(MachineRow).where(MachineRow.name == name, MachineRow.place_id == place_id)
    return session.exec(wanted).first()
