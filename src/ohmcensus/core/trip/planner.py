"""The next run: which parts to leave connected, chosen by what it settles a minute.

Hypotheses are one faulty part, or two; each says whether a set of connected parts leaks nothing, some, or all of
what the machine leaks. The entropy of that answer over the time to get it is what a run is worth.
"""

from __future__ import annotations

import math
from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from itertools import combinations

import numpy as np
from numpy.typing import NDArray

from ohmcensus.core.quantity import Interval
from ohmcensus.core.trip.problem import Problem, Run

# Minutes to take one reading, and to think and handle a run; how likely a second fault is beside the first;
# how many parts are varied at a time (all ours, by trial on simulated machines).
TEST_MINUTES = 1.5
SECOND_FAULT = 0.6
HANDLING_MINUTES = 4.0
VARIED = 10
# A sound part leaks a small share of its limit (common practice: a good one reads over 20 MΩ where 1 MΩ would do);
# how likely an explanation is that needs sound parts to leak more than this share (ours, by trial).
SOUND_SHARE = 0.1
LEAKY_THOUGH_SOUND = 1e-3
# A small leak beside a large one drowns in the meter's error: how often *some* is told from *all* (ours).
BESIDE_A_GUILTY_PART = 0.1
SOME_IS_TOLD_FROM_ALL = 0.4


@dataclass(frozen=True, slots=True)
class Pull:
    """A run to make.

    Parameters
    ----------
    connected
        Parts that stay connected, or are put back.
    pull, refit
        Parts to be disconnected, and connected again, from how the machine stands now.
    minutes
        With panels and the test itself.
    is_at_part
        Whether the part is tested at its own tags, so that only its own plug comes off.
    """

    connected: tuple[str, ...]
    pull: tuple[str, ...]
    refit: tuple[str, ...]
    minutes: float
    is_at_part: bool = False


@dataclass(frozen=True, slots=True)
class _Hypotheses:
    """Sets of faulty parts as bits, and how likely each is."""

    members: NDArray[np.int64]
    chances: NDArray[np.float64]


def next_pull(problem: Problem, bounds: Mapping[str, Interval]) -> Pull | None:
    """Return the next run, None where nothing is left to settle.

    Parameters
    ----------
    problem
        Parts and runs so far.
    bounds
        What is proved of each part.
    """
    names = [part.id for part in problem.parts]
    # The whole machine first, and again after every change: it settles whether there is anything to look for, and
    # what was proved of a part that is no longer there says nothing of the new one.
    if not problem.counted or problem.is_whole_untested:
        return Pull(tuple(names), (), (), TEST_MINUTES)
    if problem.is_changed:
        return pull_for(problem, frozenset(names))
    suspects = [part for part in problem.parts if not bounds[part.id].hi < part.limit]
    found = _hypotheses(problem, [part.id for part in suspects], bounds)
    if found is None:
        return None
    return _confirming(problem, bounds, found) or _splitting(problem, bounds, found, [part.id for part in suspects])


def _hypotheses(problem: Problem, suspects: list[str], bounds: Mapping[str, Interval]) -> _Hypotheses | None:
    """Return single faults and pairs that every run allows, each by its weight."""
    place, parts = problem.place, problem.parts
    weights = {part.id: part.weight for part in parts}
    total = sum(weights.values()) or 1.0
    limits = {part.id: part.limit for part in parts}
    # Pairs are planned for from the start: planned with single faults only, three to six in a hundred searches of
    # machines with two end on one of them (measured on simulated machines).
    guilty = frozenset(part for part in suspects if bounds[part].lo > limits[part])
    members, chances = [], []
    constraints = list(_constraints(problem.counted))
    for chosen in _sets(suspects):
        if guilty <= chosen and all(_allows(row, chosen, limits) for row in constraints):
            members.append(sum(1 << place[part] for part in chosen))
            chance = math.prod(weights[part] / total for part in chosen)
            chances.append(chance * (SECOND_FAULT if len(chosen) > 1 else 1.0))
    if not members:
        return None
    bits = np.array(members, dtype=np.int64)
    leans = _leans_on_sound_parts(problem, constraints, bits, bounds)
    weighed = np.array(chances) * np.where(leans, LEAKY_THOUGH_SOUND, 1.0)
    return _Hypotheses(bits, weighed / weighed.sum())


def _leans_on_sound_parts(
    problem: Problem, constraints: list[_Constraint], members: NDArray[np.int64], bounds: Mapping[str, Interval]
) -> NDArray[np.bool_]:
    """Tell of every set of faulty parts whether some reading then takes sound parts that leak near their limits."""
    connected = np.array([[part.id in row.all_parts for part in problem.parts] for row in constraints], dtype=float)
    most = np.array([min(bounds[part.id].hi, _MUCH) for part in problem.parts])
    sound = np.minimum(most, [SOUND_SHARE * part.limit for part in problem.parts])
    is_faulty = (members[:, None] >> np.arange(len(problem.parts))) & 1
    leaks = np.where(is_faulty, most, sound)
    least = np.array([row.lo for row in constraints])
    return np.asarray((leaks @ connected.T < least).any(axis=1))


_MUCH = 1e12


def _sets(suspects: list[str]) -> Iterable[frozenset[str]]:
    yield from (frozenset({part}) for part in suspects)
    yield from (frozenset(pair) for pair in combinations(suspects, 2))


@dataclass(frozen=True, slots=True)
class _Constraint:
    """What a set of connected parts leaks."""

    all_parts: frozenset[str]
    sure: frozenset[str]
    lo: float
    hi: float


def _constraints(runs: tuple[Run, ...]) -> Iterable[_Constraint]:
    """Yield every run, and for a run inside another what the difference leaks at least."""
    for run in runs:
        hi = math.inf if run.is_intermittent else run.interval.hi
        yield _Constraint(run.connected | run.maybe, run.connected, run.interval.lo, hi)
    # Two runs, one inside the other, say more together than each alone: what the difference leaks at least.
    for outer in runs:
        for inner in runs:
            if inner.connected < outer.connected and not inner.is_intermittent:
                rest = (outer.connected | outer.maybe) - inner.connected
                yield _Constraint(rest, frozenset(), outer.interval.lo - inner.interval.hi, math.inf)


def _allows(row: _Constraint, faulty: frozenset[str], limits: Mapping[str, float]) -> bool:
    """Tell whether a set of faulty parts can have given a reading, all others being under their limits."""
    inside = faulty & row.sure
    if sum(limits[part] for part in inside) > row.hi:
        return False
    return bool(faulty & row.all_parts) or row.lo <= sum(limits[part] for part in row.all_parts)


def _confirming(problem: Problem, bounds: Mapping[str, Interval], found: _Hypotheses) -> Pull | None:
    """Return the run of the named part alone, once only one explanation is left."""
    if len(found.members) > 1:
        return None
    only = int(found.members[0])
    for part in problem.parts:
        is_named = bool(only >> problem.place[part.id] & 1)
        if is_named and not bounds[part.id].lo > part.limit and not was_alone(problem, part.id):
            return alone(problem, part.id)
    return None


def alone(problem: Problem, part: str) -> Pull:
    """Return the run of one part at its own tags."""
    return pull_for(problem, frozenset({part}))


def was_alone(problem: Problem, part: str) -> bool:
    """Tell whether a part was tested by itself; what comes and goes has to be tested again."""
    return any(run.connected == {part} and not run.is_intermittent for run in problem.counted)


def _splitting(
    problem: Problem, bounds: Mapping[str, Interval], found: _Hypotheses, suspects: list[str]
) -> Pull | None:
    """Return the set whose outcome says most a minute; parts beyond the likeliest stay as they stand."""
    bits = _candidates(problem, found, suspects)
    guilty = sum(1 << problem.place[part.id] for part in problem.parts if bounds[part.id].lo > part.limit)
    inside = _count(bits[:, None] & found.members[None, :])
    whole = _count(found.members)[None, :]
    # A reading tells *nothing*, *some* or *all* of the whole leak apart, but *some* beside a guilty part drowns in the
    # meter's error: between the two ways to count, the information is weighed by how often they are told apart.
    none = _surprise((inside == 0) @ found.chances)
    any_at_all = _surprise((inside > 0) @ found.chances)
    some = _surprise(((inside > 0) & (inside < whole)) @ found.chances)
    everything = _surprise((inside == whole) @ found.chances)
    told_apart, not_told = none + some + everything, none + any_at_all
    told = np.where(bits & guilty, BESIDE_A_GUILTY_PART, SOME_IS_TOLD_FROM_ALL)
    information = not_told + told * (told_apart - not_told)
    if not len(bits) or float(information.max()) < _LEAST_BITS:
        return None
    worth = information / (_minutes(problem, bits) + HANDLING_MINUTES)
    return pull_for(problem, _names(problem, int(bits[int(np.argmax(worth))])))


_LEAST_BITS = 1e-6


def _surprise(share: NDArray[np.float64]) -> NDArray[np.float64]:
    """Return −p·log₂ p, the part of an outcome in the entropy."""
    return np.asarray(-share * np.log2(np.maximum(share, 1e-300)), dtype=np.float64)


def _candidates(problem: Problem, found: _Hypotheses, suspects: list[str]) -> NDArray[np.int64]:
    """Return sets worth a run: all choices among the likeliest parts, the others connected as they are now."""
    place = problem.place
    chance = {part: float(((found.members >> place[part]) & 1) @ found.chances) for part in suspects}
    # All sets of n parts are 2^n: the ten likeliest are varied, the others stay as they are, which costs no handling.
    varied = sorted(suspects, key=lambda part: -chance[part])[:VARIED]
    connected = frozenset(place) - off_now(problem)
    fixed = sum(1 << place[part] for part in connected if part not in varied)
    choices = np.zeros(1, dtype=np.int64)
    for part in varied:
        choices = np.concatenate([choices, choices | (1 << place[part])])
    bits = np.concatenate([choices | fixed, np.array([1 << place[part] for part in varied], dtype=np.int64)])
    # Leads cannot be left out of a run of what hangs on them: they ride with every load that is tested.
    for rider in problem.parts:
        carriers = sum(1 << place[other] for other in rider.rides_with)
        if carriers:
            own = 1 << place[rider.id]
            is_carried = (bits & carriers).astype(bool) & (_count(bits) > 1)
            bits = np.where(is_carried, bits | own, bits)
    made = {sum(1 << place[part] for part in run.connected) for run in problem.counted if not run.is_intermittent}
    bits = np.unique(bits)
    return np.asarray(bits[(bits != 0) & ~np.isin(bits, list(made))], dtype=np.int64)


def _count(bits: NDArray[np.int64]) -> NDArray[np.int64]:
    return np.asarray(np.bitwise_count(bits), dtype=np.int64)


def _names(problem: Problem, bits: int) -> frozenset[str]:
    return frozenset(part.id for part in problem.parts if bits >> problem.place[part.id] & 1)


def _minutes(problem: Problem, bits: NDArray[np.int64]) -> NDArray[np.float64]:
    """Return the minutes of every set: plugs, panels that are still on, shared by all behind them, and the test."""
    off, opened = _bits(problem, off_now(problem)), _opened(problem)
    everything = (1 << len(problem.parts)) - 1
    is_at_part = (_count(bits) == 1) & (len(problem.parts) > 1)
    pulled = np.where(is_at_part, bits, everything & ~bits) & ~off
    minutes = np.full(len(bits), TEST_MINUTES)
    for part in problem.parts:
        minutes += part.minutes * ((pulled >> problem.place[part.id]) & 1)
    for name in {part.behind for part in problem.parts if part.behind} - opened:
        behind = _bits(problem, {part.id for part in problem.parts if part.behind == name})
        minutes += problem.panels.get(name, 0.0) * ((pulled & behind) != 0)
    return minutes


def pull_for(problem: Problem, connected: frozenset[str]) -> Pull:
    """Return what it takes to connect just these parts; a lone part is tested at its own tags."""
    everything, off = frozenset(problem.place), off_now(problem)
    is_at_part = len(connected) == 1 and len(everything) > 1
    pull = (connected if is_at_part else everything - connected) - off
    return Pull(
        connected=tuple(part.id for part in problem.parts if part.id in connected),
        pull=tuple(part.id for part in problem.parts if part.id in pull),
        refit=() if is_at_part else tuple(part.id for part in problem.parts if part.id in connected & off),
        minutes=float(_minutes(problem, np.array([_bits(problem, connected)], dtype=np.int64))[0]),
        is_at_part=is_at_part,
    )


def _bits(problem: Problem, names: Iterable[str]) -> int:
    return sum(1 << problem.place[name] for name in names)


def _opened(problem: Problem) -> frozenset[str]:
    """Return the panels that are off: stated, or those of parts that were disconnected in some run."""
    loose = _ever_off(problem)
    return problem.open_panels | {part.behind for part in problem.parts if part.behind and part.id in loose}


def off_now(problem: Problem) -> frozenset[str]:
    """Return parts that hang loose now: after a run of a lone part that one, besides those that were off before."""
    everything, off = frozenset(problem.place), frozenset[str]()
    for run in problem.runs:
        inside = run.connected | run.maybe
        off = off | inside if len(inside) == 1 else everything - inside
    return off


def _ever_off(problem: Problem) -> frozenset[str]:
    """Return parts that were disconnected in some run: their panels are off."""
    everything = frozenset(problem.place)
    found: set[str] = set()
    for run in problem.runs:
        inside = run.connected | run.maybe
        found |= everything - inside if len(inside) > 1 else inside
    return frozenset(found)
