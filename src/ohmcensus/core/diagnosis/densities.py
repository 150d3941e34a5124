"""Densities of readings on a logarithmic scale: bins fine around what a sound part reads, kernels as wide as needed."""

from __future__ import annotations

import math

import numpy as np
from numpy.typing import NDArray

Array = NDArray[np.float64]
COARSE_BINS, FINE_BINS = 72, 64
# Fine bins reach so far around what a sound part reads, in natural logarithms; all bins so far past the last reading.
FINE_REACH, MARGIN = 0.8, 1.0
NARROWEST, WIDEST, WIDTHS = 0.02, 1.0, 8


def edges_of(logs: Array, least: float, most: float) -> Array:
    """Return the edges of the bins: fine around what a sound part reads, and over the whole scale of the function."""
    finite = logs[~np.isnan(logs)]
    lo = min(float(finite.min(initial=least)), least) - MARGIN
    hi = max(float(finite.max(initial=most)), most) + MARGIN
    sound = logs[-1][~np.isnan(logs[-1])]
    coarse = np.linspace(lo, hi, COARSE_BINS + 1)
    if not sound.size:
        return coarse
    middle = float(np.median(sound))
    fine = np.linspace(max(lo, middle - FINE_REACH), min(hi, middle + FINE_REACH), FINE_BINS + 1)
    outer = coarse[(coarse < fine[0] - 1e-3) | (coarse > fine[-1] + 1e-3)]
    return np.sort(np.concatenate([outer, fine]))


def smoothed(logs: Array, edges: Array, deviation: float) -> Array:
    """Return the kernel densities in bins [row, bin and over-range], Silverman's bandwidth row by row."""
    from scipy.special import ndtr  # noqa: PLC0415 - a third of a second to load, and no page needs it before its first suspects

    is_finite = ~np.isnan(logs)
    count = is_finite.sum(axis=1)
    filled = np.where(is_finite, logs, 0.0)
    mean = filled.sum(axis=1) / np.maximum(count, 1)
    spread = np.sqrt((np.where(is_finite, logs - mean[:, None], 0.0) ** 2).sum(axis=1) / np.maximum(count, 1))
    width = 0.9 * spread * np.maximum(count, 1) ** -0.2
    missing = math.sqrt(max(0.0, deviation**2 - float(spread[-1]) ** 2))
    width = np.clip(np.hypot(width, missing), NARROWEST, WIDEST)
    levels = np.geomspace(NARROWEST, WIDEST, WIDTHS)
    level = np.abs(np.log(width[:, None] / levels)).argmin(axis=1)
    chance = np.zeros((len(logs), edges.size))
    middles = (edges[1:] + edges[:-1]) / 2
    for index in np.unique(level):
        rows = level == index
        kernel = np.diff(ndtr((edges[None, :] - middles[:, None]) / levels[index]), axis=1)
        kernel /= np.maximum(kernel.sum(axis=1, keepdims=True), 1e-300)
        chance[rows, :-1] = _histogram(logs[rows], edges) @ kernel
    chance[:, -1] = 1 - count / logs.shape[1]
    return chance


def _histogram(logs: Array, edges: Array) -> Array:
    bins = np.clip(np.searchsorted(edges, np.nan_to_num(logs, nan=edges[0])) - 1, 0, edges.size - 2)
    shares = np.zeros((len(logs), edges.size - 1))
    rows = np.broadcast_to(np.arange(len(logs))[:, None], logs.shape)
    np.add.at(shares, (rows, bins), np.where(np.isnan(logs), 0.0, 1 / logs.shape[1]))
    return shares
