"""The nodal solve against algebra done another way, and the traps that were met."""

from __future__ import annotations

import math
from dataclasses import replace
from fractions import Fraction

import numpy as np
import pytest
from hypothesis import assume, given
from hypothesis import strategies as st

from ohmcensus.core.circuit import Branch
from ohmcensus.core.circuit.network import GMIN_S, Network, Source

# Up to a megohm the small conductances at the nodes stay under the tolerance.
OHMS = st.floats(0.01, 1e6, allow_nan=False)


def series(*ohms: float) -> Network:
    branches = [Branch(f"r{i}", f"n{i}", f"n{i + 1}", ohm) for i, ohm in enumerate(ohms)]
    return Network(branches, [], "n0")


@given(st.lists(OHMS, min_size=1, max_size=8))
def test_resistors_in_series_add_up(ohms: list[float]) -> None:
    assert series(*ohms).impedance_ohm("n0", f"n{len(ohms)}").real == pytest.approx(sum(ohms), rel=1e-5)


@given(st.lists(OHMS, min_size=1, max_size=8))
def test_conductances_in_parallel_add_up(ohms: list[float]) -> None:
    network = Network([Branch(f"r{i}", "a", "b", ohm) for i, ohm in enumerate(ohms)], [], "a")
    assert network.impedance_ohm("a", "b").real == pytest.approx(1 / sum(1 / ohm for ohm in ohms), rel=1e-5)


def exact_ohm(edges: list[tuple[int, int, int]], p: int, q: int, nodes: int) -> Fraction | None:
    """Solve the nodal equations in fractions, by elimination; None where the two nodes are apart."""
    rows = [[Fraction(0)] * (nodes + 1) for _ in range(nodes)]
    for a, b, ohm in edges:
        g = Fraction(1, ohm)
        for i, j in ((a, b), (b, a)):
            rows[i][i] += g
            rows[i][j] -= g
    rows[p][nodes], rows[q][nodes] = Fraction(1), Fraction(-1)
    rows[q] = [Fraction(int(i == q)) for i in range(nodes)] + [Fraction(0)]
    for column in range(nodes):
        pivot = next((r for r in range(column, nodes) if rows[r][column] != 0), None)
        if pivot is None:
            return None
        rows[column], rows[pivot] = rows[pivot], rows[column]
        for r in range(nodes):
            if r != column and rows[r][column] != 0:
                factor = rows[r][column] / rows[column][column]
                rows[r] = [x - factor * y for x, y in zip(rows[r], rows[column], strict=True)]
    return rows[p][nodes] / rows[p][p]


@st.composite
def meshes(draw: st.DrawFn) -> tuple[int, list[tuple[int, int, int]]]:
    nodes = draw(st.integers(2, 7))
    spine = [(i, i + 1, draw(st.integers(1, 10**6))) for i in range(nodes - 1)]
    ends = st.tuples(st.integers(0, nodes - 1), st.integers(0, nodes - 1), st.integers(1, 10**6))
    return nodes, [*spine, *[edge for edge in draw(st.lists(ends, max_size=8)) if edge[0] != edge[1]]]


@given(meshes(), st.data())
def test_any_mesh_agrees_with_exact_fractions(
    mesh: tuple[int, list[tuple[int, int, int]]], data: st.DataObject
) -> None:
    nodes, edges = mesh
    p, q = data.draw(st.integers(0, nodes - 1)), data.draw(st.integers(0, nodes - 1))
    assume(p != q)
    exact = exact_ohm(edges, p, q, nodes)
    assert exact is not None
    network = Network([Branch(f"r{i}", f"n{a}", f"n{b}", ohm) for i, (a, b, ohm) in enumerate(edges)], [], "n0")
    ours = network.impedance_ohm(f"n{p}", f"n{q}")
    assert ours.real == pytest.approx(float(exact), rel=1e-6 + network.nodes * GMIN_S * float(exact))
    assert network.impedance_ohm(f"n{q}", f"n{p}") == pytest.approx(ours, rel=1e-9)


@given(meshes(), st.data())
def test_a_higher_resistance_anywhere_never_lowers_what_is_read(
    mesh: tuple[int, list[tuple[int, int, int]]], data: st.DataObject
) -> None:
    """Rayleigh's law of monotony; and a changed value is the same as a network built with it."""
    nodes, edges = mesh
    branches = [Branch(f"r{i}", f"n{a}", f"n{b}", ohm) for i, (a, b, ohm) in enumerate(edges)]
    which = data.draw(st.sampled_from(branches))
    higher = replace(which, ohm=which.ohm * data.draw(st.floats(1, 100)))
    network = Network(branches, [], "n0")
    before, after = (network.impedance_ohm("n0", f"n{nodes - 1}", 0.0, c).real for c in (None, {which.id: higher}))
    assert after >= before * (1 - 1e-9)
    rebuilt = [higher if b.id == which.id else b for b in branches]
    assert after == pytest.approx(Network(rebuilt, [], "n0").impedance_ohm("n0", f"n{nodes - 1}").real, rel=1e-6)


def test_reactances_follow_their_formulas() -> None:
    omega = 2 * math.pi * 50
    coil = Network([Branch("l", "a", "b", 30.0, henry=0.4)], [], "a").impedance_ohm("a", "b", omega)
    assert coil == pytest.approx(complex(30, omega * 0.4), rel=1e-9)
    film = Network([Branch("c", "a", "b", 0.5, farad=1e-6)], [], "a").impedance_ohm("a", "b", omega)
    assert film == pytest.approx(complex(0.5, -1 / (omega * 1e-6)), rel=1e-6)
    assert Network([Branch("c", "a", "b", 0.5, farad=1e-6)], [], "a").impedance_ohm("a", "b").real > 1e12


def test_wires_join_points_and_what_nothing_is_tied_to_is_open() -> None:
    network = Network([Branch("r", "a", "b", 10.0)], [("b", "c"), ("c", "d")], "a")
    assert network.impedance_ohm("a", "d").real == pytest.approx(10.0)
    assert network.impedance_ohm("b", "d") == 0
    assert math.isinf(network.impedance_ohm("a", "nowhere").real)
    assert network.nodes == 2


def test_the_small_conductance_moves_gigaohms_by_little() -> None:
    """50 nodes move 200 MΩ by 0.1 % and 2 GΩ by 1 %."""
    chain = [Branch(f"r{i}", "a", f"x{i}", 0.1) for i in range(49)]
    for ohm, most in ((200e6, 1.1e-3), (2e9, 1.1e-2)):
        network = Network([*chain, Branch("leak", "a", "e", ohm)], [], "e")
        read = network.impedance_ohm("a", "e").real
        assert 0 < (ohm - read) / ohm < most
    assert GMIN_S == 1e-13


def test_a_source_drives_what_hangs_on_it() -> None:
    network = Network([Branch("r", "l", "n", 26.45)], [], "n", [Source("l", "n", 230.0, 0.2)])
    volts = network.solve(2 * math.pi * 50, {})
    assert abs(volts[network.node("l")]) == pytest.approx(230 * 26.45 / 26.65, rel=1e-9)


def test_what_current_reaches_stops_at_open_contacts_and_capacitors() -> None:
    branches = [
        Branch("wire", "a", "b", 0.1),
        Branch("load", "b", "c", 100.0),
        Branch("open", "c", "d", 1e12),
        Branch("film", "c", "e", 0.1, farad=1e-6),
        Branch("far", "d", "f", 10.0),
    ]
    network = Network(branches, [], "a")
    assert network.reached(["a"], below_ohm=1e8) == {"wire", "load"}
    assert network.touched(["a"], below_ohm=0.5) == {"wire", "load"}
    assert network.touched(["c"], below_ohm=0.5) == {"load", "open", "film"}
    assert np.isfinite(network.matrix(0.0)).all()
