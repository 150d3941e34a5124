"""A new job, on a machine that is known or on a new one."""

from __future__ import annotations

from dataclasses import replace
from typing import Annotated
from uuid import UUID, uuid4

from pydantic import BaseModel, ConfigDict
from sqlmodel import Session

from ohmcensus.core.errors import InputError
from ohmcensus.core.intake import Complaint, DataPlate
from ohmcensus.core.text.trimmed import Title, Trimmed
from ohmcensus.services.at_hand.context import Context
from ohmcensus.services.at_hand.frames import with_frame
from ohmcensus.services.at_hand.job import built, take
from ohmcensus.services.at_hand.sheets import chosen, sheets_in
from ohmcensus.services.at_hand.summarise import summarise_head
from ohmcensus.services.job.former_dangers import former_dangers
from ohmcensus.services.job.view import JobView, job_view
from ohmcensus.storage import addresses, jobs, machines, summaries
from ohmcensus.storage.tables import AddressRow, JobRow, MachineRow

ToldWords = Annotated[str, Trimmed(2000)]


class NewJob(BaseModel):
    """A job as it is taken.

    Attributes
    ----------
    id
        UUID made by the writer, so that a retry is recognised.
    machine, place, sheet
        What the machine is called, where it stands, and its type. A machine of that name at that place is
        the one that is known; then the sheet may be left out.
    complaint, serial
        The customer's words; the serial number. Both may be empty.
    """

    model_config = ConfigDict(extra="forbid")

    id: UUID
    machine: Title
    place: Title
    sheet: str = ""
    complaint: ToldWords = ""
    serial: Annotated[str, Trimmed(80)] = ""


def open_job(context: Context, new: NewJob) -> JobView:
    """Open a job on a machine.

    Raises
    ------
    UnknownNameError
        If there is no such sheet.
    InputError
        If the id was used for another job.
    """
    now, job_id = context.now(), str(new.id)
    with context.store.write() as session:
        existing = jobs.find(session, job_id)
        if existing is None:
            machine = _machine(session, new)
            words = Complaint(words=new.complaint).model_dump_json(exclude_defaults=True)
            job = JobRow(id=job_id, machine_id=machine.id, complaint=words, opened_at=now, changed_at=now)
            jobs.add(session, job)
            session.flush()
            first = built(session, job_id)
            former = former_dangers(context, session, first.case.plate.serial, job_id)
            with_frame(session, job_id, first.case, replace(first.case.present, order=0, former=former))
            summaries.begin(session, job_id)
            summarise_head(session, first)
        elif existing.machine != new.machine:
            raise InputError(what=f"the id {job_id} belongs to another job", remedy="send a new id", field="id")
    with context.store.read() as session:
        return job_view(take(context, session, job_id), context.clock())


def _machine(session: Session, new: NewJob) -> MachineRow:
    """Return the machine of that name at that place, written down where it is new."""
    place_id = place_named(session, new.place)
    known = machines.at(session, new.machine, place_id)
    if known is not None and new.sheet in {"", known.sheet_id}:
        return known
    sheet = chosen(sheets_in(session), new.sheet)
    if known is not None:
        known.sheet_id = sheet.id
        return known
    plate = DataPlate(serial=new.serial).model_dump_json(exclude_defaults=True)
    machine = MachineRow(id=str(uuid4()), sheet_id=sheet.id, name=new.machine, place_id=place_id, plate=plate)
    machines.add(session, machine)
    return machine


def place_named(session: Session, name: str) -> str:
    """Return the id of a place by its name, written into the address book where it is new."""
    known = addresses.named(session, "place", name)
    if known is not None:
        return known.id
    row = AddressRow(id=str(uuid4()), kind="place", name=name)
    addresses.keep(session, row)
    return row.id
