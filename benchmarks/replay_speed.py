"""Replaying a story: all of it, and a step late in it against one early; a story of readings, and one of records."""

from __future__ import annotations

import statistics
import time
from datetime import UTC, datetime

from tests.stories.told import do, proof, read

from ohmcensus.exchange.story_file import Story
from ohmcensus.services.transfer.replay import played

STEPS, EARLY, WIDTH = 2000, 200, 50
READINGS = [*proof(), *read("heater 26", "motor field 1.9", "cord pe 0.08", "cord insulation 50M", "valve coil 3700")]
RECORDS = [
    *proof(),
    do("strip_step", words="clamp off", fasteners=1),
    do("hazard_found", hazard="water_inside", words="wet base"),
    do("place_noted", hazard="water_inside", part="pump", words="hose clip"),
    {"leak_test": "-heater 50M"},
    do("changed", part="heater", intervention="replaced"),
    *read("heater earth 0.08", "heater pe 50M", "cord pe 0.08", "cord insulation 50M"),
    do("step_ticked", step="taps"),
    do("checked", check="cord", outcome="good"),
]


def story(pattern: list[dict[str, object]]) -> Story:
    """Return a long story that repeats a pattern."""
    steps = (pattern * (STEPS // len(pattern) + 1))[:STEPS]
    return Story.model_validate({"sheet": "fl7-u", "at": datetime(2026, 1, 5, 8, tzinfo=UTC), "steps": steps})


def main() -> None:
    """Print seconds of the whole, and milliseconds of a step early and late."""
    for title, pattern in (("readings", READINGS), ("records", RECORDS)):
        took, last = [], time.perf_counter()
        for _ in played(story(pattern)):
            now = time.perf_counter()
            took.append(now - last)
            last = now
        early = 1000 * statistics.mean(took[EARLY - WIDTH : EARLY + WIDTH])
        late = 1000 * statistics.mean(took[-2 * WIDTH :])
        print(
            f"replay of {STEPS} steps, {title}: {sum(took):.1f} s; a step at {EARLY} {early:.2f} ms, "
            f"at {STEPS} {late:.2f} ms, {late / early:.2f} times"
        )


if __name__ == "__main__":
    main()
