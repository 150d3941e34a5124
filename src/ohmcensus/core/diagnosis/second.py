"""A second fault: what one part explains, what it leaves over, and what is believed of the rest once it is certain."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import replace

import numpy as np

from ohmcensus.core.diagnosis.conclusion import SPEAKS
from ohmcensus.core.diagnosis.evidence import NOT_TOLD_OF, SYMPTOM
from ohmcensus.core.diagnosis.outcomes import DISTURBED, Array, Outcomes
from ohmcensus.core.diagnosis.posterior import Diagnosis, Observation
from ohmcensus.core.quantity import Interval
from ohmcensus.core.symptom import Symptom

# So many machines with one fault have another that has nothing to do with it (ours).
SECOND_SHARE = 0.1
_NEVER = -1e9


def against(known: Diagnosis) -> tuple[Observation, ...]:
    """Return what speaks against a part by itself: outside its window, bad to eye and hand, proved by leak tests."""
    return tuple(
        row
        for row in known.observations
        if row.convicts or (row.outcome and row.interval and _is_far_outside(row.outcome, row.interval))
    )


def _is_far_outside(outcome: Outcomes, interval: Interval) -> bool:
    """Tell whether a reading is outside by more than another variant of the part would be."""
    return outcome.is_outside(interval) and not outcome.is_near(interval)


def facts(known: Diagnosis) -> tuple[Observation, ...]:
    """Return what surely speaks against a part: found so twice, or proved by leak tests."""
    return tuple(row for row in against(known) if row.is_confirmed or row.outcome is None)


def left_over(known: Diagnosis, part: str) -> tuple[Observation, ...]:
    """Return what stands outside and the symptoms that no one fault of a part explains along with all the others."""
    at = known.table.parts.index(part)
    wanted = (*against(known), *(row for row in known.observations if row.id.startswith(SYMPTOM)))
    rows = np.flatnonzero(known.table.involves[at])
    # A leak that is proved to be its own is explained by it, however little the proof weighs.
    wanted = tuple(row for row in wanted if row.outcome is not None or part not in row.convicts)
    left = (tuple(row for row in wanted if not _explains(row, int(h))) for h in rows.tolist())
    return min(left, key=len, default=())


def explained(known: Diagnosis, part: str) -> tuple[str, ...]:
    """Return the symptoms that were told and that a part explains, in words."""
    at = known.table.parts.index(part)
    rows = known.chance * known.table.involves[at]
    best = int(rows.argmax())
    told = (row for row in known.observations if row.id.startswith(SYMPTOM) and _explains(row, best))
    return tuple(row.title.removeprefix("Told: ") for row in told)


def first_of(known: Diagnosis) -> str:
    """Return the part that is surely faulty though no single suspect explains all that is certain, else empty.

    A leak that is proved to be a part's own is a fault of that part, whatever was told and whatever else there is.
    """
    certain = facts(known)
    if proved := [part for row in certain if row.outcome is None for part in sorted(row.convicts)]:
        return max(proved, key=lambda part: _evidence(beside(known, part)))
    if len(certain) < 2 or any(all(_explains(row, h) for row in certain) for h in range(len(known.chance) - 1)):  # noqa: PLR2004 - two of them can be at odds
        return ""
    parts = spoken_of(certain) & set(known.table.parts)
    weights = {part: _evidence(beside(known, part)) for part in sorted(parts)}
    return max(weights, key=weights.__getitem__, default="")


def beside(known: Diagnosis, part: str) -> Diagnosis:
    """Return what is believed of a second fault, where a part is faulty: *nothing* means no other fault.

    Parameters
    ----------
    known
        What is believed where the machine has one fault.
    part
        The part that is certain.

    Notes
    -----
    Of two faults every test sees the one that moves it further from what a sound machine reads, and the customer
    tells the one that shows more. What the first explains says nothing of the second.
    """
    at = known.table.parts.index(part)
    own = [h for h in np.flatnonzero(known.table.involves[at]).tolist() if known.table.hypotheses[h].parts == (part,)]
    return max((_beside(known, part, h) for h in own), key=_evidence)


def disturbed(known: Diagnosis, part: str) -> frozenset[str]:
    """Return the tests that the certain fault of a part moves: they say nothing of another."""
    at = known.table.parts.index(part)
    rows = known.chance * known.table.involves[at]
    rows = rows / rows.sum() if rows.sum() > 0 else known.table.prior * known.table.involves[at]
    best = int(rows.argmax())
    return frozenset(name for name, test in known.table.tests.items() if test.like_sound[best] < DISTURBED)


def _beside(known: Diagnosis, part: str, first: int) -> Diagnosis:
    table = known.table
    others = np.array([part not in row.parts for row in table.hypotheses])
    prior = np.where(others, table.prior, 0.0)
    prior[-1] = 0.0
    prior *= SECOND_SHARE / prior.sum()
    prior[-1] = 1 - SECOND_SHARE
    base = np.where(others, np.log(np.maximum(prior, 1e-300)), _NEVER)
    kept, spent = [], 0.0
    for row in known.observations:
        if _explains(row, first) and not row.id.startswith(SYMPTOM):
            spent += float(row.log[first])
        else:
            kept.append(replace(row, log=_either(row, first)))
    log = base + math.log(float(table.prior[first])) + spent + sum(row.log for row in kept)
    return Diagnosis(table, tuple(kept), np.asarray(log))


def _either(row: Observation, first: int) -> Array:
    """Return the logarithm of a likelihood under the first fault and each other one together."""
    log, own, sound = row.log, row.log[first], row.log[-1]
    if row.id.startswith(SYMPTOM):
        both = np.maximum(log, own)
    else:
        both = np.where(np.abs(log - sound) > abs(own - sound), log, own)
    both[-1] = own
    return np.asarray(both)


def _explains(row: Observation, hypothesis: int) -> bool:
    """Tell whether a finding is what a fault would show."""
    if row.id.startswith(SYMPTOM):
        return math.exp(float(row.log[hypothesis])) >= NOT_TOLD_OF / len(Symptom)
    return float(row.log[hypothesis] - row.log[-1]) >= SPEAKS


def spoken_of(rows: Sequence[Observation]) -> frozenset[str]:
    """Return the parts that findings are about by themselves: through its lead a load may be good, and the lead bad."""
    read = {row.outcome.of for row in rows if row.outcome is not None and row.id.partition(".")[0] == row.outcome.of}
    return frozenset(read).union(*(row.convicts for row in rows))


def _evidence(known: Diagnosis) -> float:
    """Return how well all of it fits together, as a logarithm up to a constant."""
    top = float(known.log.max())
    return top + math.log(float(np.exp(known.log - top).sum()))
