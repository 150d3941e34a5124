"""The planner of isolation on simulated machines, beside the usual order by rote; bounds beside HiGHS.

The machines are those of the design page, so that the figures can be compared: n parts of a fixed list, weights
shaken, panels opened once, the harness riding with every load, the first run the whole machine, a last run the named
part alone. Leaks log-uniform over two decades, healthy parts none, meter ±3 %.
"""

from __future__ import annotations

import sys
from dataclasses import dataclass

import numpy as np
from scipy.optimize import linprog

from benchmarks.slice_speed import milliseconds, say
from ohmcensus.core.quantity import Interval
from ohmcensus.core.trip.isolate import isolate
from ohmcensus.core.trip.planner import TEST_MINUTES, Pull, alone, next_pull, pull_for, was_alone
from ohmcensus.core.trip.problem import LeakyPart, Method, Problem, Run
from ohmcensus.core.trip.rules import polytope_of, rows_of

LIMIT_US = 1.0
ERROR = 0.03
# Name, weight, panel; cord, filter and the rest are separated by cuts of a minute.
PARTS = (
    ("cord", 0.02, "top"),
    ("filter", 0.12, "top"),
    ("heater", 0.55, "back"),
    ("motor", 0.15, "back"),
    ("harness", 0.08, "top"),
    ("pump", 0.03, "front"),
    ("board", 0.01, "top"),
    ("valves", 0.015, "top"),
    ("lock", 0.01, "front"),
    ("steam", 0.03, "back"),
    ("circulation", 0.015, "front"),
    ("fan", 0.01, "top"),
)
CUTS = frozenset({"cord", "filter"})
PANELS = {"top": 3.0, "back": 4.0, "front": 6.0}
PLUG_MINUTES = 1.0


@dataclass(frozen=True)
class Machine:
    """One simulated machine: the problem without runs, and the true leak of every part in µS."""

    problem: Problem
    leaks: dict[str, float]

    def read(self, connected: frozenset[str], chance: np.random.Generator) -> Interval:
        """Return what a tester of ±3 % proves of these parts."""
        true = sum(self.leaks[part] for part in connected)
        if true == 0:
            return Interval(0.0, 1e-3)
        shown = true * (1 + ERROR * chance.uniform(-1, 1))
        return Interval(shown / (1 + ERROR), shown / (1 - ERROR))


def machine(chance: np.random.Generator, faults: int) -> Machine:
    """Return a machine with some faulty parts, drawn by weight."""
    rows = PARTS[: chance.integers(4, 13)]
    weights = np.array([weight for _, weight, _ in rows]) * np.exp(0.5 * chance.standard_normal(len(rows)))
    weights /= weights.sum()
    loads = frozenset(name for name, _, _ in rows) - CUTS - {"harness"}
    suspects = tuple(
        LeakyPart(
            name,
            LIMIT_US,
            float(weights[i]),
            1.0 if name in CUTS else PLUG_MINUTES * float(chance.uniform(0.7, 1.6)),
            panel,
            rides_with=loads if name == "harness" else frozenset(),
        )
        for i, (name, _, panel) in enumerate(rows)
    )
    panels = {name: minutes * float(chance.uniform(0.7, 1.3)) for name, minutes in PANELS.items()}
    faulty = chance.choice(len(rows), size=min(faults, len(rows)), replace=False, p=weights)
    leaks = {part.id: 0.0 for part in suspects}
    for index in faulty:
        leaks[suspects[index].id] = LIMIT_US * 10 ** float(chance.uniform(0.05, 2))
    return Machine(Problem(Method.INSULATION, suspects, (), panels), leaks)


@dataclass(frozen=True)
class Outcome:
    """How one isolation went."""

    runs: int
    minutes: float
    is_right: bool


def planned(subject: Machine, chance: np.random.Generator) -> Outcome:
    """Follow the planner until every part is cleared or guilty; a run of a named part alone confirms, if none was."""
    problem, minutes = subject.problem, 0.0
    runs: tuple[Run, ...] = ()
    pull: Pull | None = Pull(tuple(subject.leaks), (), (), TEST_MINUTES)
    while len(runs) < MOST_RUNS:
        assert pull is not None
        connected = frozenset(pull.connected)
        runs = (*runs, Run(str(len(runs)), connected, subject.read(connected, chance)))
        minutes += pull.minutes
        problem = Problem(Method.INSULATION, problem.parts, runs, problem.panels)
        found = isolate(problem)
        if found.conflict:
            break
        pull = found.next
        if pull is None:
            named = frozenset(found.explanations[0])
            last = confirming(problem, named)
            is_right = named == {part for part, leak in subject.leaks.items() if leak}
            return Outcome(len(runs) + (last is not None), minutes + (last.minutes if last else 0.0), is_right)
    return Outcome(len(runs), minutes, is_right=False)


MOST_RUNS = 40


class ByRote:
    """The usual order, one fault assumed: whole; cord and filter; all but heater and motor; motor back; heater alone.

    What is left is tested part by part; the first that fails alone is named (common practice, no source).
    """

    def __init__(self, subject: Machine, chance: np.random.Generator) -> None:
        self.subject, self.chance = subject, chance
        self.runs: tuple[Run, ...] = ()
        self.minutes = 0.0

    def fails(self, parts: frozenset[str]) -> bool:
        """Make a run and tell whether it reads over the limit."""
        known = self.subject.problem
        pull = pull_for(Problem(known.method, known.parts, self.runs, known.panels), parts)
        self.runs = (*self.runs, Run(str(len(self.runs)), parts, self.subject.read(parts, self.chance)))
        self.minutes += pull.minutes
        return self.runs[-1].interval.hi > LIMIT_US

    def outcome(self) -> Outcome:
        """Follow it to the end."""
        everything = frozenset(self.subject.leaks)
        self.fails(everything)
        named = next((part for part in self._in_question(everything) if self.fails(frozenset({part}))), None)
        faulty = {part for part, leak in self.subject.leaks.items() if leak}
        return Outcome(len(self.runs), self.minutes, is_right={named} == faulty)

    def _in_question(self, everything: frozenset[str]) -> list[str]:
        if self.fails(CUTS):
            return sorted(CUTS)
        if self.fails(everything - {"heater", "motor"}):
            return [part for part in self.subject.leaks if part not in CUTS | {"heater", "motor"}]
        return ["motor"] if self.fails(everything - {"heater"}) else ["heater"]


def confirming(problem: Problem, named: frozenset[str]) -> Pull | None:
    """Return the run of one named part alone, None where one was made."""
    return None if any(was_alone(problem, part) for part in named) else alone(problem, min(named))


def main(count: int = 2000) -> None:
    """Print every figure beside what is wanted."""
    for faults, most_runs, most_minutes in ((1, 4.2, 14.6), (2, 5.5, 20.6)):
        chance = np.random.default_rng(faults)
        done = [planned(machine(chance, faults), chance) for _ in range(count)]
        runs, minutes = (float(np.mean([getattr(row, name) for row in done])) for name in ("runs", "minutes"))
        right = np.mean([row.is_right for row in done])
        wanted = f"wanted <= {most_runs}, <= {most_minutes}, all right"
        print(
            f"{faults} fault(s), every part proved: {runs:.2f} runs, {minutes:.1f} min, right {right:.4f}  ({wanted})"
        )
        chance = np.random.default_rng(faults)
        rote = [ByRote(machine(chance, faults), chance).outcome() for _ in range(count)]
        runs, minutes = (float(np.mean([getattr(row, name) for row in rote])) for name in ("runs", "minutes"))
        right = np.mean([row.is_right for row in rote])
        print(f"  by rote, one part named: {runs:.2f} runs, {minutes:.1f} min, right {right:.4f}")

    speed()


def speed() -> None:
    """Bounds of 12 parts and 15 runs, ours and by HiGHS in the same run; the next pull."""
    chance = np.random.default_rng(7)
    subject = machine(chance, 2)
    while len(subject.leaks) < LARGEST:
        subject = machine(chance, 2)
    names = list(subject.leaks)
    runs = []
    for index in range(15):
        connected = frozenset(chance.choice(names, size=int(chance.integers(1, LARGEST)), replace=False).tolist())
        runs.append(Run(str(index), connected, subject.read(connected, chance)))
    problem = Problem(Method.INSULATION, subject.problem.parts, tuple(runs), subject.problem.panels)
    unit = np.eye(LARGEST)

    def ours() -> None:
        polytope = polytope_of(problem, problem.counted)
        for row in unit:
            polytope.minimum(row)
            polytope.maximum(row)

    def theirs() -> None:
        rows = list(rows_of(Method.INSULATION, problem.counted))
        signs = np.array([-1.0 if row.is_least else 1.0 for row in rows])
        table = np.array([[float(name in row.parts) for name in names] for row in rows]) * signs[:, None]
        right = signs * np.array([row.amount for row in rows])
        for row in unit:
            linprog(row, A_ub=table, b_ub=right, method="highs")
            linprog(-row, A_ub=table, b_ub=right, method="highs")

    mine = say("bounds of 12 parts, 15 runs", milliseconds(ours, 30), "wanted < 10")
    other = say("the same by HiGHS", milliseconds(theirs, 5), "")
    print(f"{'  times one of ours':46} {other / mine:12.1f}")
    first = Problem(Method.INSULATION, problem.parts, tuple(runs[:1]), problem.panels)
    bounds = {name: row.bounds for name, row in isolate(first).parts.items()}
    say("next pull, 12 parts", milliseconds(lambda: next_pull(first, bounds), 30), "wanted < 10")


LARGEST = 12


if __name__ == "__main__":
    main(int(sys.argv[1]) if len(sys.argv) > 1 else 2000)
