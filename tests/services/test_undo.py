"""Undo on a stored job: what was done last is told, taken back, and teaches no other job."""

from __future__ import annotations

import json
from dataclasses import replace
from datetime import timedelta
from pathlib import Path
from typing import Any
from uuid import uuid4

import pytest
from tests.seeded import new_store
from tests.working import happened, logged, prove_dead, undone

from ohmcensus.core.errors import InputError
from ohmcensus.core.event import (
    Body,
    Changed,
    Checked,
    CheckOutcome,
    Ended,
    Intervention,
    Isolated,
    RunMade,
    StripStep,
)
from ohmcensus.exchange.story_file import read_story
from ohmcensus.services.at_hand.context import Context
from ohmcensus.services.at_hand.job import forget
from ohmcensus.services.job.open_job import NewJob, open_job
from ohmcensus.services.job.show_outlook import show_outlook
from ohmcensus.services.job.undo import UndoView
from ohmcensus.services.proof.show_proof import show_proof
from ohmcensus.services.repair.show_repair import RepairQuery, show_repair
from ohmcensus.services.safety.show_safe import show_safe
from ohmcensus.services.transfer.export_job import export_job, job_file
from ohmcensus.services.transfer.export_story import story_of
from ohmcensus.services.transfer.import_job import import_file
from ohmcensus.services.transfer.replay import replay
from ohmcensus.storage.cover_times import of_sheet

REPLACED = Changed(part="heater", intervention=Intervention.REPLACED, fitted="spare")


def new_job(context: Context, machine: str = "Machine 9") -> str:
    return open_job(context, NewJob(id=uuid4(), machine=machine, place="Pier", sheet="fl7-u")).id


@pytest.fixture
def job(context: Context) -> str:
    return new_job(context)


def last(context: Context, job: str) -> UndoView | None:
    return show_outlook(context, job).undo


def test_every_room_is_told_what_was_done_last(context: Context, job: str) -> None:
    assert last(context, job) is None
    prove_dead(context, job)
    logged(context, job, "heater 26")
    done: list[tuple[Body, str, str]] = [
        (REPLACED, "record", "Heater: another one fitted"),
        (RunMade(method="insulation", connected=("heater",), text=">299M"), "leak_test", "leak test: >299M"),
    ]
    found = last(context, job)
    assert found is not None
    assert (found.of, found.words) == ("reading", "Heater, element: 26 Ω")
    for body, of, words in done:
        happened(context, job, body)
        found = last(context, job)
        assert found is not None
        assert (found.of, found.words) == (of, words)
    happened(context, job, Isolated())
    assert last(context, job) is None


def test_what_was_read_is_told_by_its_title_whatever_it_is(context: Context, job: str) -> None:
    """No name of a file stands in it: of the series that proves dead, of a test, of two points."""
    happened(context, job, Isolated())
    for text, words in (
        ("source 231", "Known source, shows its voltage: 231 V"),
        ("dead ln 0.2", "Prove dead, L to N: 200 mV"),
        ("outlet 229", "Outlet, line to neutral: 229 V"),
    ):
        logged(context, job, text)
        found = last(context, job)
        assert found is not None
        assert found.words == words


def test_a_change_that_is_taken_back_leaves_the_job_as_it_was(context: Context, job: str) -> None:
    prove_dead(context, job)
    logged(context, job, "cord pe 0.1")
    before = show_proof(context, job).model_dump(exclude={"job"}), show_repair(context, job).steps
    happened(context, job, REPLACED)
    assert show_repair(context, job).steps
    undone(context, job)
    for _ in range(2):
        assert (show_proof(context, job).model_dump(exclude={"job"}), show_repair(context, job).steps) == before
        assert [row.words for row in show_safe(context, job).records[:2]] == [
            "undone: Heater: another one fitted",
            "Heater: another one fitted",
        ]
        forget(context, job)


def test_a_step_that_is_taken_back_teaches_no_other_job(context: Context, job: str) -> None:
    happened(context, job, Isolated())
    later = replace(context, clock=lambda: context.clock() + timedelta(minutes=9))
    happened(later, job, StripStep(words="Back panel off", panel="back", fasteners=5, head="star"))
    other = new_job(context, "Machine 8")
    query = RepairQuery(part="heater")

    def planned() -> Any:
        return next(row.proposal for row in show_repair(context, other, query).plan.steps if row.proposal.panel)

    assert (planned().fasteners, planned().head) == (5, "star")
    undone(context, job)
    assert (planned().fasteners, planned().head) == (0, "")


def test_a_job_with_something_undone_is_told_again_as_it_was(context: Context, job: str) -> None:
    prove_dead(context, job)
    happened(context, job, Checked(check="drain_filter", outcome=CheckOutcome.BAD, words="coin"))
    undone(context, job)
    happened(context, job, REPLACED)
    undone(context, job)
    told = replay(read_story(json.dumps(story_of(context, job))))
    assert all(row.accepted for row in told.steps)


def test_what_was_undone_goes_out_and_in_with_the_job(context: Context, job: str, tmp_path: Path) -> None:
    happened(context, job, StripStep(words="Back panel off", panel="back", fasteners=5, minutes=7.0))
    undone(context, job)
    happened(context, job, REPLACED)
    undone(context, job)
    file = tmp_path / "job.zip"
    export_job(context, job, file)
    store = new_store(tmp_path / "other")
    other = Context(store, clock=context.clock)
    assert import_file(other, file).jobs == (job,)
    assert job_file(other, job) == job_file(context, job)
    assert show_repair(other, job).steps == []
    with store.read() as session:
        assert of_sheet(session, "fl7-u", but="none") == {}
    store.close()


def test_nothing_is_undone_after_the_end(context: Context, job: str) -> None:
    happened(context, job, Checked(check="drain_filter", outcome=CheckOutcome.GOOD))
    happened(context, job, Ended(why="Nothing found."))
    assert last(context, job) is None
    with pytest.raises(InputError, match="has ended"):
        undone(context, job)
