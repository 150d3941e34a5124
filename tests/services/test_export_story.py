"""A job written as a story and told again comes to the same state and the same dangers."""

from __future__ import annotations

import json

import pytest
from tests.seeded import with_demo
from tests.working import every_job

from ohmcensus.exchange.story_file import read_story
from ohmcensus.services.at_hand.context import Context
from ohmcensus.services.transfer.export_story import story_of
from ohmcensus.services.transfer.replay import replay


def test_every_demo_job_is_told_again_as_it_was(context: Context) -> None:
    with_demo(context)
    for job in every_job(context):
        story = read_story(json.dumps(story_of(context, job.id)))
        steps = replay(story).steps
        refused = [(place, row.why) for place, row in enumerate(steps) if not row.accepted]
        assert not refused, job.machine
        assert [row.id for row in steps[-1].dangers] == [row.hazard for row in job.hazards], job.machine


TOO_LONG = '{"sheet":"fl7-u","at":"2026-01-05T08:00:00Z","steps":[' + ",".join(["{}"] * 10_001) + "]}"


@pytest.mark.parametrize(
    ("text", "says"),
    [
        ("{}", "this is no story"),
        ('{"format":"ohmcensus-story/2"}', "a newer kind"),
        ('{"sheet":"fl7-u","at":"2026-01-05T08:00:00","steps":[]}', "names no time zone"),
        (TOO_LONG, "more than 10000"),
        ('{"sheet":"fl7-u","at":"2026-01-05T08:00:00Z","steps":[{"reed":"heater 26"}]}', "this is no story"),
    ],
    ids=["nothing", "newer", "no zone", "too long", "unknown key"],
)
def test_what_is_no_story_is_refused_in_one_sentence(text: str, says: str) -> None:
    with pytest.raises(Exception, match=says):
        read_story(text)
