"""Proof after repair: its order, guarded limits, what a change takes away, what blocks signing off."""

from __future__ import annotations

from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st
from pydantic import ValidationError
from tests.core.case_of import PROOF, Log, proof_of

from ohmcensus.core.errors import InputError, SafetyRefusalError
from ohmcensus.core.event import (
    Body,
    BypassRemoved,
    Changed,
    Ended,
    Hazard,
    HazardFound,
    HeatRise,
    InsulationNotAllowed,
    InterlockTried,
    Intervention,
    Isolated,
    PluggedIn,
    ProofMade,
    RunWatched,
    StripBack,
    StripStep,
    Tried,
    Way,
    When,
)
from ohmcensus.core.limits.profile import BUILT_IN
from ohmcensus.core.meter import GENERIC_METERS
from ohmcensus.core.proof import blocking, criteria, proofs, refuse_proof, refuse_sign_off
from ohmcensus.core.proof.state import taken_proof
from ohmcensus.core.sheet import Sheet
from ohmcensus.services.at_hand.sheets import find_sheet

CHANGED = Changed(part="heater", intervention=Intervention.REPLACED, fitted="spare 1")
TESTER = GENERIC_METERS[2]
# 10 kg x 4.19 kJ/(kg K) x 25 K at 2 kW: 8.7 min for the water alone.
WARMED = HeatRise(litres=10.0, from_celsius=15.0, to_celsius=40.0, minutes=9.5)


def seen(criterion: str, *, good: bool = True) -> ProofMade:
    return ProofMade(criterion=criterion, is_good=good)


def current(text: str, criterion: str = "current", way: Way = Way.DIFFERENTIAL) -> ProofMade:
    return ProofMade(criterion=criterion, text=text, way=way, instrument=TESTER)


def shown(log: Log) -> dict[str, bool | None]:
    return {row.criterion.id: row.is_good for row in proofs(log.case, log.safety)}


def test_a_bare_current_is_in_milliamperes_and_is_stored_with_its_scale(fl7: Sheet) -> None:
    log = dead_with_all_shown(fl7).did(PluggedIn())
    body = ProofMade(criterion="current", text="0.4", way=Way.DIFFERENTIAL)
    taken = taken_proof(log.case, body, log.safety, [GENERIC_METERS[2]])
    assert (taken.text, taken.instrument) == ("0.4m", GENERIC_METERS[2])
    older = log.did(current("0.0004"))
    assert [row.is_good for row in proofs(older.case, older.safety) if row.criterion.id == "current"] == [True]


def whole(sheet: Sheet) -> Log:
    """Return a machine with a new heater that has shown everything."""
    log = dead_with_all_shown(sheet).did(PluggedIn(), current("0.4 mA"), current("0.3 mA", "current_turned"))
    return log.did(RunWatched(outcome="through", heat=WARMED), seen("joints"), seen("codes"))


def dead_with_all_shown(sheet: Sheet, *, pe: str = "0.07") -> Log:
    """Return a machine with a new heater, proved dead, that has shown what a dead machine shows."""
    log = Log(sheet).did(Isolated()).read(*PROOF).did(CHANGED).read("heater earth 0.07")
    return log.did(seen("visual"), seen("drum")).read(f"cord pe {pe}", "cord insulation >299M")


def test_everything_shown_in_its_order_is_signed_off(fl7: Sheet) -> None:
    log = Log(fl7).did(CHANGED)
    order = ["visual", "drum", "protective_conductor", "earth_heater", "insulation", "current", "current_turned"]
    assert list(shown(log)) == [*order, "function", "heat", "joints", "codes"]
    own = [row for row in blocking(log.case, log.safety) if row.startswith("the heater was changed")]
    assert len(own) == 2
    assert len(blocking(log.case, log.safety)) == len(shown(log)) - 1 + len(own), "the warming may be left out"
    done = whole(fl7)
    assert set(shown(done).values()) == {True}
    assert blocking(done.case, done.safety) == ()
    refuse_sign_off(done.case, Ended(why="new heater"), done.safety)


@pytest.mark.parametrize(
    ("more", "says"),
    [
        ((Changed(part="pump", intervention=Intervention.MENDED),), "protective conductor is not shown"),
        ((seen("joints", good=False),), "no leak failed"),
        ((RunWatched(outcome="heat"),), "runs through failed"),
        ((current("3.45 mA"),), "protective conductor current failed"),
        ((HazardFound(hazard=Hazard.BYPASS, words="lid wires joined"),), "lid wires joined"),
        ((HazardFound(hazard=Hazard.WATER_INSIDE, words=""),), "water inside"),
    ],
    ids=["changed once more", "leaks", "fails at heat", "over by the tester's error", "bypass", "water inside"],
)
def test_one_thing_amiss_blocks_it_and_a_label_does_not_lie(fl7: Sheet, more: tuple[Body, ...], says: str) -> None:
    log = whole(fl7).did(*more)
    assert any(says in row for row in blocking(log.case, log.safety))
    with pytest.raises(SafetyRefusalError, match="not signed off"):
        refuse_sign_off(log.case, Ended(why="new heater"), log.safety)
    with pytest.raises(SafetyRefusalError, match=r"cut off before it is left|pull the plug"):
        refuse_sign_off(log.case, Ended(why="left as it is", is_labelled_unsafe=True), log.safety)
    log.did(Isolated())
    refuse_sign_off(log.case, Ended(why="left as it is", is_labelled_unsafe=True), log.safety)


def test_a_bypass_taken_out_blocks_no_more(fl7: Sheet) -> None:
    log = whole(fl7).did(Isolated(), HazardFound(hazard=Hazard.BYPASS, words="lid"), BypassRemoved(words="parted"))
    assert "an interlock is bypassed: lid" in blocking(log.case, log.safety)[0]
    log.read("lock unlocked OL").did(InterlockTried(open="door", outcome=Tried.NO_START, was=When.NOW))
    assert blocking(log.case, log.safety)[0].endswith("(next, watch one run through, door shut)")
    log.did(RunWatched(outcome="through"))
    assert blocking(log.case, log.safety) == ()


def test_a_job_on_which_nothing_was_changed_needs_no_proof(fl7: Sheet) -> None:
    assert blocking(Log(fl7).case, Log(fl7).safety) == ()


@pytest.mark.parametrize(
    ("body", "error", "says"),
    [
        (current("0.4 mA"), SafetyRefusalError, "looked at is not shown yet"),
        (seen("tidiness"), InputError, "no criterion 'tidiness'"),
        (ProofMade(criterion="visual"), InputError, "say good or bad"),
        (ProofMade(criterion="insulation", text="300M"), InputError, "quick line"),
        (ProofMade(criterion="function", is_good=True), InputError, "watch a run"),
    ],
)
def test_what_is_out_of_order_or_of_no_form_is_refused(
    fl7: Sheet, body: ProofMade, error: type[Exception], says: str
) -> None:
    with pytest.raises(error, match=says):
        refuse_proof((log := Log(fl7).did(CHANGED)).case, body, log.safety)


@pytest.mark.parametrize("text", ["a lot", "-0.4 mA", "0.4 V", ""])
def test_a_current_is_typed_as_one(fl7: Sheet, text: str) -> None:
    log = dead_with_all_shown(fl7).plugged()
    with pytest.raises(InputError):
        refuse_proof(log.case, current(text), log.safety)
    refuse_proof(log.case, current("0.4 mA"), log.safety)
    with pytest.raises(InputError, match="no method"):
        refuse_proof(log.case, ProofMade(criterion="current", text="0.4 mA"), log.safety)


def test_the_first_fail_ends_the_series(fl7: Sheet) -> None:
    log = dead_with_all_shown(fl7, pe="0.8").plugged()
    with pytest.raises(SafetyRefusalError, match="protective conductor failed"):
        refuse_proof(log.case, current("0.4 mA"), log.safety)


def test_a_cord_that_looks_bad_ends_the_series_too(fl7: Sheet) -> None:
    log = dead_with_all_shown(fl7).did(seen("visual", good=False))
    with pytest.raises(SafetyRefusalError, match="looked at failed"):
        refuse_proof(log.case, seen("drum"), log.safety)
    log.plugged()
    with pytest.raises(SafetyRefusalError, match="looked at failed"):
        refuse_proof(log.case, current("0.4 mA"), log.safety)
    refuse_proof(log.case, seen("visual"), log.safety)


def test_the_alternative_method_is_refused_where_loads_stand_behind_a_relay(fl7: Sheet) -> None:
    log = dead_with_all_shown(fl7)
    with pytest.raises(InputError, match="behind a relay"):
        refuse_proof(log.case, current("0.4 mA", way=Way.ALTERNATIVE), log.safety)
    plain = Log(find_sheet("tl4-c")).did(Isolated()).read(*proof_of(find_sheet("tl4-c")))
    plain.case = replace(plain.case, profile=BUILT_IN[0])
    plain.did(Changed(part="motor", intervention=Intervention.REPLACED), seen("visual"), seen("drum"))
    plain.read("cord pe 0.05", "motor earth 0.05", "cord insulation >299M")
    refuse_proof(plain.case, current("0.4 mA", way=Way.ALTERNATIVE), plain.safety)
    plain.plugged()
    with pytest.raises(SafetyRefusalError, match="drives a voltage of its own"):
        refuse_proof(plain.case, current("0.4 mA", way=Way.ALTERNATIVE), plain.safety)


def test_plugs_that_were_pulled_ask_a_short_proof_and_a_cover_alone_asks_a_look(fl7: Sheet) -> None:
    log = Log(fl7).did(StripStep(words="back panel", panel="back"))
    log.did(StripBack(step=log.case.events[0].id))
    assert blocking(log.case, log.safety) == ("looked at is not shown",)
    log.did(StripStep(words="heater tags off", plugs=("heater_tags",)))
    log.did(StripBack(step=log.case.events[-1].id, plugs=("heater_tags",)))
    assert list(shown(log)) == ["visual", "protective_conductor", "earth_heater", "insulation", "function"]


def test_where_insulation_may_not_be_tested_the_current_with_heat_on_takes_its_place(fl7: Sheet) -> None:
    log = Log(fl7).did(CHANGED, InsulationNotAllowed(words="surge arrester to earth"))
    rows = {row.id: row for row in criteria(log.case, log.safety)}
    assert "insulation" not in rows
    assert "heat on" in rows["current"].how
    log.did(seen("visual"), seen("drum")).read("cord pe 0.07")
    with pytest.raises(InputError, match="alternative method needs insulation"):
        refuse_proof(log.case, current("0.4 mA", way=Way.ALTERNATIVE), log.safety)


@given(st.floats(0.05, 9.9))
def test_a_current_passes_only_with_its_whole_error(milliampere: float) -> None:
    log = Log(find_sheet("fl7-u")).did(CHANGED, current(f"{milliampere:.2f} mA"))
    row = next(row for row in proofs(log.case, log.safety) if row.criterion.id == "current")
    assert row.interval is not None
    assert row.is_good == (row.interval.hi <= 3.5e-3)
    assert row.interval.contains(type(row.interval)(round(milliampere, 2) / 1e3, round(milliampere, 2) / 1e3))


def test_insulation_is_left_out_only_with_a_reason() -> None:
    with pytest.raises(ValidationError):
        InsulationNotAllowed(words=" ")


@pytest.mark.parametrize(
    ("part", "asks"),
    [("heater", True), ("ntc", True), ("board", True), ("lock", False), ("pump", False)],
)
def test_the_warming_is_timed_where_the_heating_was_touched(fl7: Sheet, part: str, *, asks: bool) -> None:
    log = Log(fl7).did(Changed(part=part, intervention=Intervention.REPLACED))
    assert ("heat" in shown(log)) is asks


@pytest.mark.parametrize(
    ("outlet", "minutes", "is_good"),
    [("230", 9.5, True), ("230", 5.0, False), ("230", 20.0, False), ("209", 13.0, True), ("230", 13.0, False)],
    ids=["as computed", "too fast: less water, or two heaters", "too slow", "weak supply", "the same, full supply"],
)
def test_water_warms_as_fast_as_power_water_and_supply_let_it(
    fl7: Sheet, outlet: str, minutes: float, *, is_good: bool
) -> None:
    log = whole(fl7).read(f"outlet {outlet}")
    log.did(RunWatched(outcome="through", heat=WARMED.model_copy(update={"minutes": minutes})))
    assert shown(log)["heat"] is is_good


def test_a_dead_outlet_is_no_supply_to_reckon_with(fl7: Sheet) -> None:
    log = whole(fl7).read("outlet 0.4")
    assert shown(log)["heat"] is True


def test_water_that_gets_colder_is_no_warming() -> None:
    with pytest.raises(ValidationError, match="from 40 to 15 °C is not a rise"):
        HeatRise(litres=10.0, from_celsius=40.0, to_celsius=15.0, minutes=9.5)
