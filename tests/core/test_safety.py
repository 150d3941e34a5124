"""The state of safety and what it admits: the walk of the log, the steps of this machine, refusals in the core."""

from __future__ import annotations

from dataclasses import replace
from datetime import timedelta

import pytest
from tests.core.case_of import PROOF, Log, proof_of

from ohmcensus.core.errors import InputError, SafetyRefusalError
from ohmcensus.core.event import (
    Attended,
    Body,
    BypassRemoved,
    CycleBegun,
    EarthRefitted,
    EntryTried,
    Hazard,
    HazardFound,
    Isolated,
    LiveBegun,
    LiveEnded,
    NotedInError,
    Opened,
    PluggedIn,
    Reclosed,
    Shut,
    StepTicked,
    Tripped,
)
from ohmcensus.core.intake import Complaint
from ohmcensus.core.job.reading import Reading
from ohmcensus.core.meter import GENERIC_METERS, Function
from ohmcensus.core.quantity import Indication
from ohmcensus.core.safety import SafetyState, admitted, refuse_event, safe_steps
from ohmcensus.core.safety.steps import step_ids
from ohmcensus.core.sheet import Sheet
from ohmcensus.core.symptom import Device, Symptom
from ohmcensus.services.at_hand.sheets import find_sheet


def state(log: Log) -> SafetyState:
    return log.safety.state


def proved(fl7: Sheet) -> Log:
    return Log(fl7).did(Isolated()).read(*PROOF)


def test_the_whole_series_by_one_meter_proves_dead(fl7: Sheet) -> None:
    log = Log(fl7).did(Isolated())
    for line in PROOF:
        assert state(log) is SafetyState.NOT_PROVED
        log.wait(seconds=40).read(line)
    assert state(log) is SafetyState.DEAD
    assert log.safety.at == log.now.isoformat()


def test_every_machine_is_proved_dead_by_its_own_points(any_sheet: Sheet) -> None:
    log = Log(any_sheet).did(Isolated()).read(*proof_of(any_sheet))
    assert state(log) is SafetyState.DEAD


@pytest.mark.parametrize(
    ("lines", "comes_to"),
    [
        (PROOF[:-1], SafetyState.NOT_PROVED),
        (PROOF[1:], SafetyState.NOT_PROVED),
        (("source 231", "dead ln 0.2", "dead le 0.1", "dead ne 0.1", "source 231"), SafetyState.NOT_PROVED),
        (("source 231", "dead ln 6", *PROOF[2:]), SafetyState.UNDER_VOLTAGE),
        (("source 231", "dead ln 0.2", "dead le 0.1", "dead ne 0.1", "dead filter -34", "source 231"), None),
        (("source 12", *PROOF[1:]), SafetyState.NOT_PROVED),
        ((*PROOF[:-1], "source 3"), SafetyState.NOT_PROVED),
        ((*PROOF, "dead ln 230"), SafetyState.UNDER_VOLTAGE),
        (("source 231", "dead ln 4.98", *PROOF[2:]), SafetyState.NOT_PROVED),
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
def test_anything_short_of_it_does_not(fl7: Sheet, lines: tuple[str, ...], comes_to: SafetyState | None) -> None:
    assert state(Log(fl7).did(Isolated()).read(*lines)) is (comes_to or SafetyState.NOT_PROVED)


def test_the_series_counts_only_after_cutting_off_and_each_meter_shows_its_own_source(fl7: Sheet) -> None:
    assert state(Log(fl7).read(*PROOF)) is SafetyState.NOT_PROVED
    assert state(Log(fl7).read(*PROOF).did(Isolated())) is SafetyState.NOT_PROVED
    mixed = Log(fl7).did(Isolated()).read("source 231").read(*PROOF[1:], meter=GENERIC_METERS[1])
    assert state(mixed) is SafetyState.NOT_PROVED


def test_ten_minutes_unattended_clear_it_and_the_provers_entries_attend(fl7: Sheet) -> None:
    log = proved(fl7).wait(minutes=10)
    assert state(log) is SafetyState.DEAD
    assert state(log.wait(seconds=1)) is SafetyState.NOT_PROVED
    assert log.safety.lapsed == "ten minutes unattended"
    assert log.safety.isolated, "the cut-off stands"
    busy = proved(fl7)
    for _ in range(5):
        busy.wait(minutes=9).did(Attended())
    assert state(busy) is SafetyState.DEAD
    assert state(busy.wait(minutes=11).did(Attended())) is SafetyState.NOT_PROVED


def test_a_clock_that_is_set_back_clears_it(fl7: Sheet) -> None:
    assert state(proved(fl7).wait(seconds=-60)) is SafetyState.DEAD
    assert state(proved(fl7).wait(hours=-1)) is SafetyState.NOT_PROVED
    live = Log(fl7).did(LiveBegun(reason="volts at the relay"))
    assert state(live.wait(hours=-1)) is SafetyState.UNDER_VOLTAGE


POWER: list[Body] = [
    PluggedIn(),
    LiveBegun(reason="volts at the relay"),
    Reclosed(machine="in"),
    Tripped(),
    CycleBegun(cycle="self_test"),
    EntryTried(sequence="service_mode", is_in=True),
]


@pytest.mark.parametrize("body", POWER)
def test_power_clears_it_and_is_known_from_then(fl7: Sheet, body: Body) -> None:
    assert state(proved(fl7).did(body)) in {SafetyState.LIVE, SafetyState.UNDER_VOLTAGE}
    log = proved(fl7).did(body, LiveEnded())
    assert state(log) is SafetyState.UNDER_VOLTAGE
    assert state(log.did(Isolated())) is SafetyState.NOT_PROVED


def test_a_trip_with_the_machine_out_changes_nothing(fl7: Sheet) -> None:
    log = proved(fl7).did(Tripped(machine="out"))
    assert state(log) is SafetyState.DEAD
    assert log.safety.dangers == ()


def test_live_ends_after_its_time_when_opened_and_when_it_trips(fl7: Sheet) -> None:
    def live() -> Log:
        return Log(fl7).did(LiveBegun(reason="volts at the relay", minutes=10))

    assert state(live().wait(minutes=9, seconds=59)) is SafetyState.LIVE
    assert state(live().wait(minutes=10)) is SafetyState.UNDER_VOLTAGE
    assert live().safety.until == "2026-06-01T12:10:00Z"
    for body in (Opened(panel="back"), LiveEnded(), Tripped()):
        assert state(live().did(body)) is SafetyState.UNDER_VOLTAGE
    assert state(live().did(Isolated())) is SafetyState.NOT_PROVED


def test_a_test_cycle_begun_live_stays_live(fl7: Sheet) -> None:
    live = Log(fl7).did(LiveBegun(reason="volts at the relay"), CycleBegun(cycle="self_test"))
    assert state(live) is SafetyState.LIVE


def of(function: Function, *, loose: bool = False, override: str = "") -> Reading:
    indication = Indication(1.0, function.unit)
    ends = ("pump.a", "pump.b")
    return Reading("r", ends, None, function, GENERIC_METERS[0], indication, "", 20.0, loose=loose, override=override)


FORBIDDEN = [Function.OHM, Function.CONTINUITY, Function.CAPACITANCE, Function.INSULATION, Function.DIODE]


@pytest.mark.parametrize("function", FORBIDDEN)
def test_what_drives_the_circuit_itself_waits_for_a_dead_one(fl7: Sheet, function: Function) -> None:
    cut, live = Log(fl7).did(Isolated()), Log(fl7).did(LiveBegun(reason="volts at the relay"))
    admitted(of(function), proved(fl7).safety)
    admitted(of(function, loose=True), cut.safety)
    if function is not Function.INSULATION:
        assert admitted(of(function, override="cord in my hand"), cut.safety).is_overridden
    with pytest.raises(SafetyRefusalError, match="not proved dead"):
        admitted(of(function, override=" x "), cut.safety)
    with pytest.raises(SafetyRefusalError, match="not noted as cut off"):
        admitted(of(function, override="cord in my hand"), Log(fl7).safety)
    for reading in (of(function, override="I know what I do"), of(function, loose=True)):
        with pytest.raises(SafetyRefusalError, match="live mode"):
            admitted(reading, live.safety)


@pytest.mark.parametrize("symptom", [Symptom.SHOCK, Symptom.TRIPS, Symptom.SMELLS])
def test_a_complaint_forbids_power_whoever_asks_for_it(fl7: Sheet, symptom: Symptom) -> None:
    log = proved(fl7).complains(Complaint(symptoms=(symptom,)))
    entry = EntryTried(sequence="service_mode", is_in=True)
    for body in (PluggedIn(), LiveBegun(reason="to see it"), CycleBegun(cycle="self_test"), entry):
        with pytest.raises(SafetyRefusalError, match="no power"):
            refuse_event(log.case, body, log.safety)


def test_one_reclose_for_each_trip_and_with_the_machine_in_only_after_earth(fl7: Sheet) -> None:
    log = proved(fl7)
    with pytest.raises(InputError, match="nothing has tripped"):
        refuse_event(log.case, Reclosed(), log.safety)
    log = Log(fl7).did(Tripped(device=Device.RCD), Isolated()).read(*PROOF)
    with pytest.raises(SafetyRefusalError, match="no power"):
        refuse_event(log.case, Reclosed(machine="in"), log.safety)
    refuse_event(log.case, Reclosed(), log.safety)
    log.read("cord pe 0.06")
    refuse_event(log.case, Reclosed(machine="in"), log.safety)
    log.did(Reclosed())
    with pytest.raises(SafetyRefusalError, match="not a second time"):
        refuse_event(log.case, Reclosed(), log.safety)


@pytest.mark.parametrize(
    ("body", "says"),
    [
        (BypassRemoved(words="wires parted"), "no bypass was found"),
        (EarthRefitted(part="heater"), "the earth of 'heater' is not off"),
        (Shut(panel="back"), "is not off"),
        (LiveEnded(), "not in live mode"),
        (HazardFound(hazard=Hazard.EARTH_OFF), "an earth off, of no part"),
        (NotedInError(danger="shock", because="it was not this machine"), "no danger 'shock' stands"),
    ],
    ids=["bypass", "earth", "cover", "live", "earth of no part", "no danger"],
)
def test_what_cannot_be_is_refused_in_one_sentence(fl7: Sheet, body: Body, says: str) -> None:
    log = proved(fl7)
    with pytest.raises(InputError, match=says):
        refuse_event(log.case, body, log.safety)


def test_the_steps_are_this_machines_and_this_jobs(fl7: Sheet) -> None:
    log = Log(fl7).did(Isolated(), StepTicked(step="taps"))
    steps = {step.id: step for step in safe_steps(log.case, log.safety)}
    assert list(steps) == ["isolate", "taps", "drain", "floor", "discharge1", "weight", "prove"]
    assert steps["isolate"].is_done
    assert steps["taps"].is_done
    assert "4 litres" in steps["drain"].how
    assert "below 40 °C" in steps["drain"].how
    assert "470 nF at up to 325 V, 25 mJ: its 680 kΩ bring it to 10 V in 1.1 s" in steps["discharge1"].how
    assert "if it does not fall" in steps["discharge1"].how.casefold()
    assert "66 kg" in steps["weight"].how
    log.did(PluggedIn(), Isolated())
    assert [step.id for step in safe_steps(log.case, log.safety) if step.is_done] == ["isolate"]
    log.complains(Complaint(symptoms=(Symptom.LEAKS,)))
    assert "Water is likely" in safe_steps(log.case, log.safety)[3].how


def test_a_charge_is_waited_for_from_the_moment_of_cutting_off_again() -> None:
    """Five minutes for what can hurt, for the rest as long as its own bleed takes."""
    log = Log(find_sheet("tl4-c"))
    assert {step.waits_until for step in safe_steps(log.case, log.safety)} == {""}
    cut_at = log.now
    log.did(Isolated())
    waits = {step.id: step.waits_until for step in safe_steps(log.case, log.safety) if step.waits_until}
    assert set(waits) == {name for name in step_ids(log.case) if name.startswith("discharge")}
    assert max(waits.values()) == (cut_at + timedelta(minutes=5)).isoformat()
    log.plugged()
    assert {step.waits_until for step in safe_steps(log.case, log.safety)} == {""}
    again = log.now
    log.did(Isolated())
    assert (
        max(step.waits_until for step in safe_steps(log.case, log.safety)) == (again + timedelta(minutes=5)).isoformat()
    )


def test_probes_are_rated_for_the_highest_crest_on_the_machine(any_sheet: Sheet) -> None:
    """A capacitor marked 450 V stands at 636 V at its crest: probes of 600 V are none for it."""
    log = Log(any_sheet)
    text = " ".join(step.how for step in safe_steps(log.case, log.safety))
    capacitors = [part for part in any_sheet.parts if part.kind == "motor_capacitor"]
    if capacitors:
        marked = capacitors[0].ratings.model_copy(update={"volts": 450.0})
        part = capacitors[0].model_copy(update={"ratings": marked})
        parts = tuple(part if row.id == part.id else row for row in any_sheet.parts)
        high = Log(any_sheet.model_copy(update={"parts": parts}))
        assert "probes rated 1000 V" in " ".join(step.how for step in safe_steps(high.case, high.safety))
    assert "probes rated 1000 V" not in text


def test_a_safety_of_the_log_at_hand_is_that_of_the_log_read_anew(fl7: Sheet) -> None:
    log = proved(fl7).read("cord pe >20").did(Opened(panel="back"))
    assert log.safety == replace(log.safety)
    assert [row.id for row in log.safety.dangers] == ["earth"]
