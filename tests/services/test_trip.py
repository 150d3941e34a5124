"""Isolating a leak on a job: runs are kept, judged by their meter's error, refused where they endanger."""

from __future__ import annotations

from uuid import uuid4

import pytest
from tests.working import happened, logged, prove_dead, revision

from ohmcensus.core.errors import InputError, SafetyRefusalError
from ohmcensus.core.event import LiveBegun, RunDoubted, RunMade
from ohmcensus.core.trip.isolate import State
from ohmcensus.services.context import Context
from ohmcensus.services.keep_settings import Settings, keep_settings
from ohmcensus.services.open_job import NewJob, open_job
from ohmcensus.services.record_event import NewEvent, record_event
from ohmcensus.services.show_trip import TripQuery, TripView, show_trip


@pytest.fixture
def job(context: Context) -> str:
    return open_job(context, NewJob(id=uuid4(), machine="Machine 9", place="Pier", sheet="fl7-u")).id


def insulation(text: str, *off: str) -> RunMade:
    parts = ("cord", "filter", "heater", "motor", "valve", "prewash", "pump", "harness")
    return RunMade(method="insulation", connected=tuple(part for part in parts if part not in off), text=text)


def seen(context: Context, job: str, method: str = "insulation") -> TripView:
    return show_trip(context, job, TripQuery.model_validate({"method": method}))


def test_two_runs_find_the_heater(context: Context, job: str) -> None:
    prove_dead(context, job)
    first = seen(context, job).next
    assert first is not None
    assert first.words.startswith("The whole machine first")
    happened(context, job, insulation("0.05M"))
    following = seen(context, job).next
    assert following is not None
    assert "both heater tags" in following.words
    happened(context, job, insulation(">299M", "heater"))
    view = seen(context, job)
    assert {part.id for part in view.parts if part.state is State.GUILTY} == {"heater"}
    assert {part.state for part in view.parts if part.id != "heater"} == {State.CLEARED}
    assert (view.explanations, view.next) == ([["Heater"]], None)
    assert view.off_first == ["NTC sensor"]
    assert all(0 <= part.bracket.lo <= part.bracket.hi <= 1 for part in view.parts)


def test_a_doubted_run_is_left_out_and_a_contradiction_proves_nothing(context: Context, job: str) -> None:
    prove_dead(context, job)
    happened(context, job, insulation("0.05M"))
    happened(context, job, insulation(">299M", "heater"))
    happened(context, job, RunMade(method="insulation", connected=("motor",), text="0.02M"))
    view = seen(context, job)
    assert view.conflict
    assert {part.state for part in view.parts} == {State.OPEN}
    wrong = next(run for run in view.runs if run.connected == ["motor"])
    happened(context, job, RunDoubted(run=wrong.id))
    view = seen(context, job)
    assert view.conflict == ""
    assert next(part.state for part in view.parts if part.id == "heater") is State.GUILTY


def test_runs_that_endanger_are_refused(context: Context, job: str) -> None:
    assert "not proved dead" in seen(context, job).may_run
    with pytest.raises(SafetyRefusalError, match="not proved dead"):
        happened(context, job, insulation("0.05M"))
    prove_dead(context, job)
    live = RunMade(method="leakage", connected=("heater",), text="0.1", polarity="normal")
    with pytest.raises(SafetyRefusalError, match="needs power"):
        happened(context, job, live)
    assert seen(context, job).runs == []
    happened(context, job, LiveBegun(reason="leakage with the heater called", minutes=5))
    with pytest.raises(SafetyRefusalError, match="live mode"):
        happened(context, job, insulation("0.05M"))


@pytest.mark.parametrize(
    ("run", "says"),
    [
        (RunMade(method="insulation", connected=("stove",), text="1M"), "no part 'stove'"),
        (RunMade(method="insulation", connected=("ntc",), text="1M"), "no part 'ntc'"),
        (RunMade(method="insulation", connected=("heater",), text="fine"), "fine"),
        (RunMade(method="insulation", connected=("heater",), text="-1M"), "negative"),
        (RunMade(method="insulation", connected=("heater",), text="5000"), "cannot have shown"),
        (RunMade(method="insulation", connected=("heater",), text="OL"), "typed >"),
    ],
    ids=["unknown", "off before 500 V", "words", "negative", "beyond the scale", "no OL on this tester"],
)
def test_runs_that_cannot_be_are_refused_and_nothing_is_stored(
    context: Context, job: str, run: RunMade, says: str
) -> None:
    prove_dead(context, job)
    with pytest.raises(InputError, match=says):
        happened(context, job, run)
    assert seen(context, job).runs == []


def leakage(context: Context, job: str, text: str, polarity: str | None) -> None:
    body = {"method": "leakage", "connected": ["heater"], "text": text, "polarity": polarity}
    happened(context, job, RunMade.model_validate(body))


def test_a_current_of_one_polarity_clears_nothing(context: Context, job: str) -> None:
    happened(context, job, LiveBegun(reason="leakage with the heater called", minutes=5))
    with pytest.raises(InputError, match="without polarity"):
        leakage(context, job, "0.1", None)
    leakage(context, job, "0.1", "normal")
    heater = next(part for part in seen(context, job, "leakage").parts if part.id == "heater")
    assert (heater.state, heater.bracket.is_open_above) == (State.OPEN, True)
    leakage(context, job, "0.2", "reversed")
    heater = next(part for part in seen(context, job, "leakage").parts if part.id == "heater")
    assert heater.state is State.CLEARED


def test_currents_prove_nothing_where_the_neutral_floats(context: Context, job: str) -> None:
    logged(context, job, "outlet ne 109")
    view = seen(context, job, "leakage")
    assert "not earthed" in view.refused
    assert {part.state for part in view.parts} == {State.OPEN}
    assert seen(context, job).refused == ""


def test_a_run_keeps_the_meter_as_it_was(context: Context, job: str) -> None:
    """What is done to the bag later touches no run."""
    prove_dead(context, job)
    happened(context, job, insulation("0.05"))
    before = seen(context, job)
    keep_settings(context, Settings(technician="T", ambient_celsius=20.0, bag=["multimeter-6000"]))
    assert seen(context, job).parts == before.parts
    assert seen(context, job).runs == before.runs


def test_a_bare_number_is_in_the_unit_of_the_scale(context: Context, job: str) -> None:
    prove_dead(context, job)
    happened(context, job, insulation("0.5"))
    happened(context, job, insulation(">299", "heater"))
    assert [run.reads for run in seen(context, job).runs] == ["500 kΩ", "> 299 MΩ"]


def test_the_same_run_sent_twice_is_stored_once(context: Context, job: str) -> None:
    prove_dead(context, job)
    new = NewEvent(id=uuid4(), revision=revision(context, job), body=insulation("0.05M"))
    record_event(context, job, new)
    record_event(context, job, new)
    assert len(seen(context, job).runs) == 1
