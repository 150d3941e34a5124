"""What a test of a machine reaches, and which faults of its part a good reading does not exclude."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from functools import lru_cache

from ohmcensus.core.circuit import Branch
from ohmcensus.core.machine.coverage import configuration_of, is_answered, probe_of
from ohmcensus.core.machine.expected import expected
from ohmcensus.core.machine.netlist import Configuration, PartFault, elements_of, netlist, part_modes
from ohmcensus.core.machine.probe import Probe, Setup, predict, prepared, shown
from ohmcensus.core.machine.specs import found_test
from ohmcensus.core.meter import Function
from ohmcensus.core.parts.element import CHASSIS, Element, FaultEffect
from ohmcensus.core.parts.fault import FaultMode
from ohmcensus.core.physics.temperature import REFERENCE_CELSIUS
from ohmcensus.core.quantity import Bound, Interval
from ohmcensus.core.sheet import Sheet


@lru_cache(maxsize=2048)
def reaches(sheet: Sheet, part_id: str, test_name: str) -> tuple[str, ...]:
    """Return the parts that a test reaches, its own where no circuit answers it.

    Of insulation, those whose leak of the limit the reading resolves: an inverter hides the motor behind it.
    """
    part, spec = found_test(sheet, part_id, test_name)
    if not is_answered(sheet, part, spec):
        return (part_id,)
    probe, configuration = probe_of(part, spec), configuration_of(sheet, part, spec)
    found = predict(sheet, probe, configuration).reaches
    if spec.function is Function.INSULATION and len(found) > 1:
        limit = expected(sheet, part, spec, REFERENCE_CELSIUS).interval.lo
        found = tuple(
            name for name in found if name == part_id or _is_resolved(sheet, name, probe, configuration, limit)
        )
    return found or (part_id,)


# A leak of the limit that reads more than this many times the limit is not resolved (SAFETY).
RESOLVED_WITHIN = 1.1


def _is_resolved(sheet: Sheet, part_id: str, probe: Probe, configuration: Configuration, limit: float) -> bool:
    """Tell whether a reading resolves a leak of its limit in a part; true of parts that cannot leak."""
    if FaultMode.LEAK not in part_modes(sheet, part_id):
        return True
    told = predict(sheet, probe, configuration, (PartFault(part_id, FaultMode.LEAK, limit),))
    return told.bound is Bound.EXACT and told.value is not None and told.value <= RESOLVED_WITHIN * limit


@lru_cache(maxsize=2048)
def blind_modes(sheet: Sheet, part_id: str, test_name: str) -> tuple[FaultMode, ...]:
    """Return the fault modes of what a test asks whose predicted reading a good one's window admits.

    Asked are the elements between the test's two points. A mode is tried at its usual value and at the
    mildest that still matters; if either reads inside, the test is blind to it, as it is to modes of what lies
    elsewhere in the part. Where no circuit answers the test, what its kind declares stands.

    Parameters
    ----------
    sheet
        The machine's type.
    part_id, test_name
        Whose test, and which.
    """
    part, spec = found_test(sheet, part_id, test_name)
    if not is_answered(sheet, part, spec):
        return spec.blind_to
    circuit = netlist(sheet, configuration_of(sheet, part, spec))
    setup = prepared(sheet, probe_of(part, spec), circuit)
    window = expected(sheet, part, spec, REFERENCE_CELSIUS).interval
    branches = {branch.id: branch for branch in circuit.branches}
    asked = _asked(elements_of(sheet, part_id), spec.between)
    blind = []
    for mode in part.part_kind.fault_modes:
        effects = [element.effects[mode] for element in asked if mode in element.effects]
        if not effects or any(_is_admitted(setup, window, effect, part_id, branches) for effect in effects):
            blind.append(mode)
    return tuple(blind)


def _is_admitted(
    setup: Setup, window: Interval, effect: FaultEffect, part_id: str, branches: Mapping[str, Branch]
) -> bool:
    """Tell whether a fault reads inside the window, at its usual value or at the mildest."""
    names = [f"{part_id}.{name}" for name in effect.branches]
    for amount in (effect.usual, effect.mild):
        changed = {name: effect.applied(branches[name], amount) for name in names}
        value, bound = shown(setup, changed)
        is_over = bound is Bound.ABOVE and window.finite_hi is None
        if value is not None and (is_over or window.lo <= value <= window.hi):
            return True
    return False


def _asked(elements: Sequence[Element], between: tuple[str, str]) -> list[Element]:
    """Return the elements that lie between two points; where none does, those that touch one."""
    wanted = {CHASSIS if pin.endswith("pe") else pin for pin in between}
    touched = [(element, wanted & _ends(element)) for element in elements]
    both = [element for element, ends in touched if ends == wanted]
    return both or [element for element, ends in touched if ends]


def _ends(element: Element) -> set[str]:
    pins = {pin for branch in element.branches for pin in (branch.a, branch.b)}
    return {CHASSIS if pin.endswith("pe") else pin for pin in pins}
