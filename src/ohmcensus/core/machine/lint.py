"""What looks wrong with a sheet that can be read: notices, none of which keeps it from being used."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

from ohmcensus.core.circuit.network import Network
from ohmcensus.core.machine.coverage import WIRE_OHM, configuration_of, is_answered, probe_of
from ohmcensus.core.machine.dictionary import Dictionary
from ohmcensus.core.machine.expected import expected
from ohmcensus.core.machine.ladder import ladder
from ohmcensus.core.machine.netlist import Configuration, default_states, elements_of, netlist
from ohmcensus.core.machine.probe import Prediction, predict
from ohmcensus.core.machine.separable import fault_names, unseen
from ohmcensus.core.machine.specs import listed_tests
from ohmcensus.core.parts.element import CHASSIS, Element
from ohmcensus.core.physics.temperature import REFERENCE_CELSIUS
from ohmcensus.core.quantity import Bound, Interval, show_value
from ohmcensus.core.sheet import Sheet

LINE, NEUTRAL = "cord.plug_l", "cord.plug_n"
Path = tuple[str | int, ...]


@dataclass(frozen=True, slots=True)
class Notice:
    """One thing to look at: the keys that lead to it, and what to do about it."""

    path: Path
    message: str


def lint(sheet: Sheet, found: Dictionary | None = None) -> tuple[Notice, ...]:
    """Return what looks wrong with the wiring of a sheet, and with its tests where its dictionary is given.

    Floating pins, pins of one contact joined to each other, closed contacts between line and neutral, contacts that
    wait for a value that no state of the machine takes, no way from line to neutral, loads that hang in the air,
    tests that the healthy machine fails, parts none of whose faults a listed test sees.
    """
    if not sheet.nets:
        return (Notice(("nets",), "no wiring yet: say which pins each wire joins"),)
    notices = [*_floating(sheet), *_bridged(sheet), *_unclosed(sheet), *_ways(sheet), *_unlike(sheet)]
    if found is not None:
        notices += _blind_parts(sheet, found)
    return tuple(notices)


def _unlike(sheet: Sheet) -> Iterator[Notice]:
    """Yield the tests whose own window the nominal healthy machine does not keep."""
    for index, part in enumerate(sheet.parts):
        for spec in listed_tests(sheet, part.id):
            if not is_answered(sheet, part, spec):
                continue
            window = expected(sheet, part, spec, REFERENCE_CELSIUS)
            found = predict(sheet, probe_of(part, spec), configuration_of(sheet, part, spec))
            if not _keeps(found, window.interval):
                shown = (
                    "OL" if found.bound is Bound.ABOVE or found.value is None else show_value(found.value, window.unit)
                )
                message = (
                    f"{part.id}.{spec.name}: by the wiring a healthy one reads {shown}, it should read {window.shown}"
                )
                yield Notice(("parts", index), f"{message}: correct one of them")


def _keeps(found: Prediction, window: Interval) -> bool:
    """Tell whether a predicted reading lies in a window; over-range does where the window has no upper end."""
    if found.value is None or found.bound is Bound.ABOVE:
        return window.finite_hi is None
    return window.lo <= found.value <= window.hi


def _floating(sheet: Sheet) -> Iterator[Notice]:
    wired = {point for pins in sheet.nets.values() for point in pins}
    for index, part in enumerate(sheet.parts):
        for pin in part.pins():
            if part.point(pin.name) not in wired and not pin.may_be_free:
                yield Notice(("parts", index), f"{part.id}.{pin.name} is joined to nothing: add it to a net")


def _bridged(sheet: Sheet) -> Iterator[Notice]:
    """Yield contacts and loads whose two ends one net joins, and states in which no load limits the current."""
    net_of = {point: name for name, pins in sheet.nets.items() for point in pins}
    for index, part in enumerate(sheet.parts):
        for element in elements_of(sheet, part.id):
            a, b = (net_of.get(part.point(end)) for end in _ends(element))
            if a is not None and a == b:
                yield Notice(("parts", index), f"net {a} joins both ends of {part.id}, {element.name}: part them")
    states = [{}, *({name: value} for name, values in sheet.states.items() for value in values[1:])]
    for state in states:
        circuit = netlist(sheet, Configuration(states={**default_states(sheet), **state}))
        network = Network(circuit.branches, circuit.joints, CHASSIS)
        if network.node(NEUTRAL) in network.nets_from([LINE], below_ohm=WIRE_OHM) - {-1}:
            where = " with " + ", ".join(f"{k} {v}" for k, v in state.items()) if state else ""
            yield Notice(("nets",), f"closed contacts join line to neutral{where}: a load is missing between them")
            return


def _unclosed(sheet: Sheet) -> Iterator[Notice]:
    """Yield wired contacts that close in a programme step, or only at another value, that the machine does not have.

    Steps are written by hand for each sheet, so that every one of them has to be there; of a kind's own values one.
    """
    wired = {point for pins in sheet.nets.values() for point in pins}
    for index, part in enumerate(sheet.parts):
        for element in elements_of(sheet, part.id):
            when = element.closed_when
            if when is None or not all(part.point(end) in wired for end in _ends(element)):
                continue
            missing = sorted(when.values.difference(sheet.states.get(when.state, ())))
            if missing and (when.state == "programme" or len(missing) == len(when.values)):
                where = f"{part.id}, {element.name} closes at {when.state} {', '.join(missing)}"
                yield Notice(("parts", index), f"{where}: add that to the states of the machine, or correct it")


def _ways(sheet: Sheet) -> Iterator[Notice]:
    if not ladder(sheet).ways:
        yield Notice(("nets",), "no way from line to neutral: join cord.plug_l and cord.plug_n to the machine")
        return
    circuit = netlist(sheet, Configuration())
    earth = {CHASSIS, *(pin for pins in sheet.nets.values() if CHASSIS in pins for pin in pins)}
    branches = [branch for branch in circuit.branches if not earth & {branch.a, branch.b}]
    without_earth = Network(branches, [pair for pair in circuit.joints if not earth & set(pair)], "nowhere")
    fed = without_earth.touched([LINE, NEUTRAL], below_ohm=float("inf"))
    for index, part in enumerate(sheet.parts):
        loads = [element.branches[0].id for element in elements_of(sheet, part.id) if _is_load(element)]
        if part.part_kind.is_fed and loads and not any(f"{part.id}.{name}" in fed for name in loads):
            yield Notice(("parts", index), f"no current comes to {part.id}: join its pins to line and neutral")


def _blind_parts(sheet: Sheet, found: Dictionary) -> Iterator[Notice]:
    hidden = set(unseen(sheet, found))
    names = fault_names(found.faults)
    for index, part in enumerate(sheet.parts):
        own = [place for place, fault in enumerate(found.faults) if fault.part == part.id]
        if own and hidden.issuperset(own):
            listed = ", ".join(names[place] for place in own)
            yield Notice(("parts", index), f"no listed test sees a fault of {part.id} ({listed}): state its figures")


def _ends(element: Element) -> tuple[str, str]:
    """Return the two outer pins of an element."""
    first = element.branches[0]
    return (first.a, element.branches[1].b) if _is_load(element) else (first.a, first.b)


def _is_load(element: Element) -> bool:
    return element.branches[0].id.endswith("_1")
