"""Ten thousand random histories of a job: the core's state, dangers and power against the tables said the long way.

Neither knows the other's rules; what they agree on is counted by state and danger, so that agreement on nothing shows.
"""

from __future__ import annotations

import random
import sys
import time
from collections import Counter

from tests.core.histories import ACTS, READINGS, History
from tests.core.longhand import SERIES

from ohmcensus.services.at_hand.sheets import find_sheet

HISTORIES, SEED, LONGEST = 10_000, 15, 24
SETS: tuple[tuple[str | int, ...], ...] = (
    ("isolated", *SERIES),
    ("isolated", *SERIES),
    SERIES,
    ("cord pe 0.08", "cord insulation 50M"),
    ("cord pe >20", "cord pe 0.08", 61, "cord pe 0.08", 61, "cord pe 0.08"),
    ("cord insulation 0.02M", "cord insulation 50M", 61, "cord insulation 50M", 50, "cord insulation 50M"),
    ("outlet 231", "outlet le 231", "outlet ne 0.4"),
)


def told(chance: random.Random) -> History:
    """Return one random history."""
    history, device = History(find_sheet("fl7-u")), ""
    for _ in range(chance.randint(1, LONGEST)):
        roll = chance.random()
        device = chance.choice(["", "phone"]) if chance.random() < 0.15 else device
        if roll < 0.3:
            for act in chance.choice(SETS):
                if isinstance(act, int):
                    history.wait(act)
                else:
                    history.tell(act, device=device)
        elif roll < 0.6:
            history.tell(chance.choice(sorted(ACTS)), device=device)
        elif roll < 0.9:
            history.tell(chance.choice(READINGS), override=chance.random() < 0.3, device=device)
        elif roll < 0.93:
            history.tell("withdraw", device=device)
        else:
            history.wait(chance.randint(1, 700))
    return history


def main(count: int = HISTORIES) -> None:
    """Print what was agreed on, and every difference."""
    chance = random.Random(SEED)  # noqa: S311 - no secret
    states, dangers, refusals, wrong, acts = Counter[str](), Counter[str](), Counter[str](), 0, 0
    begun = time.perf_counter()
    for _ in range(count):
        history = told(chance)
        acts += len(history.said)
        refusals.update(history.refusals)
        states[history.safety.state] += 1
        dangers.update(row.id.value for row in history.safety.dangers)
        if difference := history.differs():
            wrong += 1
            print(difference, [f"{said.what}@{said.device}".rstrip("@") for said in history.said], sep="\n  ")
    seconds = time.perf_counter() - begun
    print(f"safety: {count} histories, {acts} acts accepted, {wrong} differences, {seconds:.0f} s")
    print(f"  states at the end: {dict(states)}")
    print("  refused by:", *(f"{name} {count}" for name, count in refusals.most_common()), sep="\n    ")
    print(f"  dangers at the end: {dict(dangers)}")


if __name__ == "__main__":
    main(int(sys.argv[1]) if len(sys.argv) > 1 else HISTORIES)
