"""Suspects of a stored job: asked, answered, left out, refused."""

from __future__ import annotations

import json
from uuid import uuid4

import pytest
from tests.working import happened, logged, prove_dead

from ohmcensus.core.diagnosis.conclusion import Standing
from ohmcensus.core.diagnosis.question import Objective
from ohmcensus.core.diagnosis.words import chance_words
from ohmcensus.core.errors import InputError, SafetyRefusalError, UnknownNameError
from ohmcensus.core.event import Checked, CheckOutcome, Hazard, HazardFound, Isolated, RunWatched, Skipped, WhySkipped
from ohmcensus.exchange.sheet_yaml import plain_sheet
from ohmcensus.services.at_hand.context import Context
from ohmcensus.services.at_hand.sheets import all_sheets
from ohmcensus.services.job.open_job import NewJob, open_job
from ohmcensus.services.suspects.judge_file import judge_file
from ohmcensus.services.suspects.show_suspects import SuspectsQuery, show_suspects
from ohmcensus.services.suspects.view import SuspectsView
from ohmcensus.services.transfer.export_job import export_text


@pytest.fixture
def job(context: Context) -> str:
    return open_job(context, NewJob(id=uuid4(), machine="Machine 9", place="Pier", sheet="fl7-u")).id


def seen(context: Context, job: str, objective: Objective = Objective.SOONEST) -> SuspectsView:
    return show_suspects(context, job, SuspectsQuery(objective=objective))


def test_a_reading_and_its_repeat_name_the_part_and_say_why(context: Context, job: str) -> None:
    happened(context, job, RunWatched(outcome="drain"))
    prove_dead(context, job)
    logged(context, job, "pump OL")
    once = seen(context, job)
    assert (once.standing, once.suspects[0].part, once.ask[0].test) == (Standing.REPEAT, "pump", "pump.coil")
    logged(context, job, "pump OL")
    twice = seen(context, job)
    assert (twice.standing, twice.ask) == (Standing.NAMED, [])
    assert "Drain pump, coil: OL" in [row.title for row in twice.suspects[0].speaks_for]
    assert any(row.ruled_out_by for row in twice.suspects)


def test_a_test_left_out_is_not_asked_again_and_the_rest_is(context: Context, job: str) -> None:
    happened(context, job, RunWatched(outcome="drain"))
    happened(context, job, Isolated())
    first = seen(context, job).ask[0].test
    happened(context, job, Skipped(test=first, why=WhySkipped.CANNOT_REACH))
    asked = [row.test for row in seen(context, job).ask]
    assert asked
    assert first not in asked


def test_no_live_question_is_asked_while_power_is_forbidden(context: Context, job: str) -> None:
    happened(context, job, HazardFound(hazard=Hazard.BURNT_SMELL, words="at the board"))
    rows = seen(context, job).ask
    assert not any(row.kind == "run" or row.test.startswith("outlet.") for row in rows)
    with pytest.raises(SafetyRefusalError, match="no power"):
        happened(context, job, RunWatched(outcome="through"))


def test_names_that_are_not_on_the_sheet_are_refused(context: Context, job: str) -> None:
    for body in (
        Skipped(test="heater.colour", why=WhySkipped.NO_METER),
        RunWatched(outcome="dancing"),
        Checked(check="heater.look_mood", outcome=CheckOutcome.BAD),
    ):
        with pytest.raises(UnknownNameError, match="on this machine"):
            happened(context, job, body)


def test_an_exported_job_has_the_same_suspects(context: Context, job: str) -> None:
    prove_dead(context, job)
    logged(context, job, "heater OL")
    told = seen(context, job)
    found = judge_file(export_text(context, job, "json"), Objective.SOONEST)
    assert found["suspects"][0]["part"] == told.suspects[0].part
    assert found["suspects"][0]["probability"] == pytest.approx(told.suspects[0].chance)
    assert any("rests on one reading" in row for row in found["warnings"])
    with pytest.raises(InputError, match="not an exported job"):
        judge_file(json.dumps({"format": "something"}), Objective.SOONEST)


def test_a_job_on_an_own_sheet_is_judged_by_the_sheet_that_it_brings(context: Context, job: str) -> None:
    prove_dead(context, job)
    logged(context, job, "heater OL")
    raw = json.loads(export_text(context, job, "json"))
    own = plain_sheet(all_sheets()["fl7-u"]) | {"id": "mine"}
    brought = judge_file(json.dumps(raw | {"sheet": "mine", "own_sheet": own}), Objective.SOONEST)
    assert brought["suspects"][0] == judge_file(json.dumps(raw), Objective.SOONEST)["suspects"][0]
    with pytest.raises(InputError, match="the machine sheet in the file is none"):
        judge_file(json.dumps(raw | {"own_sheet": {"id": "mine"}}), Objective.SOONEST)


@pytest.mark.parametrize(
    ("chance", "words"),
    [
        (0.001, "ruled out"),
        (0.03, "hardly, 3 %"),
        (0.12, "possible, 12 %"),
        (0.5, "likely, 50 %"),
        (0.95, "certain, 95 %"),
        (0.9999, "certain, 99 %"),
    ],
)
def test_chances_in_words(chance: float, words: str) -> None:
    assert chance_words(chance) == words


def test_what_if_says_who_would_lead(context: Context, job: str) -> None:
    happened(context, job, RunWatched(outcome="drain"))
    happened(context, job, Isolated())
    ask = seen(context, job, Objective.LIKELIEST_FIRST).ask
    coil = next(row for row in ask if row.test == "pump.coil")
    leads = {row.reads: row.leads for row in coil.what_ifs}
    assert leads["OL"].startswith("Drain pump")
    assert not next(iter(leads.values())).startswith("Drain pump, 9")
