"""Readings with the part's own plug still on, and the sentence that tells of them."""

from __future__ import annotations

import pytest

from ohmcensus.core.judgement import choose_use, judge
from ohmcensus.core.judgement.verdict import Verdict
from ohmcensus.core.machine import MachineTest, machine_tests
from ohmcensus.core.machine.coverage import MAINS_PLUG, driven
from ohmcensus.core.machine.netlist import Configuration
from ohmcensus.core.machine.plug_on import conductance_beside_s
from ohmcensus.core.machine.probe import Probe, predict
from ohmcensus.core.meter import Function, generic_meter
from ohmcensus.core.sheet import Sheet
from ohmcensus.services.at_hand.sheets import all_sheets

METER = generic_meter("multimeter-6000")


def line_of(sheet: Sheet, test_id: str) -> MachineTest:
    return next(test for test in machine_tests(sheet, 20.0) if test.id == test_id)


def said(sheet: Sheet, test_id: str, text: str) -> tuple[Verdict, str]:
    test = line_of(sheet, test_id)
    found = judge(choose_use(text, test, [METER], function=test.function), test)
    return found.verdict, found.remark


@pytest.mark.parametrize(
    ("sheet_id", "test_id", "alone", "with_plug"),
    [
        ("tl4-c", "hot.coil", "870", "430"),
        ("fl7-u", "ntc.sensor", "12.5k", "9.9k"),
        ("fl7-u", "board.pump_rest", "OL", "420k"),
    ],
    ids=["two valves in parallel", "a sensor on its board", "the bleed beside a switch"],
)
def test_a_reading_with_the_plug_on_is_told_as_that(sheet_id: str, test_id: str, alone: str, with_plug: str) -> None:
    sheet = all_sheets()[sheet_id]
    assert said(sheet, test_id, alone)[0] is Verdict.INSIDE
    verdict, remark = said(sheet, test_id, with_plug)
    assert verdict is Verdict.OUTSIDE_LOW
    assert "plug still on" in remark
    assert "plug still on" not in said(sheet, test_id, "2.1")[1]


def test_two_alike_valves_in_parallel_halve_the_reading() -> None:
    """Kirchhoff: beside one valve lies the other."""
    sheet = all_sheets()["tl4-c"]
    alone = predict(
        sheet, Probe(Function.OHM, ("hot.a", "hot.b")), Configuration(frozenset({"mains_plug", "valve_tags"}))
    )
    assert alone.value is not None
    assert conductance_beside_s(sheet, "hot", "coil") == pytest.approx(1 / alone.value, rel=0.1)


@pytest.mark.parametrize("sheet", all_sheets().values(), ids=lambda sheet: sheet.id)
def test_where_nothing_lies_beside_nothing_is_said(sheet: Sheet) -> None:
    for test in machine_tests(sheet, 20.0):
        if test.with_plug_on is None:
            continue
        assert test.function is Function.OHM
        assert test.with_plug_on.interval.lo < test.window.interval.lo
        assert test.with_plug_on.interval.hi < test.window.interval.hi
    heaters = [test for test in machine_tests(sheet, 20.0) if test.id == "heater.element"]
    assert all(test.with_plug_on is None for test in heaters)


@pytest.mark.parametrize(
    ("sheet_id", "limit", "ground"), [("fl7-u", 0.3, "EN 50678"), ("tl4-c", 0.1 + 1.8 * 20.9e-3, "120 V")]
)
def test_the_limit_of_the_protective_conductor_goes_by_the_world(sheet_id: str, limit: float, ground: str) -> None:
    """EN 50678: 0.3 Ω to 5 m; at 120 V 0.1 Ω and the cord, 18 AWG 20.9 mΩ/m (both from memory)."""
    window = line_of(all_sheets()[sheet_id], "cord.pe").window
    assert window.interval.hi == pytest.approx(limit)
    assert ground in window.basis


def test_how_far_the_poles_come_depends_on_the_relays(fl7: Sheet) -> None:
    """A heater behind an open relay is reached from neutral only. Common practice, no source."""
    rest = driven(fl7, Configuration())
    assert "heater" in rest.only_from_neutral
    heating = driven(fl7, Configuration(states={"door": "locked", "heater_relay": "closed", "programme": "heat"}))
    assert "heater" in heating.from_line
    pulled = driven(fl7, Configuration(frozenset({MAINS_PLUG, "heater_tags"})))
    assert "heater" in pulled.not_reached
