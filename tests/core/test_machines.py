"""The built-in machines as circuits: healthy ones read inside, faults are seen or said to be unseen."""

from __future__ import annotations

import pytest

from ohmcensus.core.machine import machine_tests
from ohmcensus.core.machine.coverage import configuration_of, driven, probe_of
from ohmcensus.core.machine.netlist import Configuration, PartFault, elements_of, netlist, part_modes
from ohmcensus.core.machine.probe import LIVE, PREDICTED, Probe, predict
from ohmcensus.core.machine.seen import blind_modes, reaches
from ohmcensus.core.machine.specs import listed_tests
from ohmcensus.core.meter import Function
from ohmcensus.core.parts import part_kinds
from ohmcensus.core.parts.fault import FaultMode
from ohmcensus.core.parts.kind import MachineState, TestSpec
from ohmcensus.core.quantity import Bound
from ohmcensus.core.sheet import Part, Sheet
from ohmcensus.exchange.sheet_yaml import read_sheet, write_sheet
from ohmcensus.services.at_hand.sheets import all_sheets

SHEETS = list(all_sheets().values())
WANTED = {"fl7-u", "fl9-t", "wd8-h", "tl4-c", "tl6-s", "dd8-r"}
each_sheet = pytest.mark.parametrize("sheet", SHEETS, ids=[sheet.id for sheet in SHEETS])


def answered(sheet: Sheet) -> list[tuple[Part, TestSpec]]:
    """Return the tests that the circuit of a machine answers: mains and dead ones."""
    found = []
    for part in sheet.parts:
        for spec in listed_tests(sheet, part.id):
            is_mains = spec.function in PREDICTED - {Function.VOLTS_DC, Function.HERTZ}
            if is_mains and (spec.function not in LIVE or spec.state is MachineState.LIVE):
                found.append((part, spec))
    return found


def test_the_six_machines_hold_every_kind_of_part() -> None:
    assert {sheet.id for sheet in SHEETS} == WANTED
    used = {part.kind for sheet in SHEETS for part in sheet.parts}
    assert set(part_kinds()) - used == {"plug_fuse"}


@each_sheet
def test_a_healthy_machine_reads_inside_every_window(sheet: Sheet) -> None:
    windows = {test.id: test.window for test in machine_tests(sheet, 20.0)}
    tests = answered(sheet)
    assert len(tests) > 25
    for part, spec in tests:
        found = predict(sheet, probe_of(part, spec), configuration_of(sheet, part, spec))
        window = windows[f"{part.id}.{spec.name}"]
        assert found.value is not None, spec
        is_over = found.bound is Bound.ABOVE and window.interval.finite_hi is None
        assert is_over or window.interval.lo <= found.value <= window.interval.hi, (part.id, spec.name, found)


@each_sheet
def test_every_fault_of_a_part_is_seen_by_some_test_of_it_or_said_to_be_unseen(sheet: Sheet) -> None:
    for part in sheet.parts:
        own = [test for test in machine_tests(sheet, 20.0) if test.part == part.id]
        for mode in part_modes(sheet, part.id):
            for test in own:
                assert mode in test.blind_to or test.function in PREDICTED | {Function.DIODE, Function.LENGTH}, test.id


@each_sheet
def test_every_wire_leads_somewhere_and_every_leaking_part_to_earth(sheet: Sheet) -> None:
    wired = [point for pins in sheet.nets.values() for point in pins]
    assert len(wired) == len(set(wired)), "a point stands in two nets"
    assert all(len(pins) > 1 for pins in sheet.nets.values())
    earth = next(pins for pins in sheet.nets.values() if "chassis" in pins)
    for part in sheet.parts:
        if f"{part.id}.pe" in sheet.points and part.kind not in {"outlet", "cord"}:
            assert f"{part.id}.pe" in earth
            assert part.chassis


@each_sheet
def test_a_sheet_is_written_and_read_back(sheet: Sheet) -> None:
    assert read_sheet(write_sheet(sheet), sheet.id) == sheet


@each_sheet
def test_a_leak_anywhere_is_seen_by_the_insulation_of_the_whole_machine_or_behind_an_open_contact(sheet: Sheet) -> None:
    cord = sheet.part("cord")
    assert cord is not None
    spec = next(spec for spec in cord.tests() if spec.name == "insulation")
    probe, configuration = probe_of(cord, spec), configuration_of(sheet, cord, spec)
    reached = reaches(sheet, "cord", "insulation")
    for part in sheet.parts:
        if FaultMode.LEAK in part_modes(sheet, part.id) and part.kind in {"heater", "brushed_motor", "steam_heater"}:
            read = predict(sheet, probe, configuration, [PartFault(part.id, FaultMode.LEAK, 47e3)])
            assert part.id in reached
            assert read.value == pytest.approx(47e3, rel=0.01), part.id


def test_a_heater_behind_an_open_relay_is_reached_from_neutral_alone(fl7: Sheet) -> None:
    at_rest = driven(fl7, Configuration())
    assert "heater" in at_rest.only_from_neutral
    assert "lock" in at_rest.from_line
    assert set(at_rest.not_reached) == {"ntc", "harness", *[part.id for part in fl7.parts if not part.tests()]}
    heating = {"door": "locked", "programme": "heat", "heater_relay": "closed"}
    assert {"heater", "harness"} <= set(driven(fl7, Configuration(frozenset(), heating)).from_line)
    pulled = driven(fl7, Configuration(frozenset({"heater_tags"}), heating))
    assert "heater" in pulled.not_reached


def test_a_reading_with_the_plug_still_on_is_another_number(fl7: Sheet) -> None:
    """The sensor alone reads 12.5 kΩ, with its input of 47 kΩ beside it a fifth less."""
    probe = Probe(Function.OHM, ("ntc.a", "ntc.b"))
    alone = predict(fl7, probe, Configuration(frozenset({"ntc_plug"})))
    plugged = predict(fl7, probe, Configuration())
    assert alone.value == pytest.approx(12535, rel=1e-3)
    assert plugged.value == pytest.approx(1 / (1 / 12535 + 1 / 47e3), rel=1e-3)
    assert (alone.reaches, plugged.reaches) == (("ntc",), ("board", "ntc"))


def test_what_bends_is_marked(fl7: Sheet) -> None:
    assert predict(
        fl7, Probe(Function.OHM, ("heater.a", "heater.b")), Configuration(frozenset({"heater_tags"}))
    ).is_linear
    assert not predict(
        fl7, Probe(Function.OHM, ("lock.c", "lock.n")), Configuration(frozenset({"lock_plug"}))
    ).is_linear


def test_an_open_contact_shows_what_the_meters_own_resistance_makes_of_it(fl7: Sheet) -> None:
    """The heater's feed behind an open relay: its other end is at neutral, so nothing ghosts there."""
    ghost = predict(
        fl7, Probe(Function.VOLTS_AC, ("harness.pump_board", "chassis")), Configuration(frozenset({"pump_plug"}))
    )
    assert ghost.value is not None
    assert ghost.value < 1.0
    feed = predict(fl7, Probe(Function.VOLTS_AC, ("lock.c", "chassis")), Configuration())
    assert feed.value == pytest.approx(230, rel=0.01)


def test_two_kilowatts_in_a_rinse_are_a_welded_relay(fl7: Sheet) -> None:
    amps = Probe(Function.AMPERE, ("outlet.l", "cord.plug_l"))
    rinse = Configuration(frozenset(), {"door": "locked", "programme": "fill"})
    good, welded = (predict(fl7, amps, rinse, faults).value for faults in ([], [PartFault("board", FaultMode.WELDED)]))
    assert good is not None
    assert welded is not None
    assert good < 0.3
    assert 8.0 < welded < 9.5


def test_faults_are_new_values_of_branches_that_are_there(fl7: Sheet) -> None:
    healthy = netlist(fl7, Configuration())
    for part in fl7.parts:
        for mode in part_modes(fl7, part.id):
            faulty = netlist(fl7, Configuration(), [PartFault(part.id, mode)])
            assert [branch.id for branch in faulty.branches] == [branch.id for branch in healthy.branches]
            assert faulty.joints == healthy.joints
            changed = sum(a != b for a, b in zip(faulty.branches, healthy.branches, strict=True))
            assert changed <= 2
    assert elements_of(fl7, "heater")[0].branches[0].id == "element_1"


def test_a_window_of_the_sheet_is_what_blindness_is_measured_by(fl7: Sheet) -> None:
    assert FaultMode.LEAK in blind_modes(fl7, "heater", "element")
    assert FaultMode.OPEN not in blind_modes(fl7, "heater", "element")
    assert blind_modes(fl7, "heater", "pe") == (FaultMode.OPEN, FaultMode.SHORT, FaultMode.DRIFT, FaultMode.BAD_JOINT)
    assert FaultMode.WELDED in blind_modes(fl7, "board", "coil")
    assert blind_modes(fl7, "outlet", "ln") == (FaultMode.BAD_JOINT,)
