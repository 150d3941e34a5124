"""Ten thousand random histories of a job: the core's answers against SAFETY's tables said the long way.

Neither knows the other's rules; what they agree on is counted by rule, so that agreement on nothing shows. Both are
told the same, and state, dangers, what is taken and what is refused are held against each other after each record.
"""

from __future__ import annotations

import multiprocessing
import random
import sys
import time
from dataclasses import dataclass

from tests.second.rules import counts_of
from tests.second.scenes import told

HISTORIES, SEED, LEAST = 10_000, 15, 200
AT_ONCE = 250


@dataclass(frozen=True)
class Part:
    """What some histories came to: how many acts, what decided in each, where core and definition parted."""

    acts: int
    decided: tuple[frozenset[str], ...]
    parted: tuple[str, ...]


def played(seed: int, many: int) -> Part:
    """Play some histories."""
    chance = random.Random(seed)  # noqa: S311 - no secret
    acts, decided, parted = 0, list[frozenset[str]](), list[str]()
    for _ in range(many):
        history = told(chance)
        acts += len(history.said)
        if difference := history.differs():
            parted.append(f"{difference}\n  {[f'{row.what}@{row.device}'.rstrip('@') for row in history.said]}")
        decided.append(history.decided)
    return Part(acts, tuple(decided), tuple(parted))


def main(count: int = HISTORIES) -> None:
    """Print every difference, and how often each rule decided something; those under the least are marked."""
    begun = time.perf_counter()
    work = [(SEED + place, min(AT_ONCE, count - place)) for place in range(0, count, AT_ONCE)]
    with multiprocessing.Pool() as pool:
        parts = pool.starmap(played, work)
    wrong = [row for part in parts for row in part.parted]
    print(*wrong, sep="\n", end="\n" if wrong else "")
    seconds = time.perf_counter() - begun
    acts = sum(part.acts for part in parts)
    print(f"safety: {count} histories, {acts} acts accepted, {len(wrong)} differences, {seconds:.0f} s")
    least = LEAST * count / HISTORIES
    for rule, many in counts_of([row for part in parts for row in part.decided]).items():
        print(f"  {many:6d} {rule}{'' if many >= least else '  (rare)'}")


if __name__ == "__main__":
    main(int(sys.argv[1]) if len(sys.argv) > 1 else HISTORIES)
