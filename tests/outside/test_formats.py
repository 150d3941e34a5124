"""Exported files against readers that nobody here wrote.

Sources: JSON Schema 2020-12 as the packages ``jsonschema_rs`` and ``jsonschema`` check it; CSV as RFC 4180 has it (from
memory: records end in CRLF, a field with a comma or a quote stands in quotes), CSV on the Web as ``csvw`` and a table
schema as ``frictionless`` check it; YAML 1.1 by PyYAML.
"""

from __future__ import annotations

import csv
import io
import json
import warnings
from pathlib import Path
from uuid import uuid4

import jsonschema
import jsonschema_rs
import pytest
import yaml
from csvw import CSVW
from frictionless import Schema
from frictionless.resources import TableResource
from tests.seeded import with_demo
from tests.working import every_job

from ohmcensus.core.sheet import Sheet
from ohmcensus.exchange.job_csv import COLUMNS, csvw_metadata
from ohmcensus.exchange.sheet_yaml import plain_sheet, write_sheet
from ohmcensus.services.at_hand.context import Context
from ohmcensus.services.at_hand.sheets import all_sheets
from ohmcensus.services.reading.write_note import NewNote, write_note
from ohmcensus.services.transfer.export_job import export_text

SCHEMA = json.loads(Path("docs/formats/ohmcensus-job-1.schema.gen.json").read_text(encoding="utf-8"))


@pytest.fixture
def jobs(context: Context) -> list[str]:
    with_demo(context)
    return [job.id for job in every_job(context)]


def test_every_job_fits_the_published_schema(context: Context, jobs: list[str]) -> None:
    validator, second = jsonschema_rs.validator_for(SCHEMA), jsonschema.Draft202012Validator(SCHEMA)
    for job in jobs:
        found = json.loads(export_text(context, job, "json"))
        assert [error.message for error in validator.iter_errors(found)] == []
        assert [error.message for error in second.iter_errors(found)] == []
        assert not validator.is_valid(found | {"format": "ohmcensus-job/2"})
        assert not validator.is_valid(found | {"readings": [{}]})


@pytest.mark.parametrize("sheet", all_sheets().values(), ids=lambda sheet: sheet.id)
def test_every_sheet_fits_the_published_schema_and_a_spoilt_one_does_not(sheet: Sheet) -> None:
    schema = json.loads(Path("docs/formats/ohmcensus-sheet-1.schema.gen.json").read_text(encoding="utf-8"))
    validator, plain = jsonschema_rs.validator_for(schema), plain_sheet(sheet)
    assert [error.message for error in validator.iter_errors(plain)] == []
    assert not validator.is_valid(plain | {"format": "ohmcensus-sheet/2"})
    assert not validator.is_valid(plain | {"volts": -1})
    assert not validator.is_valid(plain | {"parts": [{"id": "x", "kind": "stove", "ratings": {}}]})


def test_json_holds_no_number_that_json_has_not(context: Context, jobs: list[str]) -> None:
    def refuse(name: str) -> None:
        raise AssertionError(name)

    for job in jobs:
        json.loads(export_text(context, job, "json"), parse_constant=refuse)


def test_csv_keeps_commas_quotes_and_line_breaks(context: Context, jobs: list[str]) -> None:
    text = 'tag "3", wet\nand green; 5 Ω'
    revision = next(job.revision for job in every_job(context) if job.id == jobs[0])
    write_note(context, jobs[0], NewNote(id=uuid4(), revision=revision, line="pump.coil", text=text))
    written = export_text(context, jobs[0], "csv")
    rows = list(csv.DictReader(io.StringIO(written, newline="")))
    assert next(row["note"] for row in rows if row["line"] == "pump.coil") == text
    assert written.count("\r\n") == len(rows) + 1
    assert {len(row) for row in csv.reader(io.StringIO(written, newline=""))} == {21}


@pytest.fixture
def tables(context: Context, jobs: list[str], tmp_path: Path) -> list[Path]:
    """The readings of every demo job as CSV, each with its metadata beside it."""
    made = []
    for job in jobs:
        file = tmp_path / f"{job}.csv"
        file.write_text(export_text(context, job, "csv"), encoding="utf-8", newline="")
        Path(f"{file}-metadata.json").write_text(csvw_metadata(file.name), encoding="utf-8")
        made.append(file)
    return made


def test_the_readings_are_csv_on_the_web(tables: list[Path]) -> None:
    """CSV on the Web (W3C, 2015) as the package ``csvw`` validates it; a word for a number is found."""
    for file in tables:
        assert _csvw_is_valid(file)
    spoilt = tables[0]
    rows = list(csv.reader(io.StringIO(spoilt.read_text(encoding="utf-8"))))
    rows[1][COLUMNS.index("interval_lo")] = "a little"
    with spoilt.open("w", newline="", encoding="utf-8") as out:
        csv.writer(out).writerows(rows)
    assert not _csvw_is_valid(spoilt)


def _csvw_is_valid(file: Path) -> bool:
    with warnings.catch_warnings():
        warnings.simplefilter("always")
        found = CSVW(f"{file}-metadata.json", validate=True)
        return bool(found.is_valid)


def test_the_readings_are_a_table_with_a_schema(tables: list[Path]) -> None:
    """The schema is made of the metadata; the table is checked by the package ``frictionless``."""
    for file in tables:
        columns = json.loads(Path(f"{file}-metadata.json").read_text(encoding="utf-8"))["tableSchema"]["columns"]
        fields = [{"name": column["name"], **_field(column["datatype"])} for column in columns]
        schema = Schema.from_descriptor({"fields": fields})
        report = TableResource(path=file.name, basepath=str(file.parent), schema=schema).validate()
        assert report.flatten(["rowNumber", "fieldName", "note"]) == []


def _field(datatype: object) -> dict[str, object]:
    if isinstance(datatype, dict):
        return {"type": "boolean", "trueValues": ["True"], "falseValues": ["False"]}
    return {"type": datatype}


def test_a_sheet_is_plain_yaml(fl7: Sheet) -> None:
    found = yaml.safe_load(write_sheet(fl7))
    assert [part["id"] for part in found["parts"]] == [part.id for part in fl7.parts]
    assert found["parts"][5]["ratings"] == {"watts": 2000.0, "volts": 230.0, "plate": "element"}
