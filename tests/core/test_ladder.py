"""The ladder: found in the wiring, inked by what really drives it."""

from __future__ import annotations

import xml.etree.ElementTree as ET

import pytest

from ohmcensus.core.layout.rung_view import Ink, RungMark, rung_view
from ohmcensus.core.machine.ladder import ladder
from ohmcensus.core.machine.netlist import Configuration
from ohmcensus.core.sheet import Sheet
from ohmcensus.exchange.rung_svg import write_svg
from ohmcensus.services.at_hand.sheets import all_sheets

SHEETS = list(all_sheets().values())
each_sheet = pytest.mark.parametrize("sheet", SHEETS, ids=[sheet.id for sheet in SHEETS])
LOADS = {
    "heater",
    "steam_heater",
    "dryer_heater",
    "drain_pump",
    "circulation_pump",
    "inlet_valve",
    "stop_hose",
    "brushed_motor",
    "single_phase_motor",
    "lock_solenoid",
    "lid_lock",
}


def marks(sheet: Sheet, configuration: Configuration, *probes: str) -> dict[str, RungMark]:
    view = rung_view(sheet, configuration, frozenset(probes))
    return {f"{mark.part}.{mark.kind}.{mark.label}": mark for rung in view.rungs for mark in rung.marks}


@each_sheet
def test_every_load_of_a_machine_stands_on_a_rung_between_the_poles(sheet: Sheet) -> None:
    found = ladder(sheet)
    on_rungs = {item.part for way in found.ways for item in way.items}
    assert {part.id for part in sheet.parts if part.kind in LOADS} <= on_rungs
    assert [item.branch for item in found.trunk_line] == ["cord.l", "filter.l"]
    assert [item.branch for item in found.trunk_neutral] == ["filter.n", "cord.n"]
    for way in found.ways:
        assert way.loads
        assert len({item.branch for item in way.items}) == len(way.items)


@each_sheet
def test_places_on_a_rung_rise_and_wires_fill_the_gaps(sheet: Sheet) -> None:
    for rung in rung_view(sheet, Configuration()).rungs:
        places = [mark.x for mark in rung.marks]
        assert places == sorted(places)
        assert all(0 < x < 1 for x in places)
        assert [s.x0 for s in rung.stretches] == [0.0, *places]
        assert [s.x1 for s in rung.stretches] == [*places, 1.0]


def test_windings_in_series_share_a_rung(fl7: Sheet) -> None:
    motor = next(way for way in ladder(fl7).ways if any(item.part == "motor" for item in way.items))
    assert [item.branch for item in motor.items] == [
        "lock.contact",
        "board.out_motor",
        "harness.motor",
        "motor.protector",
        "motor.field_1",
        "motor.armature_1",
    ]


def test_the_heater_is_inked_from_line_only_while_its_relay_is_closed(fl7: Sheet) -> None:
    heater = "heater.load.Heater"
    assert marks(fl7, Configuration())[heater].ink is Ink.NEUTRAL
    heating = {"door": "locked", "programme": "heat", "heater_relay": "closed"}
    hot = marks(fl7, Configuration(frozenset(), heating))
    assert hot[heater].ink is Ink.LINE
    assert not hot["board.contact.Control board, relay"].is_open
    off = marks(fl7, Configuration(frozenset({"heater_tags"}), heating))
    assert (off[heater].is_pulled, off[heater].ink) == (True, Ink.NONE)


def test_an_open_contact_gaps_the_rung_and_the_wire_behind_it_is_pale(fl7: Sheet) -> None:
    view = rung_view(fl7, Configuration())
    rung = next(rung for rung in view.rungs if rung.title == "Heater")
    assert [mark.is_open for mark in rung.marks] == [True, True, False, False]
    assert [stretch.ink for stretch in rung.stretches] == [Ink.LINE, Ink.NONE, Ink.NONE, Ink.NONE, Ink.NEUTRAL]


def test_probes_stand_at_the_points_of_the_chosen_test(fl7: Sheet) -> None:
    configuration = Configuration(frozenset({"heater_tags"}))
    element = marks(fl7, configuration, "heater.a", "heater.b")["heater.load.Heater"]
    assert (element.probe_left, element.probe_right, element.test) == (True, True, "heater.element")
    view = rung_view(fl7, configuration, frozenset({"heater.a", "heater.pe"}))
    assert [(tooth.part, tooth.probe) for tooth in view.comb] == [("filter", False), ("heater", True), ("motor", False)]
    assert {tooth.test for tooth in view.comb} == {"filter.pe", "heater.pe", "motor.pe"}


@each_sheet
def test_the_picture_is_well_formed_and_names_every_thing(sheet: Sheet) -> None:
    view = rung_view(sheet, Configuration())
    text = write_svg(view, 'A "machine" & more')
    root = ET.fromstring(text)  # noqa: S314 - our own text
    said = " ".join(node.text or "" for node in root.iter() if node.tag.endswith("text"))
    for rung in view.rungs:
        for mark in rung.marks:
            assert mark.label in said
