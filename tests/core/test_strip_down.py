"""The strip-down turned round: it is finished when every fastener and plug is back."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st
from tests.core.case_of import PROOF, Log

from ohmcensus.core.errors import InputError
from ohmcensus.core.event import (
    Changed,
    Checked,
    CheckOutcome,
    Ended,
    Intervention,
    Isolated,
    Opened,
    ProofMade,
    RunWatched,
    Shut,
    StripBack,
    StripStep,
)
from ohmcensus.core.job.strip_down import open_panels, refuse_strip, strip_down, uncovered, unfinished
from ohmcensus.core.proof import blocking, proofs, refuse_sign_off
from ohmcensus.core.safety import SafetyState, safety_at
from ohmcensus.core.sheet import Sheet
from ohmcensus.services.at_hand.sheets import find_sheet

BACK_PANEL = StripStep(words="back panel", fasteners=6, head="cross", size="M4 x 12", kept="blue lid", panel="back")
HEATER = StripStep(words="heater tags", plugs=("heater_tags", "ntc_plug"))


def off(sheet: Sheet) -> Log:
    return Log(sheet).did(BACK_PANEL, HEATER)


def back(log: Log, place: int, fasteners: int = 0, *plugs: str) -> StripBack:
    return StripBack(step=strip_down(log.case)[place].event.id, fasteners=fasteners, plugs=plugs)


def test_it_goes_back_in_reverse_until_nothing_is_missing(fl7: Sheet) -> None:
    log = off(fl7)
    assert unfinished(log.case) == ("not back: heater tags", "not back: back panel")
    assert open_panels(log.case) == {"back"}
    log.did(back(log, 1, 0, "heater_tags"))
    assert unfinished(log.case)[0] == "heater tags: still off: ntc plug"
    log.did(back(log, 1, 0, "heater_tags", "ntc_plug"), back(log, 0, 5))
    assert unfinished(log.case) == ("back panel: 1 fastener missing",)
    log.did(back(log, 0, 6))
    assert unfinished(log.case) == ()
    assert open_panels(log.case) == frozenset()


def test_what_is_not_back_blocks_signing_off(fl7: Sheet) -> None:
    log = off(fl7)
    assert "not back: back panel" in blocking(log.case, log.safety)
    with pytest.raises(Exception, match="not back: heater tags"):
        refuse_sign_off(log.case, Ended(why="done"), log.safety)


def test_a_cover_that_comes_off_asks_to_be_looked_at(fl7: Sheet) -> None:
    log = (
        Log(fl7)
        .did(Changed(part="heater", intervention=Intervention.REPLACED))
        .did(ProofMade(criterion="visual", is_good=True), ProofMade(criterion="drum", is_good=True))
    )
    log.read("cord pe 0.07")
    assert [row.is_good for row in proofs(log.case, log.safety)][:3] == [True, True, True]
    log.did(BACK_PANEL)
    assert [row.is_good for row in proofs(log.case, log.safety)][:3] == [None, True, True], "it asks a look alone"


@pytest.mark.parametrize(
    ("make", "says"),
    [
        (lambda log: back(log, 0, 7), "7 back of 6"),
        (lambda log: back(log, 1, 0, "pump_plug"), "'pump_plug' was not pulled"),
        (lambda _: StripBack(step="nowhere"), "no such step"),
    ],
)
def test_what_never_came_off_does_not_go_back(fl7: Sheet, make, says: str) -> None:  # type: ignore[no-untyped-def]
    log = off(fl7)
    with pytest.raises(InputError, match=says):
        refuse_strip(log.case, make(log))


def test_a_panel_noted_as_opened_is_shut_by_the_step_that_puts_it_back(fl7: Sheet) -> None:
    log = Log(fl7).did(Opened(panel="top"))
    assert open_panels(log.case) == {"top"}
    log.did(StripStep(words="top cover", panel="top"))
    log.did(back(log, 0))
    assert open_panels(log.case) == frozenset()


def test_a_cover_that_comes_off_again_is_off(fl7: Sheet) -> None:
    log = Log(fl7).did(BACK_PANEL)
    log.did(back(log, 0, 6), BACK_PANEL)
    assert open_panels(log.case) == {"back"}
    log.did(back(log, 1, 6))
    assert open_panels(log.case) == frozenset()
    log.did(Opened(panel="back"))
    assert open_panels(log.case) == {"back"}


@given(st.lists(st.integers(0, 9), min_size=1, max_size=6), st.data())
def test_it_is_finished_exactly_when_all_are_back(counts: list[int], data: st.DataObject) -> None:
    log = Log(find_sheet("fl7-u")).did(*(StripStep(words=f"step {n}", fasteners=n) for n in counts))
    given_back = [data.draw(st.integers(0, count)) for count in counts]
    done = [data.draw(st.booleans()) for _ in counts]
    log.did(*(back(log, place, given_back[place]) for place in range(len(counts)) if done[place]))
    is_whole = all(done) and given_back == counts
    assert (unfinished(log.case) == ()) == is_whole


@pytest.mark.parametrize("outcome", ["through", "drain", "trips"])
def test_a_watched_run_means_power_and_ends_a_proof_of_dead(fl7: Sheet, outcome: str) -> None:
    log = Log(fl7).did(Isolated()).read(*PROOF)
    assert safety_at(log.case, log.now).state is SafetyState.DEAD
    log.did(RunWatched(outcome=outcome))
    assert safety_at(log.case, log.now).state is SafetyState.UNDER_VOLTAGE


def test_a_cover_is_off_once_something_behind_it_was_read_until_it_is_shut_or_the_machine_runs(fl7: Sheet) -> None:
    panel = fl7.known_part("heater").behind
    assert panel
    read = Log(fl7).read("heater 26.4")
    assert not open_panels(read.case)
    assert uncovered(read.case) == {panel}
    assert uncovered(Log(fl7).read("heater 26.4").did(Shut(panel=panel)).case) == frozenset()
    assert uncovered(Log(fl7).read("heater 26.4").did(RunWatched(outcome="through")).case) == frozenset()
    looked = Checked(check="heater.look_tags", outcome=CheckOutcome.GOOD)
    assert uncovered(Log(fl7).did(looked).case) == {panel}
