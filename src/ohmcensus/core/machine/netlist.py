"""A machine in a configuration as branches and wires, with or without faults."""

from __future__ import annotations

import math
from collections.abc import Callable, Iterable, Mapping, Sequence
from dataclasses import dataclass, field, replace
from functools import lru_cache

from ohmcensus.core.circuit import Branch
from ohmcensus.core.errors import InputError, UnknownNameError
from ohmcensus.core.parts.element import (
    EARTH_OPEN_OHM,
    JOINT_FAULT_OHM,
    OPEN_OHM,
    SMALLEST_OHM,
    STRAP,
    Element,
    FaultEffect,
    Rule,
)
from ohmcensus.core.parts.fault import FaultMode
from ohmcensus.core.parts.kind import Role, TestSpec
from ohmcensus.core.physics.temperature import REFERENCE_CELSIUS
from ohmcensus.core.sheet import Part, Sheet
from ohmcensus.core.text.names import nearest


@dataclass(frozen=True, slots=True)
class Configuration:
    """What is pulled, and which state the machine is in.

    Parameters
    ----------
    pulled
        Plugs that are off.
    states
        Value by state; the first value of the sheet where none is given.
    """

    pulled: frozenset[str] = frozenset()
    states: Mapping[str, str] = field(default_factory=dict)


@dataclass(frozen=True, slots=True)
class PartFault:
    """A fault on a part.

    Parameters
    ----------
    part, mode
        What is wrong with what.
    value
        The usual one of its mode where None.
    element
        Which of the part's elements; where empty, the first that knows the mode.
    at
        Pin of the part at which a leak sits; where empty, in the middle of a load and at the first end of a wire.
    """

    part: str
    mode: FaultMode
    value: float | None = None
    element: str = ""
    at: str = ""


# Resistance of the house behind its outlet (ours).
HOUSE_OHM = 0.2


@dataclass(frozen=True, slots=True)
class Netlist:
    """Branches by id, "heater.element_1", the pairs of points that wires join, and the branches that bend.

    ``house_ohm`` is what lies in the supply before the outlet: much where the outlet itself is at fault.
    """

    branches: tuple[Branch, ...]
    joints: tuple[tuple[str, str], ...]
    not_linear: frozenset[str]
    house_ohm: float = HOUSE_OHM


def netlist(
    sheet: Sheet,
    configuration: Configuration,
    faults: Sequence[PartFault] = (),
    *,
    built: Callable[[Part], tuple[Element, ...]] | None = None,
) -> Netlist:
    """Return the circuit of a machine.

    Parameters
    ----------
    sheet
        The machine's type.
    configuration
        Plugs and states.
    faults
        What is wrong; each part and mode once.
    built
        What a part is made of, where it is not the nominal one.

    Raises
    ------
    UnknownNameError
        If a plug, state, value, part or mode is not on the sheet.
    """
    states = _states(sheet, configuration.states)
    floating, faults = _earths_open(sheet, faults)
    house_ohm, faults = _outlet_faults(sheet, faults)
    changed = {branch: (effect, fault) for fault in faults for branch, effect in effects_of(sheet, fault)}
    healthy, bent = _built(sheet, states, built) if built else _nominal(sheet, tuple(states.items()))
    branches = [_with_fault(row, sheet, changed[row.id]) if row.id in changed else row for row in healthy]
    branches += [Branch(f"{part}.{STRAP}", f"{part}.pe", f"{part}.{STRAP}", ohm) for part, ohm in floating.items()]
    joints = tuple(_joints(sheet, configuration.pulled, frozenset(floating)))
    return Netlist(tuple(branches), joints, bent, house_ohm)


@lru_cache(maxsize=512)
def _nominal(sheet: Sheet, states: tuple[tuple[str, str], ...]) -> tuple[tuple[Branch, ...], frozenset[str]]:
    """Return the branches of the nominal machine in a state, and those that bend."""
    return _built(sheet, dict(states), lambda part: elements_of(sheet, part.id))


def _built(
    sheet: Sheet, states: Mapping[str, str], built: Callable[[Part], tuple[Element, ...]]
) -> tuple[tuple[Branch, ...], frozenset[str]]:
    branches, bent = [], set[str]()
    for part in sheet.parts:
        for element in built(part):
            placed = [_placed(branch, part, element, states) for branch in element.branches]
            branches += placed
            if not element.is_linear:
                bent |= {branch.id for branch in placed}
    return tuple(branches), frozenset(bent)


def _with_fault(branch: Branch, sheet: Sheet, fault: tuple[FaultEffect, PartFault]) -> Branch:
    """Return a branch with what is wrong with it; a leak at the pin where it was said to sit."""
    effect, said = fault
    changed = effect.applied(branch, said.value)
    return replace(changed, a=sheet.known_part(said.part).point(said.at)) if said.at else changed


def _outlet_faults(sheet: Sheet, faults: Sequence[PartFault]) -> tuple[float, list[PartFault]]:
    """Return what lies in the supply before the outlet, and all faults that are not the outlet's own."""
    ohm, others = HOUSE_OHM, []
    for fault in faults:
        part = sheet.part(fault.part)
        if part is None or part.traits.role is not Role.OUTLET or fault.mode not in _AT_THE_OUTLET:
            others.append(fault)
        else:
            ohm += _AT_THE_OUTLET[fault.mode] if fault.value is None else fault.value
    return ohm, others


# An outlet without supply, and one with a bad joint, in ohms (ours).
_AT_THE_OUTLET = {FaultMode.OPEN: OPEN_OHM, FaultMode.BAD_JOINT: JOINT_FAULT_OHM}


def _earths_open(sheet: Sheet, faults: Sequence[PartFault]) -> tuple[dict[str, float], list[PartFault]]:
    """Return the parts whose own earth wire is broken, with what is left of it in ohms, and all other faults.

    The wire is no branch of a healthy machine: its body and the machine's earth are one point there.
    """
    floating, others = {}, []
    for fault in faults:
        part = sheet.part(fault.part)
        if fault.mode is FaultMode.EARTH_OPEN and part is not None and part.is_earthed:
            floating[fault.part] = EARTH_OPEN_OHM if fault.value is None else max(SMALLEST_OHM, fault.value)
        else:
            others.append(fault)
    return floating, others


@lru_cache(maxsize=512)
def elements_of(sheet: Sheet, part_id: str) -> tuple[Element, ...]:
    """Return the elements of a part with its nominal values."""
    part = sheet.part(part_id)
    if part is None:
        raise not_on_sheet(what="part", name=part_id, known=[row.id for row in sheet.parts])
    nominal = {spec.name: nominal_of(part, spec) for spec in part.tests()}
    return part.part_kind.elements(part.ratings, nominal.__getitem__)


def part_modes(sheet: Sheet, part_id: str) -> tuple[FaultMode, ...]:
    """Return the fault modes of a part that the circuit knows, in the order in which its kind lists them."""
    known = {mode for element in elements_of(sheet, part_id) for mode in element.effects}
    part = sheet.part(part_id)
    return tuple(mode for mode in part.part_kind.fault_modes if mode in known) if part else ()


def all_modes(sheet: Sheet, part_id: str) -> tuple[FaultMode, ...]:
    """Return the fault modes of a part that may be asked of the circuit: its kind's, and its earth broken."""
    known = {mode for element in elements_of(sheet, part_id) for mode in element.effects}
    part = sheet.known_part(part_id)
    earth = (FaultMode.EARTH_OPEN,) if FaultMode.EARTH_OPEN in known or part.is_earthed else ()
    return (*part.part_kind.fault_modes, *earth)


def default_states(sheet: Sheet) -> dict[str, str]:
    """Return the state at rest: the first value of each."""
    return {name: values[0] for name, values in sheet.states.items()}


def nominal_of(part: Part, spec: TestSpec) -> float:
    """Return the most likely good value of a test: the stated one, else the middle of the window's decades."""
    own = part.expects.get(spec.name)
    lo, hi = ends_of(part, spec)
    stated = spec.expect(REFERENCE_CELSIUS).nominal if own is None else own.nominal
    if stated is not None:
        return stated
    if lo > 0 and math.isfinite(hi):
        return math.sqrt(lo * hi)
    return hi / 4 if math.isfinite(hi) else lo


def ends_of(part: Part, spec: TestSpec) -> tuple[float, float]:
    """Return between which values good parts lie: the sheet's own ends, an end it does not state from the kind."""
    own, window = part.expects.get(spec.name), spec.expect(REFERENCE_CELSIUS).interval
    lo = window.lo if own is None or own.lo is None else own.lo
    return lo, window.hi if own is None or own.hi is None else own.hi


def _states(sheet: Sheet, wanted: Mapping[str, str]) -> dict[str, str]:
    """Return every state with its value, refusing what the sheet does not have."""
    states = default_states(sheet)
    for name, value in wanted.items():
        if name not in states:
            raise not_on_sheet(what="state", name=name, known=sheet.states)
        if value not in sheet.states[name]:
            raise not_on_sheet(what=f"value of {name}", name=value, known=sheet.states[name])
        states[name] = value
    return states


def effects_of(sheet: Sheet, fault: PartFault) -> tuple[tuple[str, FaultEffect], ...]:
    """Return the branches that a fault changes, and how.

    Raises
    ------
    UnknownNameError
        If no element of the part knows the mode.
    """
    elements = elements_of(sheet, fault.part)
    for element in elements:
        effect = element.effects.get(fault.mode)
        if effect is not None and fault.element in {"", element.name}:
            if fault.at:
                _refuse_place(sheet, fault, element)
            return tuple((f"{fault.part}.{name}", effect) for name in effect.branches)
    if fault.element and fault.element not in {element.name for element in elements}:
        raise not_on_sheet(what="element", name=fault.element, known=[element.name for element in elements])
    if (
        fault.mode is FaultMode.BAD_JOINT
        and elements
        and fault.mode in sheet.known_part(fault.part).part_kind.fault_modes
    ):
        joint = elements[0].branches[0]
        return ((f"{fault.part}.{joint.id}", FaultEffect((joint.id,), Rule.ADD, JOINT_FAULT_OHM, 0.5, 50.0)),)
    raise not_on_sheet(what="fault mode", name=fault.mode, known=[mode.value for mode in all_modes(sheet, fault.part)])


def _refuse_place(sheet: Sheet, fault: PartFault, element: Element) -> None:
    """Refuse a place for a fault that is no leak, and one that is no end of its element."""
    pins = {pin.name for pin in sheet.known_part(fault.part).pins()}
    leaks = element.effects[fault.mode].branches
    kept = (branch for branch in element.branches if branch.id not in leaks)
    ends = [end for branch in kept for end in (branch.a, branch.b) if end in pins]
    if fault.mode is not FaultMode.LEAK:
        raise InputError(what=f"{fault.mode.value} has no place", remedy="only a leak sits at a pin", field="fault")
    if fault.at not in ends:
        raise not_on_sheet(what=f"end of {fault.part}.{element.name}", name=fault.at, known=list(dict.fromkeys(ends)))


def _placed(branch: Branch, part: Part, element: Element, states: Mapping[str, str]) -> Branch:
    """Return a branch with the machine's names, a contact as its state has it."""
    ohm = branch.ohm
    when = element.closed_when
    if when is not None and branch.id == element.contact and states.get(when.state) not in when.values:
        ohm = OPEN_OHM
    return replace(branch, id=f"{part.id}.{branch.id}", a=part.point(branch.a), b=part.point(branch.b), ohm=ohm)


def _joints(sheet: Sheet, pulled: frozenset[str], floating: frozenset[str]) -> Iterable[tuple[str, str]]:
    """Yield pairs of points that wires join, those of pulled plugs left out."""
    off = {point for name in pulled for point in pulled_points(sheet, name)}
    strapped = {f"{part}.pe": f"{part}.{STRAP}" for part in floating}
    for pins in sheet.nets.values():
        kept = [strapped.get(pin, pin) for pin in pins if pin not in off]
        yield from ((kept[0], pin) for pin in kept[1:])


def pulled_points(sheet: Sheet, plug_name: str) -> frozenset[str]:
    """Return the points that come off with a plug.

    Raises
    ------
    UnknownNameError
        If the sheet has no such plug.
    """
    if plug_name not in sheet.plugs:
        raise not_on_sheet(what="plug", name=plug_name, known=sheet.plugs)
    return sheet.plug_points(plug_name)


def not_on_sheet(*, what: str, name: str, known: Iterable[str]) -> UnknownNameError:
    """Build the error for a name that the sheet does not have; it says which come near."""
    names = list(known)
    close = nearest(name, names)
    remedy = f"did you mean {close}?" if close else f"known are {', '.join(names) or 'none'}"
    return UnknownNameError(what=f"no {what} '{name[:40]}' on this sheet", remedy=remedy, field=what)
