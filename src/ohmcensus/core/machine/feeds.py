"""What hangs on a contact or a lead, by the nets of the machine."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Iterator
from functools import lru_cache

from ohmcensus.core.machine.coverage import WIRE_OHM
from ohmcensus.core.machine.net import PLUG_L, PLUG_N, joined_points
from ohmcensus.core.machine.netlist import elements_of
from ohmcensus.core.parts.element import Element
from ohmcensus.core.parts.fault import FaultMode
from ohmcensus.core.sheet import Part, Sheet

_SUPPLY = ("outlet.l", "outlet.n", PLUG_L, PLUG_N)


@lru_cache(maxsize=2048)
def fed_part(sheet: Sheet, part_id: str, element_name: str) -> str | None:
    """Return the part whose load hangs on a contact or a lead; None where none does, or more than one.

    Parameters
    ----------
    sheet
        The machine's type.
    part_id, element_name
        Whose contact or lead: ("board", "out_pump"), ("harness", "heater").

    Notes
    -----
    From either end of the contact the walk follows wires and closed contacts and stops at loads. The end from which
    the supply is not reached is the fed one: what is open there takes the supply from every load that was met.
    """
    part = sheet.known_part(part_id)
    element = next((row for row in elements_of(sheet, part_id) if row.name == element_name), None)
    if element is None or _is_load(element):
        return None
    first = element.branches[0]
    own = f"{part_id}.{first.id}"
    for end in (first.a, first.b):
        met = _walked(sheet, part.point(end), own)
        if not met & set(_SUPPLY):
            loads = {row.id for row in sheet.parts if row is not part and load_points(sheet, row) & met}
            if loads:
                return loads.pop() if len(loads) == 1 else None
    return None


def far_ends(sheet: Sheet, part_id: str, start: str) -> tuple[str, ...]:
    """Return the ends of the loads of a part that wires and closed contacts do not join to a point.

    Parameters
    ----------
    sheet
        The machine's type.
    part_id
        Whose loads.
    start
        The point.
    """
    return tuple(sorted(load_points(sheet, sheet.known_part(part_id)) - _walked(sheet, start, "")))


def load_points(sheet: Sheet, part: Part) -> set[str]:
    """Return the points at which the fed loads of a part begin and end."""
    if not part.part_kind.is_fed:
        return set()
    return {
        part.point(pin)
        for element in elements_of(sheet, part.id)
        if _is_load(element)
        for pin in (element.branches[0].a, element.branches[1].b)
    }


def _is_load(element: Element) -> bool:
    """Tell whether an element takes current to do work: one whose turns or whose value can be lost."""
    return FaultMode.SHORTED_TURNS in element.effects


def _walked(sheet: Sheet, start: str, without: str) -> set[str]:
    """Return every point that wires and closed contacts join to one, a branch left out."""
    ways: dict[str, set[str]] = defaultdict(set)
    for name, one, other in _wires(sheet):
        if name != without:
            ways[one].add(other)
            ways[other].add(one)
    joined, met, waiting = joined_points(sheet), set[str](), [start]
    while waiting:
        point = waiting.pop()
        if point not in met:
            met.add(point)
            waiting += [*ways[point], *joined.get(point, ())]
    return met


def _wires(sheet: Sheet) -> Iterator[tuple[str, str, str]]:
    for part in sheet.parts:
        for element in elements_of(sheet, part.id):
            branch = element.branches[0]
            if not _is_load(element) and branch.farad is None and branch.ohm < WIRE_OHM:
                yield f"{part.id}.{branch.id}", part.point(branch.a), part.point(branch.b)
