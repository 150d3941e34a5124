"""Truth and speed of the suspects on jobs with a hidden fault; prints what docs/truth.md holds.

Run ``python -m benchmarks.diagnosis_truth [JOBS]``.
"""

from __future__ import annotations

import sys
import time
import warnings
from multiprocessing import Pool
from multiprocessing.pool import Pool as PoolType

import numpy as np

from ohmcensus.core.bench.hidden_fault import hidden_jobs
from ohmcensus.core.bench.trial import TrialReport, run_trial
from ohmcensus.core.diagnosis.evidence import symptom_told
from ohmcensus.core.diagnosis.outcomes import OutcomeTable, outcome_table
from ohmcensus.core.diagnosis.posterior import Observation, diagnose, read_as
from ohmcensus.core.diagnosis.question import Reach
from ohmcensus.core.diagnosis.ranking import ask
from ohmcensus.core.machine.dictionary import Dictionary, dictionary
from ohmcensus.core.quantity import Interval
from ohmcensus.core.sheet import Sheet
from ohmcensus.core.symptom import Symptom
from ohmcensus.services.at_hand.sheets import all_sheets

JOBS, SEED = 500, 2026
FEWEST_IN_BIN = 20


def main(jobs: int = JOBS) -> None:
    """Print truth for every sheet, plain, with slips, with nominals off; then speed."""
    print(f"\nDiagnosis: {jobs} hidden faults a sheet, seed {SEED}")
    print("| sheet | right | of separable | tests | min | worst bin | reached |")
    print("|---|---|---|---|---|---|---|")
    names = list(all_sheets())
    with Pool() as pool:
        reports = dict(zip(names, pool.starmap(_played, [(name, jobs, {}, True) for name in names], 1), strict=True))
        for name, row in reports.items():
            told = f"{row.tests_mean:.2f} | {row.minutes_mean:.1f} | {_worst(row)} | {row.reached:.3f}"
            print(f"| {name} | {_right(row)} | {told} |")
        _misses(list(reports.values()))
        _habits(reports)
        _disturbed(pool, jobs, "5 % slips", slips=0.05)
        _disturbed(pool, jobs, "nominals off by 25 %", nominals_off=0.25)
    sheet = all_sheets()["fl7-u"]
    _speed(sheet, dictionary(sheet))


def _played(name: str, jobs: int, how: dict[str, float], with_baselines: bool) -> TrialReport:
    sheet = all_sheets()[name]
    return run_trial(dictionary(sheet), hidden_jobs(sheet, jobs, SEED, **how), with_baselines=with_baselines)


def _misses(rows: list[TrialReport]) -> None:
    misses: dict[str, int] = {}
    for row in rows:
        for name, count in row.misses.items():
            kind = name.partition(" taken")[0].partition(":")[2] or "sound"
            misses[kind] = misses.get(kind, 0) + count
    said = ", ".join(f"{name} {n}" for name, n in sorted(misses.items(), key=lambda i: -i[1]))
    print(f"\nMisses by what was wrong: {said}")


def _habits(reports: dict[str, TrialReport]) -> None:
    """Print every other way to go about it: right of the separable, minutes a job, minutes for a fault named right."""
    ways = list(next(iter(reports.values())).baselines)
    print(f"\nOther ways: right of separable, min, min for each right\n| sheet | ours | {' | '.join(ways)} |")
    print(f"|---|---{'|---' * len(ways)}|")
    for name, row in reports.items():
        print(f"| {name} | {' | '.join(_way(one) for one in (row, *row.baselines.values()))} |")


def _way(row: TrialReport) -> str:
    return f"{row.right_separable:.2f}, {row.minutes_mean:.1f}, {row.minutes_mean / row.right:.1f}"


def _right(row: TrialReport) -> str:
    return f"{row.right:.3f} | {row.right_separable:.3f} ({row.separable})"


def _worst(row: TrialReport) -> str:
    """Return by how much the worst bin of at least twenty jobs is off."""
    return f"{max((abs(b.stated - b.right) for b in row.calibration if b.n >= FEWEST_IN_BIN), default=0):.3f}"


def _disturbed(pool: PoolType, jobs: int, title: str, **how: float) -> None:
    print(f"\n{title}\n| sheet | right | of separable | tests | stated ≥ 0.99, right |\n|---|---|---|---|---|")
    names = list(all_sheets())
    for name, row in zip(names, pool.starmap(_played, [(n, jobs, how, False) for n in names], 1), strict=True):
        top = row.calibration[-1]
        print(f"| {name} | {_right(row)} | {row.tests_mean:.2f} | {top.right:.3f} of {top.n} |")


def _speed(sheet: Sheet, found: Dictionary) -> None:
    began = time.perf_counter()
    table = outcome_table(sheet, found)
    print(f"\n{sheet.id}: {len(table.hypotheses)} hypotheses, {len(table.tests)} questions; table {_ms(began)}")
    rows = [symptom_told(table, Symptom.NO_HEAT)]
    for name in list(table.tests)[:25]:
        outcomes = table.tests[name]
        if outcomes.is_measured:
            middle = float(np.exp(outcomes.edges[np.argmax(outcomes.chance[-1][:-1])]))
            span = Interval(middle * 0.99, middle * 1.01)
            rows.append(Observation(name, name, read_as(outcomes, span), outcomes, span))
    ask(diagnose(table, rows), Reach())
    times = []
    for _ in range(50):
        began = time.perf_counter()
        known = diagnose(table, rows)
        _ = known.weight, ask(known, Reach())
        times.append(time.perf_counter() - began)
    print(f"posterior, weights, guards and ranking after {len(rows)} observations: {1e3 * np.median(times):.2f} ms")
    _by_pgmpy(table, rows)


def _by_pgmpy(table: OutcomeTable, rows: list[Observation]) -> None:
    with warnings.catch_warnings():
        warnings.simplefilter("ignore")
        from pgmpy.factors.discrete import TabularCPD  # noqa: PLC0415 - slow to load
        from pgmpy.inference import VariableElimination  # noqa: PLC0415
        from pgmpy.models import DiscreteBayesianNetwork  # noqa: PLC0415

        names = [row.id for row in rows if row.outcome]
        network = DiscreteBayesianNetwork([("H", name) for name in names])
        cpds = [
            TabularCPD(
                n, table.tests[n].chance.shape[1], table.tests[n].chance.T.tolist(), ["H"], [len(table.hypotheses)]
            )
            for n in names
        ]
        network.add_cpds(TabularCPD("H", len(table.hypotheses), table.prior[:, None].tolist()), *cpds)
        engine = VariableElimination(network)
        began = time.perf_counter()
        engine.query(["H"], evidence=dict.fromkeys(names, 0), show_progress=False)
        print(f"pgmpy, the posterior alone: {_ms(began)}")


def _ms(began: float) -> str:
    return f"{1e3 * (time.perf_counter() - began):.1f} ms"


if __name__ == "__main__":
    main(int(sys.argv[1]) if len(sys.argv) > 1 else JOBS)
