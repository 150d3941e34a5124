"""Proved dead, live, hazards: worked out from what was logged, enforced by the core."""

from __future__ import annotations

import pytest
from tests.core.case_of import PROOF, Log

from ohmcensus.core.errors import InputError, OhmcensusError, SafetyRefusalError
from ohmcensus.core.event import (
    Attended,
    Body,
    BypassRemoved,
    CycleBegun,
    Ended,
    EntryTried,
    Hazard,
    HazardFound,
    Isolated,
    LiveBegun,
    LiveEnded,
    Opened,
    PluggedIn,
    Reclosed,
    StepTicked,
    Tripped,
)
from ohmcensus.core.intake import Alteration, Complaint
from ohmcensus.core.meter import GENERIC_METERS, Function
from ohmcensus.core.proof import refuse_sign_off
from ohmcensus.core.safety import (
    SafetyState,
    open_hazards,
    refuse_event,
    refuse_unsafe,
    safe_steps,
    safety_at,
)
from ohmcensus.core.sheet import Sheet
from ohmcensus.core.symptom import Device, Symptom

GOOD_EARTH, GOOD_INSULATION = "cord pe 0.06", "cord insulation >299M"


def state(log: Log) -> SafetyState:
    return safety_at(log.case, log.now).state


def proved(fl7: Sheet) -> Log:
    return Log(fl7).did(Isolated()).read(*PROOF)


def test_the_whole_series_by_one_meter_proves_dead(fl7: Sheet) -> None:
    log = Log(fl7).did(Isolated())
    for line in PROOF:
        assert state(log) is SafetyState.NOT_PROVED
        log.wait(seconds=40).read(line)
    safety = safety_at(log.case, log.now)
    assert safety.state is SafetyState.DEAD
    assert safety.at == log.now.isoformat()


@pytest.mark.parametrize(
    "lines",
    [
        PROOF[:-1],
        PROOF[1:],
        ("source 231", "dead ln 0.2", "dead le 0.1", "dead ne 0.1", "source 231"),
        ("source 231", "dead ln 6", *PROOF[2:]),
        ("source 231", "dead ln 0.2", "dead le 0.1", "dead ne 0.1", "dead filter -34", "source 231"),
        ("source 12", *PROOF[1:]),
        (*PROOF[:-1], "source 3"),
        (*PROOF, "dead ln 230"),
        ("source 231", "dead ln 4.98", *PROOF[2:]),
    ],
    ids=[
        "no source after",
        "no source before",
        "a capacitor left out",
        "6 V left",
        "34 V on the capacitor",
        "source too low",
        "source gone at the end",
        "a later reading shows mains",
        "4.98 V is within the meter's error of 5 V",
    ],
)
def test_anything_short_of_it_does_not(fl7: Sheet, lines: tuple[str, ...]) -> None:
    assert state(Log(fl7).did(Isolated()).read(*lines)) is SafetyState.NOT_PROVED


def test_the_series_counts_only_after_cutting_off_and_with_one_meter(fl7: Sheet) -> None:
    assert state(Log(fl7).read(*PROOF)) is SafetyState.NOT_PROVED
    assert state(Log(fl7).read(*PROOF).did(Isolated())) is SafetyState.NOT_PROVED
    mixed = Log(fl7).did(Isolated()).read("source 231").read(*PROOF[1:], meter=GENERIC_METERS[1])
    assert state(mixed) is SafetyState.NOT_PROVED


def test_ten_minutes_unattended_clear_it_and_anything_logged_attends(fl7: Sheet) -> None:
    log = proved(fl7).wait(minutes=10)
    assert state(log) is SafetyState.DEAD
    assert state(log.wait(seconds=1)) is SafetyState.NOT_PROVED
    assert safety_at(log.case, log.now).lapsed == "ten minutes unattended"
    busy = proved(fl7)
    for _ in range(5):
        busy.wait(minutes=9).did(Attended())
    assert state(busy) is SafetyState.DEAD
    assert state(busy.wait(minutes=11).did(Attended())) is SafetyState.NOT_PROVED


def test_a_clock_that_is_set_back_clears_it(fl7: Sheet) -> None:
    assert state(proved(fl7).wait(seconds=-60)) is SafetyState.DEAD
    assert state(proved(fl7).wait(hours=-1)) is SafetyState.NOT_PROVED


POWER: list[Body] = [
    PluggedIn(),
    LiveBegun(reason="volts at the relay"),
    Reclosed(),
    Tripped(),
    CycleBegun(cycle="self_test"),
    EntryTried(sequence="service_mode", is_in=True),
]


@pytest.mark.parametrize("body", POWER)
def test_power_clears_it(fl7: Sheet, body: Body) -> None:
    assert state(proved(fl7).did(body)) is not SafetyState.DEAD
    assert state(proved(fl7).did(body, LiveEnded())) is SafetyState.NOT_PROVED


def test_live_ends_after_its_time_when_opened_and_when_it_trips(fl7: Sheet) -> None:
    def live() -> Log:
        return Log(fl7).did(LiveBegun(reason="volts at the relay", minutes=10))

    assert state(live().wait(minutes=9, seconds=59)) is SafetyState.LIVE
    assert state(live().wait(minutes=10)) is SafetyState.NOT_PROVED
    assert safety_at(live().case, live().now).until == "2026-06-01T12:10:00Z"
    for body in (Opened(panel="back"), LiveEnded(), Tripped(), Isolated()):
        assert state(live().did(body)) is SafetyState.NOT_PROVED


def test_a_test_cycle_begun_live_stays_live(fl7: Sheet) -> None:
    live = Log(fl7).did(LiveBegun(reason="volts at the relay"), CycleBegun(cycle="self_test"))
    assert state(live) is SafetyState.LIVE


FORBIDDEN = [Function.OHM, Function.CONTINUITY, Function.CAPACITANCE, Function.INSULATION, Function.DIODE]


@pytest.mark.parametrize("function", list(Function))
def test_what_each_state_refuses(function: Function) -> None:
    refuse_unsafe(function, SafetyState.DEAD)
    refuse_unsafe(function, SafetyState.NOT_PROVED, is_loose=True)
    refuse_unsafe(function, SafetyState.NOT_PROVED, override="cord in my hand")
    if function not in FORBIDDEN:
        refuse_unsafe(function, SafetyState.LIVE)
        return
    with pytest.raises(SafetyRefusalError, match="not proved dead"):
        refuse_unsafe(function, SafetyState.NOT_PROVED, override=" x ")
    with pytest.raises(SafetyRefusalError, match="live mode"):
        refuse_unsafe(function, SafetyState.LIVE, override="I know what I do")


@pytest.mark.parametrize("symptom", [Symptom.SHOCK, Symptom.TRIPS, Symptom.SMELLS])
def test_a_complaint_that_forbids_power_until_earth_and_insulation_pass(fl7: Sheet, symptom: Symptom) -> None:
    log = Log(fl7)
    log.complains(Complaint(symptoms=(symptom,)))
    entry = EntryTried(sequence="service_mode", is_in=True)
    for body in (PluggedIn(), LiveBegun(reason="to see it"), CycleBegun(cycle="self_test"), entry):
        with pytest.raises(SafetyRefusalError, match="earth continuity and insulation at 500 V must pass first"):
            refuse_event(log.case, body)
    log.read(GOOD_EARTH)
    with pytest.raises(SafetyRefusalError, match="insulation at 500 V must pass first"):
        refuse_event(log.case, PluggedIn())
    log.read(GOOD_INSULATION)
    refuse_event(log.case, PluggedIn())
    log.did(HazardFound(hazard=Hazard.WATER_INSIDE))
    with pytest.raises(SafetyRefusalError, match="water inside"):
        refuse_event(log.case, PluggedIn())


@pytest.mark.parametrize(
    "lines",
    [
        ("cord pe 0.9", GOOD_INSULATION),
        (GOOD_EARTH, "cord insulation 0.2M"),
        (GOOD_EARTH, GOOD_INSULATION, "cord insulation 0.2M"),
    ],
)
def test_bad_earth_or_insulation_does_not_release_power(fl7: Sheet, lines: tuple[str, ...]) -> None:
    log = Log(fl7).did(HazardFound(hazard=Hazard.SHOCK)).read(*lines)
    assert [hazard.hazard for hazard in open_hazards(log.case)] == [Hazard.SHOCK]


def test_an_ohmmeter_never_passes_for_an_insulation_tester(fl7: Sheet) -> None:
    log = Log(fl7).did(HazardFound(hazard=Hazard.SHOCK)).read(GOOD_EARTH)
    with pytest.raises(OhmcensusError):
        log.read("cord insulation OL", meter=GENERIC_METERS[0])
    assert open_hazards(log.case)


def test_one_reclose_for_each_trip(fl7: Sheet) -> None:
    log = Log(fl7)
    with pytest.raises(InputError, match="nothing has tripped"):
        refuse_event(log.case, Reclosed())
    log.did(Tripped(device=Device.RCD))
    with pytest.raises(SafetyRefusalError, match="no power"):
        refuse_event(log.case, Reclosed())
    log.read(GOOD_EARTH, GOOD_INSULATION)
    refuse_event(log.case, Reclosed())
    log.did(Reclosed())
    with pytest.raises(SafetyRefusalError, match="not a second time"):
        refuse_event(log.case, Reclosed())
    log.did(Tripped())
    with pytest.raises(SafetyRefusalError, match="no power: tripped"):
        refuse_event(log.case, Reclosed())


def test_a_bypass_stays_open_until_it_is_out(fl7: Sheet) -> None:
    log = Log(fl7)
    with pytest.raises(InputError, match="no bypass"):
        refuse_event(log.case, BypassRemoved(words="wires parted"))
    bypass = Alteration(words="lid switch wires joined", is_bypass=True)
    log.complains(Complaint(alterations=(bypass,)))
    assert "lid switch wires joined" in open_hazards(log.case)[0].words
    refuse_event(log.case, PluggedIn())
    with pytest.raises(SafetyRefusalError, match=r"not signed off: .*lid switch wires joined"):
        refuse_sign_off(log.case, Ended(why="done"))
    refuse_sign_off(log.case, Ended(why="done", is_labelled_unsafe=True))
    log.did(BypassRemoved(words="wires parted and sleeved"))
    assert open_hazards(log.case) == ()
    refuse_sign_off(log.case, Ended(why="done"))


def test_the_steps_are_this_machines_and_this_jobs(fl7: Sheet) -> None:
    log = Log(fl7).did(Isolated(), StepTicked(step="taps"))
    steps = {step.id: step for step in safe_steps(log.case, safety_at(log.case, log.now))}
    assert list(steps) == ["isolate", "taps", "drain", "floor", "discharge1", "weight", "prove"]
    assert steps["isolate"].is_done
    assert steps["taps"].is_done
    assert "4 litres" in steps["drain"].how
    assert "below 40 °C" in steps["drain"].how
    assert "470 nF at up to 325 V, 25 mJ: its 680 kΩ bring it to 10 V in 1.1 s" in steps["discharge1"].how
    assert "66 kg" in steps["weight"].how
    log.did(PluggedIn())
    assert not any(step.is_done for step in safe_steps(log.case, safety_at(log.case, log.now)))
    log.complains(Complaint(symptoms=(Symptom.LEAKS,)))
    assert "Water is likely" in safe_steps(log.case, safety_at(log.case, log.now))[3].how
