"""Tests made in one go: what shares covers, plugs, meter and state with the next one is asked along with it."""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np

from ohmcensus.core.diagnosis.effort import SAME_PLACE_MINUTES, efforts
from ohmcensus.core.diagnosis.outcomes import Array, Outcomes
from ohmcensus.core.diagnosis.posterior import SLIP, Diagnosis

# So many at most in one go.
MOST_ALONG = 4
# Outcomes of a test are put together by so many where two tests are weighed at once.
_MERGED = 6


def along_with(diagnosis: Diagnosis, first: str, left: Sequence[str], worth: float, handling: float) -> tuple[str, ...]:
    """Return the tests that are worth making while one stands where the first is made, the best first.

    Parameters
    ----------
    diagnosis
        What is believed.
    first
        The test that is asked next.
    left
        Tests that may still be made.
    worth
        Bits a minute below which a test is not worth it.
    handling
        Minutes that moving the probes counts besides, as they are weighed.

    Notes
    -----
    Of each that is left the information about the repair counts that the first does not give: I(repair; r | first) =
    I(repair; r, first) − I(repair; first).
    """
    known = efforts(diagnosis.table.sheet)
    place = known[first].place
    if place is None:
        return ()
    near = [name for name in left if name != first and known[name].place == place]
    if not near:
        return ()
    tests = diagnosis.table.tests
    asked = diagnosis.chance[:, None] * _coarse(tests[first])
    alone = diagnosis.settles(asked)
    gains = {name: diagnosis.settles(_both(asked, _coarse(tests[name]))) - alone for name in near}
    best = sorted(gains, key=lambda name: (-gains[name], name))[:MOST_ALONG]
    return tuple(name for name in best if gains[name] >= worth * (SAME_PLACE_MINUTES + handling))


def _coarse(test: Outcomes) -> Array:
    """Return the outcomes of a test with neighbours put together, slips allowed for [hypothesis, outcome]."""
    chance = test.chance
    if test.is_measured:
        begins = np.arange(0, chance.shape[1] - 1, _MERGED)
        chance = np.concatenate([np.add.reduceat(chance[:, :-1], begins, axis=1), chance[:, -1:]], axis=1)
    return np.asarray(chance * (1 - SLIP) + SLIP / chance.shape[1])


def _both(asked: Array, chance: Array) -> Array:
    """Return the chance of hypothesis and of both outcomes together [hypothesis, outcomes]."""
    return np.asarray((asked[:, :, None] * chance[:, None, :]).reshape(asked.shape[0], -1))
