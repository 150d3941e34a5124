"""What may be wrong: single faults, doubles that occur together, what is not electrical, and nothing at all."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

from ohmcensus.core.machine.likely import LikelyFault, is_of_earth, likely_faults
from ohmcensus.core.machine.netlist import PartFault
from ohmcensus.core.parts.fault import FaultMode
from ohmcensus.core.sheet import Part, Sheet

# Share of all jobs on which nothing is found, and of doubles beside their first fault (ours).
NOTHING_SHARE = 0.03
DOUBLE_SHARE = 0.03


@dataclass(frozen=True, slots=True)
class Hypothesis:
    """One way in which the machine may be faulty.

    Parameters
    ----------
    parts
        What would be repaired; empty for nothing found.
    faults
        What is wrong electrically; empty for what is not electrical, and for nothing found.
    weight
        How often, against all others.
    look
        The check by eye or hand that shows a mechanical fault of an electrical part; empty for all others.
    """

    parts: tuple[str, ...]
    faults: tuple[PartFault, ...]
    weight: float
    look: str = ""

    @property
    def is_nothing(self) -> bool:
        """Whether it says that the machine is sound."""
        return not self.parts

    @property
    def modes(self) -> tuple[FaultMode | None, ...]:
        """Mode by part; None for what is not electrical."""
        return tuple(fault.mode for fault in self.faults) or (None,) * len(self.parts)


def hypotheses(sheet: Sheet) -> tuple[Hypothesis, ...]:
    """Return everything that may be wrong with a machine; *nothing* stands last."""
    likely = likely_faults(sheet)
    singles = [Hypothesis((row.part,), (row.fault,) if row.fault else (), row.weight, row.look) for row in likely]
    doubles = [*_doubles(sheet, likely), *_on_a_broken_earth(sheet, likely)]
    total = sum(row.weight for row in (*singles, *doubles))
    return (*singles, *doubles, Hypothesis((), (), NOTHING_SHARE * total))


def _doubles(sheet: Sheet, likely: tuple[LikelyFault, ...]) -> Iterator[Hypothesis]:
    """Yield faults of which one takes the other with it: a short burns the contact that feeds it."""
    for first in sheet.parts:
        for row in first.part_kind.brings:
            one = _fault(likely, first, row.own)
            for second in (part for part in sheet.parts if part.kind == row.kind):
                other = _fault(likely, second, row.other)
                if one and other and other.fault:
                    faults = (one.fault, other.fault) if one.fault else (other.fault,)
                    yield Hypothesis((first.id, second.id), faults, DOUBLE_SHARE * one.weight)


def _on_a_broken_earth(sheet: Sheet, likely: tuple[LikelyFault, ...]) -> Iterator[Hypothesis]:
    """Yield leaks that no device sees, since the earth of the cord is broken: they tingle and do not trip."""
    earths = [row for row in likely if row.fault and is_of_earth(row.fault) and row.fault.mode is FaultMode.OPEN]
    parts = {part.id for part in sheet.parts if part.chassis}
    for earth in earths:
        for leak in likely:
            is_leak = leak.fault is not None and leak.fault.mode is FaultMode.LEAK
            if earth.fault and leak.fault and is_leak and leak.part in parts - {earth.part}:
                yield Hypothesis((earth.part, leak.part), (earth.fault, leak.fault), DOUBLE_SHARE * leak.weight)


def _fault(likely: tuple[LikelyFault, ...], part: Part, mode: FaultMode | None) -> LikelyFault | None:
    rows = [row for row in likely if row.part == part.id and not row.look]
    return next((row for row in rows if (row.fault.mode if row.fault else None) is mode), None)
