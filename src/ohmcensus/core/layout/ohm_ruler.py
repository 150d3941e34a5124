"""The ohm ruler: 0.1 Ω to 1 GΩ, logarithmic; windows as bands, readings as pins.

All positions are fractions of the ruler's width, 0 at 0.1 Ω and 1 at 1 GΩ.
"""

from __future__ import annotations

import math
from collections.abc import Iterable
from dataclasses import dataclass
from functools import lru_cache

from ohmcensus.core.job.case import Case
from ohmcensus.core.judgement.census_sheet import Answer, CensusLine
from ohmcensus.core.judgement.verdict import Verdict
from ohmcensus.core.machine import MachineTest, machine_tests
from ohmcensus.core.quantity import Bound, Unit, show_indication
from ohmcensus.core.sheet import Sheet

LOWEST_OHM = 0.1
DECADES = 10
# Where over-range stands.
END_OHM = LOWEST_OHM * 10**DECADES
# A window over this factor says little more than "a load": it is drawn only while its line is in question.
WIDE_FROM = 3000.0
LEVELS = 3
# Room that a label takes beside its pin, as a fraction of the ruler at a laptop's width (our choice).
LABEL_ROOM = 0.062


@dataclass(frozen=True, slots=True)
class Tick:
    """A decade's mark with its label, or a mark between decades with none."""

    x: float
    label: str


@dataclass(frozen=True, slots=True)
class Band:
    """The window of one line, from ``x0`` to ``x1``; open at an end that lies beyond the ruler."""

    line: str
    x0: float
    x1: float
    label: str
    is_wide: bool = False


@dataclass(frozen=True, slots=True)
class Pin:
    """One reading: where it stands, its label and the level at which that is written.

    ``towards`` is the nearer end of the window for a reading outside it, None otherwise; ``beyond``
    tells that the reading is one-sided, its truth to the right (1) or to the left (-1).
    """

    line: str
    x: float
    label: str
    level: int
    verdict: Verdict
    towards: float | None
    beyond: int


@dataclass(frozen=True, slots=True)
class OhmRuler:
    """Everything on the ruler."""

    ticks: tuple[Tick, ...]
    bands: tuple[Band, ...]
    pins: tuple[Pin, ...]


def position(ohms: float) -> float:
    """Return where a resistance stands, 0 to 1; what lies beyond an end stands at that end."""
    if ohms <= LOWEST_OHM:
        return 0.0
    return min(1.0, math.log10(ohms / LOWEST_OHM) / DECADES)


def ohm_ruler(case: Case, lines: Iterable[CensusLine]) -> OhmRuler:
    """Lay out the ruler of a case and its census lines: only what reads in ohms stands on it."""
    answered = [(line_key(line), line.answer) for line in lines if line.answer and _is_ohm(line.answer)]
    return OhmRuler(_TICKS, _bands(case.sheet), _levelled([_pin(key, answer) for key, answer in answered]))


def line_key(line: CensusLine) -> str:
    """Return the name of a line: its test's id, or both points."""
    return line.test.id if line.test else " ".join(line.between)


def _ticks() -> tuple[Tick, ...]:
    """Return the decades with labels and their 2 and 5 without."""
    labels = ("0.1 Ω", "1", "10", "100", "1k", "10k", "100k", "1M", "10M", "100M", "1G")
    ticks = []
    for decade, label in enumerate(labels):
        ticks.append(Tick(decade / DECADES, label))
        if decade < DECADES:
            ticks += [Tick((decade + math.log10(step)) / DECADES, "") for step in range(2, 10)]
    return tuple(ticks)


_TICKS = _ticks()


def _is_ohm(answer: Answer) -> bool:
    return answer.reading.indication.unit is Unit.OHM


@lru_cache(maxsize=64)
def _bands(sheet: Sheet) -> tuple[Band, ...]:
    """Return the windows of all tests that read in ohms."""
    return tuple(_band(test) for test in machine_tests(sheet, None) if test.window.unit is Unit.OHM)


def _band(test: MachineTest) -> Band:
    """Return the band of a test's window."""
    label = f"{test.part_title}, {test.title}: {test.window.shown}"
    ends = test.window.interval
    is_wide = ends.lo > 0 and ends.hi / ends.lo > WIDE_FROM and math.isfinite(ends.hi)
    return Band(test.id, position(ends.lo), position(ends.hi), label, is_wide=is_wide)


def _pin(key: str, answer: Answer) -> Pin:
    """Return the pin of an answer, its level still 0."""
    indication, judgement = answer.reading.indication, answer.judgement
    value = answer.reading.meter.full_scale(answer.reading.function) if indication.value is None else indication.value
    beyond = {Bound.ABOVE: 1, Bound.BELOW: -1, Bound.EXACT: 0}[indication.bound]
    towards = None
    if judgement.window and judgement.verdict.is_outside:
        ends = judgement.window.interval
        towards = position(ends.lo if value < ends.lo else ends.hi)
    label = show_indication(indication).removesuffix("Ω").replace(" to ", "–").replace(" ", "")
    return Pin(key, position(value), label, 0, judgement.verdict, towards, beyond)


def _levelled(pins: list[Pin]) -> tuple[Pin, ...]:
    """Return the pins from left to right, each label on the lowest level where it does not cover another."""
    ends = [-1.0] * LEVELS
    placed = []
    for pin in sorted(pins, key=lambda p: p.x):
        level = next((i for i, end in enumerate(ends) if pin.x >= end), ends.index(min(ends)))
        ends[level] = pin.x + LABEL_ROOM
        placed.append(Pin(pin.line, pin.x, pin.label, level, pin.verdict, pin.towards, pin.beyond))
    return tuple(placed)
