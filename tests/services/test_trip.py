"""Isolating a leak on a job: runs are kept, judged by their meter's error, refused where they endanger."""

from __future__ import annotations

from random import Random
from uuid import uuid4

import pytest
from tests.working import happened, logged, prove_dead, revision

from ohmcensus.core.errors import InputError, SafetyRefusalError
from ohmcensus.core.event import (
    Changed,
    CircuitNoted,
    EarthLifted,
    EarthRefitted,
    Ended,
    Intervention,
    Isolated,
    LiveBegun,
    PluggedIn,
    RunDoubted,
    RunMade,
    RunWithdrawn,
    Supply,
)
from ohmcensus.core.trip.isolate import State, isolate
from ohmcensus.core.trip.of_case import problem_of, suspects
from ohmcensus.core.trip.problem import Method
from ohmcensus.core.trip.story import story_of
from ohmcensus.core.trip.typed_test import TypedTest, typed_test
from ohmcensus.services.at_hand.context import Context
from ohmcensus.services.at_hand.job import take
from ohmcensus.services.at_hand.settings import Settings
from ohmcensus.services.event.record_event import NewEvent, record_event
from ohmcensus.services.event.take_leak_test import NewLeakTest, take_leak_test
from ohmcensus.services.job.open_job import NewJob, open_job
from ohmcensus.services.setup.change_settings import keep_settings
from ohmcensus.services.trip.preview_run import RunPreview, TypedRun, preview_run
from ohmcensus.services.trip.show_story import show_trip_story
from ohmcensus.services.trip.show_trip import TripQuery, show_trip
from ohmcensus.services.trip.view import TripView


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
    assert "needs power" in seen(context, job, "leakage").may_run
    live = RunMade(method="leakage", connected=("heater",), text="0.1", polarity="normal")
    assert happened(context, job, live).safety == "under_voltage", "only a powered machine gives that"
    happened(context, job, Isolated())
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


def typed(context: Context, job: str, line: str) -> RunPreview:
    return preview_run(context, job, TypedRun(line=line))


def understood(context: Context, job: str, line: str) -> TypedTest:
    with context.store.read() as session:
        return typed_test(line, take(context, session, job).case, Method.INSULATION)


@pytest.mark.parametrize(
    ("line", "method", "connected", "text"),
    [
        ("run -heater -motor 0.27mA", "leakage", "cord filter lock board valve prewash pump level harness", "0.27mA"),
        ("run only cord filter >299M", "insulation", "cord filter", ">299M"),
        ("0.5", "insulation", "cord filter heater motor valve prewash pump harness", "0.5"),
        ("-heat 20M", "insulation", "cord filter motor valve prewash pump harness", "20M"),
        ("-heater trips turned", "leakage", "", "trips"),
    ],
)
def test_a_run_in_one_line(context: Context, job: str, line: str, method: str, connected: str, text: str) -> None:
    said = understood(context, job, line)
    shown = typed(context, job, line)
    assert (shown.problem, shown.words, said.method.value, said.text) == ("", said.words, method, text)
    if method == "insulation":
        assert list(said.connected) == connected.split()
    else:
        assert "heater" not in said.connected
        assert said.record().polarity == ("reversed" if "turned" in line else "normal")


def test_a_part_that_is_perhaps_connected(context: Context, job: str) -> None:
    said = understood(context, job, "?motor -heater 20M")
    assert said.maybe == ("motor",)
    assert not {"motor", "heater"} & set(said.connected)


@pytest.mark.parametrize(
    ("line", "says"),
    [("-stove 1M", "no part 'stove'"), ("only 1M", "nothing is connected"), ("x" * 300, "far too long")],
)
def test_a_line_that_says_nothing_is_told_so(context: Context, job: str, line: str, says: str) -> None:
    assert says in typed(context, job, line).problem


def test_a_leak_test_goes_as_it_was_typed_and_comes_back_as_what_it_proves(context: Context, job: str) -> None:
    prove_dead(context, job)
    new = NewLeakTest(id=uuid4(), revision=revision(context, job), line="-heater >299M")
    shown = take_leak_test(context, job, new)
    again = take_leak_test(context, job, new)
    assert [run.id for run in shown.runs] == [str(new.id)] == [run.id for run in again.runs]
    assert shown.job.revision == new.revision + 1 == again.job.revision
    assert {part.id: part.state for part in shown.parts}["motor"] == "cleared"
    with pytest.raises(InputError, match="no reading typed"):
        take_leak_test(context, job, new.model_copy(update={"id": uuid4(), "line": "-heater"}))


def test_a_withdrawn_run_is_gone_and_the_story_says_what_each_proved(context: Context, job: str) -> None:
    prove_dead(context, job)
    happened(context, job, insulation("0.05M"))
    happened(context, job, insulation(">299M", "heater"))
    steps = show_trip_story(context, job, TripQuery()).steps
    assert "settles no part" in steps[0].words
    assert steps[1].words.startswith("Heater: guilty; ")
    happened(context, job, RunWithdrawn(run=steps[1].run))
    assert len(seen(context, job).runs) == 1
    assert {part.state for part in seen(context, job).parts} == {State.OPEN}


@pytest.mark.parametrize("seed", range(4))
def test_the_story_by_what_each_run_adds_is_the_isolation_of_all_runs_before(
    context: Context, job: str, seed: int
) -> None:
    prove_dead(context, job)
    chance = Random(seed)  # noqa: S311 - which parts are in
    with context.store.read() as session:
        parts = [part.id for part in suspects(take(context, session, job).case, Method.INSULATION)]
    leaks = {part: chance.choice([0.01, 0.03, 0.4, 3.0]) for part in parts}
    for number in range(12):
        inside = tuple(part for part in parts if chance.random() < 0.6) or tuple(parts)
        if number == 7:
            happened(context, job, Changed(part="heater", intervention=Intervention.REPLACED))
        wrong = 30.0 if number == 9 and seed == 3 else 1.0
        text = f"{wrong / sum(leaks[part] for part in inside):.2f}M"
        happened(context, job, RunMade(method="insulation", connected=inside, text=text))
    with context.store.read() as session:
        case = take(context, session, job).case
    known: dict[str, State] = {}
    for step in story_of(case, Method.INSULATION):
        problem = problem_of(case, Method.INSULATION, until=step.record.event.order)
        whole = isolate(problem)
        states = {part.id: whole.parts[part.id].state for part in problem.present}
        assert step.is_conflict == bool(whole.conflict)
        for state, parts_said in ((State.CLEARED, step.cleared), (State.GUILTY, step.guilty)):
            changed = {part for part, now in states.items() if now is state and known.get(part, State.OPEN) is not now}
            assert set(parts_said) == changed
        known = states


def test_after_the_culprit_the_same_run_again_and_a_second_leak_is_looked_for(context: Context, job: str) -> None:
    prove_dead(context, job)
    happened(context, job, insulation("0.05M"))
    happened(context, job, insulation("0.4M", "heater"))
    happened(context, job, Changed(part="heater", intervention=Intervention.REPLACED))
    view = seen(context, job)
    heater = next(part for part in view.parts if part.id == "heater")
    assert heater.state is State.OPEN
    assert view.next is not None
    assert view.next.words.startswith("The whole machine again")
    assert view.repeated[0].before.startswith("50 kΩ")
    assert view.repeated[0].after == ""
    happened(context, job, insulation("0.38M"))
    view = seen(context, job)
    assert view.repeated[0].after.startswith("380 kΩ")
    assert next(part.state for part in view.parts if part.id == "heater") is State.CLEARED
    assert view.next is not None
    assert "whole machine" not in view.next.words


def test_the_n_only_parts_of_a_run_are_told(context: Context, job: str) -> None:
    prove_dead(context, job)
    happened(context, job, insulation("0.05M"))
    run = seen(context, job).runs[0]
    assert {"heater", "motor"} <= set(run.from_neutral)
    assert run.not_reached == []
    stands = {"door": "locked", "programme": "heat", "heater_relay": "closed"}
    called = insulation("0.06M").model_copy(update={"states": stands})
    happened(context, job, called)
    assert "heater" not in seen(context, job).runs[1].from_neutral
    with pytest.raises(InputError, match="no value of programme 'boil'"):
        happened(context, job, insulation("1M").model_copy(update={"states": {"programme": "boil"}}))


def test_an_earth_that_is_off_forbids_power_until_it_is_read(context: Context, job: str) -> None:
    with pytest.raises(SafetyRefusalError, match="not proved dead"):
        happened(context, job, EarthLifted(part="heater"))
    prove_dead(context, job)
    with pytest.raises(InputError, match="no earth wire"):
        happened(context, job, EarthLifted(part="valve"))
    happened(context, job, EarthLifted(part="heater"))
    for body in (LiveBegun(reason="leakage run", minutes=5), PluggedIn(), Ended(why="done")):
        with pytest.raises(SafetyRefusalError, match="earth of the heater"):
            happened(context, job, body)
    happened(context, job, EarthRefitted(part="heater"))
    with pytest.raises(SafetyRefusalError, match="earth of the heater"):
        happened(context, job, PluggedIn())
    logged(context, job, "between cord.plug_pe heater.pe 0.12")
    with pytest.raises(SafetyRefusalError, match="whole machine to earth"):
        happened(context, job, PluggedIn())
    logged(context, job, "cord insulation >299M")
    happened(context, job, PluggedIn())


def test_a_live_run_by_the_device_wants_wires_insulated_and_is_a_trip(context: Context, job: str) -> None:
    happened(context, job, LiveBegun(reason="quick split, heater off", minutes=5))
    run = RunMade(method="leakage", connected=("cord", "filter"), text="trips", polarity="normal")
    with pytest.raises(InputError, match="is noted here"):
        happened(context, job, run)
    happened(context, job, CircuitNoted())
    with pytest.raises(SafetyRefusalError, match="wires off"):
        happened(context, job, run)
    happened(context, job, run.model_copy(update={"are_wires_insulated": True, "text": "holds"}))
    happened(context, job, run.model_copy(update={"are_wires_insulated": True}))
    view = seen(context, job, "leakage")
    assert [row.reads for row in view.runs] == ["holds", "trips"]
    assert view.conflict == ""
    with pytest.raises(SafetyRefusalError, match="no power"):
        happened(context, job, PluggedIn())


def test_currents_are_refused_on_a_generator_and_it_says_why(context: Context, job: str) -> None:
    happened(context, job, CircuitNoted(supply=Supply.GENERATOR))
    view = seen(context, job, "leakage")
    assert "not earthed" in view.refused
    assert "first leak" in " ".join(view.house.blind_to)
