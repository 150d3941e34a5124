"""The ways on that a refusal offers: whatever is sent by a button goes through, and nothing else is offered."""

from __future__ import annotations

from uuid import uuid4

import pytest
from tests.core.case_of import PROOF
from tests.working import happened, logged

from ohmcensus.core.acts import ActId, How
from ohmcensus.core.errors import SafetyRefusalError
from ohmcensus.core.event import Body, CutOff, Hazard, HazardFound, Isolated, LiveBegun, PluggedIn, When
from ohmcensus.services.at_hand.context import Context
from ohmcensus.services.job.open_job import NewJob, open_job
from ohmcensus.services.reading.preview_line import SaidBeside, TypedLine, preview_line

PULL, PROVE, BENCH, REASON, HAND = (
    ActId.PULL_PLUG,
    ActId.PROVE_DEAD,
    ActId.ON_THE_BENCH,
    ActId.GIVE_REASON,
    ActId.PLUG_IN_HAND,
)


@pytest.fixture
def job(context: Context) -> str:
    return open_job(context, NewJob(id=uuid4(), machine="Machine 9", place="Pier", sheet="fl7-u")).id


@pytest.mark.parametrize(
    ("done", "typed", "acts"),
    [
        ((), "heater 26", [PULL, PROVE, BENCH]),
        ((Isolated(),), "heater 26", [PROVE, BENCH, REASON]),
        ((Isolated(),), "heater pe 1M", [PROVE, BENCH]),
        ((Isolated(),), "between heater.a pump.b 12", [PROVE, REASON]),
        ((Isolated(),), "cord pe 0.08", [PROVE, HAND, BENCH, REASON]),
        ((Isolated(how=CutOff.PLUG_IN_HAND),), "heater 26", [PROVE, BENCH]),
        ((PluggedIn(),), "heater 26", [PULL, PROVE]),
        ((LiveBegun(reason="volts at the outlet"),), "heater 26", [PULL, PROVE]),
        ((Isolated(), HazardFound(hazard=Hazard.SHOCK)), "heater 26", [PROVE, BENCH, REASON]),
    ],
    ids=["not cut off", "cut off", "insulation", "two points", "at the plug", "in hand", "in", "live", "a danger"],
)
def test_the_ways_on_are_those_that_go(
    context: Context, job: str, done: tuple[Body, ...], typed: str, acts: list[ActId]
) -> None:
    for body in done:
        happened(context, job, body)
    shown = preview_line(context, job, TypedLine(text=typed))
    assert shown.problem
    assert [act.id for act in shown.acts] == acts
    with pytest.raises(SafetyRefusalError):
        logged(context, job, typed)
    for act in shown.acts:
        if act.how is How.AGAIN and act.merges is not None:
            more = {name: "the heater lies on the bench" if act.asks == name else v for name, v in act.merges.items()}
            assert not preview_line(context, job, TypedLine(text=typed, **more)).problem
        if act.how is How.GO:
            assert act.where is not None
            assert act.where.room


def test_what_is_no_refusal_has_no_ways_on(context: Context, job: str) -> None:
    happened(context, job, Isolated())
    for text in PROOF:
        logged(context, job, text)
    for text in ("heater 26", "heater abc", "outlet 229"):
        assert preview_line(context, job, TypedLine(text=text)).acts == []


def test_a_current_on_a_machine_that_is_cut_off_asks_when_it_was(context: Context, job: str) -> None:
    happened(context, job, PluggedIn())
    happened(context, job, Isolated())
    shown = preview_line(context, job, TypedLine(text="outlet amps_drain 0.9A"))
    assert (shown.problem, [act.id for act in shown.acts]) == ("", [ActId.WAS_BEFORE, ActId.WAS_NOW])
    assert preview_line(context, job, TypedLine(text="outlet amps_drain 0.9A", was=When.BEFORE)).acts == []


def test_an_interlock_asks_how_the_door_stands_before_its_figure(context: Context, job: str) -> None:
    assert preview_line(context, job, TypedLine(text="lock unlocked 0.3")).asks_door
    assert not preview_line(context, job, TypedLine(text="lock unlocked 0.3", says=SaidBeside(door="locked"))).asks_door
    assert not preview_line(context, job, TypedLine(text="heater 26")).asks_door
