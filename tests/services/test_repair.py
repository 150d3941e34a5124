"""The repair of a stored job: changes and runs in order, what they prove, what the choices cost."""

from __future__ import annotations

from uuid import uuid4

import pytest
from tests.working import happened, logged, prove_dead

from ohmcensus.core.diagnosis.setting_up import safety_before, setting_up
from ohmcensus.core.errors import UnknownNameError
from ohmcensus.core.event import Changed, Hazard, HazardFound, Intervention, PluggedIn, RunWatched
from ohmcensus.core.safety import SafetyState
from ohmcensus.services.at_hand.context import Context
from ohmcensus.services.at_hand.job import take
from ohmcensus.services.job.open_job import NewJob, open_job
from ohmcensus.services.repair.show_repair import WorthAsked, show_repair, weigh_worth
from ohmcensus.services.setup.change_settings import keep_settings, show_settings
from ohmcensus.services.suspects.show_suspects import SuspectsQuery, show_suspects


@pytest.fixture
def job(context: Context) -> str:
    return open_job(context, NewJob(id=uuid4(), machine="Machine 9", place="Pier", sheet="fl7-u")).id


def test_a_fault_that_vanishes_after_two_changes_is_not_conclusive_and_says_what_to_swap_back(
    context: Context, job: str
) -> None:
    happened(context, job, RunWatched(outcome="heat"))
    prove_dead(context, job)
    happened(context, job, Changed(part="harness", intervention=Intervention.RESEATED))
    happened(context, job, Changed(part="board", intervention=Intervention.REPLACED, fitted="spare 1"))
    assert show_repair(context, job).cured == ""
    logged(context, job, "cord insulation >299M")
    happened(context, job, PluggedIn())
    happened(context, job, RunWatched(outcome="through"))
    view = show_repair(context, job)
    assert [row.has_passed for row in view.steps] == [False, None, None, True]
    assert "another one fitted, spare 1" in view.steps[2].words
    assert "Not conclusive: 2 changes" in view.cured
    assert "Put the former Control board back" in view.cured
    assert show_suspects(context, job, SuspectsQuery()).cured == view.cured


def test_a_change_of_a_part_that_is_not_there_is_refused(context: Context, job: str) -> None:
    with pytest.raises(UnknownNameError):
        happened(context, job, Changed(part="wheel", intervention=Intervention.CLEANED))
    with pytest.raises(UnknownNameError, match="no 'wheel' on this sheet"):
        weigh_worth(context, job, WorthAsked(part="wheel"))
    assert show_repair(context, job).steps == []


def test_the_choices_follow_the_firm_the_sheet_and_the_diagnosis(context: Context, job: str) -> None:
    keep_settings(context, show_settings(context).model_copy(update={"hour_price": 90.0, "call_out_price": 50.0}))
    view = weigh_worth(context, job, WorthAsked(part="heater"))
    assert (view.given.hour, view.given.call_out, view.given.offers[0].price) == (90, 50, 38)
    assert view.given.minutes == pytest.approx(34)
    prove_dead(context, job)
    logged(context, job, "pump OL")
    doubted = weigh_worth(context, job, WorthAsked(part="heater"))
    assert doubted.given.sure < 0.2
    dear = view.given.model_copy(update={"machine_price": 10.0})
    given_up = weigh_worth(context, job, WorthAsked(part="heater", given=dear))
    assert given_up.choices[0].id == "give_up"
    assert given_up.advice.startswith("Give up the machine")
    assert [row.per_year for row in given_up.choices] == sorted(row.per_year for row in given_up.choices)


def test_what_comes_before_a_question_is_said_in_order(context: Context, job: str) -> None:
    shown = show_suspects(context, job, SuspectsQuery())
    assert shown.ask == []
    assert shown.act is not None
    assert (shown.act.room, shown.act.words) == ("intake", "Take the complaint: what does it do?")
    prove_dead(context, job)
    with context.store.read() as session:
        case = take(context, session, job).case
    assert setting_up(case, "heater.element") == ["Back panel off", "Pull: Both heater tags"]
    assert setting_up(case, "harness.pe") == ["Back panel off", "Every plug off"]
    assert safety_before(case, "heater.element", SafetyState.NOT_PROVED) == ["Prove it dead"]
    assert safety_before(case, "heater.element", SafetyState.DEAD) == []
    assert safety_before(case, "board.pump_on", SafetyState.DEAD) == ["Enter live mode, with its reason"]
    assert setting_up(case, "strike.look_strike") == []


def test_a_run_that_trips_forbids_power_from_the_repair_room_too(context: Context, job: str) -> None:
    happened(context, job, RunWatched(outcome="trips"))
    assert show_repair(context, job).job.hazards[0].forbids_power
    happened(context, job, HazardFound(hazard=Hazard.BURNT_SMELL, words="at the plug"))
    assert len(show_repair(context, job).steps) == 1
