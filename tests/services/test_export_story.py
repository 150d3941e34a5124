"""A job written as a story and told again comes to the same state and the same dangers."""

from __future__ import annotations

import json
from uuid import uuid4

import pytest
from sqlalchemy import update
from tests.seeded import with_demo
from tests.working import every_job, logged

from ohmcensus.exchange.story_file import read_story
from ohmcensus.services.at_hand.context import Context
from ohmcensus.services.at_hand.job import forget
from ohmcensus.services.job.open_job import NewJob, open_job
from ohmcensus.services.transfer.export_story import story_of
from ohmcensus.services.transfer.replay import replay
from ohmcensus.storage.tables import ReadingRow, table_of


def test_every_demo_job_is_told_again_as_it_was(context: Context) -> None:
    with_demo(context)
    for job in every_job(context):
        story = read_story(json.dumps(story_of(context, job.id)))
        steps = replay(story).steps
        refused = [(place, row.why) for place, row in enumerate(steps) if not row.accepted]
        assert not refused, job.machine
        assert [row.id for row in steps[-1].dangers] == [row.hazard for row in job.hazards], job.machine


@pytest.mark.parametrize(
    ("text", "value", "written"),
    [
        ("heater pe loose 0.4", 0.4, "heater pe loose 0.4Ω"),
        ("heater pe loose 0.4", 0.4e6, "heater pe loose 0.4"),
        ("heater pe loose 0.4M", 0.4e6, "heater pe loose 0.4M"),
        ("heater pe loose >299", 299e6, "heater pe loose >299"),
    ],
)
def test_a_bare_figure_of_before_goes_out_with_its_unit(
    context: Context, text: str, value: float, written: str
) -> None:
    job = open_job(context, NewJob(id=uuid4(), machine="M", place="Pier", sheet="fl7-u")).id
    logged(context, job, "heater pe loose 0.4M")
    with context.store.write() as session:
        session.connection().execute(update(table_of(ReadingRow)).values(text=text, value=value))
    forget(context, job)
    steps = story_of(context, job)["steps"]
    assert [step["read"] for step in steps if "read" in step] == [written]


TOO_LONG = '{"sheet":"fl7-u","at":"2026-01-05T08:00:00Z","steps":[' + ",".join(["{}"] * 10_001) + "]}"


@pytest.mark.parametrize(
    ("text", "says"),
    [
        ("{}", "this is not a story"),
        ('{"format":"ohmcensus-story/2"}', "a newer kind"),
        ('{"sheet":"fl7-u","at":"2026-01-05T08:00:00","steps":[]}', "names no time zone"),
        (TOO_LONG, "more than 10000"),
        ('{"sheet":"fl7-u","at":"2026-01-05T08:00:00Z","steps":[{"reed":"heater 26"}]}', "this is not a story"),
    ],
    ids=["nothing", "newer", "no zone", "too long", "unknown key"],
)
def test_what_is_no_story_is_refused_in_one_sentence(text: str, says: str) -> None:
    with pytest.raises(Exception, match=says):
        read_story(text)
