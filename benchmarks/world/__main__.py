"""Play this world, ``python -m benchmarks.world [SHEET…] [--jobs N]``: a row a sheet, by class, by how sure it was."""

from __future__ import annotations

import argparse
import json
import zlib
from collections import defaultdict
from collections.abc import Iterable
from dataclasses import asdict
from functools import partial
from itertools import pairwise
from multiprocessing import Pool
from pathlib import Path

from benchmarks.committed import told_against
from benchmarks.world.play import CURVE_MINUTES, Outcome, Product, played, type_of
from benchmarks.world.plot import reliability

BUILT_IN = ("fl7-u", "fl9-t", "wd8-h", "tl4-c", "tl6-s", "dd8-r")
# Machines of another kind, which the product never saw: an inverter drive at 120 V, a timer with heater and cutout.
OWN = tuple(str(Path(__file__).parent / "sheets" / f"{name}.yaml") for name in ("compact", "timed"))
SURE, SURER = 0.95, 0.99
JOBS, SEED = 400, 7


def main() -> None:
    """Play and print; every outcome goes into a file where one is named."""
    asked = argparse.ArgumentParser()
    asked.add_argument("sheets", nargs="*", default=[*BUILT_IN, *OWN])
    asked.add_argument("--jobs", type=int, default=JOBS)
    asked.add_argument("--seed", type=int, default=SEED)
    asked.add_argument("--figures-off", action="store_true", help="two parts in five 30 %% off the sheet on every job")
    asked.add_argument("--out", type=Path)
    asked.add_argument("--plot", type=Path)
    told = asked.parse_args()
    found = outcomes(told.sheets, told.jobs, told.seed, are_figures_off=told.figures_off)
    show(found)
    every = [row for rows in found.values() for row in rows]
    if told.out:
        told.out.write_text(json.dumps([asdict(row) | {"right": row.is_right} for row in every]), encoding="utf-8")
    if told.plot:
        told.plot.write_text(reliability([(row.stated, row.is_right) for row in every]), encoding="utf-8")


def bench() -> None:
    """Play all there is, print it, and tell what fell."""
    found = outcomes([*BUILT_IN, *OWN], JOBS, SEED)
    show(found)
    off = outcomes(list(BUILT_IN), JOBS // 5, SEED, are_figures_off=True)
    rows = [row for each in off.values() for row in each]
    wrong = sum(row.stated >= SURE and not row.is_right for row in rows)
    print(f"figures 30 % off: sure and wrong {wrong} of {len(rows)}, right {_share(rows)}\n")
    figures = {name: sum(row.is_right for row in rows) / len(rows) for name, rows in found.items()}
    told_against("world, right", figures, JOBS)


def outcomes(sheets: list[str], jobs: int, seed: int, *, are_figures_off: bool = False) -> dict[str, list[Outcome]]:
    """Return how the jobs of every sheet came out, sheets side by side on the processors."""
    with Pool() as pool:
        work = partial(_of_sheet, jobs=jobs, seed=seed, are_figures_off=are_figures_off)
        return {Path(name).stem: rows for name, rows in zip(sheets, pool.imap(work, sheets), strict=True)}


def _of_sheet(sheet: str, *, jobs: int, seed: int, are_figures_off: bool) -> list[Outcome]:
    kind_of, product = type_of(sheet), Product()
    try:
        # Other jobs on every sheet, by its name wherever it lies: one odd job must not count six times.
        first = seed * 1_000_003 + zlib.crc32(Path(sheet).stem.encode())
        seeds = range(first, first + jobs)
        return [played(kind_of, product, each, are_figures_off=are_figures_off) for each in seeds]
    finally:
        product.close()


def show(found: dict[str, list[Outcome]]) -> None:
    """Print a row a sheet, then what was right by minutes, by how sure it was, and by what was wrong."""
    every = [row for rows in found.values() for row in rows]
    curve = " | ".join(f"right at {minutes:g} min" for minutes in CURVE_MINUTES)
    print(f"| sheet | right | stated >= .95 | >= .99 | named | tests | min | min for a right one | {curve} |")
    print("|---|---|---|---|---|---|---|---|---|---|---|")
    for name, rows in [*found.items(), ("all", every)]:
        print(f"| {name} | {_row(rows)} |")
    _by_class(every)
    _by_statement(every)
    dead = [row for row in every if row.broken.group == "dead outlet"]
    print(f"\nof {len(dead)} dead outlets {sum(row.asked_outlet for row in dead)} were asked\n")


def _row(rows: list[Outcome]) -> str:
    right = sum(row.is_right for row in rows)
    sure, surer = (_share([row for row in rows if row.stated >= least]) for least in (SURE, SURER))
    minutes = sum(row.minutes for row in rows)
    named = sum(row.is_named for row in rows) / len(rows)
    tests = sum(row.tests for row in rows) / len(rows)
    led = [sum(row.led[at] == row.broken.part for row in rows) / len(rows) for at in range(len(CURVE_MINUTES))]
    figures = f"{right / len(rows):.3f} | {sure} | {surer} | {named:.2f} | {tests:.1f}"
    curve = " | ".join(f"{share:.2f}" for share in led)
    return f"{figures} | {minutes / len(rows):.1f} | {minutes / max(right, 1):.1f} | {curve}"


def _share(rows: list[Outcome]) -> str:
    return f"{sum(row.is_right for row in rows)} of {len(rows)}"


def _by_class(rows: Iterable[Outcome]) -> None:
    groups: dict[str, list[Outcome]] = defaultdict(list)
    for row in rows:
        groups[row.broken.group].append(row)
        if row.broken.group == "electrical":
            groups[f"{row.broken.group}: {row.broken.way}"].append(row)
    print("\n| what was wrong | right | sure and wrong |\n|---|---|---|")
    for name, found in sorted(groups.items()):
        wrong = sum(row.stated >= SURE and not row.is_right for row in found)
        print(f"| {name} | {_share(found)} | {wrong} |")


def _by_statement(rows: list[Outcome]) -> None:
    print("\n| stated | jobs | mean stated | right |\n|---|---|---|---|")
    edges = (0.0, 0.3, 0.5, 0.7, 0.9, SURE, SURER, 1.01)
    for lo, hi in pairwise(edges):
        inside = [row for row in rows if lo <= row.stated < hi]
        if inside:
            mean = sum(row.stated for row in inside) / len(inside)
            right = sum(row.is_right for row in inside) / len(inside)
            print(f"| {lo:g} to {min(hi, 1):g} | {len(inside)} | {mean:.3f} | {right:.3f} |")


if __name__ == "__main__":
    main()
