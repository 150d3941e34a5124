"""Linear programmes of a few dozen rows: is there a point, and how far does it reach in a direction."""

from __future__ import annotations

import math
from collections.abc import Sequence

import numpy as np
from numpy.typing import NDArray

Array = NDArray[np.float64]
Direction = Sequence[float] | NDArray[np.float64]
# Of the greatest figure of the right-hand side this much is rounding, and a little besides.
ROUNDING = 1e-12
LEAST = 1e-9
_NO_COST = 1e-10
# Bland's rule ends by itself after finitely many exchanges; rounding might keep it going. A question of a few dozen
# rows takes under a hundred: whoever needs more is given the wider answer, never a wrong one (ours).
_MOST_EXCHANGES = 5000
# Exchanges by the largest coefficient before Bland's rule takes over (ours).
_STEEP = 60


class Polytope:
    """All x ≥ 0 with A·x ≤ b, kept as a simplex tableau that starts each question where the last one ended.

    Parameters
    ----------
    rows
        A [constraint, variable]; small whole numbers.
    right
        b [constraint], in one unit; may be negative.

    Notes
    -----
    Dictionary form; the largest coefficient enters, after a while Bland's rule, which cannot go round in circles; one
    artificial variable finds the first corner (Cormen et al., Introduction to Algorithms, simplex chapter; from
    memory).
    """

    def __init__(self, rows: Array, right: Array) -> None:
        self._count = rows.shape[1]
        self._tolerance = LEAST + ROUNDING * float(np.max(np.abs(right), initial=0.0))
        # Row k says: basic[k] = right[k] − Σ table[k, j]·free[j].
        self._table = rows.astype(np.float64).copy()
        self._right = right.astype(np.float64).copy()
        self._free = list(range(self._count))
        self._basic = list(range(self._count, self._count + len(right)))
        self.is_empty = not self._found_corner()

    def maximum(self, direction: Direction) -> float:
        """Return the greatest value of c·x; infinite where nothing bounds it."""
        # The corner at which the last question ended is a corner of the same polytope: most questions are a few
        # exchanges away from it, which is what makes this quicker than a solver that begins anew.
        cost, offset = self._reduced(direction)
        for step in range(_MOST_EXCHANGES):
            entering = self._steepest(cost) if step < _STEEP else self._entering(cost)
            if entering is None:
                return float(offset)
            leaving = self._leaving(entering)
            if leaving is None:
                return math.inf
            cost, offset = self._pivoted(entering, leaving, cost, offset)
        return math.inf

    def minimum(self, direction: Direction) -> float:
        """Return the least value of c·x."""
        return -self.maximum([-c for c in direction])

    def _found_corner(self) -> bool:
        """Bring every right-hand side to zero or above, or tell that it cannot be."""
        if not len(self._right) or float(self._right.min()) >= -self._tolerance:
            self._right = np.maximum(self._right, 0.0)
            return True
        # One variable is added to every row so that a corner is at hand; driven to nought it leaves a corner of the
        # polytope itself, and where it cannot be, there is none: the readings contradict each other.
        artificial = -1
        self._table = np.hstack([self._table, -np.ones((len(self._right), 1))])
        self._free.append(artificial)
        cost = np.zeros(len(self._free))
        cost[-1] = -1.0
        cost, offset = self._pivoted(len(self._free) - 1, int(np.argmin(self._right)), cost, 0.0)
        for _ in range(_MOST_EXCHANGES):
            entering = self._entering(cost)
            if entering is None:
                break
            leaving = self._leaving(entering, first=artificial)
            if leaving is None:  # cannot be: the artificial variable bounds the cost
                break
            cost, offset = self._pivoted(entering, leaving, cost, offset)
        if offset < -self._tolerance:
            return False
        # It may stay in the basis at nought: it is exchanged for any other before its column goes.
        if artificial in self._basic:
            row = self._basic.index(artificial)
            self._pivoted(int(np.argmax(np.abs(self._table[row]))), row, cost, offset)
        place = self._free.index(artificial)
        self._table = np.delete(self._table, place, axis=1)
        del self._free[place]
        self._right = np.maximum(self._right, 0.0)
        return True

    def _reduced(self, direction: Direction) -> tuple[Array, float]:
        """Return the cost of the free variables, and the value at the present corner."""
        cost = np.array([direction[v] if v < self._count else 0.0 for v in self._free])
        offset = 0.0
        for row, variable in enumerate(self._basic):
            if variable < self._count and direction[variable]:
                offset += direction[variable] * float(self._right[row])
                cost -= direction[variable] * self._table[row]
        return cost, offset

    def _steepest(self, cost: Array) -> int | None:
        """Return the free variable that gains most for each unit."""
        best = int(np.argmax(cost)) if cost.size else 0
        return best if cost.size and cost[best] > _NO_COST else None

    def _entering(self, cost: Array) -> int | None:
        """Return the free variable of the lowest number that gains, Bland's rule."""
        gains = np.flatnonzero(cost > _NO_COST)
        return min(gains.tolist(), key=self._free.__getitem__) if gains.size else None

    def _leaving(self, entering: int, first: int | None = None) -> int | None:
        """Return the row that stops the entering variable first; of equals the lowest variable."""
        column = self._table[:, entering]
        candidates = np.flatnonzero(column > _NO_COST)
        if not candidates.size:
            return None
        ratios = self._right[candidates] / column[candidates]
        least = float(ratios.min())
        # Rows that stop it at the same step differ in their last digits only: told apart by them the choice would be
        # chance, and Bland's rule, which ends because it chooses by number, would not end.
        equal = candidates[ratios <= least + self._tolerance * ROUNDING + abs(least) * ROUNDING].tolist()
        if first is not None:
            for row in equal:
                if self._basic[row] == first:
                    return int(row)
        return int(min(equal, key=self._basic.__getitem__))

    def _pivoted(self, entering: int, leaving: int, cost: Array, offset: float) -> tuple[Array, float]:
        """Exchange a free and a basic variable."""
        pivot = self._table[leaving, entering]
        row = self._table[leaving] / pivot
        row[entering] = 1 / pivot
        right = self._right[leaving] / pivot
        factors = self._table[:, entering].copy()
        factors[leaving] = 0.0
        column = -factors / pivot
        self._table -= np.outer(factors, row)
        self._right -= factors * right
        self._table[:, entering] = column
        self._table[leaving], self._right[leaving] = row, right
        gain = cost[entering]
        after = cost - gain * row
        after[entering] = -gain / pivot
        self._free[entering], self._basic[leaving] = self._basic[leaving], self._free[entering]
        return after, offset + gain * right
