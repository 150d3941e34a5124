"""From the file of a job back to what it tells of: standing readings for a diagnosis, all rows for a store."""

from __future__ import annotations

from pydantic import ValidationError
from pydantic_core import from_json

from ohmcensus.core.errors import InputError
from ohmcensus.core.event import Event
from ohmcensus.core.job.case import Case
from ohmcensus.core.job.reading import Reading, reading_from
from ohmcensus.core.sheet import Sheet, SheetFaultsError, sheet_from
from ohmcensus.exchange.frame_body import frames_from
from ohmcensus.exchange.job_file import FORMAT, JobFile, ReadingEntry, RowEntry

MOST_JSON = 20_000_000


def read_job(text: str | bytes) -> JobFile:
    """Return the job that a JSON document tells of; it is parsed once, whatever it holds.

    Raises
    ------
    InputError
        If it is none, or was written by a newer version.
    """
    if len(text) > MOST_JSON:
        what = f"the job has {len(text) / 1e6:.0f} MB, at most {MOST_JSON / 1e6:.0f} MB are taken"
        raise InputError(what=what, remedy="take a file that was not changed by hand", field="file")
    try:
        document = from_json(text, allow_inf_nan=False)
    except ValueError as error:
        what = f"this is not an exported job ({str(error)[:120]})"
        raise InputError(what=what, remedy=_EXPORT, field="file") from None
    try:
        return JobFile.model_validate(document)
    except ValidationError as error:
        first = error.errors()[0]
        stated = str(first.get("input", "")) if first["loc"] == ("format",) else ""
        if stated.startswith(FORMAT.rpartition("/")[0] + "/"):
            what = f"this job is of a newer kind ({stated[:40]}, this one knows {FORMAT})"
            raise InputError(what=what, remedy="update Ohmcensus", field="file") from None
        where = ".".join(str(step) for step in first["loc"]) or "the file"
        what = f"this is not an exported job ({where[:120]}: {first['msg'][:200]})"
        raise InputError(what=what, remedy=_EXPORT, field="file") from None


_EXPORT = "export it with: export JOB -o FILE.json"


def own_sheet_of(job: JobFile) -> Sheet | None:
    """Return the sheet that a file brings with it, None where it brings none.

    Raises
    ------
    InputError
        If it is no sheet.
    """
    if job.own_sheet is None:
        return None
    try:
        return sheet_from(job.own_sheet)
    except SheetFaultsError as error:
        what = f"the machine sheet in the file is none ({error.faults[0].message})"
        raise InputError(what=what, remedy="take a file that was not changed by hand", field="own_sheet") from None


def case_from(job: JobFile, sheet: Sheet) -> Case:
    """Return the case that a file tells of: its standing readings, events, complaint and plate."""
    return Case(
        sheet=sheet,
        readings=tuple(_standing(row, job) for row in job.readings),
        celsius=job.ambient_celsius,
        complaint=job.intake,
        plate=job.plate,
        events=events_from(job),
        frames=frames_from([(row.order, row.frame) for row in job.frames], {}, sheet),
    )


def events_from(job: JobFile) -> tuple[Event, ...]:
    """Return the events of a file."""
    return tuple(Event(row.id, row.body, row.at, row.who, row.order, row.device, row.refused) for row in job.events)


def rows_from(job: JobFile) -> tuple[Reading, ...]:
    """Return every reading ever written, standing or not.

    Raises
    ------
    InputError
        If the file names a meter, a function or a unit that it does not hold, or is older than its whole rows.
    """
    return tuple(_row(row, job) for row in job.history)


def _row(row: RowEntry, job: JobFile) -> Reading:
    if row.between is None or row.meter not in job.meters:
        what = f"reading {row.id} lacks its points or its meter"
        raise InputError(what=what, remedy="export the job again with this version", field="history")
    try:
        return reading_from(row.model_dump(), job.meters[row.meter])
    except ValueError as error:
        raise InputError(what=f"reading {row.id}: {error}", remedy="export the job again", field="history") from None


def _standing(row: ReadingEntry, job: JobFile) -> Reading:
    order = next((old.order for old in job.history if old.id == row.id), 0)
    return reading_from(row.model_dump() | {"order": order}, job.meters[row.meter])
