"""Readings as a technician takes them, and what a good one would say of each: as many bad as good.

Each row names where its window comes from. *Common practice, no source* marks a fact of the trade; figures of
standards are from memory: EN 50678 (insulation 0.3 MΩ with heating elements, 1 MΩ without; protective conductor
0.3 Ω), IEC 60335-1 (power input +5/−10 %), IEC 60038 (supply ±10 %), IEC 60252-1 (run capacitors ±5 %).
"""

from __future__ import annotations

import copy

import pytest

from ohmcensus.core.judgement import Judgement, Verdict, choose_use, judge
from ohmcensus.core.machine import machine_tests
from ohmcensus.core.meter import Function, generic_meter
from ohmcensus.core.sheet import sheet_from
from ohmcensus.exchange.sheet_yaml import plain_sheet
from ohmcensus.services.at_hand.sheets import all_sheets

PLATE = "R = U²/P, IEC 60335-1 +5/−10 %"
MOHM = "EN 50678; a healthy one reads over 20 MΩ: common practice, no source"
TRADE = "common practice, no source"
LIVE = "IEC 60038, ±10 %"
LEAK = "ωCU of the filter; a healthy machine up to 0.7 mA: common practice, no source"
RUN = "IEC 60252-1, ±5 %"
I_UR = "I = U/R, IEC 60335-1 +5/−10 %, IEC 60038 ±10 %, never over the plate"
RCD = "IEC 61008-1: trips between half its rating and its rating, within 0.3 s"
NTC = "R25·exp(B(1/T − 1/298.15)), 10 to 30 °C where none is stated"

GOOD = [
    ("fl7-u", "heater.element", "26,4", PLATE),
    ("fl7-u", "heater.element", "27", PLATE),
    ("fl7-u", "heater.element", "26", PLATE),
    ("fl7-u", "heater.element", "28,4 Ohm", PLATE),
    ("fl7-u", "heater.pe", ">299M", MOHM),
    ("fl7-u", "heater.pe", "200", MOHM),
    ("fl7-u", "cord.insulation", "45", MOHM),
    ("fl7-u", "cord.pe", "0.12", "EN 50678"),
    ("fl7-u", "filter.x", "0.44u", TRADE),
    ("fl7-u", "filter.x", "0.47", TRADE),
    ("fl7-u", "filter.across", "680k", TRADE),
    ("fl7-u", "filter.leakage", "0.34mA", LEAK),
    ("fl7-u", "filter.leakage", "0.6", LEAK),
    ("fl7-u", "filter.leakage_turned", "0.41", LEAK),
    ("fl7-u", "lock.ptc", "1.0k", TRADE),
    ("fl7-u", "lock.locked", "0.3", TRADE),
    ("fl7-u", "lock.unlocked", "OL", TRADE),
    ("fl7-u", "ntc.sensor", "10.0k", NTC),
    ("fl7-u", "ntc.sensor", "11.9k at 21", NTC),
    ("fl7-u", "ntc.sensor", "3.60k at 50", NTC),
    ("fl7-u", "motor.armature", "2.1", TRADE),
    ("fl7-u", "motor.field", "1.6", TRADE),
    ("fl7-u", "motor.tacho", "72", TRADE),
    ("fl7-u", "motor.brush_1", "14mm", TRADE),
    ("fl7-u", "motor.brush_1", "14", TRADE),
    ("fl7-u", "pump.coil", "148", TRADE),
    ("fl7-u", "valve.coil", "3k9", TRADE),
    ("fl7-u", "board.relay", "OL", TRADE),
    ("fl7-u", "outlet.ln", "238", LIVE),
    ("fl7-u", "outlet.ne", "0.00", TRADE),
    ("fl7-u", "outlet.le", "0.4", "a plug that goes in either way round: common practice, no source"),
    ("fl7-u", "outlet.ne", "229", "a plug that goes in either way round: common practice, no source"),
    ("fl7-u", "outlet.rcd_ramp", "22", RCD),
    ("fl7-u", "outlet.rcd_time", "28", RCD),
    ("tl4-c", "outlet.rcd_ramp", "5.0", "UL 943 class A"),
    ("fl7-u", "outlet.amps_heat", "8.6", I_UR),
    ("fl7-u", "outlet.amps_drain", "0.88", TRADE),
    ("fl9-t", "ntc.sensor", "4.8k", NTC),
    ("fl9-t", "motor.uv", "5.0", TRADE),
    ("fl9-t", "motor.pe", "25M", MOHM),
    ("fl9-t", "panel.supply", "5.02", TRADE),
    ("fl9-t", "panel.link", "2.4", TRADE),
    ("fl9-t", "drive.u_plus", "0.45", TRADE),
    ("fl9-t", "level.frequency", "26.5k", TRADE),
    ("dd8-r", "sensor.supply", "4.96", TRADE),
    ("dd8-r", "sensor.h1", "0.1..4.9", TRADE),
    ("tl4-c", "filter.leakage", "0.3", LEAK),
    ("tl4-c", "capacitor.value", "52uF", RUN),
    ("tl4-c", "capacitor.value", "52", RUN),
    ("tl4-c", "capacitor.can", "OL", TRADE),
    ("tl4-c", "motor.run", "1.8", TRADE),
    ("tl4-c", "outlet.ln", "124", "ANSI C84.1, ±10 % rule"),
    ("tl4-c", "lid.shut", "0.2", TRADE),
    ("tl6-s", "shift.tacho", "0.2..4.8", TRADE),
    ("wd8-h", "cutout.cold", "0.1", TRADE),
]
BAD = [
    ("fl7-u", "heater.element", "24.5", "outside_low", PLATE),
    ("fl7-u", "heater.element", "33", "outside_high", PLATE),
    ("fl7-u", "heater.element", "0.4", "short", PLATE),
    ("fl7-u", "heater.element", "OL", "open", PLATE),
    ("fl7-u", "heater.element", "700M", "open", PLATE),
    ("fl7-u", "heater.pe", "0.1", "outside_low", MOHM),
    ("fl7-u", "heater.pe", "0.00M", "outside_low", MOHM),
    ("fl7-u", "motor.pe", "0.9M", "outside_low", MOHM),
    ("fl7-u", "filter.pe", "0.8M", "outside_low", MOHM),
    ("fl7-u", "cord.pe", "0.45", "outside_high", "EN 50678"),
    ("fl7-u", "cord.cores", "0.3", "short", TRADE),
    ("fl7-u", "filter.across", "OL", "open", TRADE),
    ("fl7-u", "filter.x", "0.30", "outside_low", TRADE),
    ("fl7-u", "filter.x", "OL", "outside_high", TRADE),
    ("fl7-u", "filter.leakage", "1.2mA", "outside_high", LEAK),
    ("fl7-u", "filter.leakage", ">20mA", "outside_high", LEAK),
    ("fl7-u", "filter.leakage", "20", "outside_high", LEAK),
    ("fl7-u", "filter.leakage", "0.00", "outside_low", LEAK),
    ("fl7-u", "lock.ptc", "2.5k", "outside_high", TRADE),
    ("fl7-u", "lock.ptc", "OL", "open", TRADE),
    ("fl7-u", "lock.locked", "3.5", "outside_high", TRADE),
    ("fl7-u", "lock.locked", "0.2..38", "outside_high", TRADE),
    ("fl7-u", "lock.unlocked", "0.2", "short", TRADE),
    ("fl7-u", "ntc.sensor", "4.0k", "outside_low", NTC),
    ("fl7-u", "ntc.sensor", "9.0k at 21", "outside_low", NTC),
    ("fl7-u", "ntc.sensor", "OL", "open", NTC),
    ("fl7-u", "motor.armature", "150", "outside_high", TRADE),
    ("fl7-u", "motor.tacho", "480", "outside_high", TRADE),
    ("fl7-u", "motor.brush_1", "9mm", "outside_low", TRADE),
    ("fl7-u", "motor.brush_1", "9", "outside_low", TRADE),
    ("fl7-u", "pump.coil", "70", "outside_low", TRADE),
    ("fl7-u", "pump.coil", "230", "outside_high", TRADE),
    ("fl7-u", "valve.coil", "0.9k", "outside_low", TRADE),
    ("fl7-u", "board.relay", "0.1", "short", TRADE),
    ("fl7-u", "board.fuse", "OL", "open", TRADE),
    ("fl7-u", "outlet.ln", "190", "outside_low", LIVE),
    ("fl7-u", "outlet.ln", "OL", "outside_high", LIVE),
    ("fl7-u", "outlet.ne", "40", "outside_high", TRADE),
    ("fl7-u", "outlet.rcd_ramp", "9.0", "outside_low", RCD),
    ("fl7-u", "outlet.rcd_ramp", "41", "outside_high", RCD),
    ("fl7-u", "outlet.rcd_time", "410", "outside_high", RCD),
    ("tl4-c", "outlet.rcd_ramp", "9.0", "outside_high", "UL 943 class A"),
    ("fl7-u", "outlet.amps_heat", "4.2A", "outside_low", I_UR),
    ("fl7-u", "outlet.amps_heat", "17.5A", "outside_high", I_UR),
    ("fl7-u", "outlet.amps_drain", "1.7", "outside_high", I_UR),
    ("fl9-t", "panel.supply", "8.0", "outside_high", TRADE),
    ("fl9-t", "panel.link", "5.0", "outside_high", TRADE),
    ("fl9-t", "panel.link", "0.01", "outside_low", TRADE),
    ("fl9-t", "drive.u_plus", "0.000", "outside_low", TRADE),
    ("fl9-t", "drive.u_plus", "OL", "open", TRADE),
    ("fl9-t", "level.frequency", "0", "outside_low", TRADE),
    ("dd8-r", "sensor.h1", "5.0", "outside_high", TRADE),
    ("dd8-r", "sensor.h1", "0.02", "outside_low", TRADE),
    ("dd8-r", "sensor.h1", "10.9", "outside_high", TRADE),
    ("tl4-c", "capacitor.value", "45", "outside_low", RUN),
    ("tl4-c", "capacitor.value", "41u", "outside_low", RUN),
    ("tl4-c", "capacitor.value", "0.00u", "outside_low", RUN),
    ("tl4-c", "capacitor.value", "OL", "outside_high", RUN),
    ("tl4-c", "filter.leakage", "0.7mA", "outside_high", LEAK),
    ("tl4-c", "outlet.ln", "107.0", "unsure", "ANSI C84.1, ±10 % rule"),
    ("tl4-c", "outlet.le", "0.4", "outside_low", "a polarised plug goes in one way only: common practice, no source"),
    ("tl4-c", "lid.open", "0.1", "short", TRADE),
]
UNSURE = [
    ("fl7-u", "heater.element", "25.0", PLATE),
    ("fl7-u", "heater.pe", "0.31M", MOHM),
    ("fl7-u", "cord.pe", "0.29", "EN 50678"),
    ("fl7-u", "outlet.ln", "206", LIVE),
    ("tl4-c", "capacitor.value", "56.0u", RUN),
    ("dd8-r", "sensor.h1", "2.5", TRADE),
]
BY = {
    **dict.fromkeys((Function.INSULATION, Function.CONTINUITY, Function.LEAKAGE), "appliance-tester"),
    **dict.fromkeys((Function.RCD_CURRENT, Function.RCD_TIME), "rcd-tester"),
}


def judged(sheet_id: str, test_id: str, typed: str) -> Judgement:
    text, _, celsius = typed.partition(" at ")
    sheet = all_sheets()[sheet_id]
    test = next(row for row in machine_tests(sheet, float(celsius) if celsius else None) if row.id == test_id)
    meter = generic_meter(BY.get(test.function, "multimeter-6000"))
    return judge(choose_use(text, test, [meter], function=test.function, must_show=False), test)


@pytest.mark.parametrize(("sheet", "test", "typed", "basis"), GOOD)
def test_what_a_good_technician_would_pass(sheet: str, test: str, typed: str, basis: str) -> None:
    found = judged(sheet, test, typed)
    assert (found.verdict, found.healthy) in {(Verdict.INSIDE, None), (Verdict.INSIDE, True)}, (basis, found.sentence)


@pytest.mark.parametrize(("sheet", "test", "typed", "verdict", "basis"), BAD)
def test_what_a_good_technician_would_not_pass(sheet: str, test: str, typed: str, verdict: str, basis: str) -> None:
    found = judged(sheet, test, typed)
    assert found.verdict == verdict, (basis, found.sentence)
    assert found.healthy is not True


@pytest.mark.parametrize(("sheet", "test", "typed", "basis"), UNSURE)
def test_what_a_good_technician_would_read_again(sheet: str, test: str, typed: str, basis: str) -> None:
    assert judged(sheet, test, typed).verdict is Verdict.UNSURE, basis


def test_the_table_holds_as_many_bad_readings_as_good_ones() -> None:
    assert len(BAD) >= len(GOOD) > 50


@pytest.mark.parametrize(
    ("test", "typed", "verdict", "healthy"),
    [
        ("heater.pe", "0.50M", Verdict.INSIDE, False),
        ("heater.pe", "1.5M", Verdict.INSIDE, False),
        ("heater.pe", "2.00M", Verdict.INSIDE, None),
        ("heater.pe", "2.5M", Verdict.INSIDE, True),
        ("motor.pe", "1.2M", Verdict.INSIDE, False),
        ("cord.insulation", "0.5M", Verdict.INSIDE, False),
        ("heater.pe", "0.1M", Verdict.OUTSIDE_LOW, False),
        ("heater.element", "26.4", Verdict.INSIDE, None),
    ],
)
def test_passing_is_not_being_healthy(test: str, typed: str, verdict: Verdict, healthy: bool | None) -> None:
    """EN 50678 (from memory) passes 0.3 and 1 MΩ; a healthy one reads over 20 MΩ: common practice, no source."""
    found = judged("fl7-u", test, typed)
    assert (found.verdict, found.healthy) == (verdict, healthy)


@pytest.mark.parametrize(
    ("typed", "lo", "hi"),
    [("4k", 3.5e3, 4.5e3), ("4.00k", 3.93e3, 4.07e3), ("4.0k", 3.93e3, 4.09e3)],
)
def test_a_figure_that_was_rounded_by_whoever_typed_it_stands_for_all_of_its_last_place(
    typed: str, lo: float, hi: float
) -> None:
    """GUM (JCGM 100:2008) 5.1.2 and 4.3.7: independent limits add as the root of their squares; a rounded digit ±½."""
    found = judged("fl7-u", "valve.coil", typed).interval
    assert found.lo == pytest.approx(lo, rel=0.01)
    assert found.hi == pytest.approx(hi, rel=0.01)


@pytest.mark.parametrize(("volts", "electronics"), [(24.0, False), (12.0, False), (230.0, True)])
@pytest.mark.parametrize(
    ("typed", "verdict"), [("4.7M", "inside"), ("OL", "inside"), ("55", "inside"), ("0.2", "outside_low")]
)
def test_what_an_ohmmeter_sees_of_electronics_is_no_fault_by_itself(
    volts: float, electronics: bool, typed: str, verdict: str
) -> None:
    """Brushless pumps and 12/24 V valves read megohms or a diode: common practice, no source."""
    raw = copy.deepcopy(plain_sheet(all_sheets()["fl7-u"]))
    pump = next(row for row in raw["parts"] if row["id"] == "pump")
    pump["ratings"] = {"volts": volts, "electronics": electronics}
    pump["expects"] = {}
    test = next(row for row in machine_tests(sheet_from(raw), None) if row.id == "pump.coil")
    found = judge(choose_use(typed, test, [generic_meter("multimeter-6000")], function=Function.OHM), test)
    assert found.verdict == verdict
