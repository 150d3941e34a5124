"""Which faults no listed test sees, and which pairs of faults with different repairs none tells apart."""

from __future__ import annotations

from collections.abc import Iterator

import numpy as np
from numpy.typing import NDArray

from ohmcensus.core.machine.coverage import is_answered
from ohmcensus.core.machine.dictionary import Dictionary
from ohmcensus.core.machine.netlist import PartFault
from ohmcensus.core.machine.specs import listed_tests
from ohmcensus.core.sheet import Sheet

# Half of all readings must differ for a test to count as one that separates (ours, after trying).
LEAST_VARIATION = 0.5
BINS = 32
_LOWEST, _OVER_RANGE = 1e-12, 1e15


def fault_names(faults: tuple[PartFault, ...]) -> tuple[str, ...]:
    """Return each fault in the notation of the command line: PART:MODE, its element named where it has namesakes."""
    plain = [f"{fault.part}:{fault.mode.value}" for fault in faults]
    return tuple(
        name if plain.count(name) == 1 else f"{fault.part}.{fault.element}:{fault.mode.value}"
        for name, fault in zip(plain, faults, strict=True)
    )


def unseen(sheet: Sheet, found: Dictionary) -> tuple[int, ...]:
    """Return the places of faults that no listed test tells from a healthy machine."""
    declared = _declared(sheet, found)
    variation = np.zeros(len(found.faults))
    for histogram in _histograms(found):
        variation = np.maximum(variation, _variation(histogram[1:], histogram[0]))
    return tuple(np.flatnonzero((variation < LEAST_VARIATION) & ~declared.any(axis=0)).tolist())


def inseparable(sheet: Sheet, found: Dictionary) -> tuple[tuple[int, int], ...]:
    """Return pairs of faults of different parts that some test sees but none tells apart.

    For two faults a test's total variation is half the sum of |p − q| over the bins of its readings.
    """
    hidden = set(unseen(sheet, found))
    seen = [index for index in range(len(found.faults)) if index not in hidden]
    parts = np.array([found.faults[index].part for index in seen])
    declared = _declared(sheet, found)[:, seen]
    told = parts[:, None] == parts[None, :]
    for row in declared:
        told |= row[:, None] != row[None, :]
    for histogram in _histograms(found):
        rows = histogram[1:][seen]
        left = np.flatnonzero(~told.all(axis=1))
        told[left] |= _variation(rows[None, :, :], rows[left][:, None, :]) >= LEAST_VARIATION
    one, other = np.nonzero(np.triu(~told, 1))
    return tuple((seen[a], seen[b]) for a, b in zip(one.tolist(), other.tolist(), strict=True))


def _variation(p: NDArray[np.float64], q: NDArray[np.float64]) -> NDArray[np.float64]:
    return np.asarray(np.abs(p - q).sum(axis=-1) / 2, dtype=np.float64)


def _histograms(found: Dictionary) -> Iterator[NDArray[np.float64]]:
    """Yield for every test the shares of its readings [healthy, then each fault; bin], over-range in its own bin."""
    for index in range(len(found.tests)):
        readings = np.concatenate([found.healthy[None, index], found.faulty[:, index]])
        finite = np.where(np.isinf(readings), _OVER_RANGE, np.maximum(readings, _LOWEST))
        logarithm = np.log10(finite)
        inner = logarithm[~np.isinf(readings)]
        lo, hi = (inner.min(), inner.max()) if inner.size else (0.0, 1.0)
        edges = np.linspace(lo - 1e-9, hi + 1e-9, BINS)
        bins = np.where(np.isinf(readings), BINS - 1, np.clip(np.searchsorted(edges, logarithm) - 1, 0, BINS - 2))
        shares = np.zeros((len(readings), BINS))
        for row, of_row in enumerate(bins):
            shares[row] = np.bincount(of_row, minlength=BINS) / of_row.size
        yield shares


def _declared(sheet: Sheet, found: Dictionary) -> NDArray[np.bool_]:
    """Return for tests that no circuit answers which faults their kind says they see [test, fault]."""
    rows = [
        [fault.part == part.id and fault.mode not in spec.blind_to for fault in found.faults]
        for part in sheet.parts
        for spec in listed_tests(sheet, part.id)
        if not is_answered(sheet, part, spec)
    ]
    return np.array(rows, dtype=bool).reshape(len(rows), len(found.faults))
