"""Uncertainty of a value computed from uncertain ones, by the law of propagation of the GUM (clause 5.1.2)."""

from __future__ import annotations

import math
from collections.abc import Callable
from dataclasses import dataclass

from ohmcensus.core.quantity import Interval

_STEP = 1e-6


@dataclass(frozen=True, slots=True)
class Estimate:
    """A value with its standard uncertainty, both in one unit."""

    value: float
    standard: float = 0.0


def from_interval(value: float, interval: Interval) -> Estimate:
    """Return a reading as an estimate: type B, rectangular over a bounded interval (GUM clause 4.3.7)."""
    return Estimate(value, (interval.hi - interval.lo) / 2 / math.sqrt(3))


def combined(law: Callable[..., float], *inputs: Estimate) -> Estimate:
    """Return the value of a law and its standard uncertainty, inputs uncorrelated.

    Parameters
    ----------
    law
        Smooth function of as many floats as there are inputs.
    *inputs
        Its arguments.

    Returns
    -------
    Estimate
        ``u² = Σ (∂law/∂xᵢ · uᵢ)²``, derivatives by central differences.
    """
    values = [estimate.value for estimate in inputs]
    variance = 0.0
    for index, estimate in enumerate(inputs):
        step = _STEP * max(abs(estimate.value), 1e-9)
        above, below = values.copy(), values.copy()
        above[index] += step
        below[index] -= step
        variance += ((law(*above) - law(*below)) / (2 * step) * estimate.standard) ** 2
    return Estimate(law(*values), math.sqrt(variance))
