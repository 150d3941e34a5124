"""What runs say of the parts, as rows of a linear programme.

Both instruments give, for every run, what all connected parts together leak. With direct current conductances add.
With alternating current magnitudes do not: leaks are phasors of the first quadrant (resistive and capacitive), one
pole live and the neutral earthed. Then for sets A and B of connected parts

    Σ m ≥ lo,   m_i ≤ hi,   Σ m ≤ √2·hi,
    |Y of B without A| ≥ lo_B − hi_A,   and for A inside B:   |Y of B without A| ≤ √(hi_B² − lo_A²).

Source: our own derivation; checked by trials that the truth never lies outside.
"""

from __future__ import annotations

import math
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, replace
from itertools import permutations

import numpy as np

from ohmcensus.core.quantity import Interval
from ohmcensus.core.trip.polytope import Polytope
from ohmcensus.core.trip.problem import Method, Problem, Run

# Under this many rows it is not worth looking for those that say nothing new.
FEW_ROWS = 60


@dataclass(frozen=True, slots=True)
class Row:
    """Σ of some parts is at least, or at most, an amount."""

    parts: frozenset[str]
    amount: float
    is_least: bool


def polytope_of(problem: Problem, runs: Sequence[Run], extra: Sequence[Row] = ()) -> Polytope:
    """Return all leaks that some runs allow, with further rows where they are given.

    Parameters
    ----------
    problem, runs
        Parts, and the runs that count.
    extra
        Rows besides: what is supposed of some parts.
    """
    rows = _needed([*rows_of(problem.method, runs), *extra], problem.place)
    table, right = np.zeros((len(rows), len(problem.parts))), np.zeros(len(rows))
    for index, row in enumerate(rows):
        sign = -1.0 if row.is_least else 1.0
        for part in row.parts:
            table[index, problem.place[part]] = sign
        right[index] = sign * row.amount
    return Polytope(table, right)


def _needed(rows: Sequence[Row], place: Mapping[str, int]) -> list[Row]:
    """Return the rows that no other row implies: pairs of runs say the same many times over.

    A sum that is at least an amount is implied by a smaller set of at least as much; one that is at most an amount
    by a larger set of at most as much, or by the bounds of its single parts together.
    """
    if len(rows) <= FEW_ROWS:
        return list(rows)
    highest: dict[str, float] = {}
    for row in rows:
        if not row.is_least and len(row.parts) == 1:
            (part,) = row.parts
            highest[part] = min(row.amount, highest.get(part, math.inf))
    kept = [
        row
        for row in rows
        if row.is_least
        or not row.parts
        or (len(row.parts) == 1 and highest[next(iter(row.parts))] == row.amount)
        or sum(highest.get(part, math.inf) for part in row.parts) > row.amount
    ]
    return [
        kept[index]
        for is_least in (True, False)
        for index in _not_implied([i for i, row in enumerate(kept) if row.is_least is is_least], kept, place)
    ]


def _not_implied(indices: list[int], rows: Sequence[Row], place: Mapping[str, int]) -> list[int]:
    """Return which of some rows of one kind no other implies; of equals the first."""
    if not indices:
        return []
    bits = np.array([sum(1 << place[part] for part in rows[i].parts) for i in indices], dtype=np.int64)
    amounts = np.array([rows[i].amount for i in indices])
    if not rows[indices[0]].is_least:
        bits, amounts = ~bits, -amounts
    inside = (bits[:, None] & ~bits[None, :]) == 0
    as_much = amounts[:, None] >= amounts[None, :]
    implies = inside & as_much
    is_same = implies & implies.T
    order = np.arange(len(indices))
    implies &= ~is_same | (order[:, None] < order[None, :])
    np.fill_diagonal(implies, val=False)
    return [indices[i] for i in np.flatnonzero(~implies.any(axis=0)).tolist()]


def rows_of(method: Method, runs: Sequence[Run]) -> Iterator[Row]:
    """Yield what runs say."""
    yield from _direct(runs) if method is Method.INSULATION else _alternating(both_ways(runs))


def _direct(runs: Sequence[Run]) -> Iterator[Row]:
    """Conductances add; parts that are perhaps connected can only have helped to leak."""
    for run in runs:
        if run.interval.lo > 0:
            yield Row(run.connected | run.maybe, run.interval.lo, is_least=True)
        if math.isfinite(_most(run)):
            yield Row(run.connected, _most(run), is_least=False)


def _alternating(runs: Sequence[Run]) -> Iterator[Row]:
    for run in runs:
        if run.interval.lo > 0:
            yield Row(run.connected | run.maybe, run.interval.lo, is_least=True)
        yield from _at_most(run.connected, _most(run))
    for inner, outer in permutations(runs, 2):
        beyond = (outer.connected | outer.maybe) - inner.connected
        if outer.interval.lo > _most(inner):
            yield Row(beyond, outer.interval.lo - _most(inner), is_least=True)
        inside = inner.connected | inner.maybe
        if inside <= outer.connected and math.isfinite(_most(outer)) and inner.interval.lo > 0:
            square = _most(outer) ** 2 - inner.interval.lo**2
            if square < 0:
                yield Row(frozenset(), -1.0, is_least=False)
            else:
                yield from _at_most(outer.connected - inside, math.sqrt(square))


def _at_most(parts: frozenset[str], amount: float) -> Iterator[Row]:
    if math.isfinite(amount):
        yield from (Row(frozenset({part}), amount, is_least=False) for part in sorted(parts))
        yield Row(parts, math.sqrt(2) * amount, is_least=False)


def _most(run: Run) -> float:
    """Return the upper end of what a run proves; one pass does not clear what comes and goes."""
    return math.inf if run.is_intermittent else run.interval.hi


def both_ways(runs: Sequence[Run]) -> tuple[Run, ...]:
    """Return runs of one polarity as bounds of the whole: |Y|·U is at least either current, at most their sum.

    A leak near the neutral end hardly shows while line is live: one polarity alone proves no upper end.
    """
    found: list[Run] = []
    for run in runs:
        if run.polarity is None:
            found.append(run)
            continue
        others = [
            other
            for other in runs
            if (other.connected, other.maybe) == (run.connected, run.maybe)
            and other.polarity not in {None, run.polarity}
        ]
        most = min((run.interval.hi + _most(other) for other in others), default=math.inf)
        found.append(replace(run, interval=Interval(run.interval.lo, most), polarity=None))
    return tuple(found)
