"""The fault dictionary against direct solves of the same specimens, and what it must keep."""

from __future__ import annotations

from dataclasses import replace

import numpy as np
import pytest

from ohmcensus.core.machine import machine_tests
from ohmcensus.core.machine.coverage import configuration_of, is_answered, probe_of
from ohmcensus.core.machine.dictionary import dictionary, single_faults, values_of
from ohmcensus.core.machine.netlist import PartFault, elements_of, netlist
from ohmcensus.core.machine.probe import prepared, shown
from ohmcensus.core.machine.specimen import specimens
from ohmcensus.core.machine.specs import listed_tests
from ohmcensus.core.meter import Function
from ohmcensus.core.parts.element import FaultEffect
from ohmcensus.core.parts.fault import FaultMode
from ohmcensus.core.sheet import Sheet
from ohmcensus.services.at_hand.sheets import all_sheets, find_sheet

SHEETS = list(all_sheets())


def _effect(sheet: Sheet, fault: PartFault) -> FaultEffect:
    element = next(e for e in elements_of(sheet, fault.part) if e.name == fault.element and fault.mode in e.effects)
    return element.effects[fault.mode]


@pytest.mark.parametrize("sheet_id", SHEETS)
def test_every_entry_is_what_a_direct_solve_of_that_specimen_reads(sheet_id: str) -> None:
    """A correction and a direct solve each lose digits: 1e-6 below 20 MΩ, 1e-3 beyond."""
    sheet = find_sheet(sheet_id)
    wanted = [
        replace(fault, value=getattr(_effect(sheet, fault), "mild" if index % 2 else "severe"))
        for index, fault in enumerate(single_faults(sheet))
    ]
    found = dictionary(sheet, wanted, count=1, seed=5)
    machines = specimens(sheet, 1, np.random.default_rng(5))
    tests = [(p, s) for p in sheet.parts for s in listed_tests(sheet, p.id) if is_answered(sheet, p, s)]
    for row, (part, spec) in enumerate(tests):
        probe, circuit = probe_of(part, spec), netlist(sheet, configuration_of(sheet, part, spec))
        setup = prepared(sheet, probe, circuit)
        values = values_of(setup.network, machines)
        last_digit = {Function.VOLTS_AC: 1e-5, Function.AMPERE: 1e-6}.get(spec.function, 1e-12)
        own = {
            b.id: replace(b, ohm=values.ohm[0, i], henry=values.henry[0, i], farad=b.farad and values.farad[0, i])
            for i, b in enumerate(setup.network.branches)
        }
        setup = prepared(sheet, probe, replace(circuit, branches=tuple(own[b.id] for b in circuit.branches)))
        _same(shown(setup)[0], found.healthy[row, 0], (part.id, spec.name, "healthy"), last_digit)
        for index, fault in enumerate(wanted):
            effect = _effect(sheet, fault)
            names = [f"{fault.part}.{name}" for name in effect.branches]
            after = {name: effect.applied(own[name], fault.value) for name in names}
            _same(shown(setup, after)[0], found.faulty[index, row, 0], (part.id, spec.name, fault), last_digit)


def _same(direct: float | None, corrected: float, where: tuple[object, ...], shown: float = 1e-12) -> None:
    if direct is None or not np.isfinite(corrected):
        assert direct is None or (not np.isfinite(corrected) and direct in {2.0, 60e6, 2e9, 6e-3}), where
        return
    assert corrected == pytest.approx(direct, rel=1e-6 if direct < 20e6 else 1e-3, abs=shown), where


FL7 = dictionary(find_sheet("fl7-u"), count=50)


def _readings(fault: tuple[str, FaultMode, str], test: str) -> tuple[np.ndarray, np.ndarray]:
    row = next(i for i, f in enumerate(FL7.faults) if (f.part, f.mode, f.element) == fault)
    return FL7.healthy[FL7.row_of[test]], FL7.faulty[row, FL7.row_of[test]]


@pytest.mark.parametrize(
    ("fault", "test"),
    [
        (("heater", FaultMode.OPEN, "element"), "pump.coil"),
        (("pump", FaultMode.LEAK, "coil"), "heater.element"),
        (("motor", FaultMode.OPEN, "tacho"), "motor.armature"),
        (("heater", FaultMode.LEAK, "element"), "heater.element"),
    ],
    ids=["other part", "other part's leak", "other winding", "a leak, by ohms"],
)
def test_a_fault_that_a_test_cannot_see_changes_none_of_its_readings(
    fault: tuple[str, FaultMode, str], test: str
) -> None:
    healthy, faulty = _readings(fault, test)
    np.testing.assert_allclose(faulty, healthy, rtol=1e-9)


@pytest.mark.parametrize(
    ("fault", "test", "lo", "hi"),
    [
        (("heater", FaultMode.OPEN, "element"), "heater.element", 1.9e6, np.inf),
        (("heater", FaultMode.SHORT, "element"), "heater.element", 0.0, 12.0),
        (("heater", FaultMode.LEAK, "element"), "heater.pe", 0.9, 15.1e6),
        (("heater", FaultMode.LEAK, "element"), "cord.insulation", 0.9, 15.1e6),
        (("board", FaultMode.WELDED, "relay"), "board.relay", 0.0, 0.6),
        (("filter", FaultMode.DRIFT, "x"), "filter.x", 0.0, 0.4e-6),
    ],
    ids=["open", "short", "leak", "leak, whole machine", "welded", "capacitor far under its print"],
)
def test_a_fault_reads_what_the_trade_says(fault: tuple[str, FaultMode, str], test: str, lo: float, hi: float) -> None:
    """Common practice, no source."""
    _, faulty = _readings(fault, test)
    assert np.all((faulty >= lo) & (faulty <= hi))


@pytest.mark.parametrize("sheet_id", SHEETS)
def test_healthy_specimens_read_inside_the_window_of_their_own_part(sheet_id: str) -> None:
    """The window says what a good one reads, so a good one reads inside it: one or two of a hundred outside at most."""
    sheet = find_sheet(sheet_id)
    found = dictionary(sheet, (), count=100)
    windows = {test.id: test.window.interval for test in machine_tests(sheet, 20.0)}
    for test, row in found.row_of.items():
        inside = (found.healthy[row] >= windows[test].lo * 0.999) & (found.healthy[row] <= windows[test].hi * 1.001)
        assert inside.mean() > 0.97, (test, windows[test], np.percentile(found.healthy[row], [0, 50, 100]))


def test_a_dictionary_made_again_is_the_same() -> None:
    again = dictionary(find_sheet("fl7-u"), count=50)
    np.testing.assert_array_equal(again.faulty, FL7.faulty)
    assert not np.isnan(FL7.faulty).any()
