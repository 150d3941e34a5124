"""The list of jobs: page by page, found by what was written, and never at odds with the job itself."""

from __future__ import annotations

from dataclasses import replace
from datetime import UTC, datetime, timedelta
from uuid import UUID, uuid4

import pytest
from sqlalchemy import text
from tests.seeded import with_demo
from tests.working import every_job, happened, logged, prove_dead

from ohmcensus.core.errors import InputError
from ohmcensus.core.event import Ended, Isolated, StripBack, StripStep
from ohmcensus.core.limits.profile import BUILT_IN
from ohmcensus.services.at_hand.context import Context
from ohmcensus.services.at_hand.job import take
from ohmcensus.services.job.list_jobs import PAGE, JobsQuery, keep_card, list_jobs
from ohmcensus.services.job.open_job import NewJob, open_job
from ohmcensus.services.job.show_job import show_job
from ohmcensus.services.repair.show_repair import show_repair
from ohmcensus.services.setup.change_settings import ChangedSettings, change_settings, show_settings
from ohmcensus.services.setup.keep_address import keep_address, show_addresses

SHARED = {"safety", "power", "hazards", "ended", "asked", "lines", "outside", "revision", "machine"}


def opened(context: Context, machine: str, **more: str) -> str:
    return open_job(context, NewJob(id=uuid4(), machine=machine, place="Pier", sheet="fl7-u", **more)).id


@pytest.mark.parametrize("minutes", [-200, 0, 3, 9, 11, 40, 200])
def test_the_list_says_what_each_job_says_at_every_moment(context: Context, minutes: int) -> None:
    with_demo(context)
    for job in every_job(context):
        keep_card(context, job.id)
    later = replace(context, clock=lambda: datetime.now(UTC) + timedelta(minutes=minutes), at_hand={})
    for job in every_job(later):
        assert job.model_dump(include=SHARED) == show_job(later, job.id).model_dump(include=SHARED), job.machine


def test_a_card_that_was_kept_follows_a_change_of_job_and_of_limits(context: Context) -> None:
    job = opened(context, "Machine 9")
    logged(context, job, "outlet 229")
    keep_card(context, job)
    logged(context, job, "heater pe loose 3M")
    assert every_job(context)[0].asked == 2
    keep_card(context, job)
    strict = BUILT_IN[0].model_copy(update={"id": "ours", "title": "Ours", "class_i_megohm": 50, "heating_megohm": 50})
    before = every_job(context)[0].outside
    revision = show_settings(context).revision
    change_settings(context, ChangedSettings(revision=revision, profile="ours", own_profiles=[strict]))
    assert every_job(context)[0].outside == before + 1


def test_the_part_that_is_named_stands_in_the_list_once_it_was_worked_out(context: Context) -> None:
    job = opened(context, "Machine 9")
    prove_dead(context, job)
    logged(context, job, "heater OL")
    assert [row.named for row in every_job(context)] == [""], "it rests on one reading"
    logged(context, job, "heater OL")
    assert [row.named for row in every_job(context)] == ["Heater"], "the jobs changed last are worked out at once"
    keep_card(context, job)
    assert [row.named for row in every_job(context)] == ["Heater"]


def test_pages_hold_every_job_once_and_ended_ones_come_on_request(context: Context) -> None:
    jobs = [opened(context, f"Machine {number}") for number in range(PAGE + 7)]
    happened(context, jobs[3], Isolated())
    happened(context, jobs[3], Ended(why="Left as it is.", is_labelled_unsafe=True))
    first = list_jobs(context)
    second = list_jobs(context, JobsQuery(after=first.more))
    assert (len(first.jobs), len(second.jobs), second.more) == (PAGE, 6, "")
    assert {row.id for row in (*first.jobs, *second.jobs)} == set(jobs) - {jobs[3]}
    assert (first.going, first.ended) == (PAGE + 6, 1)
    assert [row.id for row in list_jobs(context, JobsQuery(ended=True)).jobs] == [jobs[3]]
    with pytest.raises(InputError, match="begin with the first page"):
        list_jobs(context, JobsQuery(after="nonsense"))


@pytest.mark.parametrize(
    ("find", "is_found"),
    [
        ("Crème", True),
        ("creme brul", True),
        ("pier", True),
        ("HEAT water", True),
        ("25.9", True),
        ("front-load", True),
        ("rinse", False),
        ('" OR head:x*', False),
        ("( ) * ^", True),
    ],
)
def test_a_job_is_found_by_the_beginnings_of_what_was_written(context: Context, find: str, is_found: bool) -> None:
    job = opened(context, "Crème brûlée", complaint="does not heat the water")
    logged(context, job, "heater loose 25.9")
    assert bool(every_job(context, find)) == is_found


def test_a_place_that_is_called_otherwise_is_found_and_shown_by_its_new_name(context: Context) -> None:
    job = opened(context, "Machine 9")
    keep_card(context, job)
    place = next(row for row in show_addresses(context).entries if row.name == "Pier")
    keep_address(context, place.model_copy(update={"name": "Jetty"}))
    assert [row.place for row in every_job(context, "jetty")] == ["Jetty"]
    assert every_job(context, "pier") == []


@pytest.mark.parametrize("spoil", ["event", "reading"])
def test_a_job_that_cannot_be_read_is_a_card_that_says_so(context: Context, spoil: str) -> None:
    whole, broken = opened(context, "Machine 1"), opened(context, "Machine 2")
    logged(context, broken, "outlet 229")
    happened(context, broken, StripStep(words="back panel", fasteners=4, panel="back"))
    damage = {
        "event": 'UPDATE event SET body = \'{"kind": "of a strange sort"}\' WHERE job_id = :job',
        "reading": "UPDATE reading SET configuration = '{' WHERE job_id = :job",
    }
    with context.store.write() as session:
        session.connection().execute(text(damage[spoil]), {"job": broken})
    context.at_hand.clear()
    found = {row.id: row.problem for row in every_job(context)}
    assert found[whole] == ""
    assert "cannot be read" in found[broken]


def test_what_a_cover_took_elsewhere_is_known_at_once_and_by_every_process(context: Context) -> None:
    here, other = opened(context, "Machine 1"), opened(context, "Machine 2")
    show_repair(context, here)
    for _ in range(3):
        happened(context, other, StripStep(words="back panel", fasteners=4, panel="back", minutes=30))
        happened_back(context, other)
    fresh = replace(context, at_hand={})
    assert show_repair(context, here).strip == show_repair(fresh, here).strip
    with context.store.read() as session:
        assert take(context, session, here).case.cover_minutes["back"] > 15


def happened_back(context: Context, job: str) -> None:
    step = show_repair(context, job).strip.steps[-1].id
    happened(context, job, StripBack(step=step, fasteners=4, plugs=(), because=""))


def test_many_jobs_leave_only_the_newest_at_hand(context: Context) -> None:
    for number in range(140):
        show_job(context, opened(context, f"Machine {number}"))
    assert len(context.at_hand) <= 128
    assert UUID(next(reversed(context.at_hand)))
