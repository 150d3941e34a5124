"""A job in the open formats."""

from __future__ import annotations

from pathlib import Path

from ohmcensus.core.case import Reading
from ohmcensus.core.errors import InputError
from ohmcensus.core.first_look import eye_checks
from ohmcensus.core.layout.ohm_ruler import line_key
from ohmcensus.core.safety import safety_at
from ohmcensus.exchange.job_csv import write_csv
from ohmcensus.exchange.job_file import (
    CheckEntry,
    EventEntry,
    JobFile,
    RowEntry,
    SafetyEntry,
    line_entry,
    reading_entry,
)
from ohmcensus.services.at_hand import take
from ohmcensus.services.context import Context
from ohmcensus.services.write_report import report_pdf


def job_file(context: Context, job_id: str) -> JobFile:
    """Return the whole job.

    Raises
    ------
    NotFoundError
        If there is no such job.
    """
    with context.store.read() as session:
        job = take(context, session, job_id)
    stored, case, lines = job.stored, job.case, job.lines
    safety = safety_at(case, context.clock())
    return JobFile(
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
        events=[EventEntry(id=e.id, order=e.order, at=e.at, who=e.who, body=e.body) for e in case.events],
        readings=[reading_entry(answer) for line in lines for answer in line.answers],
        lines=[line_entry(line, job.notes.get(line_key(line), "")) for line in lines],
        history=[_row_entry(row) for row in case.readings],
        meters={row.meter.id: row.meter for row in case.readings},
    )


def _row_entry(row: Reading) -> RowEntry:
    """Return one row of the history as an entry."""
    return RowEntry(
        id=row.id,
        test=row.test,
        text=row.text,
        at=row.at,
        who=row.who,
        supersedes=row.supersedes,
        withdrawn=row.withdrawn,
        loose=row.loose,
        override=row.override,
        order=row.order,
    )


def export_text(context: Context, job_id: str, ending: str) -> str:
    """Return the job in the format that a file ending names: csv or json.

    Raises
    ------
    InputError
        If the ending is another.
    """
    job = job_file(context, job_id)
    if ending == "json":
        return job.model_dump_json(indent=2) + "\n"
    if ending == "csv":
        return write_csv(job)
    raise InputError(what=f"no format '.{ending[:20]}'", remedy="name the file .csv, .json or .pdf", field="file")


def export_job(context: Context, job_id: str, file: Path) -> None:
    """Write a job to a file; nothing is written if anything is wrong.

    Raises
    ------
    InputError
        If the ending names no format or the file cannot be written.
    """
    ending = file.suffix.removeprefix(".")
    written = report_pdf(context, job_id) if ending == "pdf" else export_text(context, job_id, ending).encode()
    try:
        file.write_bytes(written)
    except OSError as error:
        what = f"{file} cannot be written ({error.strerror})"
        raise InputError(what=what, remedy="choose another place", field="file") from error
