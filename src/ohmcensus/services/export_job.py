"""A job in the open formats."""

from __future__ import annotations

from pathlib import Path

from ohmcensus.core.errors import InputError
from ohmcensus.core.layout.ohm_ruler import line_key
from ohmcensus.exchange.job_csv import write_csv
from ohmcensus.exchange.job_file import JobFile, RowEntry, SafetyEntry, line_entry, reading_entry
from ohmcensus.services.at_hand import take
from ohmcensus.services.context import Context


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
    return JobFile(
        id=stored.id,
        revision=stored.revision,
        place=stored.place,
        machine=stored.machine,
        serial=stored.serial,
        complaint=stored.complaint,
        sheet=stored.sheet_id,
        opened_at=stored.opened_at,
        changed_at=stored.changed_at,
        ambient_celsius=case.celsius,
        safety=SafetyEntry(state=stored.safety, at=stored.safety_at, reason=stored.safety_reason),
        readings=[reading_entry(answer) for line in lines for answer in line.answers],
        lines=[line_entry(line, job.notes.get(line_key(line), "")) for line in lines],
        history=[
            RowEntry(
                id=row.id,
                test=row.test,
                text=row.text,
                at=row.at,
                who=row.who,
                supersedes=row.supersedes,
                withdrawn=row.withdrawn,
            )
            for row in case.readings
        ],
        meters={row.meter.id: row.meter for row in case.readings},
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
    raise InputError(what=f"no format '.{ending[:20]}'", remedy="name the file .csv or .json", field="file")


def export_job(context: Context, job_id: str, file: Path) -> None:
    """Write a job to a file; nothing is written if anything is wrong.

    Raises
    ------
    InputError
        If the ending names no format or the file cannot be written.
    """
    text = export_text(context, job_id, file.suffix.removeprefix("."))
    try:
        file.write_text(text, encoding="utf-8", newline="")
    except OSError as error:
        what = f"{file} cannot be written ({error.strerror})"
        raise InputError(what=what, remedy="choose another place", field="file") from error
