"""Meanings of codes as CSV: columns ``code``, ``words``, ``suspects`` ("heater:0.6; ntc:0.2")."""

from __future__ import annotations

import csv
import io

from pydantic import ValidationError

from ohmcensus.core.codes import Meaning
from ohmcensus.core.errors import InputError

COLUMNS = ("code", "words", "suspects")
LARGEST_TABLE = 200_000
MOST_ROWS = 1000


def read_meanings(body: bytes) -> tuple[Meaning, ...]:
    """Return the rows of a table; codes and parts are checked by the core.

    Raises
    ------
    InputError
        If it is not UTF-8, has other columns, or a row cannot be read; the message names the line.
    """
    reader = csv.DictReader(io.StringIO(_text(body)), skipinitialspace=True, strict=True)
    names = [name.strip().lower() for name in reader.fieldnames or []]
    if names[:2] != list(COLUMNS[:2]) or set(names) - set(COLUMNS):
        what = f"the columns are {', '.join(names)[:80] or 'missing'}"
        raise InputError(what=what, remedy=f"the first line must be {','.join(COLUMNS)}", field="csv")
    reader.fieldnames = names
    rows = []
    try:
        for row in reader:
            if any(isinstance(value, str) and value.strip() for value in row.values()):
                rows.append(_meaning(row, reader.line_num))
            if len(rows) > MOST_ROWS:
                raise InputError(what=f"more than {MOST_ROWS} rows", remedy="split the table", field="csv")
    except csv.Error as error:
        what = f"line {reader.line_num}: no CSV ({error})"
        raise InputError(what=what, remedy="check the quotes", field="csv") from None
    return tuple(rows)


def _text(body: bytes) -> str:
    """Return the text of a file, refusing other encodings than UTF-8."""
    if len(body) > LARGEST_TABLE:
        raise InputError(
            what=f"the table has {len(body) // 1000} kB", remedy=f"at most {LARGEST_TABLE // 1000} kB", field="csv"
        )
    try:
        return body.decode("utf-8-sig")
    except UnicodeDecodeError as error:
        line = body[: error.start].count(b"\n") + 1
        what = f"line {line}: not in UTF-8"
        raise InputError(what=what, remedy="save the table as 'CSV UTF-8'", field="csv") from None


def _meaning(row: dict[str | None, str | list[str] | None], line: int) -> Meaning:
    """Return one row as a meaning."""
    cells = {name: value.strip() for name, value in row.items() if name is not None and isinstance(value, str)}
    suspects: dict[str, float] = {}
    for entry in filter(None, (part.strip() for part in cells.get("suspects", "").split(";"))):
        part, colon, weight = entry.partition(":")
        suspects[part.strip()] = _weight(weight.strip(), line) if colon else 1.0
    try:
        return Meaning(code=cells.get("code", ""), words=cells.get("words", ""), suspects=suspects)
    except ValidationError as error:
        fault = error.errors(include_url=False)[0]
        name = str(fault["loc"][0])
        what = f"line {line}: {name}: {fault['msg'].lower()}"
        raise InputError(
            what=what, remedy="fill in code and words; weights are above 0, at most 1", field=name
        ) from None


def _weight(typed: str, line: int) -> float:
    try:
        return float(typed.replace(",", "."))
    except ValueError:
        what = f"line {line}: '{typed[:20]}' is not a weight"
        raise InputError(what=what, remedy="write part:0.6, above 0 and at most 1", field="suspects") from None
