"""Leading suspects that no test left on the sheet tells apart."""

from __future__ import annotations

from collections.abc import Iterable, Iterator
from dataclasses import dataclass
from itertools import combinations

import numpy as np

from ohmcensus.core.diagnosis.outcomes import Array
from ohmcensus.core.diagnosis.posterior import Diagnosis
from ohmcensus.core.machine.separable import LEAST_VARIATION

# Suspects that are at least so likely are compared (ours).
LEADING = 0.1
# Repairs that are at least so likely are still in question once nothing settles much (ours).
LEFT = 0.02


@dataclass(frozen=True, slots=True)
class Alike:
    """Two suspects, and the test that differs most between them.

    Parameters
    ----------
    parts
        Both, the likelier first.
    test
        The best test that is left, empty where none is.
    variation
        Share of its readings that differ, 0 to 1.
    """

    parts: tuple[str, str]
    test: str
    variation: float


def alike(diagnosis: Diagnosis, left_out: frozenset[str] = frozenset()) -> Iterator[Alike]:
    """Yield pairs of leading suspects that no test left tells apart.

    Notes
    -----
    For two suspects a test's total variation is half the sum of |p − q| over its outcomes.
    """
    table = diagnosis.table
    order = [int(at) for at in np.argsort(-diagnosis.of_part) if diagnosis.of_part[at] >= LEADING]
    for one, other in combinations(order, 2):
        pair = np.stack([_only(diagnosis, one, other), _only(diagnosis, other, one)])
        if not pair.any(axis=1).all():
            continue
        pair /= pair.sum(axis=1, keepdims=True)
        differs = {
            name: float(np.abs(np.subtract(*(pair @ test.chance))).sum() / 2)
            for name, test in table.tests.items()
            if name not in left_out
        }
        best = max(differs, key=differs.__getitem__, default="")
        if not best or differs[best] < LEAST_VARIATION:
            yield Alike((table.parts[one], table.parts[other]), best, differs.get(best, 0.0))


def separating(diagnosis: Diagnosis, tests: Iterable[str]) -> frozenset[str]:
    """Return the tests that tell two of the repairs that are left apart, the machine that is sound among them."""
    left = np.flatnonzero(diagnosis.of_group >= LEFT)
    rows = diagnosis.table.in_group[left] * diagnosis.chance
    rows /= rows.sum(axis=1, keepdims=True)
    pairs = list(combinations(range(len(left)), 2))
    one, other = np.array(pairs, dtype=int).reshape(-1, 2).T
    found = set()
    for name in tests:
        read = rows @ diagnosis.table.tests[name].chance
        differs = np.abs(read[one] - read[other]).sum(axis=1) / 2
        if (differs > LEAST_VARIATION).any():
            found.add(name)
    return frozenset(found)


def _only(diagnosis: Diagnosis, one: int, other: int) -> Array:
    """Return the chances of the hypotheses with one part and without the other."""
    involves = diagnosis.table.involves
    return np.asarray(diagnosis.chance * involves[one] * (1 - involves[other]))
