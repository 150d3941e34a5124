"""Kinds of part, and the built-in sheet made of them."""

from __future__ import annotations

import math
from typing import Any

import pytest

from ohmcensus.core.machine import machine_tests
from ohmcensus.core.meter import Function
from ohmcensus.core.parts import part_kinds
from ohmcensus.core.parts.element import CHASSIS
from ohmcensus.core.parts.fault import FaultMode
from ohmcensus.core.parts.kind import MachineState
from ohmcensus.core.quantity.window import Source
from ohmcensus.core.sheet import Sheet, SheetFaultsError, sheet_from


def test_the_front_loader_holds_every_part(fl7: Sheet) -> None:
    kinds = [part.kind for part in fl7.parts]
    for kind in (
        "cord",
        "mains_filter",
        "door_lock",
        "drain_pump",
        "heater",
        "ntc",
        "brushed_motor",
        "pressure_switch",
        "control_board",
        "harness",
    ):
        assert kinds.count(kind) == 1, kind
    assert kinds.count("inlet_valve") == 2


def test_every_test_of_every_kind_is_whole(fl7: Sheet) -> None:
    for part in fl7.parts:
        pins = {pin.name for pin in part.pins()}
        names = [test.name for test in part.tests()]
        assert len(set(names)) == len(names)
        for test in part.tests():
            assert set(test.between) <= {*pins, CHASSIS, *fl7.points}, (part.id, test.name)
            assert set(test.blind_to) <= set(part.part_kind.fault_modes) | {FaultMode.LEAK}
            window = test.expect(20.0)
            assert window.unit is test.function.unit
            assert window.basis
            assert math.isfinite(window.interval.lo) or math.isfinite(window.interval.hi)
            assert test.minutes > 0


def test_no_passing_reading_claims_to_exclude_everything(fl7: Sheet) -> None:
    for test in machine_tests(fl7, 20.0):
        assert test.blind_to, test.id


@pytest.mark.parametrize(
    ("test_id", "lo", "hi", "source"),
    [
        ("heater.element", 25.190, 29.389, Source.PLATE),
        ("heater.pe", 300e3, math.inf, Source.COMMON),
        ("motor.pe", 1e6, math.inf, Source.COMMON),
        ("pump.coil", 120.0, 190.0, Source.SHEET),
        ("lock.ptc", 600.0, 1900.0, Source.SHEET),
        ("motor.field", 0.8, 4.0, Source.COMMON),
        ("outlet.ln", 207.0, 253.0, Source.PLATE),
        ("filter.leakage", 0.1698e-3, 0.7e-3, Source.PLATE),
        ("filter.across", 612e3, 748e3, Source.PLATE),
        ("cord.pe", -math.inf, 0.3, Source.PLATE),
        ("cord.l", -math.inf, 1.0, Source.COMMON),
        ("cord.l_joint", -math.inf, 0.1, Source.PLATE),
        ("harness.heater", -math.inf, 0.5, Source.COMMON),
    ],
)
def test_windows_of_the_front_loader_at_twenty_degrees(
    fl7: Sheet, test_id: str, lo: float, hi: float, source: Source
) -> None:
    window = {test.id: test for test in machine_tests(fl7, 20.0)}[test_id].window
    assert (window.interval.lo, window.interval.hi) == pytest.approx((lo, hi), rel=1e-3)
    assert window.source is source


def test_own_figures_of_windings_move_with_the_temperature(fl7: Sheet) -> None:
    cold, warm = ({t.id: t.window for t in machine_tests(fl7, c)} for c in (20.0, 60.0))
    factor = (234.5 + 60) / (234.5 + 20)
    assert warm["pump.coil"].interval.hi == pytest.approx(190 * factor)
    assert "at 60 °C" in warm["pump.coil"].basis
    assert warm["lock.ptc"].interval == cold["lock.ptc"].interval
    assert warm["ntc.sensor"].nominal == pytest.approx(2488, rel=0.01)


_OF_THE_SUPPLY = {
    *(Function.VOLTS_AC, Function.LEAKAGE, Function.AMPERE),
    *(Function.RCD_CURRENT, Function.RCD_TIME),
}


def test_volts_are_live_tests_and_ohms_are_not(fl7: Sheet) -> None:
    for test in machine_tests(fl7, 20.0):
        is_supply = test.function in _OF_THE_SUPPLY and test.name != "tacho_volts"
        assert (test.state is MachineState.LIVE) == is_supply, test.id


def test_every_kind_says_how_it_fails() -> None:
    for kind in part_kinds().values():
        assert kind.fault_modes or kind.checks
        assert kind.title
        assert kind.explains
        assert set(kind.priors) <= set(kind.fault_modes)
        assert kind.repair_minutes > 0


def test_coils_of_the_other_supply_world_have_their_own_range() -> None:
    for kind, lo, hi in (("drain_pump", 10.0, 40.0), ("inlet_valve", 500.0, 1500.0)):
        found = part_kinds()[kind]
        window = found.tests(found.ratings.model_validate({"volts": 120.0}))[0].expect(20.0)
        assert (window.interval.lo, window.interval.hi) == (lo, hi)


def test_a_filter_that_discharges_electronically_reads_open() -> None:
    kind = part_kinds()["mains_filter"]
    ratings = kind.ratings.model_validate({"volts": 230.0, "hertz": 50.0, "x_farad": 1e-6, "y_farad": 4.7e-9})
    across = next(test for test in kind.tests(ratings) if test.name == "across")
    assert across.expect(20.0).shown == "OL"


def raw_sheet(**changes: Any) -> dict[str, Any]:
    heater = {"id": "heater", "kind": "heater", "ratings": {"watts": 2000.0, "volts": 230.0}}
    return {
        "format": "ohmcensus-sheet/1",
        "id": "toy",
        "title": "Toy",
        "volts": 230,
        "hertz": 50,
        "watts": 2000,
        "protection_class": "I",
        "parts": [heater],
    } | changes


def with_part(**changes: Any) -> dict[str, Any]:
    sheet = raw_sheet()
    sheet["parts"][0] |= changes
    return sheet


FAULTY = [
    ([], "start with 'format:'"),
    ({"format": "shopping-list/1"}, "this is not a sheet"),
    (raw_sheet(format="ohmcensus-sheet/2"), "newer than ohmcensus-sheet/1"),
    (raw_sheet(parts=[]), "parts"),
    (raw_sheet(parts="heater"), "parts"),
    (raw_sheet(parts=["heater"]), "a part is a mapping"),
    (raw_sheet(volts=0), "greater than 0"),
    (raw_sheet(colour="white"), "not known here"),
    (with_part(kind="heeter"), "did you mean 'heater'?"),
    (with_part(ratings={"watts": 2000.0}), "parts.0.ratings.volts: this key is missing"),
    (with_part(ratings={"watts": -1.0, "volts": 230.0}), "greater than 0"),
    (with_part(ratings={"watts": "2000", "volts": 230.0}), "is not a number: give one"),
    (with_part(behind="side"), "no panel 'side'"),
    (with_part(expects={"glow": {"lo": 1, "source": "x"}}), "no test 'glow' on this part: tests are element, pe"),
    (with_part(expects={"element": {"lo": 30, "hi": 20, "source": "x"}}), "lo 30 is above hi 20: swap the ends"),
    (with_part(expects={"element": {"source": "x"}}), "state at least one end"),
    (with_part(expects={"element": {"lo": 1, "hi": 2, "nominal": 3, "source": "x"}}), "nominal 3 lies outside"),
    (raw_sheet(plugs={"p1": {"title": "P1", "parts": ["heatr"]}}), "did you mean 'heater'?"),
    (raw_sheet(parts=raw_sheet()["parts"] * 2), "'heater' stands twice"),
    (with_part(kind="harness", ratings={"leads": ["a", "a"]}), "a lead is named twice"),
]


@pytest.mark.parametrize(("raw", "says"), FAULTY, ids=[row[1][:24] for row in FAULTY])
def test_a_faulty_sheet_is_refused_with_its_place_and_remedy(raw: object, says: str) -> None:
    with pytest.raises(SheetFaultsError) as caught:
        sheet_from(raw)
    assert says in str(caught.value)


def test_all_faults_are_told_at_once() -> None:
    raw = with_part(expects={"element": {"lo": 30, "hi": 20, "source": "x"}}) | {"volts": -5, "hertz": "fifty"}
    with pytest.raises(SheetFaultsError) as caught:
        sheet_from(raw)
    assert {fault.path[0] for fault in caught.value.faults} == {"volts", "hertz", "parts"}


def service_sheet(fl7: Sheet, **change: object) -> dict[str, object]:
    raw = fl7.model_dump(mode="json", exclude_none=True)
    for entry, part in zip(raw["parts"], fl7.parts, strict=True):
        entry["ratings"] = part.ratings.model_dump(mode="json", exclude_none=True)
    return raw | change


STEP: dict[str, object] = {"id": "a", "title": "A", "seconds": [1, 2]}
SERVICE_FAULTS: list[tuple[dict[str, object], str, str]] = [
    (
        {"terminals": {"l": "filter.l_im", "n": "filter.n_in", "pe": "filter.pe"}},
        "terminals.l",
        "did you mean 'filter.l_in'",
    ),
    (
        {"service": {"cycles": [{"id": "t", "title": "T", "scheme": "lamp", "steps": [STEP]}]}},
        "service.cycles.0.scheme",
        "no scheme 'lamp'",
    ),
    (
        {"service": {"cycles": [{"id": "t", "title": "T", "steps": [STEP | {"parts": ["heeter"]}]}]}},
        "service.cycles.0.steps.0.parts",
        "no part 'heeter'",
    ),
    (
        {"service": {"meanings": {"lamps": [{"code": "1", "words": "x"}]}}},
        "service.meanings.lamps",
        "no scheme 'lamps'",
    ),
    (
        {
            "service": {
                "schemes": [{"id": "r", "kind": "lamp_row", "title": "R", "weights": [2, 1]}],
                "meanings": {"r": [{"code": "9", "words": "x"}]},
            }
        },
        "service.meanings.r",
        "row 1: code 9 cannot be shown",
    ),
    (
        {"service": {"cycles": [{"id": "t", "title": "T", "steps": [STEP | {"seconds": [9, 2]}]}]}},
        "service.cycles.0.steps.0",
        "put the shorter first",
    ),
    ({"handling": {"weight_kg": -3}}, "handling.weight_kg", "greater than 0"),
]


@pytest.mark.parametrize(("change", "path", "says"), SERVICE_FAULTS, ids=[row[1] for row in SERVICE_FAULTS])
def test_faults_of_terminals_and_service_are_told_at_their_place(
    fl7: Sheet, change: dict[str, object], path: str, says: str
) -> None:
    with pytest.raises(SheetFaultsError) as caught:
        sheet_from(service_sheet(fl7, **change))
    found = {".".join(map(str, fault.path)): fault.message for fault in caught.value.faults}
    assert path in found, found
    assert says in found[path]


def test_a_word_of_the_quick_line_is_no_part(fl7: Sheet) -> None:
    raw = service_sheet(fl7)
    parts = raw["parts"]
    assert isinstance(parts, list)
    raw["parts"] = [parts[0] | {"id": "dead"}, *parts[1:]]
    with pytest.raises(SheetFaultsError, match="is a word of the quick line"):
        sheet_from(raw)
