"""Jobs with two faults that have nothing to do with one another: both named, or one after the other.

python -m benchmarks.world.two --jobs 50 --seed 7
"""

from __future__ import annotations

import argparse
import zlib
from collections import Counter
from dataclasses import dataclass
from functools import partial
from multiprocessing import Pool

import numpy as np

from benchmarks.world.__main__ import BUILT_IN, SEED
from benchmarks.world.breaks import Break
from benchmarks.world.job import Job
from benchmarks.world.play import Product, Type, World, drawn, type_of

JOBS = 50
# The technician's minutes of search until the first change, and for all of the job.
BEFORE, ALTOGETHER = 45.0, 90.0


@dataclass(frozen=True)
class Two:
    """How a job with two faults went.

    Parameters
    ----------
    are_both_named
        Whether both were named before anything was changed.
    found
        How many of both were named and changed by the end.
    wrong
        Parts that were named though nothing was wrong with them.
    most
        How often one test was asked at most, nothing having been changed between.
    minutes
        Of search, repairs not counted.
    endings
        How the search stood, from change to change.
    """

    are_both_named: bool
    found: int
    wrong: tuple[str, ...]
    most: int
    minutes: float
    endings: tuple[str, ...]


def main() -> None:
    """Play and print a row a sheet."""
    asked = argparse.ArgumentParser()
    asked.add_argument("--jobs", type=int, default=JOBS)
    asked.add_argument("--seed", type=int, default=SEED)
    told = asked.parse_args()
    show(outcomes(told.jobs, told.seed))


def outcomes(jobs: int, seed: int) -> dict[str, list[Two]]:
    """Return how the jobs of every built-in sheet came out."""
    with Pool() as pool:
        rows = pool.imap(partial(_of_sheet, jobs=jobs, seed=seed), BUILT_IN)
        return dict(zip(BUILT_IN, rows, strict=True))


def show(found: dict[str, list[Two]]) -> None:
    """Print what was named, found and wrong."""
    print("| sheet | both named | one named first | the other found after | sure and wrong | asked at most | minutes |")
    print("|---|---|---|---|---|---|---|")
    rows = [row for each in found.values() for row in each]
    for name, own in [*found.items(), ("all", rows)]:
        first = [row for row in own if row.found and not row.are_both_named]
        after = sum(row.found > 1 for row in first)
        both, wrong = sum(row.are_both_named for row in own), sum(bool(row.wrong) for row in own)
        minutes = float(np.mean([row.minutes for row in own]))
        most, total = max(row.most for row in own), len(own)
        print(f"| {name} | {both / total:.2f} | {len(first)} | {after} | {wrong} of {total} | {most} | {minutes:.1f} |")
    print(f"\nendings: {dict(Counter(ending for row in rows for ending in row.endings))}")


def _of_sheet(sheet: str, *, jobs: int, seed: int) -> list[Two]:
    kind_of, product = type_of(sheet), Product()
    try:
        first = seed * 1_000_003 + zlib.crc32(sheet.encode())
        return [played(kind_of, product, each) for each in range(first, first + jobs)]
    finally:
        product.close()


def drawn_two(kind_of: Type, chance: np.random.Generator) -> tuple[Break, Break]:
    """Draw two electrical faults of different parts, each told by a symptom of its own."""
    found: list[Break] = []
    while len(found) < 2:
        row = drawn(kind_of, chance)
        if row.group == "electrical" and all(row.part != other.part and row.told != other.told for other in found):
            found.append(row)
    return found[0], found[1]


def played(kind_of: Type, product: Product, seed: int) -> Two:
    """Play one job: what is named is changed, one part at a time, until it runs through or time is over."""
    chance = np.random.default_rng(seed)
    both = drawn_two(kind_of, chance)
    world = World(kind_of, both[0], chance, also=both[1])
    job = Job(kind_of.plain["id"], tuple(row.told for row in both), None)
    parts = {row.part for row in both}
    minutes, is_changed, most, found, wrong = 0.0, False, 0, set[str](), list[str]()
    made, endings, are_both = Counter[str](), list[str](), False
    answer = product.asked(job)
    while (following := answer["next"]) and minutes < (ALTOGETHER if is_changed else BEFORE):
        if following["kind"] == "service":
            break
        if following["kind"] == "repair":
            endings.append(answer["standing"])
            are_both |= not is_changed and set(answer["named"]) == parts
            wrong += [part for part in answer["named"] if part not in parts and part not in wrong]
            found |= {following["part"]} & parts & set(answer["named"])
            world.mended(job, following["part"])
            is_changed = True
            made.clear()
        else:
            asked = [following["test"], *following["also"]]
            minutes += following["minutes"]
            # What is stamped on a part is no test made again.
            made.update(asked if following["kind"] != "plate" else ())
            most = (
                max(most, *(made[name] for name in asked if name != "machine.run"))
                if asked != ["machine.run"]
                else most
            )
            for name in asked:
                world.plate(job, following) if following["kind"] == "plate" else world.answer(job, name)
        answer = product.asked(job)
    endings.append(answer["standing"])
    return Two(are_both, len(found), tuple(wrong), most, minutes, tuple(endings))


if __name__ == "__main__":
    main()
