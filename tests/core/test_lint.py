"""What a sheet is told: faults that refuse it, notices that do not, faults that no test tells apart."""

from __future__ import annotations

import copy
from collections.abc import Callable
from typing import Any

import pytest
from tests.tables import dictionary_of

from ohmcensus.core.layout.rung_view import rung_view
from ohmcensus.core.machine.dictionary import dictionary
from ohmcensus.core.machine.lint import lint
from ohmcensus.core.machine.netlist import Configuration
from ohmcensus.core.machine.separable import fault_names, inseparable, unseen
from ohmcensus.core.machine.specs import listed_tests
from ohmcensus.core.sheet import Sheet, SheetFaultsError, sheet_from
from ohmcensus.exchange.sheet_yaml import plain_sheet
from ohmcensus.services.at_hand.sheets import all_sheets

Edit = Callable[[dict[str, Any]], object]


@pytest.fixture
def plain() -> dict[str, Any]:
    return copy.deepcopy(plain_sheet(all_sheets()["fl7-u"]))


def part(raw: dict[str, Any], name: str) -> dict[str, Any]:
    return next(row for row in raw["parts"] if row["id"] == name)


@pytest.mark.parametrize("sheet", all_sheets().values(), ids=lambda sheet: sheet.id)
def test_the_built_in_sheets_give_no_notice_and_no_pair(sheet: Sheet) -> None:
    found = dictionary_of(sheet)
    assert lint(sheet, found) == ()
    assert inseparable(sheet, found) == ()


@pytest.mark.parametrize(
    ("machine", "spoil", "says"),
    [
        (
            "fl7-u",
            lambda raw: part(raw, "board")["ratings"]["outputs"]["pump"].update(steps=["drain", "spinn"]),
            "board, out_pump closes at programme spinn: add",
        ),
        (
            "tl6-s",
            lambda raw: part(raw, "board")["ratings"]["relay"].update(steps=["wsh"]),
            "board, relay closes at programme wsh: add",
        ),
        (
            "fl7-u",
            lambda raw: raw["states"].pop("heater_relay"),
            "board, relay closes at heater_relay closed: add",
        ),
    ],
)
def test_a_contact_that_waits_for_a_step_that_is_not_there_is_told(machine: str, spoil: Edit, says: str) -> None:
    raw = copy.deepcopy(plain_sheet(all_sheets()[machine]))
    spoil(raw)
    assert any(row.message.startswith(says) for row in lint(sheet_from(raw))), lint(sheet_from(raw))


def _lock_in_neutral(raw: dict[str, Any]) -> None:
    part(raw, "board")["ratings"]["outputs"]["lock"]["source"] = "l"
    raw["nets"]["line_inside"] = ["filter.l_out", "board.l", "level.c", "board.sw", "board.relay_in"]
    raw["nets"]["neutral_inside"] = ["filter.n_out", "board.n", "lock.c"]
    raw["nets"]["switched"] = ["lock.out", "heater.b", "motor.brush_b", "valve.b", "prewash.b", "pump.b"]


def _relay_of_two_poles(raw: dict[str, Any]) -> None:
    part(raw, "board")["ratings"]["outputs"]["heater_n"] = {"source": "n", "steps": ["heat"]}
    for pins in raw["nets"].values():
        pins[:] = [pin for pin in pins if pin != "heater.b"]
    raw["nets"]["heater_n_out"] = ["board.out_heater_n", "heater.b"]


def _both(raw: dict[str, Any]) -> None:
    _lock_in_neutral(raw)
    _relay_of_two_poles(raw)


@pytest.mark.parametrize("rewire", [_lock_in_neutral, _relay_of_two_poles, _both])
def test_a_healthy_machine_keeps_every_window_however_its_returns_are_switched(
    plain: dict[str, Any], rewire: Edit
) -> None:
    rewire(plain)
    sheet = sheet_from(plain)
    assert lint(sheet) == ()
    loads = {row.name: row.between[1] for row in listed_tests(sheet, "board") if row.load_of}
    assert loads["heater_load"] == "heater.b"
    assert loads["pump_load"] == ("n" if rewire is _relay_of_two_poles else "pump.b")
    assert loads["motor_load"] == ("n" if rewire is _relay_of_two_poles else "motor.brush_b")


def test_a_current_that_no_circuit_of_the_sheet_draws_is_noticed(plain: dict[str, Any]) -> None:
    part(plain, "outlet")["ratings"]["draws"]["drain"]["ampere"] = 6.0
    assert [row.message.partition(":")[0] for row in lint(sheet_from(plain))] == ["outlet.amps_drain"]


REFUSED: list[tuple[str, Edit, str, str]] = [
    ("a net of one point", lambda r: r["nets"].update(lost=["heater.a"]), "nets.lost", "joins nothing"),
    ("an empty net", lambda r: r["nets"].update(lost=[]), "nets.lost", "joins nothing"),
    ("a pin in two nets", lambda r: r["nets"].update(lost=["heater.a", "chassis"]), "nets.lost", "already"),
    ("a pin twice", lambda r: r["nets"]["line"].append(r["nets"]["line"][0]), "nets.line", "already"),
    ("a pin of no part", lambda r: r["nets"]["line"].append("heater.q"), "nets.line", "no point 'heater.q'"),
    (
        "a plug that cuts nothing",
        lambda r: r["plugs"]["heater_tags"].update(pins=["board.coil_a"]),
        "heater_tags",
        "cuts",
    ),
    (
        "a plug of no part",
        lambda r: r["plugs"]["heater_tags"].update(parts=["stove"]),
        "heater_tags",
        "no part 'stove'",
    ),
    ("no power", lambda r: part(r, "heater")["ratings"].update(watts=0), "watts", "greater than 0"),
    ("less than no power", lambda r: part(r, "heater")["ratings"].update(watts=-5), "watts", "greater than 0"),
    (
        "a resistance of nothing",
        lambda r: part(r, "motor").update(expects={"field": {"lo": 0, "hi": 2, "nominal": 0, "source": "s"}}),
        "expects.field.nominal",
        "more than 0",
    ),
    (
        "a resistance under nothing",
        lambda r: part(r, "motor").update(expects={"field": {"lo": -3, "hi": -1, "source": "s"}}),
        "expects.field.hi",
        "more than 0",
    ),
    ("a newer form", lambda r: r.update(format="ohmcensus-sheet/2"), "format", "newer"),
    ("no number", lambda r: r.update(volts=float("nan")), "volts", "nan"),
    ("two parts of one id", lambda r: part(r, "pump").update(id="heater"), "parts", "stands twice"),
]


@pytest.mark.parametrize(("edit", "path", "says"), [row[1:] for row in REFUSED], ids=[row[0] for row in REFUSED])
def test_faults_are_told_at_their_place(plain: dict[str, Any], edit: Edit, path: str, says: str) -> None:
    edit(plain)
    with pytest.raises(SheetFaultsError) as caught:
        sheet_from(plain)
    told = [(".".join(map(str, fault.path)), fault.message) for fault in caught.value.faults]
    assert any(path in where and says in message for where, message in told), told


def _net_of(raw: dict[str, Any], pin: str) -> str:
    return str(next(name for name, pins in raw["nets"].items() if pin in pins))


def _join(raw: dict[str, Any], one: str, other: str) -> None:
    first, second = _net_of(raw, one), _net_of(raw, other)
    raw["nets"][first] += raw["nets"].pop(second)


NOTICED: list[tuple[str, Edit, str]] = [
    ("a floating pin", lambda r: r["nets"][_net_of(r, "heater.b")].remove("heater.b"), "heater.b is joined to nothing"),
    ("both ends joined", lambda r: _join(r, "heater.a", "heater.b"), "joins both ends of heater, element"),
    ("a loop of closed contacts", lambda r: _join(r, "filter.l_out", "filter.n_out"), "join line to neutral"),
    ("no way at all", lambda r: r["nets"].pop(_net_of(r, "cord.end_l")), "no way from line to neutral"),
    ("no wiring", lambda r: (r.update(nets={}), r.update(plugs={})), "no wiring yet"),
    (
        "a load in the air",
        lambda r: [r["nets"][_net_of(r, f"heater.{pin}")].remove(f"heater.{pin}") for pin in "ab"],
        "no current comes to heater",
    ),
]


@pytest.mark.parametrize(("edit", "says"), [row[1:] for row in NOTICED], ids=[row[0] for row in NOTICED])
def test_notices_do_not_refuse(plain: dict[str, Any], edit: Edit, says: str) -> None:
    edit(plain)
    plain["nets"] = {name: pins for name, pins in plain["nets"].items() if len(pins) > 1}
    plain["plugs"] = {name: plug for name, plug in plain["plugs"].items() if name == "mains_plug" and plain["nets"]}
    notices = lint(sheet_from(plain))
    assert any(says in notice.message for notice in notices), notices


def test_a_sheet_with_holes_still_gets_its_dictionary(plain: dict[str, Any]) -> None:
    """A machine that is half wired reads over-range, never nonsense."""
    plain["nets"] = {"line": plain["nets"]["line"]}
    plain["plugs"] = {}
    found = dictionary(sheet_from(plain), count=5)
    assert not (found.faulty != found.faulty).any()


def test_what_no_test_sees_and_what_none_tells_apart(fl7: Sheet) -> None:
    """Without insulation tests of its own a leak could be anywhere. Common practice, no source."""
    found = dictionary_of(fl7)
    names = fault_names(found.faults)
    assert "heater:leak" not in {names[place] for place in unseen(fl7, found)}
    whole = [row for row, test in enumerate(found.tests) if not test.endswith((".pe", ".own"))]
    poorer = type(found)(
        tuple(found.tests[row] for row in whole), found.faults, found.healthy[whole], found.faulty[:, whole]
    )
    pairs = {(names[a], names[b]) for a, b in inseparable(fl7, poorer)}
    assert ("cord.l:leak", "filter.l:leak") in pairs


@pytest.mark.parametrize("sheet_id", ["fl9-t", "tl4-c"])
def test_a_machine_with_any_part_or_wire_missing_is_told_and_drawn(sheet_id: str) -> None:
    """An editor passes through such states all the time; none of them may fail, and each is a sheet of its own."""
    whole = plain_sheet(all_sheets()[sheet_id])
    drawn = set()
    for net in whole["nets"]:
        edited = copy.deepcopy(whole)
        del edited["nets"][net]
        try:
            sheet = sheet_from(edited)
        except SheetFaultsError:
            continue
        assert lint(sheet)
        assert rung_view(sheet, Configuration()).trunk is not None
        drawn.add(hash(sheet))
    assert len(drawn) > len(whole["nets"]) // 2
