"""Which device, which moment, and the circuit of the house."""

from __future__ import annotations

import math
from dataclasses import replace

import pytest
from tests.core.case_of import Log

from ohmcensus.core.event import Appliance, CircuitNoted, Supply, Tripped
from ohmcensus.core.intake import Complaint
from ohmcensus.core.judgement import Verdict, census_lines
from ohmcensus.core.limits.profile import BUILT_IN, chosen_profile
from ohmcensus.core.limits.terms import Terms
from ohmcensus.core.machine import machine_tests
from ohmcensus.core.machine.netlist import nominal_of
from ohmcensus.core.meter import Function
from ohmcensus.core.quantity import Interval
from ohmcensus.core.quantity.window import Source
from ohmcensus.core.sheet import Sheet
from ohmcensus.core.sheet.model import Protection
from ohmcensus.core.symptom import Device, Moment, Symptom
from ohmcensus.core.trip.house import HEALTHY_MACHINE_A, circuit_on, house_of, proved_by_device, stood_on
from ohmcensus.core.trip.overcurrent import inrush_of
from ohmcensus.core.trip.triage import FaultClass, Triage, triage
from ohmcensus.services.at_hand.sheets import find_sheet


def told(sheet: Sheet, device: Device, moment: Moment) -> Triage:
    complaint = Complaint(symptoms=(Symptom.TRIPS,), device=device, moment=moment)
    return triage(Log(sheet).complains(complaint).case)


@pytest.mark.parametrize(
    ("moment", "part"),
    [
        (Moment.PLUGGING_IN, "filter"),
        (Moment.HEATING, "heater"),
        (Moment.TURNING, "motor"),
        (Moment.FILLING, "valve"),
        (Moment.DRAINING, "pump"),
    ],
)
def test_a_part_that_is_new_by_the_moment_leads(fl7: Sheet, moment: Moment, part: str) -> None:
    """What comes under voltage at that moment (common practice, no source), found from the circuit alone."""
    rows = {row.part: row for row in told(fl7, Device.RCD, moment).parts}
    assert rows[part].is_new
    assert rows[part].weight == max(row.weight for row in rows.values() if row.is_new)


def test_heater_and_motor_are_at_line_from_the_first_moment_with_the_plug_turned(fl7: Sheet) -> None:
    """A single-pole relay leaves them joined to neutral."""
    rows = {row.part: row for row in told(fl7, Device.RCD, Moment.PLUGGING_IN).parts}
    assert rows["heater"].if_turned
    assert rows["motor"].if_turned
    assert not rows["heater"].is_new


@pytest.mark.parametrize(
    ("device", "has", "lacks"),
    [
        (Device.RCD, FaultClass.LEAK, FaultClass.SHORT),
        (Device.BREAKER, FaultClass.SHORT, FaultClass.LEAK),
        (Device.GFCI, FaultClass.NEUTRAL_TO_EARTH, FaultClass.SHORT),
        (Device.AFCI, FaultClass.ARC, FaultClass.LEAK),
    ],
)
def test_the_device_halves_the_search(fl7: Sheet, device: Device, has: FaultClass, lacks: FaultClass) -> None:
    found = told(fl7, device, Moment.HEATING)
    assert has in found.classes
    assert lacks not in found.classes


def test_a_trip_with_the_machine_off_is_explained(fl7: Sheet) -> None:
    notes = " ".join(told(fl7, Device.RCD, Moment.PLUGGING_IN).notes)
    assert "needs no switch" in notes
    assert "needs no switch" not in " ".join(told(fl7, Device.BREAKER, Moment.PLUGGING_IN).notes)


def test_the_last_trip_wins_over_the_complaint(fl7: Sheet) -> None:
    log = Log(fl7).complains(Complaint(symptoms=(Symptom.TRIPS,), device=Device.RCD, moment=Moment.HEATING))
    assert triage(log.did(Tripped(device=Device.BREAKER, moment=Moment.TURNING)).case).device is Device.BREAKER


@pytest.mark.parametrize("device", list(Device))
@pytest.mark.parametrize("moment", list(Moment))
def test_every_device_and_moment_has_an_answer(fl7: Sheet, device: Device, moment: Moment) -> None:
    found = told(fl7, device, moment)
    assert found.parts
    assert found.first
    assert list(found.parts) == sorted(found.parts, key=lambda row: -row.weight)


def circuit(*leaks: float, supply: Supply = Supply.EARTHED, device: Device = Device.RCD) -> CircuitNoted:
    rows = tuple(Appliance(name=f"other {index}", leakage_ma=leak) for index, leak in enumerate(leaks))
    return CircuitNoted(supply=supply, device=device, appliances=rows)


def test_machine_and_standing_leakage_as_in_the_worked_example(fl7: Sheet) -> None:
    """14 mA beside 8 mA: 16.12 to 22 mA, a trip between .075 and .467 (our design page)."""
    found = house_of(Log(fl7).did(circuit(8.0)).case, Interval(14e-3, 14e-3))
    assert found.chance is not None
    assert (found.chance.total_a.lo, found.chance.total_a.hi) == pytest.approx((16.12e-3, 22e-3), abs=5e-6)
    assert (found.chance.chance.lo, found.chance.chance.hi) == pytest.approx((0.075, 0.467), abs=5e-4)


def test_a_sound_machine_is_taken_where_no_run_says_and_the_rest_adds_like_phasors(fl7: Sheet) -> None:
    found = house_of(Log(fl7).did(circuit(3.0, 4.0)).case, None)
    assert found.machine_a == HEALTHY_MACHINE_A
    assert (found.standing_a.lo, found.standing_a.hi) == pytest.approx((5e-3, 7e-3))


@pytest.mark.parametrize(
    ("noted", "says"),
    [
        (circuit(supply=Supply.ISOLATED), "first leak"),
        (circuit(supply=Supply.TWO_LIVE_POLES), "cancel"),
        (circuit(supply=Supply.GALVANIC_ISOLATOR), "1.2 V"),
        (circuit(device=Device.BREAKER), "No residual-current device"),
        (CircuitNoted(wave="AC"), "half waves"),
    ],
    ids=["isolated", "split phase", "galvanic isolator", "breaker only", "type AC"],
)
def test_what_a_device_cannot_see_is_said(fl7: Sheet, noted: CircuitNoted, says: str) -> None:
    assert says in " ".join(house_of(Log(fl7).did(noted).case, None).blind_to)


@pytest.mark.parametrize(
    ("type_id", "rated_ma", "trips_from", "holds_under"),
    [("tl4-c", 30, 15e-3, 30e-3), ("fl7-u", 30, 10.5e-3, 42e-3), ("fl7-u", 10, 3.5e-3, 20e-3)],
    ids=["sine only", "half waves too", "half waves on a small one"],
)
def test_what_a_trip_and_a_hold_prove(type_id: str, rated_ma: int, trips_from: float, holds_under: float) -> None:
    """IEC 61008-1: 0.5 to 1 of the rating, half waves 0.35 to 1.4, at 10 mA to 2 (from memory); the rest counts."""
    noted = circuit(2.0).model_copy(update={"rated_ma": rated_ma})
    stood = stood_on(Log(find_sheet(type_id)).did(noted).case)
    assert stood is not None
    assert proved_by_device(stood, tripped=True).lo == pytest.approx(trips_from - 2e-3)
    assert math.isinf(proved_by_device(stood, tripped=True).hi)
    assert proved_by_device(stood, tripped=False).hi == pytest.approx(holds_under)


def test_without_an_earthed_neutral_the_device_proves_nothing(fl7: Sheet) -> None:
    case = Log(fl7).did(circuit(supply=Supply.GENERATOR)).case
    assert stood_on(case) is None
    assert house_of(case, None).chance is None


def test_limits_follow_the_supply_until_others_are_chosen() -> None:
    """EN 50678: 1 MΩ, 0.3 MΩ with heating elements, 2 MΩ in class II (from memory)."""
    usual = chosen_profile("", (), 230.0)
    assert [usual.least_megohm(kind, "I") for kind in ("motor", "heater")] == [1.0, 0.3]
    assert usual.least_megohm("heater", "II") == 2.0
    assert chosen_profile("", (), 120.0).id == "practice_120"
    own = BUILT_IN[0].model_copy(update={"id": "ours", "kinds_megohm": {"motor": 5.0}})
    assert chosen_profile("ours", (own,), 230.0).least_megohm("motor", "I") == 5.0
    assert chosen_profile("gone", (), 230.0) == usual


def test_the_figures_of_the_usual_profile_are_those_of_the_parts(any_sheet: Sheet) -> None:
    for test in machine_tests(any_sheet, 20.0):
        part = any_sheet.part(test.part)
        assert part
        if test.function is Function.INSULATION and test.window.source is Source.COMMON:
            least = Terms(any_sheet, BUILT_IN[0]).least_ohm(None if part.kind == "cord" else part.id)
            assert test.window.interval.lo == pytest.approx(least), test.id


def test_a_reading_in_trace_is_judged_by_the_chosen_limits(fl7: Sheet) -> None:
    case = Log(fl7).read("heater pe 0.5M").case
    strict = replace(case, profile=BUILT_IN[1])
    verdicts = {
        line.answer.judgement.verdict
        for held in (case, strict)
        for line in census_lines(held)
        if line.test and line.test.id == "heater.pe" and line.answer
    }
    assert verdicts == {Verdict.INSIDE, Verdict.OUTSIDE_LOW}


def test_the_circuit_is_read_from_the_sheet_until_it_is_written_down(fl7: Sheet) -> None:
    printed = (Protection(device=Device.RCBO, rating="10 mA type F"), Protection(device=Device.BREAKER, rating="C 10"))
    noted = circuit_on(fl7.model_copy(update={"protection": printed}))
    assert (noted.device, noted.rated_ma, noted.wave, noted.curve, noted.rated_a) == (Device.RCBO, 10, "F", "C", 10)
    unread = circuit_on(fl7.model_copy(update={"protection": (Protection(device=Device.RCD, rating="as found"),)}))
    assert unread == CircuitNoted()


def test_inrush_lies_between_impedance_and_resistance(any_sheet: Sheet) -> None:
    for row in inrush_of(any_sheet):
        ohms = [nominal_of(part, spec) for part in [any_sheet.part(row.part)] if part for spec in part.tests()[:2]]
        assert row.ampere.hi == pytest.approx(sum(any_sheet.volts / ohm for ohm in ohms))
        assert row.ampere.lo < any_sheet.volts / ohms[0]
