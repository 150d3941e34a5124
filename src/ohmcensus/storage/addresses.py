"""The address book: customers, places, technicians."""

from __future__ import annotations

from sqlmodel import Session, col, func, select

from ohmcensus.storage.tables import AddressRow


def of_kind(session: Session, kind: str) -> list[AddressRow]:
    """Return all entries of a kind by name, archived ones too."""
    rows = session.exec(select(AddressRow).where(AddressRow.kind == kind).order_by(func.lower(col(AddressRow.name))))
    return list(rows.all())


def get(session: Session, entry_id: str) -> AddressRow | None:
    """Return an entry, None where there is none."""
    return session.get(AddressRow, entry_id)


def keep(session: Session, row: AddressRow) -> None:
    """Write an entry, new or changed."""
    session.merge(row)
    session.flush()


def named(session: Session, kind: str, name: str) -> AddressRow | None:
    """Return the entry of a kind that has a name, whatever its letters' case; None where none has."""
    wanted = select(AddressRow).where(AddressRow.kind == kind, func.lower(col(AddressRow.name)) == name.lower())
    return session.exec(wanted.order_by(col(AddressRow.is_archived))).first()
