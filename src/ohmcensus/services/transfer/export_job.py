"""A job in the open formats, or all of them in one archive."""

from __future__ import annotations

import json
from collections.abc import Callable, Iterator, Mapping
from pathlib import Path
from typing import Any

from sqlmodel import Session

from ohmcensus.core.errors import InputError
from ohmcensus.core.event import Event
from ohmcensus.core.job.first_look import eye_checks
from ohmcensus.core.job.reading import Reading, plain_reading
from ohmcensus.core.layout.ohm_ruler import line_key
from ohmcensus.core.meter import Meter
from ohmcensus.core.proof.label import is_labelled
from ohmcensus.exchange.device_digest import device_digest
from ohmcensus.exchange.frame_body import body_of
from ohmcensus.exchange.job_archive import ArchivedJob, write_archive
from ohmcensus.exchange.job_csv import csvw_metadata, write_csv
from ohmcensus.exchange.job_file import (
    CheckEntry,
    EventEntry,
    FrameEntry,
    JobFile,
    NoteEntry,
    PhotoEntry,
    RowEntry,
    SafetyEntry,
    SignedEntry,
    WantedEntry,
    line_entry,
    reading_entry,
)
from ohmcensus.exchange.sheet_yaml import plain_sheet
from ohmcensus.services.at_hand.context import Context
from ohmcensus.services.at_hand.job import JobAtHand, take
from ohmcensus.services.at_hand.sheets import own_sheets
from ohmcensus.services.sheet_out.write_report import label_pdf, report_pdf
from ohmcensus.storage import jobs, notes, photos, readings, shelf, signed_sheets

ALL = "all"


def job_file(context: Context, job_id: str) -> JobFile:
    """Return the whole job.

    Raises
    ------
    NotFoundError
        If there is no such job.
    """
    with context.store.read() as session:
        job = take(context, session, job_id)
        kept = _kept_beside(session, job)
    stored, case = job.stored, job.case
    safety = job.safety(context.clock())
    return JobFile(
        **kept,
        id=stored.id,
        revision=stored.revision,
        place=stored.place,
        machine=stored.machine,
        serial=case.plate.serial,
        complaint=case.complaint.words,
        sheet=stored.sheet_id,
        opened_at=stored.opened_at,
        changed_at=stored.changed_at,
        ambient_celsius=case.celsius,
        safety=SafetyEntry(state=safety.state, at=safety.at, reason=safety.reason),
        symptoms=[symptom.value for symptom in case.complaint.symptoms],
        intake=case.complaint,
        plate=case.plate,
        checks=[
            CheckEntry(check=check.id, outcome=state.outcome.value, words=state.words)
            for check, state in eye_checks(case)
            if state is not None
        ],
        events=[_event_entry(event, job_id) for event in case.events],
        frames=[FrameEntry(order=int(row.order), frame=body_of(row)) for row in case.frames if not row.is_arrival],
        lines=[line_entry(line, job.notes.get(line_key(line), "")) for line in job.lines],
        machine_id=stored.machine_id,
        customer=stored.customer,
        intake_revision=stored.intake_revision,
    )


def _event_entry(event: Event, job_id: str) -> EventEntry:
    """Return one event as a file carries it: of its device a digest."""
    return EventEntry(
        id=event.id,
        order=event.order,
        at=event.at,
        who=event.who,
        body=event.body,
        device=device_digest(job_id, event.device),
        refused=event.refused,
    )


def _kept_beside(session: Session, job: JobAtHand) -> dict[str, Any]:
    """Return what the store keeps of a job beside its case, and the readings with their meters by name."""
    job_id, own = job.stored.id, own_sheets(session)
    sheet = own.get(job.stored.sheet_id)
    return {
        **json.loads(jobs.unknown_keys(session, job_id)),
        **_readings(job, readings.sentences(session, job_id)),
        "notes": [
            NoteEntry(id=row.id, order=row.revision, line=row.line, text=row.text, at=row.at, who=row.who)
            for row in notes.of_job(session, job_id)
        ],
        "photos": [
            PhotoEntry(
                order=row.revision,
                event=row.event_id,
                **row.model_dump(include={"id", "role", "content", "width", "height", "at", "who"}),
            )
            for row in photos.of_job(session, job_id)
        ],
        "wanted": [
            WantedEntry(id=wanted_id, wanted=wanted)
            for wanted_id, (_, wanted) in shelf.wanted_parts(session, job_id).items()
        ],
        "own_sheet": plain_sheet(sheet) if sheet else None,
        "signed": [
            SignedEntry(**row.model_dump(exclude={"job_id", "pdf", "label"}))
            for row in signed_sheets.of_job(session, job_id)
        ],
    }


def _readings(job: JobAtHand, told: Mapping[str, str]) -> dict[str, Any]:
    """Return the standing readings, every row ever written, and their meters by a name each."""
    meters = _named(job.case.readings)
    name_of = {meter: name for name, meter in meters.items()}
    typed = {row.id for row in job.case.standing}
    standing = [answer for line in job.lines for answer in line.every if answer.reading.id in typed]
    return {
        "readings": [reading_entry(row, name_of[row.reading.meter.model_dump_json()]) for row in standing],
        "history": [
            RowEntry(
                **(plain_reading(row) | {"device": device_digest(job.stored.id, row.device)}),
                meter=name_of[row.meter.model_dump_json()],
                sentence=told.get(row.id, ""),
            )
            for row in job.case.readings
        ],
        "meters": {name: Meter.model_validate_json(meter) for name, meter in meters.items()},
    }


def _named(rows: tuple[Reading, ...]) -> dict[str, str]:
    """Return the meters of the readings as JSON by a name each: the id, with a number where one was changed since."""
    found: dict[str, str] = {}
    for row in rows:
        body = row.meter.model_dump_json()
        if body in found.values():
            continue
        versions = sum(name.partition("~")[0] == row.meter.id for name in found)
        found[f"{row.meter.id}~{versions + 1}" if versions else row.meter.id] = body
    return found


def export_text(context: Context, job_id: str, ending: str) -> str:
    """Return the job in the format that a file ending names: csv or json.

    Raises
    ------
    InputError
        If the ending is another.
    """
    job = job_file(context, job_id)
    if ending == "json":
        return _json(job)
    if ending == "csv":
        return write_csv(job)
    what = f"no format '.{ending[:20]}'"
    raise InputError(what=what, remedy="name the file .csv, .json, .pdf or .zip", field="file")


Tell = Callable[[int, int], None]


def export_job(context: Context, job_id: str, file: Path, tell: Tell | None = None) -> list[str]:
    """Write a job, or "all" of them, to a file; nothing is written if anything is wrong.

    Parameters
    ----------
    context, job_id, file
        From where, what, and where to.
    tell
        Called with how many jobs are written, and of how many.

    Returns
    -------
    list of str
        Photos that could not be written, since their pictures are missing; the rest went on without them.

    Raises
    ------
    InputError
        If the ending names no format, all jobs are wanted in one that holds but one, or the file cannot be written.
    """
    ending = file.suffix.removeprefix(".")
    if ending == "zip":
        return export_archive(context, _all_jobs(context) if job_id == ALL else [job_id], file, tell)
    if job_id == ALL:
        raise InputError(what="all jobs go into one archive", remedy="name the file .zip", field="file")
    written = report_pdf(context, job_id) if ending == "pdf" else export_text(context, job_id, ending).encode()
    try:
        file.write_bytes(written)
    except OSError as error:
        what = f"{file} cannot be written ({error.strerror})"
        raise InputError(what=what, remedy="choose another place", field="file") from error
    return []


def export_archive(context: Context, job_ids: list[str], file: Path, tell: Tell | None = None) -> list[str]:
    """Write jobs with their papers and photos into a zip; return the photos whose pictures are missing.

    Raises
    ------
    NotFoundError
        If there is no such job.
    InputError
        If the file cannot be written.
    """
    lacking: list[str] = []
    write_archive(file, _archived(context, job_ids, lacking, tell))
    return lacking


def _archived(context: Context, job_ids: list[str], lacking: list[str], tell: Tell | None) -> Iterator[ArchivedJob]:
    for at, job_id in enumerate(job_ids):
        if tell is not None:
            tell(at, len(job_ids))
        whole = job_file(context, job_id)
        files = {row.content: photos.path_of(context.store.folder, row.content) for row in whole.photos}
        pictures = {content: path for content, path in files.items() if path.is_file()}
        job = whole.model_copy(update={"photos": [row for row in whole.photos if row.content in pictures]})
        lacking += [f"photo {content[:12]} of job {job_id}" for content in files if content not in pictures]
        papers = {
            "job.json": _json(job).encode(),
            "readings.csv": write_csv(job).encode(),
            "readings.csv-metadata.json": csvw_metadata("readings.csv").encode(),
            "job-sheet.pdf": report_pdf(context, job_id),
        }
        with context.store.read() as session:
            at_hand = take(context, session, job_id)
        if is_labelled(at_hand.case, at_hand.safety(context.clock())):
            papers["label.pdf"] = label_pdf(context, job_id)
        yield ArchivedJob(job_id, papers, pictures)


def _all_jobs(context: Context) -> list[str]:
    with context.store.read() as session:
        return [stored.id for stored in jobs.newest_first(session)]


def _json(job: JobFile) -> str:
    return job.model_dump_json(indent=2) + "\n"
