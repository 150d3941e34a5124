"""The figures of truth as they were last committed, and which of them fell."""

from __future__ import annotations

import json
import math
from collections.abc import Mapping
from pathlib import Path

FIGURES = Path(__file__).with_name("figures.json")
# A share that is this many of its standard errors lower than the committed one fell; less may be chance.
FELL = 2.0


def told_against(title: str, figures: Mapping[str, float], jobs: int) -> None:
    """Print what fell against the committed figures of that title, and what to commit instead.

    Parameters
    ----------
    title
        Which figures.
    figures
        Shares by name.
    jobs
        How many jobs each share was counted on.
    """
    known = json.loads(FIGURES.read_text(encoding="utf-8")) if FIGURES.exists() else {}
    before: dict[str, float] = known.get(title, {})
    fell = {
        name: (before[name], share)
        for name, share in figures.items()
        if name in before and before[name] - share > FELL * math.sqrt(2 * share * (1 - share) / jobs)
    }
    for name, (was, now) in fell.items():
        print(f"FELL: {title}, {name}: {was:.3f} committed, {now:.3f} now")
    if not fell:
        print(f"{title}: nothing fell against benchmarks/figures.json")
    print(f"figures: {json.dumps({title: {name: round(share, 3) for name, share in figures.items()}})}")
