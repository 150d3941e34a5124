"""What a repair is expected to cost, part after part in the best order, and what an answer would save of it."""

from __future__ import annotations

from collections.abc import Mapping

import numpy as np
from numpy.typing import NDArray

from ohmcensus.core.diagnosis.outcomes import Array, OutcomeTable
from ohmcensus.core.sheet import Sheet


def saving(
    table: OutcomeTable, joint: Array, begins: NDArray[np.intp], prices: Mapping[str, float], minute_cost: float
) -> Array:
    """Return by how much the expected cost of repairing part after part falls with each test's answer [test].

    Parameters
    ----------
    table
        Hypotheses and outcomes.
    joint, begins
        Chance of every repair with every answer [group, answer], and where the answers of each test begin.
    prices, minute_cost
        Price of a part where it is not the sheet's own, and what a minute costs.
    """
    costs = np.array([_cost(table.sheet, group, prices, minute_cost) for group in table.groups])
    now = _expected_cost(joint[:, begins[0] : begins[1]].sum(axis=1, keepdims=True), costs)[0]
    after = np.add.reduceat(_expected_cost(joint, costs), begins)
    return np.asarray(now - after)


def _cost(sheet: Sheet, group: tuple[str, ...], prices: Mapping[str, float], minute_cost: float) -> float:
    parts = [part for part in sheet.parts if part.id in group]
    return sum(prices.get(p.id, p.price or 0.0) + minute_cost * p.part_kind.repair_minutes for p in parts)


def _expected_cost(joint: Array, costs: Array) -> Array:
    """Return the expected cost of repairing in the best order, times the chance of each column [column]."""
    # Repairing part after part costs least when the most chance for the money comes first, and what is still to pay
    # after each step is paid with the chance that it is still needed.
    order = np.argsort(-joint / np.maximum(costs, 1e-6)[:, None], axis=0)
    ordered = np.take_along_axis(joint, order, axis=0)
    still = np.cumsum(ordered[::-1], axis=0)[::-1]
    return np.asarray((costs[order] * still).sum(axis=0))
