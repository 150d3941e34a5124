"""A machine as a ladder: for every load the way from line through contacts and wires to it, and on to neutral.

Found in the sheet's wiring, never drawn by hand. The way that all loads share, cord and filter, is the trunk.
"""

from __future__ import annotations

import heapq
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from functools import lru_cache

from ohmcensus.core.circuit.network import Network
from ohmcensus.core.machine.coverage import WIRE_OHM
from ohmcensus.core.machine.netlist import Configuration, elements_of, netlist, pulled_points
from ohmcensus.core.parts.element import CHASSIS, CONTACT_OHM, OPEN_OHM, SHUNT_OHM, Element
from ohmcensus.core.sheet import Sheet

LINE, NEUTRAL = "cord.plug_l", "cord.plug_n"
# Costs of a way: contacts and wires are what leads to a load; another load is passed only in series (ours).
_COSTS = {"contact": 1.0, "wire": 1.0, "junction": 2.0, "capacitor": 4.0, "load": 15.0}
# A resistance under this on the way from line to neutral is a load; above it, an input that senses (ours).
_SENSE_OHM = 20e3


@dataclass(frozen=True, slots=True)
class Rail:
    """One thing on the way: what kind, of which part, between which points, its branch; whether it rectifies."""

    kind: str
    part: str
    name: str
    pins: tuple[str, str]
    branch: str
    is_one_way: bool = False


@dataclass(frozen=True, slots=True)
class Way:
    """One load with the way to it from line, and from it to neutral; loads in series stand in one way."""

    items: tuple[Rail, ...]

    @property
    def loads(self) -> frozenset[str]:
        """Branches that are loads."""
        return frozenset(item.branch for item in self.items if item.kind == "load")


@dataclass(frozen=True, slots=True)
class Ladder:
    """The trunk on both sides, and a way for each load, in the order of the sheet."""

    trunk_line: tuple[Rail, ...]
    trunk_neutral: tuple[Rail, ...]
    ways: tuple[Way, ...]


@dataclass(frozen=True, slots=True)
class RailState:
    """How one thing on the way stands in a configuration."""

    rail: Rail
    is_open: bool
    is_pulled: bool
    from_line: bool
    from_neutral: bool


@lru_cache(maxsize=32)
def ladder(sheet: Sheet) -> Ladder:
    """Return the ladder of a machine, every contact taken as closed and every plug as on."""
    rails = tuple(_rails(sheet))
    nets = _nets(sheet)
    graph: dict[str, list[tuple[str, Rail]]] = {}
    for rail in rails:
        a, b = (nets.get(pin, pin) for pin in rail.pins)
        graph.setdefault(a, []).append((b, rail))
        if not rail.is_one_way:
            graph.setdefault(b, []).append((a, rail))
    found: list[Way] = []
    for rail in rails:
        if rail.kind == "load":
            way = _way(rail, graph, nets)
            if way is not None and not any(way.loads <= other.loads for other in found):
                found = [other for other in found if not other.loads < way.loads] + [way]
    before = _shared([way.items for way in found])
    after = _shared([way.items[::-1] for way in found])
    ways = [Way(way.items[len(before) : len(way.items) - len(after)]) for way in found]
    return Ladder(before, after[::-1], tuple(ways))


def standing(sheet: Sheet, configuration: Configuration, items: Sequence[Rail]) -> tuple[RailState, ...]:
    """Return how the things on a way stand: open, pulled, and which pole comes to them.

    Parameters
    ----------
    sheet, configuration
        The machine, its plugs and its states.
    items
        As in a way, in order.
    """
    circuit = netlist(sheet, configuration)
    network = Network(circuit.branches, circuit.joints, CHASSIS)
    line = network.nets_from([LINE], below_ohm=WIRE_OHM)
    neutral = network.nets_from([NEUTRAL], below_ohm=WIRE_OHM)
    off = {point for name in configuration.pulled for point in pulled_points(sheet, name)}
    ohms = {branch.id: branch.ohm for branch in circuit.branches}
    return tuple(
        RailState(
            rail=item,
            is_open=item.kind == "contact" and ohms[item.branch] >= OPEN_OHM,
            is_pulled=bool(off & set(item.pins)),
            from_line=any(network.node(pin) in line for pin in item.pins),
            from_neutral=any(network.node(pin) in neutral for pin in item.pins),
        )
        for item in items
    )


def _rails(sheet: Sheet) -> Iterator[Rail]:
    """Yield everything that current may pass on its way from line to neutral."""
    for part in sheet.parts:
        for element in elements_of(sheet, part.id):
            kind = _kind(element)
            if kind:
                first = element.branches[0]
                last = element.branches[1] if kind == "load" and len(element.branches) > 1 else first
                pins = (f"{part.id}.{first.a}", f"{part.id}.{last.b}")
                name = first.id.removesuffix("_1")
                is_one_way = kind == "junction" and not element.is_gated
                yield Rail(kind, part.id, name, pins, f"{part.id}.{first.id}", is_one_way)


def _kind(element: Element) -> str:
    """Return what an element is on the way: contact, wire, capacitor or load; nothing for insulation and inputs."""
    first = element.branches[0]
    if CHASSIS in (first.a, first.b) or first.ohm >= SHUNT_OHM or "pe" in (first.a, first.b):
        return ""
    if element.contact:
        return "contact"
    if first.forward_volts is not None:
        return "junction"
    if first.farad is not None:
        return "capacitor"
    if first.ohm <= WIRE_OHM and len(element.branches) <= 2:  # noqa: PLR2004 - a wire and its leak
        return "wire"
    is_load = first.id.endswith("_1") or (not element.is_linear and first.ohm > CONTACT_OHM)
    return "load" if is_load and not _is_input(element) else ""


def _is_input(element: Element) -> bool:
    return not element.branches[0].id.endswith("_1") and element.branches[0].ohm < _SENSE_OHM


def _nets(sheet: Sheet) -> dict[str, str]:
    return {point: name for name, points in sheet.nets.items() for point in points}


def _way(load: Rail, graph: dict[str, list[tuple[str, Rail]]], nets: dict[str, str]) -> Way | None:
    """Return the cheapest way from line through a load to neutral, None where there is none."""
    line, neutral = nets.get(LINE, LINE), nets.get(NEUTRAL, NEUTRAL)
    ends = [nets.get(pin, pin) for pin in load.pins]
    best: tuple[float, tuple[Rail, ...]] | None = None
    for a, b in (ends, ends[::-1]):
        to = _path(line, a, graph, frozenset({load.branch}), neutral)
        if to is None:
            continue
        used = frozenset({load.branch, *(rail.branch for rail in to[1])})
        onward = _path(b, neutral, graph, used, line)
        if onward is not None and (best is None or to[0] + onward[0] < best[0]):
            best = (to[0] + onward[0], (*to[1], load, *onward[1]))
    return None if best is None else Way(best[1])


def _path(
    start: str, end: str, graph: dict[str, list[tuple[str, Rail]]], used: frozenset[str], never: str
) -> tuple[float, tuple[Rail, ...]] | None:
    """Return the cheapest path between two nets that uses nothing twice and never crosses the other pole."""
    queue: list[tuple[float, int, str, tuple[Rail, ...]]] = [(0.0, 0, start, ())]
    seen: set[str] = set()
    count = 0
    while queue:
        cost, _, net, way = heapq.heappop(queue)
        if net == end:
            return cost, way
        if net in seen or net == never:
            continue
        seen.add(net)
        for other, rail in graph.get(net, ()):
            if rail.branch not in used:
                count += 1
                heapq.heappush(queue, (cost + _COSTS[rail.kind], count, other, (*way, rail)))
    return None


def _shared(ways: Sequence[tuple[Rail, ...]]) -> tuple[Rail, ...]:
    """Return what all ways begin with."""
    if not ways:
        return ()
    shared = []
    for items in zip(*ways, strict=False):
        if len({item.branch for item in items}) > 1 or items[0].kind == "load":
            break
        shared.append(items[0])
    return tuple(shared)
