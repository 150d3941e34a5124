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
from ohmcensus.core.job.case import Reading
from ohmcensus.core.judgement import Judgement
from ohmcensus.core.meter import Function, Meter
from ohmcensus.core.quantity import Bound, Indication, Unit
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
    row = {
        "id": reading.id,
        "job_id": job_id,
        "revision": revision,
        "test": reading.test,
        "point_a": reading.between[0],
        "point_b": reading.between[1],
        "function": reading.function.value,
        "meter": version,
        "text": reading.text,
        "value": reading.indication.value,
        "unit": reading.indication.unit.value,
        "bound": reading.indication.bound.value,
        "last_place": reading.indication.last_place,
        "celsius": reading.celsius,
        "configuration": _configuration(reading),
        "verdict": told.verdict,
        "judgement": told.sentence,
        "at": reading.at,
        "who": reading.who,
        "supersedes": reading.supersedes,
        "withdrawn": reading.withdrawn,
    }
    try:
        session.connection().execute(_INSERT, row)
    except IntegrityError as error:
        what = f"the id {reading.id} belongs to another reading"
        raise InputError(what=what, remedy="send a new id", field="id") from error


def _configuration(reading: Reading) -> str:
    """Return how a reading was taken, as JSON."""
    said = {"alone": reading.alone, "loose": reading.loose, "override": reading.override}
    more = {"inhand": reading.inhand, "device": reading.device}
    return json.dumps(said | {name: value for name, value in more.items() if value})


def of_job(session: Session, job_id: str, *, after: int = 0) -> list[tuple[int, Reading]]:
    """Return all readings of a job written after a revision, oldest first, each with its revision."""
    rows = session.connection().execute(_OF_JOB, {"job": job_id, "after": after})
    meters: dict[str, Meter] = {}
    return [(row.revision, _reading(row, meters)) for row in rows]


def _reading(row: Row[Any], meters: dict[str, Meter]) -> Reading:
    """Return the core's reading of a row; each meter is read from its JSON once."""
    if row.meter not in meters:
        meters[row.meter] = Meter.model_validate_json(row.meter_body)
    configuration = json.loads(row.configuration)
    return Reading(
        id=row.id,
        between=(row.point_a, row.point_b),
        test=row.test,
        function=Function(row.function),
        meter=meters[row.meter],
        indication=Indication(row.value, Unit(row.unit), Bound(row.bound), row.last_place),
        text=row.text,
        celsius=row.celsius,
        alone=bool(configuration.get("alone")),
        loose=bool(configuration.get("loose")),
        override=str(configuration.get("override", "")),
        inhand=bool(configuration.get("inhand")),
        device=str(configuration.get("device", "")),
        order=row.revision,
        told=row.verdict,
        at=row.at,
        who=row.who,
        supersedes=row.supersedes,
        withdrawn=row.withdrawn,
    )
