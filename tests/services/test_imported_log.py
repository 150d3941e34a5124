"""A job out of a file goes through the admissions that hold here; no file names a device."""

from __future__ import annotations

import json
from collections.abc import Callable, Iterator
from pathlib import Path
from typing import Any
from uuid import uuid4

import pytest
from tests.noon import NOON
from tests.seeded import new_store
from tests.working import happened, logged, prove_dead, revision

from ohmcensus.core.event import Ended, Hazard, HazardFound, PluggedIn
from ohmcensus.services.at_hand.context import Context
from ohmcensus.services.at_hand.job import take
from ohmcensus.services.event.record_event import NewEvent, record_event
from ohmcensus.services.job.open_job import NewJob, open_job
from ohmcensus.services.job.show_job import show_job
from ohmcensus.services.reading.log_reading import NewReading, log_reading
from ohmcensus.services.safety.show_safe import show_safe
from ohmcensus.services.transfer.export_job import export_job, job_file
from ohmcensus.services.transfer.export_story import story_of
from ohmcensus.services.transfer.import_job import import_file

DEVICE = "9f3c-a-secret-of-one-browser"


@pytest.fixture
def other(tmp_path: Path) -> Iterator[Context]:
    store = new_store(tmp_path / "other")
    yield Context(store, clock=lambda: NOON)
    store.close()


@pytest.fixture
def job(context: Context) -> str:
    return open_job(context, NewJob(id=uuid4(), machine="Machine 9", place="Pier", sheet="fl7-u")).id


def came(
    context: Context, other: Context, job: str, tmp_path: Path, forge: Callable[[dict[str, Any]], None]
) -> dict[str, str]:
    """Carry a job into another store by a file that was changed on the way; return what was refused, by its kind."""
    file = tmp_path / "job.json"
    export_job(context, job, file)
    document = json.loads(file.read_text())
    forge(document)
    file.write_text(json.dumps(document))
    import_file(other, file)
    there = job_file(other, job)
    marked = {row.body.kind: row.refused for row in there.events if row.refused}
    return marked | {row.text: row.refused for row in there.history if row.refused}


def without(*kinds: str) -> Callable[[dict[str, Any]], None]:
    def forge(document: dict[str, Any]) -> None:
        document["events"] = [row for row in document["events"] if row["body"]["kind"] not in kinds]

    return forge


def dangers(context: Context, job: str) -> set[str]:
    return {row.hazard for row in show_safe(context, job).hazards}


def test_what_was_taken_here_is_taken_there(context: Context, other: Context, job: str, tmp_path: Path) -> None:
    happened(context, job, HazardFound(hazard=Hazard.SHOCK))
    prove_dead(context, job)
    for line in ("heater 26", "cord pe 0.08", "cord insulation 50M"):
        logged(context, job, line)
    assert came(context, other, job, tmp_path, lambda _: None) == {}
    assert job_file(other, job).safety.state == "not_proved"


def test_a_file_without_its_cut_off_proves_nothing_and_its_ohms_lift_nothing(
    context: Context, other: Context, job: str, tmp_path: Path
) -> None:
    happened(context, job, HazardFound(hazard=Hazard.WATER_INSIDE))
    prove_dead(context, job)
    for line in ("heater 26", "cord pe 0.08", "cord insulation 50M"):
        logged(context, job, line)
    found = came(context, other, job, tmp_path, without("isolated"))
    assert found.keys() == {"heater 26", "cord pe 0.08", "cord insulation 50M"}
    assert dangers(other, job) == {"water_inside"}


def test_a_reason_that_was_emptied_leaves_a_reading_that_opens_and_lifts_nothing(
    context: Context, other: Context, job: str, tmp_path: Path
) -> None:
    happened(context, job, HazardFound(hazard=Hazard.SHOCK))
    prove_dead(context, job)
    logged(context, job, "cord pe 0.08")

    def forge(document: dict[str, Any]) -> None:
        series = {"dead.ln", "dead.le", "dead.ne"}
        document["history"] = [row for row in document["history"] if row["test"] not in series]
        document["readings"] = [row for row in document["readings"] if row["test"] not in series]

    assert came(context, other, job, tmp_path, forge).keys() == {"cord pe 0.08"}
    assert dangers(other, job) == {"shock"}


def test_an_ending_that_was_flipped_does_not_end_the_job(
    context: Context, other: Context, job: str, tmp_path: Path
) -> None:
    happened(context, job, HazardFound(hazard=Hazard.SHOCK))
    prove_dead(context, job)
    happened(context, job, Ended(why="no time left", is_labelled_unsafe=True))

    def flip(document: dict[str, Any]) -> None:
        document["events"][-1]["body"]["is_labelled_unsafe"] = False

    assert came(context, other, job, tmp_path, flip).keys() == {"ended"}
    assert show_job(other, job).ended is None
    assert dangers(other, job) == {"shock"}


def test_a_correction_that_would_be_refused_makes_no_slip_of_what_read_bad(
    context: Context, other: Context, job: str, tmp_path: Path
) -> None:
    prove_dead(context, job)
    bad = NewReading(id=uuid4(), revision=revision(context, job), text="cord pe >20")
    log_reading(context, job, bad)
    logged(context, job, "cord pe 0.08")
    slip = NewReading(id=uuid4(), revision=revision(context, job), text="cord pe 0.09", supersedes=bad.id)
    log_reading(context, job, slip)
    assert dangers(context, job) == set(), "corrected at once it was a slip"

    def forge(document: dict[str, Any]) -> None:
        power = {**document["events"][0], "id": str(uuid4()), "body": {"kind": "plugged_in"}}
        last = next(row for row in document["history"] if row["text"] == "cord pe 0.09")
        power["order"], last["order"] = last["order"], last["order"] + 1
        document["events"].append(power)
        document["revision"] += 1

    assert came(context, other, job, tmp_path, forge).keys() == {"cord pe 0.09"}
    assert dangers(other, job) == {"earth"}


def test_power_that_was_refused_counts_as_power(context: Context, other: Context, job: str, tmp_path: Path) -> None:
    prove_dead(context, job)
    happened(context, job, PluggedIn())

    def forge(document: dict[str, Any]) -> None:
        body = {"kind": "hazard_found", "hazard": "shock"}
        first = document["events"][0]
        shock = {**first, "id": str(uuid4()), "body": body}
        for row in [*document["events"], *document["history"], *document["frames"]]:
            row["order"] += 1 if row["order"] >= first["order"] else 0
        document["events"].insert(0, shock)
        document["revision"] += 1

    assert came(context, other, job, tmp_path, forge).keys() == {"plugged_in"}
    assert dangers(other, job) >= {"shock", "live_though_forbidden"}


def test_no_answer_and_no_export_carries_the_id_of_a_device(
    context: Context, other: Context, job: str, tmp_path: Path
) -> None:
    prove_dead(context, job)
    for text in ("heater 26", "heater 26.1"):
        new = NewReading(id=uuid4(), revision=revision(context, job), text=text, device=DEVICE)
        answer = log_reading(context, job, new)
        assert DEVICE not in answer.model_dump_json()
    event = NewEvent(id=uuid4(), revision=revision(context, job), body=HazardFound(hazard=Hazard.SHOCK), device=DEVICE)
    assert DEVICE not in record_event(context, job, event).model_dump_json()
    assert DEVICE not in show_safe(context, job).model_dump_json()
    file = job_file(context, job)
    assert DEVICE not in file.model_dump_json()
    assert len({row.device for row in file.history if row.text in {"heater 26", "heater 26.1"}}) == 1
    assert DEVICE not in json.dumps(story_of(context, job))
    export_job(context, job, tmp_path / "job.json")
    import_file(other, tmp_path / "job.json")
    assert job_file(other, job).history == file.history, "a digest stays what it is"
    with other.store.read() as session:
        assert {row.device for row in take(other, session, job).case.readings} == {row.device for row in file.history}
