"""The rung view: line rail left, neutral rail right, one rung for each load, the earth as a comb below.

Positions along a rung are fractions of the room between the rails; rungs are counted from the top.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from enum import StrEnum
from functools import lru_cache

from ohmcensus.core.machine.ladder import RailState, Way, ladder, standing
from ohmcensus.core.machine.netlist import Configuration
from ohmcensus.core.machine.specs import listed_tests
from ohmcensus.core.sheet import Sheet


class Ink(StrEnum):
    """Which pole drives a thing: line, only neutral, or none."""

    LINE = "line"
    NEUTRAL = "neutral"
    NONE = "none"


@dataclass(frozen=True, slots=True)
class RungMark:
    """One thing on a rung.

    Parameters
    ----------
    kind
        contact, wire, junction, capacitor or load.
    part, label
        Its part, and what is written beside it.
    x
        Place on the rung.
    is_open, is_pulled
        An open contact gaps the rung; what hangs on a pulled plug is lifted out.
    ink
        What drives it.
    test
        Line of the census sheet that asks it, empty where none does.
    probe_left, probe_right
        Whether a probe of the chosen test stands at that end.
    """

    kind: str
    part: str
    label: str
    x: float
    is_open: bool
    is_pulled: bool
    ink: Ink
    test: str
    probe_left: bool
    probe_right: bool


@dataclass(frozen=True, slots=True)
class Stretch:
    """A piece of wire on a rung, and what drives it."""

    x0: float
    x1: float
    ink: Ink


@dataclass(frozen=True, slots=True)
class Rung:
    """One load with all that leads to it."""

    title: str
    marks: tuple[RungMark, ...]
    stretches: tuple[Stretch, ...]


@dataclass(frozen=True, slots=True)
class Tooth:
    """A part that touches the chassis: a tooth of the earth comb, and whether a probe stands there."""

    part: str
    label: str
    test: str
    probe: bool


@dataclass(frozen=True, slots=True)
class RungView:
    """The whole ladder in one configuration; the trunk is what all rungs hang on."""

    trunk: tuple[RungMark, ...]
    rungs: tuple[Rung, ...]
    comb: tuple[Tooth, ...]


def rung_view(sheet: Sheet, configuration: Configuration, probes: frozenset[str] = frozenset()) -> RungView:
    """Lay out the ladder of a machine.

    Parameters
    ----------
    sheet, configuration
        The machine, its plugs and its states.
    probes
        The two points of the chosen test, empty where none is chosen.
    """
    found = ladder(sheet)
    trunk = [*found.trunk_line, *found.trunk_neutral]
    states = standing(sheet, configuration, trunk)
    return RungView(
        trunk=tuple(
            _mark(sheet, state, (i + 1) / (len(trunk) + 1), _ink(state), probes) for i, state in enumerate(states)
        ),
        rungs=tuple(_rung(sheet, configuration, way, probes) for way in found.ways),
        comb=tuple(_comb(sheet, probes)),
    )


def _rung(sheet: Sheet, configuration: Configuration, way: Way, probes: frozenset[str]) -> Rung:
    """Lay out one rung: its things at even distances."""
    states = standing(sheet, configuration, way.items)
    places = [(i + 1) / (len(states) + 1) for i in range(len(states))]
    marks = tuple(_mark(sheet, state, x, _ink(state), probes) for state, x in zip(states, places, strict=True))
    edges = [0.0, *places, 1.0]
    inks = [_wire_ink(states, i) for i in range(len(states) + 1)]
    stretches = tuple(Stretch(edges[i], edges[i + 1], ink) for i, ink in enumerate(inks))
    loads = [state.rail.part for state in states if state.rail.kind == "load"]
    titles = _titles(sheet)
    return Rung(titles[loads[-1]] if loads else "", marks, stretches)


def _mark(sheet: Sheet, state: RailState, x: float, ink: Ink, probes: frozenset[str]) -> RungMark:
    rail = state.rail
    return RungMark(
        kind=rail.kind,
        part=rail.part,
        label=_label(sheet, rail.part, rail.name),
        x=x,
        is_open=state.is_open,
        is_pulled=state.is_pulled,
        ink=ink,
        test=_tests(sheet).get(frozenset(rail.pins), _tests(sheet).get(frozenset({rail.part}), "")),
        probe_left=rail.pins[0] in probes,
        probe_right=rail.pins[1] in probes,
    )


def _ink(state: RailState) -> Ink:
    if state.is_pulled:
        return Ink.NONE
    return Ink.LINE if state.from_line else Ink.NEUTRAL if state.from_neutral else Ink.NONE


def _wire_ink(states: Sequence[RailState], at: int) -> Ink:
    """Return what drives the wire before the thing at a place: line from the left, neutral from the right."""
    if all(_passes(state) for state in states[:at]):
        return Ink.LINE
    return Ink.NEUTRAL if all(_passes(state) for state in states[at:]) else Ink.NONE


def _passes(state: RailState) -> bool:
    return state.rail.kind in {"contact", "wire"} and not state.is_open and not state.is_pulled


def _label(sheet: Sheet, part: str, name: str) -> str:
    title = _titles(sheet)[part]
    plain = name.removeprefix("out_").replace("_", " ")
    return title if plain in {"element", "coil", "contact", "sensor", "ptc", "film", part} else f"{title}, {plain}"


def _comb(sheet: Sheet, probes: frozenset[str]) -> list[Tooth]:
    tests = _tests(sheet)
    return [
        Tooth(part.id, part.title, tests.get(frozenset({f"{part.id}.pe"}), ""), f"{part.id}.pe" in probes)
        for part in sheet.parts
        if part.chassis and f"{part.id}.pe" in sheet.points
    ]


@lru_cache(maxsize=32)
def _titles(sheet: Sheet) -> Mapping[str, str]:
    return {part.id: part.title for part in sheet.parts}


@lru_cache(maxsize=32)
def _tests(sheet: Sheet) -> Mapping[frozenset[str], str]:
    """Return the line of the census sheet by its two points, by its part, and by an earth that it asks."""
    found: dict[frozenset[str], str] = {}
    for part in sheet.parts:
        for spec in listed_tests(sheet, part.id):
            key, pins = f"{part.id}.{spec.name}", [part.point(pin) for pin in spec.between]
            found.setdefault(frozenset(pins), key)
            found.setdefault(frozenset({part.id}), key)
            for pin in pins:
                if pin.endswith(".pe"):
                    found.setdefault(frozenset({pin}), key)
    return found
