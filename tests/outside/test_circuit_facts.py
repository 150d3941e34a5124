"""The circuit against a graph library, published figures, and what the trade knows."""

from __future__ import annotations

import math
import random

import networkx as nx
import pytest

from ohmcensus.core.circuit import Branch
from ohmcensus.core.circuit.network import Network
from ohmcensus.core.machine.coverage import configuration_of, probe_of
from ohmcensus.core.machine.netlist import Configuration, PartFault
from ohmcensus.core.machine.probe import Probe, predict
from ohmcensus.core.meter import Function
from ohmcensus.core.parts.fault import FaultMode
from ohmcensus.core.physics.cable import CLASS_5_OHM_PER_M, GAUGE_OHM_PER_M, core_resistance_ohm
from ohmcensus.core.sheet import Sheet
from ohmcensus.services.at_hand.sheets import all_sheets


@pytest.mark.parametrize("seed", range(12))
def test_any_graph_of_resistors_against_networkx(seed: int) -> None:
    """``networkx.resistance_distance`` on random connected graphs."""
    chance = random.Random(seed)  # noqa: S311 - no secret
    graph = nx.connected_watts_strogatz_graph(12, 4, 0.4, seed=seed)
    for a, b in graph.edges:
        graph[a][b]["ohm"] = 10 ** chance.uniform(-1, 5)
    branches = [Branch(f"r{a}_{b}", f"n{a}", f"n{b}", graph[a][b]["ohm"]) for a, b in graph.edges]
    network = Network(branches, [], "n0")
    for a, b in ((0, 5), (3, 11), (7, 2)):
        theirs = nx.resistance_distance(graph, a, b, weight="ohm", invert_weight=True)
        assert network.impedance_ohm(f"n{a}", f"n{b}").real == pytest.approx(theirs, rel=1e-6)


@pytest.mark.parametrize(("volts", "hertz", "farad", "milliampere"), [(230, 50, 4.7e-9, 0.34), (120, 60, 4.7e-9, 0.21)])
def test_current_of_a_filter_to_earth(volts: float, hertz: float, farad: float, milliampere: float) -> None:
    """ωC·U with line live and neutral at earth; twice that with both poles joined. Physics."""
    y = [Branch("l", "l", "pe", 0.1, farad=farad), Branch("n", "n", "pe", 0.1, farad=farad)]
    omega = 2 * math.pi * hertz
    one = Network([y[0]], [], "pe").impedance_ohm("l", "pe", omega)
    both = Network(y, [("l", "n")], "pe").impedance_ohm("l", "pe", omega)
    assert 1000 * volts / abs(one) == pytest.approx(milliampere, abs=0.006)
    assert abs(one) == pytest.approx(2 * abs(both), rel=1e-6)


def test_a_whole_machine_leaks_what_its_filter_passes(fl7: Sheet) -> None:
    """A healthy machine shows about 0.1 to 0.7 mA. Common practice, no source."""
    for sheet in all_sheets().values():
        read = predict(sheet, Probe(Function.LEAKAGE, ("cord.plug_l", "cord.plug_pe")), Configuration())
        assert read.value is not None
        assert 0.09e-3 < read.value < 0.7e-3, sheet.id
    turned = predict(fl7, Probe(Function.LEAKAGE, ("cord.plug_l", "cord.plug_pe"), reversed=True), Configuration())
    assert turned.value == pytest.approx(0.34e-3, rel=0.02)


def test_sizes_of_conductors() -> None:
    """IEC 60228 class 5 and the American gauges, ohm per kilometre at 20 °C (from memory)."""
    for area, per_km in ((1.0, 19.5), (1.5, 13.3)):
        assert CLASS_5_OHM_PER_M[area] == pytest.approx(per_km / 1000)
    for area, per_m in ((0.82, 20.9e-3), (1.31, 13.2e-3), (2.08, 8.3e-3)):
        assert GAUGE_OHM_PER_M[area] == per_m
    assert core_resistance_ohm(2.0, 1.0) < 0.1


def read(sheet: Sheet, test: str, *faults: PartFault) -> float:
    part = sheet.part(test.partition(".")[0])
    assert part is not None
    spec = next(spec for spec in part.tests() if spec.name == test.partition(".")[2])
    found = predict(sheet, probe_of(part, spec), configuration_of(sheet, part, spec), faults)
    assert found.value is not None
    return found.value


@pytest.mark.parametrize("sheet", all_sheets().values(), ids=lambda sheet: sheet.id)
def test_what_the_trade_says_of_leaks(sheet: Sheet) -> None:
    """Only what touches the chassis has a built-in way to it; a two-wire part in plastic shorts line to neutral,
    and leaks only when it is wet. Common practice, no source.
    """
    for part in sheet.parts:
        if part.kind in {"drain_pump", "inlet_valve", "circulation_pump", "stop_hose", "door_lock"}:
            assert not part.chassis
            assert f"{part.id}.pe" not in sheet.points
        if part.kind in {"heater", "steam_heater", "dryer_heater", "brushed_motor", "mains_filter"}:
            assert part.chassis


def test_a_heater_without_continuity_is_open_and_one_in_range_may_still_leak(fl7: Sheet) -> None:
    """Common practice, no source."""
    assert read(fl7, "heater.element", PartFault("heater", FaultMode.OPEN)) >= 60e6
    leaking = PartFault("heater", FaultMode.LEAK, 20e3)
    assert read(fl7, "heater.element", leaking) == pytest.approx(26.45, rel=1e-3)
    assert read(fl7, "heater.pe", leaking) == pytest.approx(20e3, rel=0.01)


def test_an_ohmmeter_at_the_plug_sees_no_heater_behind_its_relay(fl7: Sheet) -> None:
    """Line to neutral at the plug shows the bleed, not the heater: its relay is open. Common practice, no source."""
    at_rest = predict(fl7, Probe(Function.OHM, ("cord.plug_l", "cord.plug_n")), Configuration())
    assert at_rest.value is not None
    assert 300e3 < at_rest.value < 700e3
    closed = Configuration(frozenset(), {"door": "locked", "heater_relay": "closed"})
    assert predict(fl7, Probe(Function.OHM, ("cord.plug_l", "cord.plug_n")), closed).value == pytest.approx(
        27.2, abs=0.5
    )


def test_a_welded_relay_puts_volts_on_a_heater_that_nobody_called(fl7: Sheet) -> None:
    """Common practice, no source."""
    on = Configuration(frozenset(), {"door": "locked", "programme": "fill"})
    volts = Probe(Function.VOLTS_AC, ("heater.a", "heater.b"))
    assert predict(fl7, volts, on).value == pytest.approx(0.0, abs=0.01)
    welded = predict(fl7, volts, on, [PartFault("board", FaultMode.WELDED)])
    assert welded.value is not None
    assert welded.value > 215


def test_a_meter_shows_ghosts_on_an_open_line(fl7: Sheet) -> None:
    """A contact open at 10 MΩ shows 115 V on a meter of 10 MΩ. Physics."""
    ajar = [PartFault("board", FaultMode.STUCK_OPEN, 10e6)]
    fed = Configuration(frozenset({"relay_tag"}), {"door": "locked", "heater_relay": "closed"})
    ghost = predict(fl7, Probe(Function.VOLTS_AC, ("board.relay_out", "chassis")), fed, ajar)
    assert ghost.value == pytest.approx(115, rel=0.02)
