"""What a second reading of a test would settle: whether the first was a slip of the hand."""

from __future__ import annotations

import math
from collections.abc import Iterator

import numpy as np

from ohmcensus.core.diagnosis.outcomes import Array
from ohmcensus.core.diagnosis.posterior import LEAST_EVEN, SLIP, Diagnosis, normalised, read_as

# A reading that is a slip more rarely than this needs no second one.
LEAST_DOUBT = 0.005
# What reads outside its window is taken for a slip at most so surely before it was read again: what is believed may
# be as wrong as the hand (ours).
MOST_DOUBT_OUTSIDE = 0.5


def repeats(diagnosis: Diagnosis) -> Iterator[tuple[str, float]]:
    """Yield every reading worth a second one, with the bits that it is expected to settle.

    Notes
    -----
    A second reading agrees, and then counts as confirmed, or it does not, and then the first says nothing: the
    chance of that is the share of slips among all that could have read so, by everything else that is known.
    """
    for at, row in enumerate(diagnosis.observations):
        if row.outcome is None or row.is_confirmed or not row.may_be_repeated:
            continue
        if row.interval is None:
            # Eye and hand are wrong now and then: a second look at what is bad is a test like any other.
            if row.convicts:
                yield row.id, diagnosis.settles(diagnosis.chance[:, None] * row.outcome.chance)
            continue
        share, even = row.outcome.mass(row.interval)
        rest = diagnosis.without[at]
        slipped = SLIP * max(even, LEAST_EVEN)
        doubt = slipped / ((1 - SLIP) * float(rest @ share) + slipped)
        if row.outcome.is_outside(row.interval):
            doubt = min(doubt, MOST_DOUBT_OUTSIDE)
        if doubt >= LEAST_DOUBT:
            log = diagnosis.log - row.log + read_as(row.outcome, row.interval, is_confirmed=True)
            yield row.id, _settled(diagnosis, normalised(log), rest, doubt)


def _settled(diagnosis: Diagnosis, agreed: Array, rest: Array, doubt: float) -> float:
    """Return the information of agreeing or not about the repair, in bits."""
    from scipy.special import entr  # noqa: PLC0415 - a third of a second to load, and no page needs it before its first suspects

    both = diagnosis.table.in_group @ np.stack([(1 - doubt) * agreed + doubt * rest, agreed, rest], axis=1)
    mixed, held, lost = entr(both).sum(axis=0) / math.log(2)
    return float(mixed - (1 - doubt) * held - doubt * lost)
