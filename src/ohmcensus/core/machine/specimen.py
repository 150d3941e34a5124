"""Healthy machines of one type: each part somewhere in what a good one reads."""

from __future__ import annotations

import math
from collections.abc import Mapping
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from ohmcensus.core.machine.netlist import ends_of, nominal_of
from ohmcensus.core.parts.element import OPEN_OHM, Element
from ohmcensus.core.sheet import Part, Sheet

Array = NDArray[np.float64]
# Between the ends of a window lie four standard deviations of the logarithm; where it has one end only,
# good parts lie within a factor e^±1 of the nominal (ours).
DEVIATIONS_IN_WINDOW = 4.0
ONE_SIDED_DEVIATION = 0.5
# Scatter of what no window speaks of, as a standard deviation of the logarithm (ours).
INSULATION_OHM = 1e9
INSULATION_DEVIATION = 1.0
CONTACT_BELOW_OHM = 0.5
CONTACT_DEVIATION = 0.2
OTHER_DEVIATION = 0.03


@dataclass(frozen=True, slots=True)
class Specimens:
    """Healthy machines with every contact closed: arrays [specimen] by branch; farad only of capacitors."""

    count: int
    ohm: Mapping[str, Array]
    henry: Mapping[str, Array]
    farad: Mapping[str, Array]
    open_contact_ohm: Array


def specimens(sheet: Sheet, count: int, generator: np.random.Generator) -> Specimens:
    """Draw healthy machines.

    A part's own tests say where its values lie: each is drawn from a normal distribution of the logarithm,
    cut off at the ends of the window. What no test asks scatters by its size.

    Parameters
    ----------
    sheet
        The machine's type.
    count
        How many.
    generator
        Where chance comes from.
    """
    ohm: dict[str, Array] = {}
    henry: dict[str, Array] = {}
    farad: dict[str, Array] = {}
    for part in sheet.parts:
        drawn = _Drawn(part, count, generator)
        plain = part.part_kind.elements(part.ratings, drawn.nominal)
        others = drawn.elements() or [plain]
        for place, element in enumerate(plain):
            alike = [row[place] for row in others]
            for at, branch in enumerate(element.branches):
                name = f"{part.id}.{branch.id}"
                ohm[name] = _scattered(alike, at, branch.ohm, generator.standard_normal(count))
                henry[name] = np.full(count, [row.branches[at].henry for row in alike])
                if branch.farad is not None:
                    own = np.full(count, [row.branches[at].farad for row in alike], dtype=np.float64)
                    chance = generator.standard_normal(count)
                    farad[name] = own if np.ptp(own) > 0 else own * np.exp(OTHER_DEVIATION * chance)
    return Specimens(count, ohm, henry, farad, OPEN_OHM * np.exp(generator.standard_normal(count)))


class _Drawn:
    """Values of one part's tests in every specimen, drawn when they are asked for."""

    def __init__(self, part: Part, count: int, generator: np.random.Generator) -> None:
        self._specs = {spec.name: spec for spec in part.tests()}
        self._part, self._count, self._generator = part, count, generator
        self._values: dict[str, Array] = {}

    def nominal(self, test: str) -> float:
        """Return the most likely value, and draw the others."""
        middle = nominal_of(self._part, self._specs[test])
        if test not in self._values:
            self._values[test] = self._draw(test, middle)
        return middle

    def elements(self) -> list[tuple[Element, ...]]:
        """Return the part in every specimen; empty where it is built of nothing that was drawn."""
        if not self._values:
            return []
        kind, ratings = self._part.part_kind, self._part.ratings
        return [kind.elements(ratings, _OneSpecimen(self._values, index)) for index in range(self._count)]

    def _draw(self, test: str, middle: float) -> Array:
        from scipy.special import ndtr, ndtri  # noqa: PLC0415 - a third of a second to load, and no page needs it before its first suspects

        lo, hi = ends_of(self._part, self._specs[test])
        chance = self._generator.random(self._count)
        if not (lo > 0 and math.isfinite(hi) and lo < hi):
            return np.asarray(middle * np.exp(ONE_SIDED_DEVIATION * ndtri(0.02 + 0.96 * chance)), dtype=np.float64)
        deviation = math.log(hi / lo) / DEVIATIONS_IN_WINDOW
        below, above = (ndtr(math.log(end / middle) / deviation) for end in (lo, hi))
        return np.asarray(middle * np.exp(deviation * ndtri(below + (above - below) * chance)), dtype=np.float64)


@dataclass(frozen=True, slots=True)
class _OneSpecimen:
    values: Mapping[str, Array]
    index: int

    def __call__(self, test: str) -> float:
        return float(self.values[test][self.index])


def _scattered(alike: list[Element], at: int, plain: float, chance: Array) -> Array:
    """Return a resistance in every specimen: as the tests have it, or scattered by its size."""
    own = np.full(chance.size, [row.branches[at].ohm for row in alike])
    if np.ptp(own) > 0:
        return own
    if plain >= INSULATION_OHM:
        return np.asarray(own * np.exp(INSULATION_DEVIATION * chance), dtype=np.float64)
    deviation = CONTACT_DEVIATION if plain < CONTACT_BELOW_OHM else OTHER_DEVIATION
    return np.asarray(own * np.exp(deviation * chance), dtype=np.float64)
