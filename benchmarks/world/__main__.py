"""Play this world, ``python -m benchmarks.world [SHEET…] [--jobs N] [--seed K]``: a row a sheet, then by class."""

from __future__ import annotations

import argparse
import json
from collections import defaultdict
from collections.abc import Iterable
from dataclasses import asdict
from pathlib import Path

from benchmarks.world.play import Outcome, Product, played, type_of

BUILT_IN = ("fl7-u", "fl9-t", "wd8-h", "tl4-c", "tl6-s", "dd8-r")
# Machines of another kind, which the product never saw: an inverter drive at 120 V, a timer with heater and cutout.
OWN = tuple(str(Path(__file__).parent / "sheets" / f"{name}.yaml") for name in ("compact", "timed"))
SURE = 0.95


def main() -> None:
    """Play and print; every outcome goes into a file where one is named."""
    asked = argparse.ArgumentParser()
    asked.add_argument("sheets", nargs="*", default=[*BUILT_IN, *OWN])
    asked.add_argument("--jobs", type=int, default=150)
    asked.add_argument("--seed", type=int, default=1)
    asked.add_argument("--figures-off", action="store_true", help="two parts in five 30 %% off the sheet on every job")
    asked.add_argument("--out", type=Path)
    told = asked.parse_args()
    every: list[Outcome] = []
    print(
        "| sheet | right | stated >= .95: right | >= .99: right | named | tests | minutes | minutes for a right one |"
    )
    print("|---|---|---|---|---|---|---|---|")
    product = Product()
    for sheet in told.sheets:
        kind_of = type_of(sheet)
        seeds = range(told.seed * 1_000_003, told.seed * 1_000_003 + told.jobs)
        rows = [played(kind_of, product, seed, are_figures_off=told.figures_off) for seed in seeds]
        every += rows
        print(f"| {Path(sheet).stem} | {_row(rows)} |", flush=True)
    product.close()
    print(f"| all | {_row(every)} |\n")
    _by_group(every)
    if told.out:
        told.out.write_text(json.dumps([asdict(row) | {"right": row.is_right} for row in every]), encoding="utf-8")


def _row(rows: list[Outcome]) -> str:
    right = sum(row.is_right for row in rows)
    sure, surer = (_share([row for row in rows if row.stated >= least]) for least in (SURE, 0.99))
    minutes = sum(row.minutes for row in rows)
    figures = f"{right / len(rows):.3f} | {sure} | {surer} | {sum(row.is_named for row in rows) / len(rows):.2f}"
    tests = sum(row.tests for row in rows) / len(rows)
    return f"{figures} | {tests:.1f} | {minutes / len(rows):.1f} | {minutes / max(right, 1):.1f}"


def _share(rows: list[Outcome]) -> str:
    return f"{sum(row.is_right for row in rows)} of {len(rows)}"


def _by_group(rows: Iterable[Outcome]) -> None:
    groups: dict[str, list[Outcome]] = defaultdict(list)
    for row in rows:
        groups[row.broken.group].append(row)
        if row.broken.way:
            groups[f"{row.broken.group}: {row.broken.way}"].append(row)
    print("| what was wrong | right | sure and wrong |\n|---|---|---|")
    for name, found in sorted(groups.items()):
        wrong = sum(row.stated >= SURE and not row.is_right for row in found)
        print(f"| {name} | {_share(found)} | {wrong} |")
    dead = groups.get("dead outlet", [])
    print(f"\nof {len(dead)} dead outlets {sum(row.asked_outlet for row in dead)} were asked")


if __name__ == "__main__":
    main()
