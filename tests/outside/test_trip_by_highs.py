"""Bounds of isolations against scipy's HiGHS; devices against what their standards say."""

from __future__ import annotations

import numpy as np
import pytest
from scipy.optimize import linprog

from ohmcensus.core.errors import InputError
from ohmcensus.core.physics.residual import GFCI, break_seconds, rcd, trip_chance
from ohmcensus.core.quantity import Interval
from ohmcensus.core.trip.overcurrent import Reaction, breaker_bands, reaction
from ohmcensus.core.trip.polytope import Polytope


def any_case(chance: np.random.Generator) -> tuple[np.ndarray, np.ndarray]:
    """Runs of a random machine, now and then a false one; leaks over six decades in µS."""
    parts = int(chance.integers(1, 13))
    leaks = 10 ** chance.uniform(-3, 3, parts) * (chance.random(parts) < 0.4)
    rows, right = [], []
    for _ in range(int(chance.integers(1, 16))):
        connected = (chance.random(parts) < 0.5).astype(float)
        total = float(connected @ leaks) * (chance.uniform(0.5, 2) if chance.random() < 0.1 else 1.0)
        error = 0.03 * total + 0.002
        rows.append(-connected)
        right.append(-max(0.0, total - error))
        if chance.random() < 0.9:
            rows.append(connected)
            right.append(total + error)
    return np.array(rows), np.array(right)


@pytest.mark.parametrize("seed", range(5))
def test_a_hundred_cases_each_against_highs(seed: int) -> None:
    """``scipy.optimize.linprog(method="highs")``: the same verdict on feasibility, the same ends."""
    chance = np.random.default_rng(seed)
    for _ in range(100):
        rows, right = any_case(chance)
        ours = Polytope(rows, right)
        unit = np.eye(rows.shape[1])
        assert ours.is_empty == (linprog(unit[0], A_ub=rows, b_ub=right, method="highs").status == 2)
        if ours.is_empty:
            continue
        which = unit[int(chance.integers(rows.shape[1]))]
        least = linprog(which, A_ub=rows, b_ub=right, method="highs")
        most = linprog(-which, A_ub=rows, b_ub=right, method="highs")
        assert ours.minimum(which) == pytest.approx(least.fun, rel=1e-7, abs=1e-7)
        assert ours.maximum(which) == pytest.approx(np.inf if most.status == 3 else -most.fun, rel=1e-7, abs=1e-7)


def test_a_machine_and_what_stands_beside_it_on_one_device() -> None:
    """14 mA with 8 mA standing: 16.12 to 22 mA in all, a trip in 0.075 to 0.467 of cases (our design page)."""
    found = trip_chance(rcd(0.03), Interval(0.014, 0.014), 0.008)
    assert (found.total_a.lo, found.total_a.hi) == pytest.approx((0.016125, 0.022), rel=1e-3)
    assert (found.chance.lo, found.chance.hi) == pytest.approx((0.075, 0.467), abs=5e-4)


@pytest.mark.parametrize(
    ("device", "milliampere", "chance"),
    [
        (rcd(0.03), 15, 0.0),
        (rcd(0.03), 30, 1.0),
        (rcd(0.03), 22.5, 0.5),
        (rcd(0.01), 5, 0.0),
        (rcd(0.1), 49, 0.0),
        (GFCI, 4, 0.0),
        (GFCI, 5, 0.5),
        (GFCI, 6, 1.0),
    ],
    ids=lambda value: getattr(value, "title", str(value)),
)
def test_half_holds_and_the_rating_trips(device: object, milliampere: float, chance: float) -> None:
    """IEC 61008-1: no trip below half, a trip at the rating; UL 943 class A: 4 and 6 mA (from memory)."""
    found = trip_chance(device, Interval(milliampere / 1000, milliampere / 1000), 0.0)  # type: ignore[arg-type]
    assert found.chance.lo == found.chance.hi == pytest.approx(chance)


def test_how_fast_a_trip_comes() -> None:
    """IEC 61008-1: 0.3 s at the rating, 0.04 s at five times; UL 943: (20/I)^1.43 s (from memory)."""
    device = rcd(0.03)
    assert [break_seconds(device, ampere) for ampere in (0.02, 0.03, 0.15)] == [None, 0.3, 0.04]
    assert break_seconds(GFCI, 0.006) == pytest.approx((20 / 6) ** 1.43)
    assert break_seconds(GFCI, 0.02) == pytest.approx(1.0)
    with pytest.raises(InputError, match="no RCD"):
        rcd(30)
    with pytest.raises(InputError, match="below zero"):
        trip_chance(device, Interval(0.0, 0.01), -0.001)


@pytest.mark.parametrize(
    ("letter", "ampere", "does"),
    [
        ("B", 16, Reaction.HOLDS),
        ("B", 20, Reaction.MAY_TRIP_SLOWLY),
        ("B", 30, Reaction.TRIPS_SLOWLY),
        ("B", 60, Reaction.MAY_TRIP_AT_ONCE),
        ("B", 80, Reaction.TRIPS_AT_ONCE),
        ("C", 80, Reaction.MAY_TRIP_AT_ONCE),
        ("C", 160, Reaction.TRIPS_AT_ONCE),
        ("D", 160, Reaction.MAY_TRIP_AT_ONCE),
        ("D", 150, Reaction.TRIPS_SLOWLY),
        ("", 15, Reaction.HOLDS),
        ("", 22, Reaction.TRIPS_SLOWLY),
    ],
)
def test_bands_of_breakers_of_sixteen_amperes(letter: str, ampere: float, does: Reaction) -> None:
    """IEC 60898-1: B 3–5, C 5–10, D 10–20 times the rating (from memory); without a letter common practice."""
    assert reaction(breaker_bands(letter, 16), ampere) is does


@pytest.mark.parametrize(
    ("kind", "rated", "holds", "breaks"),
    [("gG", 16, 24, 30.4), ("gG", 20, 25, 32), ("gG", 4, 6, 8.4), ("plug", 13, 20.8, 24.7)],
)
def test_conventional_currents_of_fuses(kind: str, rated: float, holds: float, breaks: float) -> None:
    """IEC 60269-2: gG to 4 A 1.5/2.1, to 16 A 1.5/1.9, above 1.25/1.6; BS 1362: 1.6/1.9 (all from memory)."""
    slow = breaker_bands(kind, rated).slow_a
    assert (slow.lo, slow.hi) == pytest.approx((holds, breaks))


def test_a_general_fuse_of_16_a_melts_within_its_gates() -> None:
    """IEC 60269-2, from memory: 16 A gG stands 85 A for 0.1 s and melts within 0.1 s at 150 A."""
    at_once = breaker_bands("gG", 16).at_once_a
    assert at_once.lo <= 85
    assert at_once.hi >= 150


def test_ratings_that_do_not_exist_are_refused() -> None:
    for kind, rated in (("E", 16), ("plug", 16), ("gG", 0), ("B", 500)):
        with pytest.raises(InputError):
            breaker_bands(kind, rated)
