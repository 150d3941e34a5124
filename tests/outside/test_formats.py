"""Exported files against readers that nobody here wrote.

Sources: JSON Schema 2020-12 as the package ``jsonschema_rs`` checks it; CSV as RFC 4180 has it (from memory: records
end in CRLF, a field with a comma or a quote stands in quotes); YAML 1.1 by PyYAML.
"""

from __future__ import annotations

import csv
import io
import json
from pathlib import Path
from uuid import uuid4

import jsonschema_rs
import pytest
import yaml

from ohmcensus.core.sheet import Sheet
from ohmcensus.exchange.sheet_yaml import plain_sheet, write_sheet
from ohmcensus.services.context import Context
from ohmcensus.services.export_job import export_text
from ohmcensus.services.find_sheet import all_sheets
from ohmcensus.services.seed_demo import seed_demo
from ohmcensus.services.show_job import list_jobs
from ohmcensus.services.write_note import NewNote, write_note

SCHEMA = json.loads(Path("docs/formats/ohmcensus-job-1.schema.gen.json").read_text(encoding="utf-8"))


@pytest.fixture
def jobs(context: Context) -> list[str]:
    seed_demo(context)
    return [job.id for job in list_jobs(context)]


def test_every_job_fits_the_published_schema(context: Context, jobs: list[str]) -> None:
    validator = jsonschema_rs.validator_for(SCHEMA)
    for job in jobs:
        found = json.loads(export_text(context, job, "json"))
        assert [error.message for error in validator.iter_errors(found)] == []
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
    revision = next(job.revision for job in list_jobs(context) if job.id == jobs[0])
    write_note(context, jobs[0], NewNote(id=uuid4(), revision=revision, line="pump.coil", text=text))
    written = export_text(context, jobs[0], "csv")
    rows = list(csv.DictReader(io.StringIO(written, newline="")))
    assert next(row["note"] for row in rows if row["line"] == "pump.coil") == text
    assert written.count("\r\n") == len(rows) + 1
    assert {len(row) for row in csv.reader(io.StringIO(written, newline=""))} == {21}


def test_a_sheet_is_plain_yaml(fl7: Sheet) -> None:
    found = yaml.safe_load(write_sheet(fl7))
    assert [part["id"] for part in found["parts"]] == [part.id for part in fl7.parts]
    assert found["parts"][5]["ratings"] == {"watts": 2000.0, "volts": 230.0, "plate": "element"}
