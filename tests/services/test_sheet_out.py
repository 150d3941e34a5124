"""What goes out: costs that are proposed and noted, and what the view says of the signed job."""

from __future__ import annotations

from dataclasses import replace
from datetime import timedelta
from uuid import uuid4

import pytest
from hypothesis import given
from hypothesis import strategies as st
from pydantic import ValidationError
from tests.core.case_of import Log
from tests.working import happened, logged, revision

from ohmcensus.core.event import (
    Changed,
    CostLine,
    CostsNoted,
    Ended,
    Hazard,
    HazardFound,
    Intervention,
    Isolated,
    Reopened,
)
from ohmcensus.core.job.work_time import worked_minutes
from ohmcensus.services.at_hand.context import Context
from ohmcensus.services.at_hand.job import take
from ohmcensus.services.at_hand.settings import Settings
from ohmcensus.services.at_hand.sheets import find_sheet
from ohmcensus.services.event.record_event import NewEvent, record_event
from ohmcensus.services.job.open_job import NewJob, open_job
from ohmcensus.services.proof.show_proof import show_proof
from ohmcensus.services.setup.change_settings import keep_settings
from ohmcensus.services.sheet_out.compose import composed
from ohmcensus.services.sheet_out.show_sheet_out import show_sheet_out
from ohmcensus.services.shelf.keep_wanted import NewOffer, NewWanted, keep_wanted


@pytest.fixture
def job(context: Context) -> str:
    return open_job(context, NewJob(id=uuid4(), machine="Machine 9", place="Pier", sheet="fl7-u")).id


def replaced(part: str) -> Changed:
    return Changed(part=part, intervention=Intervention.REPLACED)


def test_costs_are_proposed_from_the_clock_the_rates_and_what_was_fitted(context: Context, job: str) -> None:
    keep_settings(context, Settings(hour_price=90.0, call_out_price=20.0))
    logged(context, job, "outlet 229")
    later = replace(context, clock=lambda: context.clock() + timedelta(minutes=20))
    for part in ("heater", "heater", "pump"):
        new = NewEvent(id=uuid4(), revision=revision(context, job), body=replaced(part))
        record_event(later, job, new)
    costs = show_sheet_out(context, job).costs
    assert (costs.minutes, costs.hour, costs.call_out, costs.work) == (20.0, 90.0, 20.0, 30.0)
    assert [(line.words, line.amount) for line in costs.lines] == [("Heater", 38.0), ("Drain pump", 36.0)]


@pytest.mark.parametrize(
    ("state", "amount"), [("wanted", 41.5), ("arrived", 41.5), ("returned", 38.0)], ids=["wanted", "here", "sent back"]
)
def test_the_offer_that_was_taken_prices_a_part(context: Context, job: str, state: str, amount: float) -> None:
    offers = [NewOffer(source="Mill", price="41,50"), NewOffer(source="Post", price="24")]
    wish = NewWanted.model_validate({"part": "heater", "chosen": 0, "state": state, "offers": offers})
    keep_wanted(context, job, uuid4(), wish)
    happened(context, job, replaced("heater"))
    assert [line.amount for line in show_sheet_out(context, job).costs.lines] == [amount]


def test_what_was_noted_takes_the_place_of_what_was_proposed(context: Context, job: str) -> None:
    noted = CostsNoted(minutes=50.0, hour=60.0, call_out=0.0, lines=(CostLine(words="Clamp", amount=2.25),))
    happened(context, job, noted)
    view = show_sheet_out(context, job)
    assert (view.is_costed, view.total, view.costs) == (True, "52.25", noted)
    assert "Together that comes to 52.25." in [said for row in view.customer for said in row.sentences]


def test_every_signing_is_listed_and_a_job_with_nothing_done_claims_no_proof(context: Context, job: str) -> None:
    happened(context, job, Ended(why="The socket was dead."))
    happened(context, job, Reopened())
    happened(context, job, Isolated())
    happened(context, job, Ended(why="And so was the next.", is_labelled_unsafe=True))
    view = show_sheet_out(context, job)
    assert [(row.why, row.is_labelled_unsafe) for row in view.revisions] == [
        ("The socket was dead.", False),
        ("And so was the next.", True),
    ]
    assert (view.proved, view.can_label, view.is_signed) == ("", True, True)


@pytest.mark.parametrize(
    "amounts",
    [{"minutes": -1.0}, {"hour": float("nan")}, {"lines": ({"words": "x", "amount": 3.0},)}],
    ids=["negative", "no number", "no words"],
)
def test_costs_that_cannot_be_are_refused(amounts: dict[str, object]) -> None:
    with pytest.raises(ValidationError):
        CostsNoted.model_validate({"minutes": 1.0, "hour": 1.0, "call_out": 1.0, **amounts})


@given(st.lists(st.floats(0, 900), max_size=8), st.floats(0, 600), st.floats(0, 300), st.floats(0, 200))
def test_the_total_is_the_sum_of_what_is_printed(
    amounts: list[float], minutes: float, hour: float, visit: float
) -> None:
    lines = tuple(CostLine(words="a part", amount=round(amount, 2)) for amount in amounts)
    costs = CostsNoted(minutes=minutes, hour=hour, call_out=round(visit, 2), lines=lines)
    assert costs.total == pytest.approx(costs.work + costs.call_out + sum(line.amount for line in lines), abs=0.006)


@given(st.lists(st.integers(0, 90), max_size=12))
def test_silences_of_over_half_an_hour_are_no_work(gaps: list[int]) -> None:
    log = Log(find_sheet("fl7-u")).did(Isolated())
    for gap in gaps:
        log.wait(minutes=gap).did(Isolated())
    assert worked_minutes(log.case) == sum(gap for gap in gaps if gap <= 30)


def test_an_ending_that_says_by_which_danger_says_it_once_on_the_paper(context: Context) -> None:
    job = open_job(context, NewJob(id=uuid4(), machine="Machine 9", place="Pier", sheet="tl6-s")).id
    happened(context, job, HazardFound(hazard=Hazard.BYPASS, words="lid wires joined"))
    happened(context, job, HazardFound(hazard=Hazard.SHOCK))
    happened(context, job, Isolated())
    why = show_proof(context, job).unsafe_because
    assert "lid wires joined" in why
    happened(context, job, Ended(why=why, is_labelled_unsafe=True))
    with context.store.read() as session:
        report = composed(context, take(context, session, job))
    assert " ".join(report.unsafe_why) == why
