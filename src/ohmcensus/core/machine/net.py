"""Which points of a machine mains can come to, which are earth, and what lies between two of them."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Iterable
from dataclasses import dataclass
from enum import StrEnum
from functools import lru_cache

from ohmcensus.core.machine.netlist import elements_of
from ohmcensus.core.parts.element import CHASSIS, Element
from ohmcensus.core.sheet import Sheet

# A branch of more than this is insulation, and an open contact is none (ours).
INSULATION_FROM_OHM = 1e8
PLUG_L, PLUG_N, PLUG_PE = "cord.plug_l", "cord.plug_n", "cord.plug_pe"
_EARTHS = frozenset({"pe", "plug_pe", "end_pe", "strap"})
# Points that lie before the machine: a reading from one of them to earth is the whole machine's.
_WHOLE = frozenset({"outlet", "cord", "supply"})


class Crossing(StrEnum):
    """What lies between two points."""

    EARTH = "earth"
    INSULATION = "insulation"
    OTHER = "other"


@dataclass(frozen=True, slots=True)
class Nets:
    """Points that mains comes to in some state through anything but insulation, and points that are earth."""

    mains: frozenset[str]
    earth: frozenset[str]

    def crossing(self, between: tuple[str, str]) -> Crossing:
        """Return what lies between two points."""
        earths = sum(point in self.earth for point in between)
        if earths == len(between):
            return Crossing.EARTH
        if earths == 1 and any(point in self.mains for point in between):
            return Crossing.INSULATION
        return Crossing.OTHER


@lru_cache(maxsize=64)
def nets_of(sheet: Sheet) -> Nets:
    """Return the nets of a sheet.

    Notes
    -----
    Every contact counts as closed, so that a point which mains reaches in any state is found; the walk stops at
    earth, behind which everything would be reached through the capacitors of the filter.
    """
    joined = joined_points(sheet)
    named = {point for point in (*sheet.points, CHASSIS) if point == CHASSIS or point.rpartition(".")[2] in _EARTHS}
    earth = {point for start in named for point in joined.get(start, {start})} | named
    ways: dict[str, set[str]] = defaultdict(set)
    for part in sheet.parts:
        for element in elements_of(sheet, part.id):
            for a, b in _conducting(element):
                one, other = part.point(a), part.point(b)
                ways[one].add(other)
                ways[other].add(one)
    live = _reached(("outlet.l", "outlet.n", PLUG_L, PLUG_N), ways, joined, earth)
    return Nets(frozenset(live), frozenset(earth))


def is_whole(point: str) -> bool:
    """Tell whether a point lies before the machine, at its plug or supply."""
    return point.partition(".")[0] in _WHOLE


def _conducting(element: Element) -> Iterable[tuple[str, str]]:
    for branch in element.branches:
        if branch.id == element.contact or branch.farad is not None or branch.ohm < INSULATION_FROM_OHM:
            yield branch.a, branch.b


def joined_points(sheet: Sheet) -> dict[str, set[str]]:
    """Return for every point the points that wires join to it."""
    found: dict[str, set[str]] = {}
    for pins in sheet.nets.values():
        group = set(pins).union(*(found[pin] for pin in pins if pin in found))
        for pin in group:
            found[pin] = group
    return found


def _reached(
    starts: Iterable[str], ways: dict[str, set[str]], joined: dict[str, set[str]], barrier: set[str]
) -> set[str]:
    live: set[str] = set()
    waiting = [start for start in starts if start not in barrier]
    while waiting:
        point = waiting.pop()
        if point in live or point in barrier:
            continue
        live.add(point)
        waiting += [*ways.get(point, ()), *joined.get(point, ())]
    return live
