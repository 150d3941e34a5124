"""The job sheet as CSV: one row a reading, one for every line that was not asked. SI units."""

from __future__ import annotations

import csv
import io

from ohmcensus.exchange.job_file import JobFile, LineEntry, ReadingEntry

COLUMNS = (
    "line",
    "part",
    "test",
    "point_a",
    "point_b",
    "typed",
    "value",
    "unit",
    "bound",
    "interval_lo",
    "interval_hi",
    "should_lo",
    "should_hi",
    "basis",
    "verdict",
    "meter",
    "celsius",
    "alone",
    "at",
    "who",
    "note",
)
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
            **reading.model_dump(include={"value", "unit", "bound", "meter", "celsius", "alone", "at", "who"}),
        }
    return row


def _safe(value: object) -> object:
    """Return a cell that no spreadsheet takes for a formula."""
    return f"'{value}" if isinstance(value, str) and value.startswith(_FORMULA_MARKS) else value
