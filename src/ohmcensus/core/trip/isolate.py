"""Proved bounds of every part, what contradicts itself, and what alone could explain the readings."""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from enum import StrEnum
from functools import lru_cache
from itertools import combinations

import numpy as np
from numpy.typing import NDArray

from ohmcensus.core.quantity import Interval
from ohmcensus.core.trip.planner import Pull, next_pull
from ohmcensus.core.trip.polytope import Polytope
from ohmcensus.core.trip.problem import LeakyPart, Problem, Run
from ohmcensus.core.trip.rules import Row, polytope_of

# Explanations of more parts than this are not listed: they are no more than a list of what is open.
LARGEST_EXPLANATION = 3
MOST_EXPLANATIONS = 24
_UNBOUNDED = Interval(0.0, math.inf)


class State(StrEnum):
    """What is proved of a part."""

    CLEARED = "cleared"
    GUILTY = "guilty"
    OPEN = "open"


@dataclass(frozen=True, slots=True)
class Proved:
    """What is proved of one part.

    Parameters
    ----------
    bounds
        Its leak lies in it: µS or mA.
    state
        Against its limit.
    is_presumed
        Open, and held innocent only because one or two faults elsewhere would do: never the same as cleared.
    """

    bounds: Interval
    state: State
    is_presumed: bool = False


@dataclass(frozen=True)
class Isolation:
    """The answer.

    Parameters
    ----------
    parts
        By name, in order.
    conflict
        Runs that cannot all be true, none of which could be spared; empty where all agree.
    repeat
        Which of them to repeat, the best first.
    explanations
        Smallest sets of parts that alone could be at fault.
    is_spread
        Every part is under its limit and still the whole is over.
    shares
        Least and greatest share of each part in the whole, where the leak is spread.
    next
        The next run, None where nothing is open or the runs contradict each other.
    unhealthy
        Parts that keep their limit and are not healthy: by their own bounds, or since they carry most of a whole that
        is not.
    is_refused
        No verdict: the protective conductor has failed, or currents were read where the neutral is not earthed.
    """

    parts: dict[str, Proved]
    conflict: tuple[str, ...] = ()
    repeat: tuple[str, ...] = ()
    explanations: tuple[tuple[str, ...], ...] = ()
    is_spread: bool = False
    shares: dict[str, Interval] | None = None
    next: Pull | None = None
    is_refused: bool = False
    unhealthy: tuple[str, ...] = ()

    @property
    def guilty(self) -> tuple[str, ...]:
        """Parts that leak over their limit, whatever the others do."""
        return tuple(name for name, row in self.parts.items() if row.state is State.GUILTY)


@lru_cache(maxsize=128)
def isolate(problem: Problem) -> Isolation:
    """Return what the runs of an isolation prove.

    Every bound is exact for the rules of its instrument: the true leak always lies inside, and another run never
    widens it. Runs that contradict each other prove nothing until one is repeated. Several rooms ask of the same runs.
    """
    nothing = {part.id: Proved(_UNBOUNDED, State.OPEN) for part in problem.parts}
    # Without its earth a leak does not flow where the tester looks for it: every reading is good, and proves nothing.
    if problem.proves_nothing:
        return Isolation(nothing, is_refused=True)
    runs, polytope = _agreeing(problem)
    if polytope.is_empty:
        conflict = conflicting(problem, runs)
        return Isolation(nothing, conflict=conflict, repeat=to_repeat(problem, runs, conflict))
    # What a part leaks is what the least and the greatest point of the polytope say of it: two small linear
    # programmes a part. They are exact, so that *cleared* needs no assumption of a single fault.
    unit = np.eye(len(problem.parts))
    bounds = {
        part.id: Interval(max(0.0, polytope.minimum(unit[i])), polytope.maximum(unit[i]))
        for i, part in enumerate(problem.parts)
    }
    states = {part.id: _state(part, bounds[part.id]) for part in problem.parts}
    explanations = explained(problem, runs, bounds)
    is_spread = all(states[part.id] is State.CLEARED for part in problem.present) and _is_over(problem, runs)
    named = {part for explanation in explanations for part in explanation}
    return Isolation(
        parts={
            part: Proved(
                bounds[part],
                state,
                is_presumed=state is State.OPEN and bool(named) and part not in named,
            )
            for part, state in states.items()
        },
        explanations=explanations,
        is_spread=is_spread,
        shares=_shares(problem, runs) if is_spread else None,
        next=_next(problem, bounds, states),
        unhealthy=_unhealthy(problem, runs, bounds, states),
    )


def _agreeing(problem: Problem) -> tuple[tuple[Run, ...], Polytope]:
    """Return the runs with all leaks that they allow; where they contradict each other only by drift, as bounds."""
    polytope = polytope_of(problem, problem.counted)
    if not polytope.is_empty:
        return problem.counted, polytope
    # Where they contradict each other by more than drift, what is doubted must do so by more than drift too.
    return problem.loosely, polytope_of(problem, problem.loosely)


# Of an unhealthy whole, who has more than this of it is named.
MOST = 0.5


def _unhealthy(
    problem: Problem, runs: Sequence[Run], bounds: Mapping[str, Interval], states: Mapping[str, State]
) -> tuple[str, ...]:
    """Return the parts that keep their limit and leak more than a healthy one does."""
    healthy = {part.id: part.healthy for part in problem.present}
    everything = frozenset(healthy)
    wholes = [run for run in runs if everything <= run.connected | run.maybe]
    over = [run for run in wholes if run.interval.lo > min(healthy.values(), default=math.inf)]
    most = min((run.interval.hi for run in over), default=math.inf)
    return tuple(
        part
        for part in healthy
        if states[part] is not State.GUILTY and (bounds[part].lo > healthy[part] or (bounds[part].lo > MOST * most))
    )


def proved_states(problem: Problem, known: Mapping[str, State]) -> tuple[dict[str, State], bool]:
    """Return what is proved of the parts that are there, and whether the runs contradict each other.

    Parameters
    ----------
    problem
        Parts and runs.
    known
        What fewer runs of the same problem proved, which more runs that agree never take back; empty for nothing.
    """
    nothing = {part.id: State.OPEN for part in problem.present}
    if problem.proves_nothing:
        return nothing, False
    _, polytope = _agreeing(problem)
    if polytope.is_empty:
        return nothing, True
    unit, found = np.eye(len(problem.parts)), dict(known)
    # What fewer runs proved stands as long as the runs agree, since a row more only makes the polytope smaller: only
    # what was open is asked again. The story of thirty runs costs by what each adds, not thirty isolations.
    for place, part in enumerate(problem.parts):
        if part.id in nothing and found.get(part.id, State.OPEN) is State.OPEN:
            found[part.id] = _reached(polytope, unit[place], part)
    return {part: found[part] for part in nothing}, False


def _reached(polytope: Polytope, direction: NDArray[np.float64], part: LeakyPart) -> State:
    """Return what is proved of one part; its lower end is asked only where the upper one leaves it open."""
    if polytope.maximum(direction) < part.limit:
        return State.CLEARED
    return State.GUILTY if polytope.minimum(direction) > part.limit else State.OPEN


def _next(problem: Problem, bounds: dict[str, Interval], states: dict[str, State]) -> Pull | None:
    """Return the next run: the whole machine after a change, else while a part is open."""
    if problem.is_changed or any(states[part.id] is State.OPEN for part in problem.present):
        return next_pull(problem.as_it_is, bounds)
    return None


def _state(part: LeakyPart, bounds: Interval) -> State:
    if bounds.hi < part.limit:
        return State.CLEARED
    return State.GUILTY if bounds.lo > part.limit else State.OPEN


def conflicting(problem: Problem, runs: tuple[Run, ...]) -> tuple[str, ...]:
    """Return runs that contradict each other, none of which could be spared, by leaving out one after another."""
    # What is left when nothing more can be spared is a smallest contradiction, though not always the only one: the
    # technician is shown a few runs to doubt, not all of them.
    kept = list(runs)
    for run in runs:
        fewer = [other for other in kept if other is not run]
        if polytope_of(problem, fewer).is_empty:
            kept = fewer
    return tuple(run.id for run in kept)


def to_repeat(problem: Problem, runs: tuple[Run, ...], conflict: tuple[str, ...]) -> tuple[str, ...]:
    """Return the runs to repeat, the best first: those without which all others agree, the largest first.

    Where no single one restores agreement, the runs of the conflict.
    """
    cures = [run for run in runs if not polytope_of(problem, [other for other in runs if other is not run]).is_empty]
    chosen = cures or [run for run in runs if run.id in conflict]
    return tuple(run.id for run in sorted(chosen, key=lambda run: -len(run.connected | run.maybe)))


def explained(problem: Problem, runs: tuple[Run, ...], bounds: dict[str, Interval]) -> tuple[tuple[str, ...], ...]:
    """Return the smallest sets of parts that could be at fault with all others under their limits.

    Parameters
    ----------
    problem, runs
        Parts, and the runs that count.
    bounds
        What is proved of each part.
    """
    open_parts = [part for part in problem.present if not bounds[part.id].hi < part.limit]
    guilty = frozenset(part.id for part in open_parts if bounds[part.id].lo > part.limit)
    others = [part.id for part in open_parts if part.id not in guilty]
    # The smallest first: whatever holds a set that explains everything is no explanation of its own, only longer.
    found: list[frozenset[str]] = []
    for more in range(max(0, LARGEST_EXPLANATION - len(guilty)) + 1):
        for chosen in combinations(others, more):
            at_fault = guilty | frozenset(chosen)
            is_new = len(found) < MOST_EXPLANATIONS and not any(smaller <= at_fault for smaller in found)
            if is_new and _could_be(problem, runs, open_parts, at_fault):
                found.append(at_fault)
    if found == [frozenset()]:
        return ()
    return tuple(tuple(part.id for part in problem.parts if part.id in row) for row in found)


def _could_be(problem: Problem, runs: tuple[Run, ...], open_parts: list[LeakyPart], at_fault: frozenset[str]) -> bool:
    innocent = [Row(frozenset({part.id}), part.limit, is_least=False) for part in open_parts if part.id not in at_fault]
    return not polytope_of(problem, runs, innocent).is_empty


def _is_over(problem: Problem, runs: tuple[Run, ...]) -> bool:
    """Tell whether some run leaks more than any one of its parts may."""
    # A former part may have leaked what the present ones do not: a run with one in it tells nothing of a spread.
    limits = {part.id: part.limit for part in problem.parts}
    return any(
        run.interval.lo > max((limits[part] for part in run.connected | run.maybe), default=math.inf)
        for run in runs
        if not (run.connected | run.maybe) & problem.former
    )


def _shares(problem: Problem, runs: tuple[Run, ...]) -> dict[str, Interval]:
    """Return the least and greatest share of every part in the sum, by halving: x_i ≥ s·Σx is a row of its own.

    A linear-fractional programme: for each s one asks whether a point is left.
    """
    polytope = polytope_of(problem, runs)
    count = len(problem.parts)
    ends = {}
    for index, part in enumerate(problem.parts):
        least = _share(polytope, count, index, sign=1.0)
        most = _share(polytope, count, index, sign=-1.0)
        ends[part.id] = Interval(least, most)
    return ends


def _share(polytope: Polytope, count: int, index: int, *, sign: float) -> float:
    """Return the end of x_i/Σx: the s at which min of sign·(x_i − s·Σx) passes zero."""
    lo, hi = 0.0, 1.0
    for _ in range(_HALVINGS):
        middle = (lo + hi) / 2
        direction = [sign * ((1.0 if j == index else 0.0) - middle) for j in range(count)]
        is_reached = polytope.minimum(direction) < 0
        if is_reached == (sign > 0):
            hi = middle
        else:
            lo = middle
    return (lo + hi) / 2


_HALVINGS = 24
