"""A job as CSV and JSON."""

from __future__ import annotations

import csv
import io
import json
from pathlib import Path
from uuid import uuid4

import pytest
from tests.seeded import with_demo
from tests.working import every_job, job_on

from ohmcensus.core.errors import InputError
from ohmcensus.core.machine import machine_tests
from ohmcensus.exchange.job_csv import COLUMNS
from ohmcensus.exchange.job_file import JobFile
from ohmcensus.services.at_hand.context import Context
from ohmcensus.services.at_hand.sheets import find_sheet
from ohmcensus.services.reading.write_note import NewNote, write_note
from ohmcensus.services.transfer.export_job import export_job, export_text


@pytest.fixture
def job_id(context: Context) -> str:
    with_demo(context)
    return job_on(context, "Machine 3")


def test_the_csv_holds_every_line_asked_or_not(context: Context, job_id: str) -> None:
    rows = list(csv.DictReader(io.StringIO(export_text(context, job_id, "csv"))))
    assert tuple(rows[0]) == COLUMNS
    by_line = {row["line"]: row for row in rows}
    leak = by_line["heater.pe"]
    assert (float(leak["value"]), leak["verdict"], float(leak["should_lo"])) == (47000.0, "outside_low", 300000.0)
    assert (by_line["heater.element"]["verdict"], by_line["heater.element"]["value"]) == ("not_asked", "")
    assert by_line["heater.pe motor.pe"]["verdict"] == "not_judged"
    assert by_line["motor.armature"]["note"] == "Steady while turned."
    assert len(rows) == len(machine_tests(find_sheet("fl7-u"), 20.0)) + 1


def test_the_json_holds_the_readings_the_lines_and_the_whole_history(context: Context, job_id: str) -> None:
    text = export_text(context, job_id, "json")
    raw = json.loads(text)
    assert raw["format"] == "ohmcensus-job/1"
    job = JobFile.model_validate_json(text)
    assert (job.sheet, job.safety.state, len(job.readings), len(job.history)) == ("fl7-u", "dead", 18, 24)
    assert [check.outcome for check in job.checks] == ["good"] * 5
    assert (job.symptoms, job.intake.device) == (["trips"], "rcd")
    assert {"isolated", "opened"} <= {event.body.kind for event in job.events}
    leak = next(row for row in job.readings if row.test == "heater.pe")
    assert leak.interval[1] is not None
    assert leak.interval[0] is not None
    assert leak.interval[0] < 47e3 < leak.interval[1]
    assert {"multimeter-6000", "appliance-tester"} == set(job.meters)
    assert JobFile.model_validate(raw | {"weather": "rain"}).model_dump()["weather"] == "rain"


def test_text_that_a_spreadsheet_would_run_is_disarmed(context: Context, job_id: str) -> None:
    revision = next(job.revision for job in every_job(context) if job.id == job_id)
    write_note(context, job_id, NewNote(id=uuid4(), revision=revision, line="pump.coil", text="=1+1"))
    rows = list(csv.DictReader(io.StringIO(export_text(context, job_id, "csv"))))
    assert next(row["note"] for row in rows if row["line"] == "pump.coil") == "'=1+1"


def test_a_file_that_cannot_be_is_refused(context: Context, job_id: str, tmp_path: Path) -> None:
    with pytest.raises(InputError, match=r"name the file \.csv, \.json, \.pdf or \.zip"):
        export_job(context, job_id, tmp_path / "sheet.doc")
    with pytest.raises(InputError, match="cannot be written"):
        export_job(context, job_id, tmp_path / "missing" / "sheet.csv")
    assert list(tmp_path.glob("sheet*")) == []
