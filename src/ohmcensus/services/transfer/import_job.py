"""A job, or many, out of a file: everything is looked at before anything is written."""

from __future__ import annotations

import json
import sqlite3
import tempfile
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from dataclasses import dataclass, replace
from pathlib import Path
from uuid import UUID, uuid4

from sqlalchemy.exc import DBAPIError, IntegrityError
from sqlmodel import Session

from ohmcensus.core.errors import InputError, OhmcensusError
from ohmcensus.core.event import Ended, StripStep
from ohmcensus.core.job.case import Case
from ohmcensus.core.job.reading import Reading
from ohmcensus.core.limits.profile import LimitProfile, chosen_profile
from ohmcensus.core.proof.arrival import with_refusals
from ohmcensus.core.sheet import Sheet
from ohmcensus.exchange.frame_body import body_of
from ohmcensus.exchange.job_archive import Archive, opened_archive
from ohmcensus.exchange.job_case import MOST_JSON, case_from, own_sheet_of, read_job, rows_from
from ohmcensus.exchange.job_file import JobFile
from ohmcensus.exchange.sheet_yaml import write_sheet
from ohmcensus.services.at_hand.context import Context
from ohmcensus.services.at_hand.job import built
from ohmcensus.services.at_hand.settings import settings_in
from ohmcensus.services.at_hand.sheets import chosen, own_sheets, sheets_in
from ohmcensus.services.at_hand.summarise import summarise, summarise_head
from ohmcensus.services.job.open_job import place_named
from ohmcensus.services.transfer.draw_everything import draw_every_view
from ohmcensus.services.transfer.export_job import job_file
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
from ohmcensus.storage.database import scratch_store
from ohmcensus.storage.merge import copy_tables, merge
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
from ohmcensus.storage.trouble import told


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


class ImportCancelledError(OhmcensusError):
    """Somebody stopped an import before it was written."""


Tell = Callable[[int, int], None]


def import_file(context: Context, file: Path, name: str = "", tell: Tell | None = None) -> Imported:
    """Bring in the jobs of a file; all of them or none.

    Each job is written into a scratch database first and everything that the screens show of it is worked out there;
    only then all of them are copied over in one transaction.

    Parameters
    ----------
    context, file
        Where to, and from where.
    name
        The name that the file had, where it was sent; its ending tells the format.
    tell
        Called with how many jobs are done, and of how many, before each; it may raise to stop the import.

    Raises
    ------
    InputError
        If the ending names no format that holds a job, the file is damaged or of a newer kind, does not fit its
        machine sheet, or a job of that id is here and differs.
    """
    folder = context.store.folder
    with told(folder), context.importing, tempfile.TemporaryDirectory(dir=folder, prefix=".import-") as beside:
        scratch = scratch_store(Path(beside) / "scratch.db", folder)
        try:
            return _import(context, replace(context, store=scratch, at_hand={}, beside=None), file, name, tell)
        finally:
            scratch.close()


def _import(context: Context, scratch: Context, file: Path, name: str, tell: Tell | None) -> Imported:
    shown = name or file.name
    written, already, kept = list[str](), list[str](), set[str]()
    count = 0
    try:
        with _opened(file, shown) as source:
            _copy_setup(context, scratch)
            for at, place in enumerate(source.places):
                if tell is not None:
                    tell(at, len(source.places))
                job = source.job(place)
                if _is_here(context, job):
                    already.append(job.id)
                    continue
                for content, body in source.pictures(place, job):
                    kept |= _keep_picture(context, content, body)
                _look_at(scratch, job)
                written.append(job.id)
                count += len(job.photos)
        if written:
            scratch.store.close()
            merge(scratch.store.file, context.store.file)
    except BaseException as error:
        for content in kept:
            photos.forget_picture(context.store.folder, content)
        if isinstance(error, IntegrityError | sqlite3.IntegrityError):
            what = f"{shown} holds an id twice, or one that another job here has"
            raise InputError(what=what, remedy="take a file that was not changed by hand", field="file") from error
        raise
    return Imported(tuple(written), tuple(already), count)


class _OneJob:
    """A JSON document as a source of jobs."""

    places = ("",)

    def __init__(self, job: JobFile) -> None:
        self._job = job

    def job(self, _place: str) -> JobFile:
        return self._job

    def pictures(self, _place: str, _job: JobFile) -> Iterator[tuple[str, bytes]]:
        return iter(())


@contextmanager
def _opened(file: Path, name: str) -> Iterator[Archive | _OneJob]:
    ending = Path(name).suffix.lower()
    if ending == ".zip":
        with opened_archive(file, name) as archive:
            yield archive
        return
    if ending != ".json":
        holds = "holds readings alone, no whole job" if ending == ".csv" else "is of no kind that holds a job"
        raise InputError(what=f"{name} {holds}", remedy=_ANOTHER, field="file")
    try:
        is_large = file.stat().st_size > MOST_JSON
        body = b"" if is_large else file.read_bytes()
    except OSError as error:
        raise InputError(what=f"{name} cannot be read ({error.strerror})", remedy=_ANOTHER, field="file") from error
    if is_large:
        what = f"{name} is larger than {MOST_JSON / 1e6:.0f} MB"
        raise InputError(what=what, remedy="take a file that was not changed by hand", field="file")
    job = read_job(body)
    if job.photos:
        what = f"{name} names {len(job.photos)} photos that it does not hold"
        raise InputError(what=what, remedy="take the archive of this job instead: .zip", field="file")
    yield _OneJob(job)


_ANOTHER = "name a .json or .zip that 'ohmcensus export' wrote"


def _copy_setup(context: Context, scratch: Context) -> None:
    """Put into the scratch database what jobs are worked out with: settings, meters, sheets, addresses, machines."""
    copy_tables(context.store.file, scratch.store.file, ("setting", "meter", "sheet", "meanings", "address", "machine"))


def _keep_picture(context: Context, content: str, body: bytes) -> set[str]:
    """Keep a picture of the file; return its hash where it was not here before."""
    from ohmcensus.exchange.photo import thumbnail  # noqa: PLC0415 - nothing else here needs the picture library

    is_new = not photos.path_of(context.store.folder, content).exists()
    with context.picturing:
        photos.keep_picture(context.store.folder, body, thumbnail(body))
    return {content} if is_new else set()


def _is_here(context: Context, job: JobFile) -> bool:
    """Tell whether the job is here as the file has it; refuse one that differs."""
    try:
        UUID(job.id)
    except ValueError:
        raise InputError(what=f"'{job.id[:40]}' is not an id of a job", remedy=_ANOTHER, field="id") from None
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
    moment = ("safety", "lines", "readings", "checks", "ambient_celsius", "machine_id", "customer")
    marked: dict[str, object] = {name: {"__all__": {"refused"}} for name in ("events", "history")}
    return job.model_dump(mode="json", exclude=marked | dict.fromkeys(moment, True))  # type: ignore[arg-type]


def _look_at(scratch: Context, job: JobFile) -> None:
    """Write a job into the scratch database and work out everything that is shown of it.

    Raises
    ------
    InputError
        If anything of it cannot be.
    """
    try:
        job.plate.refuse_impossible()
        with scratch.store.write() as session:
            _write(session, job, _sheet_of(session, job), rows_from(job))
        draw_every_view(scratch, job.id)
    except OhmcensusError as error:
        what = f"the job on {job.machine[:60]} cannot be taken in ({error})"
        raise InputError(what=what, remedy="take a file that was not changed by hand", field="file") from error
    except IntegrityError:
        raise
    except (LookupError, ValueError, AssertionError, TypeError, ArithmeticError, DBAPIError) as error:
        why = str(error).splitlines()[0][:160] if str(error) else type(error).__name__
        what = f"the job on {job.machine[:60]} does not fit its machine sheet '{job.sheet[:40]}' ({why})"
        raise InputError(what=what, remedy="take a file that was not changed by hand", field="file") from error


def _sheet_of(session: Session, job: JobFile) -> Sheet:
    """Return the sheet of a job: the store's, or the one that comes with it."""
    known = sheets_in(session)
    sheet = own_sheet_of(job)
    if sheet is None:
        return chosen(known, job.sheet)
    here = own_sheets(session).get(job.sheet, known.get(job.sheet))
    if sheet.id != job.sheet or (here is not None and here != sheet):
        what = f"the machine sheet '{job.sheet}' in the file is not the one that is here"
        raise InputError(what=what, remedy="give yours another id first", field="own_sheet")
    return sheet


def _write(session: Session, job: JobFile, sheet: Sheet, rows: tuple[Reading, ...]) -> None:
    if job.own_sheet is not None and job.sheet not in own_sheets(session):
        sheets.keep(session, job.sheet, write_sheet(sheet))
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
    case = with_refusals(replace(case_from(job, sheet), readings=rows), _signed(job))
    for reading in case.readings:
        readings.restore(session, job.id, reading, told[reading.id])
    for event in case.events:
        events.append(session, job.id, event)
    for frame in case.frames:
        frames.append(session, job.id, int(frame.order), body_of(frame).model_dump_json(exclude_defaults=True))
    came = replace(case.present, order=job.revision + 1, is_arrival=True, profile=_profile(session, sheet))
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


def _signed(job: JobFile) -> frozenset[int]:
    """Return the endings whose signed sheets came along and say the same: so they stand, whatever the rules are now."""
    unsafe = {entry.order: entry.body.is_labelled_unsafe for entry in job.events if isinstance(entry.body, Ended)}
    rows = ((row.revision, json.loads(row.body)["report"]["is_unsafe"]) for row in job.signed)
    return frozenset(revision for revision, is_unsafe in rows if unsafe.get(revision) is is_unsafe)


def _follow(session: Session, job: JobFile, case: Case) -> None:
    """Write what follows from a job: whether it is over, what its covers took, by what it is found."""
    for event in case.of(StripStep):
        body = event.body
        if isinstance(body, StripStep) and body.panel and body.minutes is not None:
            cover_times.append(
                session,
                CoverTimeRow(
                    event_id=event.id, job_id=job.id, sheet_id=job.sheet, panel=body.panel, minutes=body.minutes
                ),
            )
    jobs.end(session, job.id, is_ended=case.ended is not None)
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
