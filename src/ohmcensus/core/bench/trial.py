"""A trial of the diagnosis on simulated jobs, beside other ways to go about it."""

from __future__ import annotations

import math
from collections import Counter
from collections.abc import Callable
from dataclasses import dataclass, replace
from itertools import pairwise

import numpy as np
from pydantic import BaseModel

from ohmcensus.core.bench.hidden_fault import HiddenJobs, hidden_jobs
from ohmcensus.core.diagnosis.again import ENDED, concluded, guarded
from ohmcensus.core.diagnosis.conclusion import Standing
from ohmcensus.core.diagnosis.effort import efforts
from ohmcensus.core.diagnosis.evidence import symptom_told
from ohmcensus.core.diagnosis.of_case import OFTEN_ENOUGH
from ohmcensus.core.diagnosis.outcomes import OutcomeTable, outcome_table
from ohmcensus.core.diagnosis.posterior import (
    NAMED_FROM,
    Diagnosis,
    Observation,
    diagnose,
    read_as,
    told_as,
)
from ohmcensus.core.diagnosis.question import Asks, Objective, Question, Reach
from ohmcensus.core.diagnosis.ranking import ask, possible
from ohmcensus.core.diagnosis.read_evidence import agree
from ohmcensus.core.diagnosis.search import search
from ohmcensus.core.diagnosis.variant import allow_for_variants
from ohmcensus.core.machine import machine_tests
from ohmcensus.core.machine.asked import LOOK, RUN
from ohmcensus.core.machine.dictionary import Dictionary
from ohmcensus.core.machine.separable import inseparable, unseen
from ohmcensus.core.machine.specs import listed_tests
from ohmcensus.core.physics.temperature import REFERENCE_CELSIUS
from ohmcensus.core.symptom import Symptom

# A technician's patience on one machine, in minutes; where the share of right ones is told on the way.
MOST_MINUTES, CURVE_MINUTES = 45.0, (15.0, 25.0, 45.0)
# After these symptoms no power, and so no live test, until the next have passed.
NO_POWER = frozenset({Symptom.TRIPS, Symptom.SHOCK, Symptom.SMELLS})
BEFORE_POWER = ("cord.pe", "cord.insulation")
CALIBRATION_EDGES = (0.0, 0.5, 0.7, 0.8, 0.9, 0.95, 0.99, 1.0)


class CalibrationRow(BaseModel):
    """Jobs on which the leader was stated to be about so likely: mean of it, and the share that was right."""

    stated: float
    right: float
    n: int


class CurvePoint(BaseModel):
    """Share of jobs of which the first-ranked part was the faulty one after so many minutes, or when it ended."""

    minutes: float
    right: float


class TrialReport(BaseModel):
    """What a trial came to; see docs/commands.md."""

    jobs: int
    right: float
    right_separable: float
    separable: int
    tests_mean: float
    minutes_mean: float
    reached: float
    calibration: list[CalibrationRow]
    curve: list[CurvePoint] = []
    endings: dict[str, int] = {}
    misses: dict[str, int] = {}
    baselines: dict[str, TrialReport] = {}


@dataclass(frozen=True, slots=True)
class _Played:
    leader: str
    stated: float
    tests: int
    minutes: float
    is_sure: bool
    led: tuple[str, ...]
    standing: Standing


Chooser = Callable[[Diagnosis, Reach], tuple[Question, ...]]


def run_trial(
    found: Dictionary,
    jobs: HiddenJobs,
    *,
    objective: Objective = Objective.SOONEST,
    with_baselines: bool = True,
) -> TrialReport:
    """Play every job to its end and count.

    Parameters
    ----------
    found
        Fault dictionary of the sheet.
    jobs
        Simulated jobs.
    objective
        What questions are chosen for.
    with_baselines
        Whether likeliest first, a fixed checklist and chance play the same jobs too.
    """
    table = outcome_table(jobs.sheet, found)
    separable = _separable(jobs, found)
    report = _report(jobs, table, separable, lambda d, r: ask(d, r, objective))
    if with_baselines:
        chance = np.random.default_rng(5)
        habits: dict[str, Chooser] = {
            "own_likeliest_first": lambda d, r: ask(d, r, Objective.LIKELIEST_FIRST),
            "likeliest_first": lambda d, r: _by_habit(d, r, _likeliest(d, table)),
            "checklist": lambda d, r: _by_habit(d, r, _listed(table)),
            "random": lambda d, r: _by_habit(d, r, lambda _: chance.random()),
        }
        report.baselines = {name: _report(jobs, table, separable, choose) for name, choose in habits.items()}
    return report


def _by_habit(known: Diagnosis, reach: Reach, order: Callable[[Question], object]) -> tuple[Question, ...]:
    """Return every test not yet made in some order of habit; what a guard doubts first, as for everybody.

    A habit does not ask what a test would settle; it ends as the product does, once a part is named.
    """
    found = concluded(known, reach)
    if found.standing in ENDED:
        return ()
    return (*guarded(found, reach), *sorted(possible(known, reach), key=order))  # type: ignore[arg-type]


def _listed(table: OutcomeTable) -> Callable[[Question], object]:
    """Return the order of the sheet: a fixed checklist."""
    order = {name: index for index, name in enumerate(table.tests)}
    return lambda row: order[row.test]


def _likeliest(known: Diagnosis, table: OutcomeTable) -> Callable[[Question], object]:
    """Return the order of who measures the likeliest part first, by its tests as they are listed."""
    listed = _listed(table)
    of_part = dict(zip(table.parts, known.of_part.tolist(), strict=True))
    return lambda row: (-of_part.get(row.part, 0.0), listed(row))


def _separable(jobs: HiddenJobs, found: Dictionary) -> list[bool]:
    """Tell of every job whether some listed test tells its fault, as severe as it is, from every other repair."""
    alike = {found.faults[i] for i in unseen(jobs.sheet, found)}
    alike |= {found.faults[i] for pair in inseparable(jobs.sheet, found) for i in pair}
    return [
        row is not None and (row.fault is None or row.fault not in alike) and jobs.is_visible(job)
        for job, row in enumerate(jobs.faults)
    ]


def _report(jobs: HiddenJobs, table: OutcomeTable, separable: list[bool], choose: Chooser) -> TrialReport:
    played = [_play(jobs, job, table, choose) for job in range(len(jobs.faults))]
    truth = [row.part if row else "" for row in jobs.faults]
    right = np.array([row.leader == part for row, part in zip(played, truth, strict=True)])
    told = np.array(separable)
    misses: dict[str, int] = {}
    for row, fault, is_right in zip(played, jobs.faults, right, strict=True):
        if not is_right:
            mode = fault.fault.mode.value if fault and fault.fault else "not electrical"
            name = f"{fault.part}:{mode}" if fault else "sound"
            misses[f"{name} taken for {row.leader or 'nothing'}"] = (
                misses.get(f"{name} taken for {row.leader or 'nothing'}", 0) + 1
            )
    return TrialReport(
        jobs=len(played),
        right=float(right.mean()),
        right_separable=float(right[told].mean()) if told.any() else math.nan,
        separable=int(told.sum()),
        tests_mean=float(np.mean([row.tests for row in played])),
        minutes_mean=float(np.mean([row.minutes for row in played])),
        reached=float(np.mean([row.is_sure for row in played])),
        calibration=_calibration(np.array([row.stated for row in played]), right),
        curve=[
            CurvePoint(
                minutes=minutes, right=float(np.mean([a.led[at] == b for a, b in zip(played, truth, strict=True)]))
            )
            for at, minutes in enumerate(CURVE_MINUTES)
        ],
        endings=dict(Counter(row.standing.value for row in played).most_common()),
        misses=dict(sorted(misses.items(), key=lambda item: -item[1])),
    )


def _curve(played: list[_Played], truth: list[str]) -> list[CurvePoint]:
    led = np.array([row.led for row in played]) == np.array(truth)[:, None]
    return [CurvePoint(minutes=at, right=share) for at, share in zip(CURVE_MINUTES, led.mean(axis=0), strict=True)]


def _calibration(stated: np.ndarray, right: np.ndarray) -> list[CalibrationRow]:
    rows = []
    for lo, hi in pairwise(CALIBRATION_EDGES):
        inside = (stated >= lo) & (stated < hi) if hi < 1 else stated >= lo
        if inside.any():
            mean, share = float(stated[inside].mean()), float(right[inside].mean())
            rows.append(CalibrationRow(stated=mean, right=share, n=int(inside.sum())))
    return rows


def _play(jobs: HiddenJobs, job: int, table: OutcomeTable, choose: Chooser) -> _Played:
    """Play one job: ask until a part is named, nothing is left to ask, or the patience is over."""
    seen: dict[str, Observation] = {}
    told = symptom_told(table, jobs.symptoms[job])
    attempts: dict[str, int] = {}
    reach = Reach(has_power=jobs.symptoms[job] not in NO_POWER, before_power=tuple(BEFORE_POWER))
    minutes, tests = 0.0, 0
    known = diagnose(table, (told,))
    led: list[str] = []
    while minutes < MOST_MINUTES:
        rows = [row for row in choose(known, reach) if attempts.get(row.test, 0) < OFTEN_ENOUGH]
        if not rows:
            break
        first = rows[0]
        spent = first.minutes + first.reach_minutes
        led += [known.leader for at in CURVE_MINUTES[len(led) :] if minutes + spent > at]
        minutes += spent
        if first.kind is Asks.PLATE:
            reach = replace(reach, stamped=reach.stamped | {first.part})
            seen = {name: _as_stamped(jobs, job, row, first.part) for name, row in seen.items()}
        else:
            for name in (first.test, *first.also):
                tests, attempts[name] = tests + 1, attempts.get(name, 0) + 1
                row = _asked(jobs, job, table, name, attempts[name], seen.get(name))
                seen[name] = _as_stamped(jobs, job, row, *reach.stamped)
            reach = _moved(reach, table, (first.test, *first.also), seen)
        rows_seen = allow_for_variants(table, tuple(seen.values()), reach.stamped)
        known = diagnose(table, (told, *rows_seen))
    stated = float(max(known.of_part.max(), known.nothing))
    led += [known.leader] * (len(CURVE_MINUTES) - len(led))
    standing = search(known, reach).standing
    return _Played(known.leader, stated, tests, minutes, stated > NAMED_FROM, tuple(led), standing)


def _as_stamped(jobs: HiddenJobs, job: int, row: Observation, *parts: str) -> Observation:
    """Return a reading as the table would have it of the variant that is fitted, once its stamp was read."""
    if row.interval is None or row.outcome is None or jobs.part_of(row.id) not in parts:
        return row
    interval = row.interval.scaled(1 / jobs.off(job, row.id, row.interval.lo))
    return replace(row, interval=interval, log=read_as(row.outcome, interval, is_confirmed=row.is_confirmed))


def _moved(reach: Reach, table: OutcomeTable, made: tuple[str, ...], seen: dict[str, Observation]) -> Reach:
    """Return where the machine stands after some tests at one place; for a run the covers are shut."""
    panel = _panel(table, made[0])
    return replace(
        reach,
        open_panels=frozenset() if made[0] == RUN else reach.open_panels | ({panel} if panel else set()),
        left_out=reach.left_out | set(made),
        place=efforts(table.sheet)[made[0]].place,
        has_power=reach.has_power or all(_passed(table, seen.get(test)) for test in BEFORE_POWER),
    )


def _passed(table: OutcomeTable, seen: Observation | None) -> bool:
    """Tell whether a test of safety was made and read inside its window."""
    if seen is None or seen.interval is None:
        return False
    windows = {row.id: row.window.interval for row in machine_tests(table.sheet, REFERENCE_CELSIUS)}
    return windows[seen.id].lo <= seen.interval.lo and seen.interval.hi <= windows[seen.id].hi


def _asked(
    jobs: HiddenJobs, job: int, table: OutcomeTable, name: str, attempt: int, before: Observation | None
) -> Observation:
    outcomes = table.tests[name]
    if name == RUN:
        return Observation(name, name, told_as(outcomes, jobs.run(job)), outcomes)
    part_id, _, own = name.partition(".")
    part = jobs.sheet.part(part_id)
    assert part is not None  # noqa: S101 - any other question is about a part of the sheet
    if outcomes.is_measured:
        interval = jobs.reading(job, name, attempt=attempt)
        agrees = before is not None and before.interval is not None and agree(before.interval, interval)
        log = read_as(outcomes, interval, is_confirmed=agrees)
        return Observation(name, name, log, outcomes, interval, is_confirmed=agrees)
    if own.startswith(LOOK):
        check = next(row for row in part.part_kind.checks if row.id == own.removeprefix(LOOK))
        is_bad = jobs.is_bad(job, part, check, attempt=attempt)
    else:
        spec = next(row for row in listed_tests(jobs.sheet, part.id) if row.name == own)
        is_bad = jobs.is_bad(job, part, spec, attempt=attempt)
    convicts = frozenset({part_id}) if is_bad else frozenset[str]()
    agrees = before is not None and before.convicts == convicts
    log = told_as(outcomes, int(is_bad)) + (before.log if before is not None else 0.0)
    return Observation(name, name, log, outcomes, is_confirmed=agrees, convicts=convicts)


def _panel(table: OutcomeTable, name: str) -> str | None:
    part = table.sheet.part(name.partition(".")[0])
    return part.behind if part else None


__all__ = ["TrialReport", "hidden_jobs", "run_trial"]
