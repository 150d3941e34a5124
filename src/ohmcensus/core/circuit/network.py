"""Nets and the nodal equations: Y·v = i, dense, one reference node, a small conductance at every node."""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass
from functools import cached_property

import numpy as np
from numpy.typing import NDArray

from ohmcensus.core.circuit.branch import Branch

# From every node to the reference. Adds up over nodes: 50 of them shift 200 MΩ by 0.1 %, 2 GΩ by 1 %;
# ten times more is wrong from 2 GΩ on, and without it a floating part has no voltage at all.
GMIN_S = 1e-13
Vector = NDArray[np.complex128]


@dataclass(frozen=True, slots=True)
class Source:
    """A voltage behind a resistance between two pins, ``plus`` being the higher."""

    plus: str
    minus: str
    volts: float
    ohm: float


class Network:
    """Branches between pins that wires join to nets.

    Parameters
    ----------
    branches
        All branches; ids differ.
    joints
        Pairs of pins that a wire joins.
    reference
        Pin at 0 V; any pin of the machine will do.
    sources
        Voltages that drive it.
    """

    def __init__(
        self,
        branches: Sequence[Branch],
        joints: Iterable[tuple[str, str]],
        reference: str,
        sources: Sequence[Source] = (),
    ) -> None:
        self.branches = tuple(branches)
        self.sources = tuple(sources)
        ends = [pin for branch in self.branches for pin in (branch.a, branch.b)]
        ends += [pin for source in self.sources for pin in (source.plus, source.minus)]
        self._roots = _joined([*ends, reference], joints)
        self._kept: dict[float, NDArray[np.complex128]] = {}
        others = dict.fromkeys(self._roots.values())
        others.pop(self._roots[reference])
        self.node_of: Mapping[str, int] = {
            self._roots[reference]: 0,
            **{root: index for index, root in enumerate(others, start=1)},
        }

    def node(self, pin: str) -> int:
        """Return the node of a pin; a pin that nothing is tied to is a node of its own, -1."""
        root = self._roots.get(pin)
        return -1 if root is None else self.node_of[root]

    @property
    def nodes(self) -> int:
        """How many nodes there are, the reference among them."""
        return len(self.node_of)

    @cached_property
    def ends(self) -> list[tuple[int, int]]:
        """The two nodes of every branch."""
        return [(self.node(branch.a), self.node(branch.b)) for branch in self.branches]

    def matrix(self, omega: float, changed: Mapping[str, Branch] | None = None) -> NDArray[np.complex128]:
        """Return the admittance matrix [node, node] in siemens, the reference left out.

        Parameters
        ----------
        omega
            Angular frequency in rad/s.
        changed
            Branches to stand for those of the same id: a fault is a new value of a branch that is there.
        """
        full = self._full(omega)
        if changed:
            full = full.copy()
            for branch, (a, b) in zip(self.branches, self.ends, strict=True):
                if branch.id in changed:
                    stamp(full, a, b, changed[branch.id].admittance_s(omega) - branch.admittance_s(omega))
        return full[1:, 1:]

    def _full(self, omega: float) -> NDArray[np.complex128]:
        if omega in self._kept:
            return self._kept[omega]
        full = np.zeros((self.nodes, self.nodes), dtype=np.complex128)
        for branch, (a, b) in zip(self.branches, self.ends, strict=True):
            stamp(full, a, b, branch.admittance_s(omega))
        for source in self.sources:
            stamp(full, self.node(source.plus), self.node(source.minus), 1 / source.ohm)
        full[np.diag_indices(self.nodes)] += GMIN_S
        self._kept[omega] = full
        return full

    def solve(
        self, omega: float, currents: Mapping[int, complex], changed: Mapping[str, Branch] | None = None
    ) -> Vector:
        """Return the voltage of every node for currents in amperes that flow into nodes; the reference is 0."""
        injected = np.zeros(self.nodes, dtype=np.complex128)
        for node, ampere in currents.items():
            injected[node] += ampere
        for source in self.sources:
            ampere = source.volts / source.ohm
            injected[self.node(source.plus)] += ampere
            injected[self.node(source.minus)] -= ampere
        matrix = self.matrix(omega, changed)
        inner = np.linalg.solve(matrix if omega else matrix.real, injected[1:])
        return np.concatenate([[0.0], inner]).astype(np.complex128)

    def impedance_ohm(self, p: str, q: str, omega: float = 0.0, changed: Mapping[str, Branch] | None = None) -> complex:
        """Return Z between two pins, by driving 1 A from one to the other, never from an inverse.

        Pins that no branch ends at are open: infinite.
        """
        a, b = self.node(p), self.node(q)
        if a == b:
            return 0.0 if p == q or a >= 0 else complex(np.inf)
        if a < 0 or b < 0:
            return complex(np.inf)
        volts = self.solve(omega, {a: 1.0, b: -1.0}, changed)
        return complex(volts[a] - volts[b])

    def forward_volts(self, p: str, q: str, *, below_ohm: float, changed: Mapping[str, Branch] | None = None) -> float:
        """Return the least sum of drops along junctions that conduct from one pin to another; infinite if none do.

        A junction of more than the given resistance is broken.
        """
        drops = {self.node(p): 0.0}
        grown = True
        while grown:
            grown = False
            for branch, (a, b) in zip(self.branches, self.ends, strict=True):
                actual = (changed or {}).get(branch.id, branch)
                if actual.forward_volts is None or actual.ohm > below_ohm or a not in drops:
                    continue
                through = drops[a] + actual.forward_volts
                if through < drops.get(b, np.inf):
                    drops[b] = through
                    grown = True
        return drops.get(self.node(q), np.inf)

    def reached(self, pins: Iterable[str], *, below_ohm: float) -> frozenset[str]:
        """Return the ids of branches that direct current can come to from some pins.

        Parameters
        ----------
        pins
            Where it comes from.
        below_ohm
            A branch of more than this, and a capacitor, passes nothing on.
        """
        live = {self.node(pin) for pin in pins} - {-1}
        found: set[str] = set()
        grown = True
        while grown:
            grown = False
            for branch, (a, b) in zip(self.branches, self.ends, strict=True):
                if branch.farad is not None or branch.ohm > below_ohm or branch.id in found:
                    continue
                if a in live or b in live:
                    found.add(branch.id)
                    live |= {a, b}
                    grown = True
        return frozenset(found)

    def nets_from(self, pins: Iterable[str], *, below_ohm: float) -> frozenset[int]:
        """Return the nodes that branches of at most a resistance lead to from some pins."""
        live = {self.node(pin) for pin in pins} - {-1}
        wires = [
            ends
            for branch, ends in zip(self.branches, self.ends, strict=True)
            if branch.farad is None and branch.ohm <= below_ohm
        ]
        grown = True
        while grown:
            before = len(live)
            for a, b in wires:
                if a in live or b in live:
                    live |= {a, b}
            grown = len(live) > before
        return frozenset(live)

    def touched(self, pins: Iterable[str], *, below_ohm: float) -> frozenset[str]:
        """Return the ids of branches with an end on the nets that wires lead to from some pins."""
        live = self.nets_from(pins, below_ohm=below_ohm)
        pairs = zip(self.branches, self.ends, strict=True)
        return frozenset(branch.id for branch, (a, b) in pairs if a in live or b in live)


def stamp(
    matrix: NDArray[np.complex128], a: int | None, b: int | None, siemens: complex | NDArray[np.complex128]
) -> None:
    """Add one branch to an admittance matrix, or to many at once; None is the reference node.

    Parameters
    ----------
    matrix
        Admittances in siemens [node, node], or [node, node, specimen], changed in place.
    a, b
        Rows of the two ends; None for the reference node, which has no row.
    siemens
        Admittance of the branch, one number or [specimen].
    """
    if a is not None:
        matrix[a, a] += siemens
    if b is not None:
        matrix[b, b] += siemens
    if a is not None and b is not None:
        matrix[a, b] -= siemens
        matrix[b, a] -= siemens


def _joined(pins: Iterable[str], joints: Iterable[tuple[str, str]]) -> dict[str, str]:
    """Return for every pin the pin that stands for its net."""
    parent = {pin: pin for pin in pins}

    def root(pin: str) -> str:
        parent.setdefault(pin, pin)
        while parent[pin] != pin:
            parent[pin] = parent[parent[pin]]
            pin = parent[pin]
        return pin

    for one, other in joints:
        parent[root(one)] = root(other)
    return {pin: root(pin) for pin in list(parent)}
