"""A job, or many, out of a file: everything is looked at before anything is written."""

from __future__ import annotations

import json
from dataclasses import dataclass, replace
from pathlib import Path
from uuid import UUID, uuid4

from sqlalchemy.exc import IntegrityError
from sqlmodel import Session

from ohmcensus.core.case import Case, Reading
from ohmcensus.core.errors import InputError, OhmcensusError
from ohmcensus.core.event import StripStep
from ohmcensus.core.judgement import census_lines
from ohmcensus.core.limits import LimitProfile, chosen_profile
from ohmcensus.core.proof import proofs
from ohmcensus.core.safety import safety_at
from ohmcensus.core.sheet import Sheet, SheetFaultsError, sheet_from
from ohmcensus.core.stages import ended, stages
from ohmcensus.exchange.frame_body import body_of
from ohmcensus.exchange.job_archive import read_archive
from ohmcensus.exchange.job_case import case_from, read_job, rows_from
from ohmcensus.exchange.job_file import JobFile
from ohmcensus.exchange.photo import thumbnail
from ohmcensus.exchange.sheet_yaml import write_sheet
from ohmcensus.services.at_hand import built
from ohmcensus.services.context import Context
from ohmcensus.services.export_job import job_file
from ohmcensus.services.find_sheet import chosen, own_sheets, sheets_in
from ohmcensus.services.keep_settings import settings_in
from ohmcensus.services.open_job import place_named
from ohmcensus.services.summarise import summarise, summarise_head
from ohmcensus.storage import (
    addresses,
    cover_times,
    events,
    frames,
    jobs,
    machines,
    notes,
    photos,
    readings,
    sheets,
    shelf,
    signed_sheets,
    summaries,
)
from ohmcensus.storage.search_text import words_in
from ohmcensus.storage.tables import (
    AddressRow,
    CoverTimeRow,
    JobRow,
    MachineRow,
    NoteRow,
    PhotoRow,
    SignedSheetRow,
)


@dataclass(frozen=True, slots=True)
class Imported:
    """What came in.

    Parameters
    ----------
    jobs, already
        Ids of the jobs that were written, and of those that were here as the file has them.
    photos
        How many photos came with them.
    """

    jobs: tuple[str, ...]
    already: tuple[str, ...]
    photos: int


@dataclass(frozen=True, slots=True)
class _Arrival:
    """One job that was looked at and may be written."""

    job: JobFile
    sheet: Sheet
    rows: tuple[Reading, ...]
    pictures: dict[str, bytes]


def import_file(context: Context, file: Path, name: str = "") -> Imported:
    """Bring in the jobs of a file; all of them or none.

    Parameters
    ----------
    context, file
        Where to, and from where.
    name
        The name that the file had, where it was sent; its ending tells the format.

    Raises
    ------
    InputError
        If the ending names no format that holds a job, the file is damaged or of a newer kind, does not fit its
        machine sheet, or a job of that id is here and differs.
    """
    shown = name or file.name
    arrivals, already = [], []
    for job, pictures in _read(file, shown):
        if _is_here(context, job):
            already.append(job.id)
        else:
            arrivals.append(_looked_at(context, job, pictures))
    for arrival in arrivals:
        for body in arrival.pictures.values():
            photos.keep_picture(context.store.folder, body, thumbnail(body))
    try:
        with context.store.write() as session:
            for arrival in arrivals:
                _write(session, arrival)
    except IntegrityError as error:
        what = f"{shown} holds an id twice, or one that another job here has"
        raise InputError(what=what, remedy="take a file that was not changed by hand", field="file") from error
    count = sum(len(row.job.photos) for row in arrivals)
    return Imported(tuple(row.job.id for row in arrivals), tuple(already), count)


def _read(file: Path, name: str) -> list[tuple[JobFile, dict[str, bytes]]]:
    ending = Path(name).suffix.lower()
    if ending == ".zip":
        return list(read_archive(file))
    if ending == ".json":
        try:
            job = read_job(file.read_text(encoding="utf-8"))
        except (OSError, UnicodeDecodeError) as error:
            raise InputError(what=f"{name} cannot be read ({error})", remedy=_ANOTHER, field="file") from error
        if job.photos:
            what = f"{name} names {len(job.photos)} photos that it does not hold"
            raise InputError(what=what, remedy="take the archive of this job instead: .zip", field="file")
        return [(job, {})]
    holds = "holds readings alone, no whole job" if ending == ".csv" else "is of no kind that holds a job"
    raise InputError(what=f"{name} {holds}", remedy=_ANOTHER, field="file")


_ANOTHER = "name a .json or .zip that 'ohmcensus export' wrote"


def _is_here(context: Context, job: JobFile) -> bool:
    """Tell whether the job is here as the file has it; refuse one that differs."""
    try:
        UUID(job.id)
    except ValueError:
        raise InputError(what=f"'{job.id[:40]}' is no id of a job", remedy=_ANOTHER, field="id") from None
    with context.store.read() as session:
        if jobs.find(session, job.id) is None:
            return False
    here = job_file(context, job.id)
    if _lasting(here) == _lasting(job):
        return True
    what = f"the job on {job.machine} is here already, at revision {here.revision}; the file has {job.revision}"
    raise InputError(what=what, remedy="import it into another data directory: --data DIR", field="id")


def _lasting(job: JobFile) -> dict[str, object]:
    """Return what of a job is its own: not the safety of the moment, nor what follows from the setup."""
    moment = {"safety", "lines", "readings", "checks", "ambient_celsius", "machine_id", "customer"}
    return job.model_dump(mode="json", exclude=moment)


def _looked_at(context: Context, job: JobFile, pictures: dict[str, bytes]) -> _Arrival:
    """Return a job that was held against its sheet: everything that is worked out of it can be."""
    with context.store.read() as session:
        sheet = _sheet_of(session, job)
    rows = rows_from(job)
    case = replace(case_from(job, sheet), readings=rows)
    try:
        _work_out(case, context)
    except OhmcensusError:
        raise
    except (LookupError, ValueError, AssertionError) as error:
        what = f"the job on {job.machine} does not fit its machine sheet '{sheet.id}' ({error})"
        raise InputError(what=what, remedy="take a file that was not changed by hand", field="file") from error
    return _Arrival(job, sheet, rows, pictures)


def _work_out(case: Case, context: Context) -> None:
    safety = safety_at(case, context.clock())
    census_lines(case)
    stages(case, safety)
    proofs(case, safety)


def _sheet_of(session: Session, job: JobFile) -> Sheet:
    """Return the sheet of a job: the store's, or the one that comes with it."""
    known = sheets_in(session)
    if job.own_sheet is None:
        return chosen(known, job.sheet)
    try:
        sheet = sheet_from(job.own_sheet)
    except SheetFaultsError as error:
        what = f"the machine sheet in the file is none ({error.faults[0].message})"
        raise InputError(what=what, remedy=_ANOTHER, field="own_sheet") from None
    here = own_sheets(session).get(job.sheet, known.get(job.sheet))
    if sheet.id != job.sheet or (here is not None and here != sheet):
        what = f"the machine sheet '{job.sheet}' in the file is not the one that is here"
        raise InputError(what=what, remedy="give yours another id first", field="own_sheet")
    return sheet


def _write(session: Session, arrival: _Arrival) -> None:
    job = arrival.job
    if job.own_sheet is not None and job.sheet not in own_sheets(session):
        sheets.keep(session, job.sheet, write_sheet(arrival.sheet))
    row = JobRow(
        id=job.id,
        machine_id=_machine(session, job),
        complaint=job.intake.model_dump_json(exclude_defaults=True),
        unknown_keys=json.dumps(job.model_extra or {}),
        opened_at=job.opened_at,
        changed_at=job.changed_at,
        revision=job.revision,
        intake_revision=job.intake_revision,
    )
    jobs.add(session, row)
    told = {entry.id: entry.sentence for entry in job.history}
    for reading in arrival.rows:
        readings.restore(session, job.id, reading, told[reading.id])
    case = case_from(job, arrival.sheet)
    for event in case.events:
        events.append(session, job.id, event)
    for frame in case.frames:
        frames.append(session, job.id, int(frame.order), body_of(frame).model_dump_json(exclude_defaults=True))
    came = replace(case.present, order=job.revision + 1, is_arrival=True, profile=_profile(session, arrival.sheet))
    frames.append(session, job.id, job.revision + 1, body_of(came).model_dump_json(exclude_defaults=True))
    for note in job.notes:
        columns = note.model_dump(exclude={"order"})
        notes.append(session, NoteRow(job_id=job.id, revision=note.order, **columns))
    for photo in job.photos:
        columns = photo.model_dump(exclude={"order", "event"})
        photos.append(session, PhotoRow(job_id=job.id, revision=photo.order, event_id=photo.event, **columns))
    for entry in job.wanted:
        shelf.keep_wanted(session, entry.id, job.id, 0, entry.wanted)
    for signed in job.signed:
        signed_sheets.append(session, SignedSheetRow(job_id=job.id, **signed.model_dump()))
    _follow(session, job, case)
    session.flush()


def _follow(session: Session, job: JobFile, case: Case) -> None:
    """Write what follows from a job: whether it is over, what its covers took, by what it is found."""
    for event in case.events_of(StripStep):
        body = event.body
        if isinstance(body, StripStep) and body.panel and body.minutes is not None:
            cover_times.append(
                session,
                CoverTimeRow(
                    event_id=event.id, job_id=job.id, sheet_id=job.sheet, panel=body.panel, minutes=body.minutes
                ),
            )
    jobs.end(session, job.id, is_ended=ended(case) is not None)
    summaries.begin(session, job.id)
    session.flush()
    words = [f"{row.line} {row.text}" for row in case.readings] + [note.text for note in job.notes]
    words += [words_in(event.body.model_dump_json()) for event in case.events]
    arrived = built(session, job.id)
    summarise(session, arrived, " ".join(words))
    summarise_head(session, arrived)


def _profile(session: Session, sheet: Sheet) -> LimitProfile:
    """Return the limits that hold here."""
    settings = settings_in(session)
    return chosen_profile(settings.profile, tuple(settings.own_profiles), sheet.volts)


def _machine(session: Session, job: JobFile) -> str:
    """Return the id of the machine: the one that is known with this plate, else a new one."""
    plate, place_id = job.plate.model_dump_json(exclude_defaults=True), _place(session, job)
    known = machines.at(session, job.machine, place_id)
    if known is not None and (known.sheet_id, known.plate) == (job.sheet, plate):
        return known.id
    is_free = bool(job.machine_id) and machines.get(session, job.machine_id) is None
    machine = MachineRow(
        id=job.machine_id if is_free else str(uuid4()),
        sheet_id=job.sheet,
        name=job.machine,
        place_id=place_id,
        plate=plate,
    )
    machines.add(session, machine)
    return machine.id


def _place(session: Session, job: JobFile) -> str:
    place_id = place_named(session, job.place)
    place = addresses.get(session, place_id)
    if place is not None and place.customer_id is None and job.customer:
        customer = addresses.named(session, "customer", job.customer)
        if customer is None:
            customer = AddressRow(id=str(uuid4()), kind="customer", name=job.customer)
            addresses.keep(session, customer)
        place.customer_id = customer.id
    return place_id
