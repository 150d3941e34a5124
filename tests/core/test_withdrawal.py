"""Taking back what was done last: as if it had not been, and never a way to a safer machine."""

from __future__ import annotations

import random
from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st
from tests.core.case_of import Log, proof_of
from tests.core.test_safety_property import seeds
from tests.second.acts import ACTS
from tests.second.scenes import told

from ohmcensus.core.errors import InputError, OhmcensusError, SafetyRefusalError
from ohmcensus.core.event import (
    Body,
    Changed,
    Checked,
    CheckOutcome,
    Intervention,
    Isolated,
    Opened,
    PluggedIn,
    ProofMade,
    RecordWithdrawn,
    RunWatched,
    Skipped,
    StripBack,
    StripStep,
    WhySkipped,
)
from ohmcensus.core.job.strip_down import open_panels, strip_down
from ohmcensus.core.safety import SafetyState, refuse_event, safety_at, walk_of
from ohmcensus.core.safety.withdrawal import last_act
from ohmcensus.core.sheet import Sheet

BACK = StripStep(words="back panel off", panel="back", fasteners=6)


def dead(sheet: Sheet) -> Log:
    return Log(sheet).did(Isolated()).read(*proof_of(sheet))


def undo(log: Log) -> Log:
    """Take back the last event, if the core lets it be."""
    body = RecordWithdrawn(record=log.case.events[-1].id)
    refuse_event(log.case, body, log.safety)
    return log.did(body)


@pytest.mark.parametrize(
    "body",
    [
        Changed(part="heater", intervention=Intervention.REPLACED),
        Skipped(test="heater.element", why=WhySkipped.CANNOT_REACH),
        Checked(check="drain_filter", outcome=CheckOutcome.GOOD),
        ProofMade(criterion="covers", is_good=True),
        BACK,
    ],
    ids=lambda body: body.kind,
)
def test_what_is_taken_back_counts_for_nothing_and_stays_in_the_log(fl7: Sheet, body: Body) -> None:
    log = dead(fl7)
    before = log.case
    undo(log.did(body))
    assert log.case.of(type(body)) == before.of(type(body))
    assert [event.body.kind for event in log.case.events[-2:]] == [body.kind, "record_withdrawn"]
    assert replace(walk_of(log.case), order=0) == replace(walk_of(before), order=0)
    assert log.safety.state is SafetyState.DEAD


def test_a_step_of_the_strip_down_is_on_again_and_one_that_went_back_is_off_again(fl7: Sheet) -> None:
    log = dead(fl7).did(BACK)
    log.did(StripBack(step=log.case.events[-1].id, fasteners=6))
    undo(log)
    assert open_panels(log.case) == {"back"}
    assert [row.is_back for row in strip_down(log.case)] == [False]
    log.case = replace(log.case, events=log.case.events[:-2])
    undo(log)
    assert open_panels(log.case) == frozenset()


def test_acts_are_taken_back_one_after_the_other(fl7: Sheet) -> None:
    log = dead(fl7).did(
        Checked(check="drain_filter", outcome=CheckOutcome.GOOD),
        Changed(part="heater", intervention=Intervention.REPLACED),
    )
    check, change = log.case.events[-2:]
    with pytest.raises(InputError, match="was not the last thing done: undo what came after it first"):
        refuse_event(log.case, RecordWithdrawn(record=check.id), log.safety)
    assert last_act(log.case) == change
    log.did(RecordWithdrawn(record=change.id))
    assert last_act(log.case) == check
    refuse_event(log.case, RecordWithdrawn(record=check.id), log.safety)


def test_what_is_not_there_or_undone_already_is_refused(fl7: Sheet) -> None:
    log = dead(fl7).did(BACK)
    step = log.case.events[-1].id
    undo(log)
    for record in ("none", step):
        with pytest.raises(InputError, match="there is nothing to undo"):
            refuse_event(log.case, RecordWithdrawn(record=record), log.safety)


@pytest.mark.parametrize(
    ("before", "body", "error"),
    [
        ((), PluggedIn(), InputError),
        ((), Opened(panel="back"), InputError),
        ((), RunWatched(outcome="through", was="now"), SafetyRefusalError),
        ((PluggedIn(),), RunWatched(outcome="trips"), SafetyRefusalError),
        ((), Checked(check="cord", outcome=CheckOutcome.BAD), SafetyRefusalError),
    ],
    ids=["power", "a cover", "a run from dead", "a trip", "a danger"],
)
def test_what_tells_how_the_machine_stands_is_not_undone(
    fl7: Sheet, before: tuple[Body, ...], body: Body, error: type[OhmcensusError]
) -> None:
    log = dead(fl7).did(*before, body)
    with pytest.raises(error):
        undo(log)


def test_a_run_watched_on_a_machine_that_was_plugged_in_is_undone_and_the_power_stays(fl7: Sheet) -> None:
    log = undo(dead(fl7).did(PluggedIn(), RunWatched(outcome="no_heat")))
    assert log.case.last(RunWatched) is None
    assert log.safety.state is SafetyState.UNDER_VOLTAGE


def test_whoever_undoes_was_there_when_it_was_done(fl7: Sheet) -> None:
    log = dead(fl7).wait(minutes=9).did(BACK).wait(minutes=9)
    undo(log)
    assert log.safety.state is SafetyState.DEAD


@given(seeds, st.sampled_from(sorted(ACTS)), st.integers(0, 900))
def test_no_undo_makes_a_machine_safer(chance: random.Random, act: str, seconds: int) -> None:
    """Where an act is taken back, the machine stands as it did with it, or is trusted less."""
    history = told(chance)
    count = len(history.case.events)
    history.tell(act)
    if len(history.case.events) == count:
        return
    history.wait(seconds)
    now, before = history.log.now, history.safety
    body = RecordWithdrawn(record=history.case.events[-1].id)
    try:
        refuse_event(history.case, body, before)
    except OhmcensusError:
        return
    after = safety_at(history.log.did(body).case, now)
    assert (after.state, after.cut) == (before.state, before.cut)
    assert {row.id for row in before.dangers} <= {row.id for row in after.dangers}
    assert len(after.walk.shouts) >= len(before.walk.shouts)
