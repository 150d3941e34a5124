"""The job sheet as CSV: one row a reading, one for every line that was not asked. SI units."""

from __future__ import annotations

import csv
import io
import json

from ohmcensus.exchange.job_file import JobFile, LineEntry, ReadingEntry

# Name, kind of value, and what stands there; a column without a value is empty.
_COLUMNS = (
    ("line", "string", "Line of the census sheet: a test, or two points."),
    ("part", "string", "Part of the machine."),
    ("test", "string", "Test of the part, in words."),
    ("point_a", "string", "Where one probe stood."),
    ("point_b", "string", "Where the other stood."),
    ("typed", "string", "The reading as it was typed."),
    ("value", "number", "The reading in the SI unit; empty where it has no value."),
    ("unit", "string", "That unit."),
    ("bound", "string", "exact, above or below: a reading beyond the range is one-sided."),
    ("interval_lo", "number", "Least that the reading may stand for, by the meter's error."),
    ("interval_hi", "number", "Most that it may stand for."),
    ("should_lo", "number", "Least that a good part reads; empty where there is no end."),
    ("should_hi", "number", "Most that a good part reads."),
    ("basis", "string", "Where that comes from."),
    ("verdict", "string", "What the reading says of the part, or not_asked."),
    ("meter", "string", "Meter, by its name in the file of the job."),
    ("celsius", "number", "Temperature of the part; empty where nobody stated it."),
    ("alone", "boolean", "Whether the part was measured off its plugs."),
    ("at", "datetime", "Moment, UTC."),
    ("who", "string", "Technician."),
    ("note", "string", "Note on the line."),
)
COLUMNS = tuple(name for name, _, _ in _COLUMNS)
_FORMULA_MARKS = ("=", "+", "-", "@", "\t", "\r")


def write_csv(job: JobFile) -> str:
    """Return the job sheet; text that a spreadsheet would run as a formula gets a leading apostrophe."""
    by_line: dict[str, list[ReadingEntry]] = {}
    for reading in job.readings:
        by_line.setdefault(reading.test or " ".join(reading.between), []).append(reading)
    out = io.StringIO()
    writer = csv.DictWriter(out, COLUMNS, lineterminator="\r\n")
    writer.writeheader()
    for line in job.lines:
        readings = by_line.get(line.line, [])
        rows = [_row(line, reading) for reading in readings] or [_row(line, None)]
        writer.writerows({key: _safe(value) for key, value in row.items()} for row in rows)
    return out.getvalue()


def csvw_metadata(url: str) -> str:
    """Return what the table at an address holds, as metadata for CSV on the Web (W3C, 2015), in JSON."""
    columns = [
        {"name": name, "titles": name, "datatype": _datatype(kind), "dc:description": words, "null": ""}
        for name, kind, words in _COLUMNS
    ]
    said = {
        "@context": "http://www.w3.org/ns/csvw",
        "url": url,
        "dialect": {"lineTerminators": ["\r\n"]},
        "tableSchema": {"columns": columns},
    }
    return json.dumps(said, indent=2, ensure_ascii=False) + "\n"


def _datatype(kind: str) -> object:
    return {"base": "boolean", "format": "True|False"} if kind == "boolean" else kind


def _row(line: LineEntry, reading: ReadingEntry | None) -> dict[str, object]:
    """Return one row."""
    should = line.should if reading is None else reading.window
    row: dict[str, object] = {
        "line": line.line,
        "part": line.part,
        "test": line.title,
        "verdict": line.verdict if reading is None else reading.verdict,
        "note": line.note,
    }
    if should is not None:
        row |= {"should_lo": should.lo, "should_hi": should.hi, "basis": should.basis, "unit": should.unit}
    if reading is not None:
        row |= {
            "point_a": reading.between[0],
            "point_b": reading.between[1],
            "typed": reading.text,
            "interval_lo": reading.interval[0],
            "interval_hi": reading.interval[1],
            **reading.model_dump(include={"value", "unit", "bound", "meter", "alone", "at", "who"}),
            "celsius": reading.celsius if reading.is_celsius_stated else None,
        }
    return row


def _safe(value: object) -> object:
    """Return a cell that no spreadsheet takes for a formula."""
    return f"'{value}" if isinstance(value, str) and value.startswith(_FORMULA_MARKS) else value
