"""Readings: appended, never changed."""

from __future__ import annotations

import hashlib
import json
from typing import Any, NamedTuple

from sqlalchemy import Row, bindparam, select
from sqlalchemy.dialects.sqlite import insert
from sqlalchemy.exc import IntegrityError
from sqlmodel import Session

from ohmcensus.core.errors import InputError
from ohmcensus.core.job.reading import Reading, plain_reading, reading_from
from ohmcensus.core.judgement import Judgement
from ohmcensus.core.meter import Meter
from ohmcensus.storage.tables import MeterVersionRow, ReadingRow, table_of

_READING, _VERSION = table_of(ReadingRow), table_of(MeterVersionRow)
_KEEP_VERSION = insert(_VERSION).on_conflict_do_nothing()
_INSERT = _READING.insert()
_OF_JOB = (
    select(_READING, _VERSION.c.body.label("meter_body"))
    .join(_VERSION, _VERSION.c.hash == _READING.c.meter)
    .where(_READING.c.job_id == bindparam("job"), _READING.c.revision > bindparam("after"))
    .order_by(_READING.c.revision)
)

# Columns that are called as in a file; what tells how it was taken lies in one column, as JSON.
_ALIKE = (
    *("id", "test", "function", "text", "value", "unit", "bound", "last_place"),
    *("celsius", "at", "who", "supersedes", "withdrawn"),
)
_CONFIGURATION = (
    *("alone", "loose", "override", "inhand", "device", "until", "is_celsius_stated", "condition"),
    *("was", "door", "step", "refused"),
)
_ALWAYS = frozenset({"alone", "loose", "override", "is_celsius_stated"})


def append(session: Session, job_id: str, revision: int, reading: Reading, judgement: Judgement | None) -> None:
    """Write one reading with the judgement of the day.

    Raises
    ------
    InputError
        If its id belongs to another reading.
    """
    _insert(
        session, job_id, reading, revision, _Told(judgement.verdict.value, judgement.sentence) if judgement else _Told()
    )


def restore(session: Session, job_id: str, reading: Reading, sentence: str) -> None:
    """Write a reading of a file, with its own revision and the judgement of its day.

    Raises
    ------
    InputError
        If its id belongs to another reading.
    """
    _insert(session, job_id, reading, reading.order, _Told(reading.told, sentence))


def sentences(session: Session, job_id: str) -> dict[str, str]:
    """Return the judgement of the day of every reading of a job, by its id."""
    rows = session.connection().execute(_OF_JOB, {"job": job_id, "after": 0})
    return {row.id: row.judgement for row in rows}


class _Told(NamedTuple):
    """What was told of a reading when it was logged."""

    verdict: str = ""
    sentence: str = ""


def _insert(session: Session, job_id: str, reading: Reading, revision: int, told: _Told) -> None:
    meter = reading.meter.model_dump_json()
    version = hashlib.sha256(meter.encode()).hexdigest()[:24]
    session.connection().execute(_KEEP_VERSION, {"hash": version, "body": meter})
    plain = plain_reading(reading)
    row = {name: plain[name] for name in _ALIKE} | {
        "job_id": job_id,
        "revision": revision,
        "point_a": reading.between[0],
        "point_b": reading.between[1],
        "meter": version,
        "configuration": json.dumps({name: plain[name] for name in _CONFIGURATION if plain[name] or name in _ALWAYS}),
        "verdict": told.verdict,
        "judgement": told.sentence,
    }
    try:
        session.connection().execute(_INSERT, row)
    except IntegrityError as error:
        what = f"the id {reading.id} belongs to another reading"
        raise InputError(what=what, remedy="send a new id", field="id") from error


def of_job(session: Session, job_id: str, *, after: int = 0) -> list[tuple[int, Reading]]:
    """Return all readings of a job written after a revision, oldest first, each with its revision."""
    rows = session.connection().execute(_OF_JOB, {"job": job_id, "after": after})
    meters: dict[str, Meter] = {}
    return [(row.revision, _reading(row, meters)) for row in rows]


def _reading(row: Row[Any], meters: dict[str, Meter]) -> Reading:
    """Return the core's reading of a row; each meter is read from its JSON once."""
    if row.meter not in meters:
        meters[row.meter] = Meter.model_validate_json(row.meter_body)
    plain = {name: getattr(row, name) for name in _ALIKE}
    told = {"between": (row.point_a, row.point_b), "order": row.revision, "told": row.verdict}
    return reading_from(plain | told | json.loads(row.configuration), meters[row.meter])
