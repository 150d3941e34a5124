"""The address book: customers, places and technicians, kept and archived; and the machines that stand there."""

from __future__ import annotations

from enum import StrEnum
from typing import Annotated
from uuid import UUID

from pydantic import BaseModel, ConfigDict, Field, StrictBool
from sqlmodel import Session

from ohmcensus.core.errors import InputError, StaleRevisionError
from ohmcensus.core.text.trimmed import Title, Trimmed
from ohmcensus.services.at_hand.context import Context
from ohmcensus.services.at_hand.job import built
from ohmcensus.services.at_hand.summarise import summarise_head
from ohmcensus.storage import addresses, settings, summaries
from ohmcensus.storage.tables import AddressRow


class AddressKind(StrEnum):
    """What an entry is."""

    CUSTOMER = "customer"
    PLACE = "place"
    TECHNICIAN = "technician"


class Address(BaseModel):
    """An entry of the address book.

    Attributes
    ----------
    contact
        Telephone, mail or street: how to get there.
    customer_id
        Whose place it is; meant for places only.
    is_archived
        No longer offered; jobs and readings keep the name.
    revision
        How often it was written, as the writer had seen it; nought for a new one.
    """

    model_config = ConfigDict(extra="forbid")

    id: UUID
    kind: AddressKind
    name: Title
    contact: Annotated[str, Trimmed(200)] = ""
    note: Annotated[str, Trimmed(1000)] = ""
    customer_id: UUID | None = None
    is_archived: StrictBool = False
    revision: int = Field(default=0, ge=0, le=2**53, strict=True)


class AddressBook(BaseModel):
    """All entries, by kind and name."""

    entries: list[Address]


def show_addresses(context: Context) -> AddressBook:
    """Return the address book."""
    with context.store.read() as session:
        return AddressBook(entries=[_entry(row) for kind in AddressKind for row in addresses.of_kind(session, kind)])


def keep_address(context: Context, wanted: Address) -> Address:
    """Keep an entry, new or changed.

    Raises
    ------
    InputError
        If another entry of the kind has the name, the id is one of another kind, or the customer is none.
    StaleRevisionError
        If somebody else wrote it meanwhile; both are told.
    """
    with context.store.write() as session:
        _refuse_clash(session, wanted)
        row = addresses.get(session, str(wanted.id))
        before = _entry(row) if row is not None else None
        if before is not None and before.model_copy(update={"revision": wanted.revision}) == wanted:
            return before
        current = before.revision if before is not None else 0
        if before is not None and current != wanted.revision:
            both = f"{_said(before)} stands there since another window changed it; you sent {_said(wanted)}"
            raise StaleRevisionError(stated=wanted.revision, current=current, thing="address", field="name", both=both)
        kept = wanted.model_copy(update={"revision": current + 1})
        addresses.keep(
            session,
            AddressRow(
                id=str(wanted.id),
                kind=wanted.kind.value,
                name=wanted.name,
                contact=wanted.contact,
                note=wanted.note,
                customer_id=str(wanted.customer_id) if wanted.customer_id else None,
                is_archived=wanted.is_archived,
                revision=kept.revision,
            ),
        )
        settings.count_up(session)
        for job_id in summaries.jobs_at(session, str(kept.id)):
            summarise_head(session, built(session, job_id))
    return kept


def _said(entry: Address) -> str:
    return ", ".join(word for word in (f"'{entry.name}'", entry.contact, entry.note) if word)


def _refuse_clash(session: Session, wanted: Address) -> None:
    same = addresses.named(session, wanted.kind, wanted.name)
    if same is not None and same.id != str(wanted.id):
        what = f"there is a {wanted.kind.value} '{wanted.name}' already"
        raise InputError(what=what, remedy="change that one, or add what tells them apart", field="name")
    before = addresses.get(session, str(wanted.id))
    if before is not None and before.kind != wanted.kind:
        raise InputError(what=f"the id {wanted.id} is a {before.kind}", remedy="send a new id", field="id")
    if wanted.customer_id is not None:
        customer = addresses.get(session, str(wanted.customer_id))
        if wanted.kind is not AddressKind.PLACE or customer is None or customer.kind != AddressKind.CUSTOMER:
            what = "only a place belongs to a customer of the address book"
            raise InputError(what=what, remedy="choose a customer from the list", field="customer_id")


def _entry(row: AddressRow) -> Address:
    return Address(
        id=UUID(row.id),
        kind=AddressKind(row.kind),
        name=row.name,
        contact=row.contact,
        note=row.note,
        customer_id=UUID(row.customer_id) if row.customer_id else None,
        is_archived=row.is_archived,
        revision=row.revision,
    )
