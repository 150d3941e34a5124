"""Every line of every sheet can be settled by the meters of the bag: none is *unsure* at whatever they show."""

from __future__ import annotations

import math

import pytest

from ohmcensus.core.errors import OhmcensusError
from ohmcensus.core.judgement import choose_use, judge
from ohmcensus.core.judgement.verdict import Verdict
from ohmcensus.core.machine import MachineTest, machine_tests
from ohmcensus.core.meter import GENERIC_METERS, Meter
from ohmcensus.core.quantity import show_value
from ohmcensus.services.at_hand.sheets import all_sheets

BAG = (GENERIC_METERS[0], GENERIC_METERS[2])
# Three figures a decade from a microunit to a gigaunit, nothing at all, and over the range.
GRID = [mantissa * 10.0**power for power in range(-6, 10) for mantissa in (1.0, 2.2, 4.7)]
SETTLED = frozenset({Verdict.INSIDE, Verdict.NOT_JUDGED})


def figures(test: MachineTest) -> list[str]:
    """Return what a meter might show on a line: figures about its window, of every size, and one that moves."""
    ends = [end for end in (test.window.interval.lo, test.window.interval.hi) if math.isfinite(end)]
    near = [end * share for end in ends for share in (0.2, 0.5, 0.9, 1.1, 2.0, 5.0)] + [sum(ends) / max(len(ends), 1)]
    shown = [show_value(value, test.window.unit, figures=3) for value in (*near, *GRID) if value > 0]
    exact = [f"{value:#.3g} {test.window.unit.symbol}" for value in near if 1 <= value < 1000]
    moving = ["0.2..4.8"] if test.window.rails else []
    return [*dict.fromkeys((*shown, *exact, *moving)), "0", "OL"]


def verdicts(test: MachineTest, meter: Meter) -> set[Verdict]:
    found = set[Verdict]()
    for text in figures(test):
        try:
            use = choose_use(text, test, [meter], function=test.function)
        except OhmcensusError:
            continue
        found.add(judge(use, test).verdict)
    return found


@pytest.mark.parametrize("meter", BAG, ids=lambda meter: meter.id)
def test_no_line_is_unsure_at_every_figure_that_a_meter_can_show(meter: Meter) -> None:
    unsure = [
        f"{sheet.id} {test.id}"
        for sheet in all_sheets().values()
        for test in machine_tests(sheet, 20.0)
        if (found := verdicts(test, meter)) and not found & SETTLED
    ]
    assert unsure == []
