"""Another variant of a part may be fitted than the sheet says: its figures are off, and it is sound all the same."""

from __future__ import annotations

from collections.abc import Iterator, Sequence, Set
from dataclasses import replace

import numpy as np

from ohmcensus.core.diagnosis.outcomes import VARIANT_FACTOR, Array, OutcomeTable
from ohmcensus.core.diagnosis.posterior import LEAST_EVEN, SLIP, SLIP_TWICE, Observation
from ohmcensus.core.meter import Function

# One part in so many is another variant than the sheet of its type says (ours).
VARIANT_SHARE = 0.03
_FACTORS = 25
_VALUES = frozenset({Function.OHM, Function.CAPACITANCE})


def allow_for_variants(
    table: OutcomeTable, rows: Sequence[Observation], stamped: Set[str] = frozenset()
) -> tuple[Observation, ...]:
    """Return observations with what they say where a part may be another variant.

    Parameters
    ----------
    table
        Hypotheses and outcomes.
    rows
        What was observed.
    stamped
        Parts of which plate or stamp was read: they are what it says.

    Notes
    -----
    A variant is no fault: it may be fitted whatever else is wrong. All readings that hang on one part are off by one
    factor then, so they are weighed together: with V the share of variants, f the factor, evenly over the logarithm,

        P(r₁ … rₙ | h) = (1 − V) Π P(rᵢ | h) + V · mean over f of Π P(rᵢ / f | sound),

    the second term for hypotheses that do not mean this part. Each reading carries what it adds to those before it.
    """
    found = list(rows)
    for part in dict.fromkeys(name for row in rows for name in _parts_of(table, row)):
        if part in stamped:
            continue
        places = [at for at, row in enumerate(found) if part in _hangs_on(table, row)]
        if any(_is_near(found[at]) for at in places):
            for at, log in zip(places, _together(table, part, [found[at] for at in places]), strict=True):
                found[at] = replace(found[at], log=log)
    return tuple(found)


def _is_near(row: Observation) -> bool:
    return row.outcome is not None and row.interval is not None and row.outcome.is_near(row.interval)


def _parts_of(table: OutcomeTable, row: Observation) -> Iterator[str]:
    """Yield the parts whose variants a reading near its window may mean."""
    if _is_near(row):
        yield from _hangs_on(table, row)


def _hangs_on(table: OutcomeTable, row: Observation) -> frozenset[str]:
    """Return the parts on whose figures a reading hangs: the part that is read, or what draws most of a current."""
    outcomes = row.outcome
    if outcomes is None or row.interval is None:
        return frozenset()
    if outcomes.function is Function.AMPERE:
        return table.drawing[outcomes.test]
    return frozenset({outcomes.of} if outcomes.function in _VALUES and outcomes.of in table.parts else ())


def _together(table: OutcomeTable, part: str, rows: Sequence[Observation]) -> Iterator[Array]:
    """Yield what each reading says, given those before it."""
    factors = np.geomspace(1 / VARIANT_FACTOR, VARIANT_FACTOR, _FACTORS)
    sound = table.involves[table.parts.index(part)] == 0
    plain, scaled = np.zeros(sound.size), np.ones(_FACTORS)
    before = np.zeros(sound.size)
    for row in rows:
        plain = plain + row.log
        scaled = scaled * np.array([_chance_of(row, factor) for factor in factors])
        other = np.where(sound, VARIANT_SHARE * float(scaled.mean()), 0.0)
        joint = np.log((1 - VARIANT_SHARE) * np.exp(plain) + other)
        yield joint - before
        before = joint


def _chance_of(row: Observation, factor: float) -> float:
    """Return the chance of a reading on a sound variant whose resistance is off by a factor."""
    outcomes, interval = row.outcome, row.interval
    assert outcomes is not None  # noqa: S101 - only readings hang on a part
    assert interval is not None  # noqa: S101
    by = factor if outcomes.function is Function.AMPERE else 1 / factor
    share, even = outcomes.mass(interval.scaled(by))
    slip = SLIP_TWICE if row.is_confirmed else SLIP
    return float((1 - slip) * share[-1] + slip * max(even, LEAST_EVEN))
