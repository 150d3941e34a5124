"""The nodal equations of many specimens of one machine at once, and what a few changed branches do to them."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Any

import numpy as np
from numpy.typing import NDArray

from ohmcensus.core.circuit.network import GMIN_S, Network, stamp

Column = Mapping[int, float]
Numbers = NDArray[Any]


@dataclass(frozen=True, slots=True)
class Values:
    """What the branches of a network measure, one row a specimen, one column a branch.

    Parameters
    ----------
    ohm, henry, farad
        Arrays [specimen, branch]; farad is NaN where a branch is no capacitor.
    """

    ohm: NDArray[np.float64]
    henry: NDArray[np.float64]
    farad: NDArray[np.float64]

    def admittance_s(self, omega: float) -> Numbers:
        """Return Y = 1/Z [specimen, branch] at an angular frequency in rad/s, real for direct current."""
        is_capacitor = ~np.isnan(self.farad)
        # Settled direct current: a capacitor carries none, however large. What an ohmmeter shows while it charges is
        # no reading yet.
        if omega == 0:
            return np.where(is_capacitor, 0.0, 1 / self.ohm)
        farad = np.where(is_capacitor, self.farad, 1.0)
        reactance = np.where(is_capacitor, -1 / (omega * farad), omega * self.henry)
        return np.asarray(1 / (self.ohm + 1j * reactance), dtype=np.complex128)


class Batch:
    """Solved specimens of one network.

    Parameters
    ----------
    network
        Branches, nets and sources; its values are not used.
    admittance_s
        [specimen, branch] at the frequency asked for.
    seeds
        Nodes that are asked. Only what hangs together with them without passing the reference is solved;
        for the rest every voltage is 0 as far as they are concerned, which is exact.
    """

    def __init__(self, network: Network, admittance_s: Numbers, seeds: Sequence[int]) -> None:
        # Only the nodes that hang together with what is asked are solved. The rest is not left out for speed alone: a
        # part that floats at 1e-13 S would make the matrix lose its digits for everybody.
        self.network = network
        self._admittance = admittance_s
        self._ends = network.ends
        block = self._block(seeds)
        self._place = {node: index for index, node in enumerate(block)}
        self._matrix = self._assembled(len(block))

    def holds(self, branch: int) -> bool:
        """Tell whether a branch lies where the voltages of the seeds depend on it."""
        a, b = self._ends[branch]
        return a in self._place or b in self._place

    def across(self, branch: int) -> Column:
        """Return the column of a branch: 1 A in at one end, out at the other."""
        a, b = self._ends[branch]
        return {a: 1.0, b: -1.0} if a != b else {}

    def solved(self, columns: Sequence[Column]) -> Numbers:
        """Return Y⁻¹·c for every column [specimen, node, column], the reference as a last node of 0 V."""
        return self._solved(self._matrix, columns)

    def _solved(self, matrix: Numbers, columns: Sequence[Column]) -> Numbers:
        volts = np.linalg.solve(matrix, self.stacked(columns)[:-1])
        return np.concatenate([volts, np.zeros_like(volts[:, :1])], axis=1)

    def solved_with(
        self, branches: Sequence[int], change_s: Numbers, columns: Sequence[Column], chosen: NDArray[np.int_]
    ) -> Numbers:
        """Return the same of some specimens with other admittances of branches [chosen, branch], solved anew."""
        matrix = self._matrix[chosen]
        for place, index in enumerate(branches):
            a, b = self._ends[index]
            if a != b:
                stamp(np.moveaxis(matrix, 0, -1), self._place.get(a), self._place.get(b), change_s[:, place])
        return self._solved(matrix, columns)

    def ends(self, branches: Sequence[int]) -> NDArray[np.int_]:
        """Return where the two ends of branches stand among the solved nodes [end, branch]."""
        places = [[self._place.get(node, -1) for node in self._ends[index]] for index in branches]
        return np.array(places, dtype=int).reshape(-1, 2).T

    def stacked(self, columns: Sequence[Column]) -> NDArray[np.float64]:
        """Return columns side by side [node, column]; what flows into the reference or elsewhere is dropped."""
        stack = np.zeros((len(self._place) + 1, len(columns)))
        for index, column in enumerate(columns):
            for node, ampere in column.items():
                if node in self._place:
                    stack[self._place[node], index] += ampere
        return stack

    def _block(self, seeds: Sequence[int]) -> list[int]:
        """Return the nodes that branches and sources lead to from the seeds, the reference not passed."""
        edges = [*self._ends, *((self.network.node(s.plus), self.network.node(s.minus)) for s in self.network.sources)]
        neighbours: dict[int, set[int]] = {}
        for a, b in edges:
            neighbours.setdefault(a, set()).add(b)
            neighbours.setdefault(b, set()).add(a)
        found: dict[int, None] = {}
        left = [node for node in seeds if node > 0]
        while left:
            node = left.pop()
            if node not in found:
                found[node] = None
                left += [other for other in neighbours.get(node, ()) if other > 0]
        return list(found)

    def _assembled(self, size: int) -> Numbers:
        """Return Y [specimen, node, node] of the block."""
        count = self._admittance.shape[0]
        matrix = np.zeros((count, size, size), dtype=self._admittance.dtype)
        # The same numbers with the specimens last, as the stamp of a branch wants them.
        stamped = np.moveaxis(matrix, 0, -1)
        for index, (a, b) in enumerate(self._ends):
            if a != b:
                stamp(stamped, self._place.get(a), self._place.get(b), self._admittance[:, index])
        for source in self.network.sources:
            plus, minus = (self._place.get(self.network.node(point)) for point in (source.plus, source.minus))
            stamp(stamped, plus, minus, 1 / source.ohm)
        # A node that nothing joins would make the matrix singular; so little to the reference moves no reading.
        places = np.arange(size)
        matrix[:, places, places] += GMIN_S
        return matrix


def corrected(
    sense: Numbers, drive: Numbers, own: Numbers, change_s: Numbers, base: Numbers, *, floor: Numbers
) -> tuple[Numbers, Numbers]:
    """Return readings after some branches took other admittances, without solving again, and what that costs.

    c'·(Y + U·D·Uᵀ)⁻¹·s = c'·Y⁻¹·s − (c'·Y⁻¹·U)·(1 + D·UᵀY⁻¹U)⁻¹·D·(Uᵀ·Y⁻¹·s), Woodbury. The difference of two
    great numbers keeps few digits; the second answer is the ratio of what was subtracted to what is left.

    Parameters
    ----------
    sense, drive
        c'·Y⁻¹·U and Uᵀ·Y⁻¹·s, in ohms or volts [specimen, fault, changed branch, reading].
    own
        UᵀY⁻¹U in ohms [specimen, fault, changed branch, changed branch].
    change_s
        New admittance less the old one [specimen, fault, changed branch].
    base
        c'·Y⁻¹·s before [specimen, reading].
    floor
        Less than this no instrument shows: digits lost below it are no loss [reading].
    """
    middle = np.eye(change_s.shape[-1]) + change_s[..., :, None] * own
    after = base[:, None] - np.sum(sense * _solved(middle, change_s[..., None] * drive), axis=-2)
    return after, np.abs(base)[:, None] / np.maximum(np.abs(after), floor)


def _solved(matrix: Numbers, right: Numbers) -> Numbers:
    """Return M⁻¹·r [..., row, column]; one by one and two by two, as most are, by their determinant."""
    size = matrix.shape[-1]
    if size == 1:
        return np.asarray(right / matrix)
    if size != 2:  # noqa: PLR2004 - two equations
        return np.asarray(np.linalg.solve(matrix, right))
    (a, b), (c, d) = np.moveaxis(matrix, (-2, -1), (0, 1))[..., None]
    first, second = right[..., 0, :], right[..., 1, :]
    rows = np.stack([d * first - b * second, a * second - c * first], axis=-2)
    return np.asarray(rows / (a * d - b * c)[..., None, :])
