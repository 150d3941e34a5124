"""What can be wrong with a machine, how often, and how it shows: the world that every diagnosis starts from.

All figures are relative and ours (common practice, no source) until counted jobs replace them.
"""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from dataclasses import dataclass

from ohmcensus.core.machine.dictionary import single_faults
from ohmcensus.core.machine.feeds import fed_part
from ohmcensus.core.machine.netlist import PartFault, elements_of
from ohmcensus.core.parts.fault import FaultMode
from ohmcensus.core.parts.kind import Role
from ohmcensus.core.sheet import EARTH_PIN, Part, Sheet
from ohmcensus.core.symptom import Symptom

UNSTATED_PRIOR = 0.1
# A part that does not touch the chassis leaks to earth more rarely.
PLASTIC_SHARE = 0.2
# What can be faulty at all is never excluded (ours).
LEAST_WEIGHT = 0.02
MECHANICAL_PRIOR = 0.6
# A symptom that a fault has nothing to do with is told all the same now and then.
STRAY_SYMPTOM = 0.002
# Beside the stray symptoms: one in eight of those who tell anything of it.
BYPASSED_NO_OPEN = 0.005
_FUNCTION_LOST = {FaultMode.LEAK: 0.05, FaultMode.WELDED: 0.3}
_TRIPS = {FaultMode.LEAK: 1.0, FaultMode.SHORT: 0.6, FaultMode.SHORTED_TURNS: 0.2}
_HOT = {FaultMode.WELDED: 1.0, FaultMode.DRIFT: 0.7, FaultMode.SHORT: 0.5, FaultMode.STUCK_OPEN: 0.4}
_NEVER_STOPS = {FaultMode.WELDED: 1.0, FaultMode.STUCK_OPEN: 0.6, FaultMode.DRIFT: 0.6, FaultMode.OPEN: 0.3}
_BURNT = {FaultMode.SHORT: 1.0, FaultMode.SHORTED_TURNS: 1.0, FaultMode.BAD_JOINT: 1.0}
# How readily each mode of a part shows as a symptom of that part: the listed modes, then all others.
_BY_MODE: Mapping[Symptom, tuple[Mapping[FaultMode, float], float]] = {
    Symptom.TRIPS: (_TRIPS, 0.03),
    Symptom.SHOCK: ({FaultMode.LEAK: 1.0, FaultMode.BAD_JOINT: 0.2}, 0.03),
    Symptom.OVERHEATS: (_HOT, 0.1),
    Symptom.SMELLS: (_BURNT, 0.3),
    # No coil that is broken lets water out; a valve that is not fed takes none, one that is always fed never stops.
    Symptom.LEAKS: ({}, 0.05),
    Symptom.NO_WATER: ({FaultMode.WELDED: 0.05, FaultMode.LEAK: 0.02}, 1.0),
    Symptom.OVERFILLS: (_NEVER_STOPS, 0.05),
}
# A current to earth trips and tingles whatever part it leaves by; where nobody looked at the fuse board it is dead.
_WHATEVER_PART: Mapping[FaultMode, Mapping[Symptom, float]] = {
    FaultMode.LEAK: {Symptom.TRIPS: 0.5, Symptom.SHOCK: 0.1, Symptom.DEAD: 0.1},
}


@dataclass(frozen=True, slots=True)
class LikelyFault:
    """Something that may be wrong: one fault of one part, or a part that eye and hand judge.

    Parameters
    ----------
    part
        The part that would be repaired.
    fault
        What is wrong with it electrically; None where nothing is.
    weight
        How often, against all others.
    look
        The check by eye or hand that shows it, of an electrical part with a mechanical fault; empty for all others.
    """

    part: str
    fault: PartFault | None
    weight: float
    look: str = ""


def usual_weight(part: Part, mode: FaultMode) -> float:
    """Return how often a fault of a part occurs against all others; what does not touch the chassis leaks rarely."""
    share = PLASTIC_SHARE if mode is FaultMode.LEAK and not part.chassis else 1.0
    return part.part_kind.priors.get(mode, UNSTATED_PRIOR) * share


def likely_faults(sheet: Sheet) -> tuple[LikelyFault, ...]:
    """Return everything that can be wrong with one part, in the order of the sheet."""
    known = single_faults(sheet)
    return tuple(row for part in sheet.parts for row in _of_part(part, [f for f in known if f.part == part.id]))


def _of_part(part: Part, known: list[PartFault]) -> Iterator[LikelyFault]:
    kind = part.part_kind
    if not kind.fault_modes:
        yield LikelyFault(part.id, None, MECHANICAL_PRIOR)
    if kind.fault_modes:
        yield from (LikelyFault(part.id, None, row.mechanical, row.id) for row in kind.checks if row.mechanical > 0)
    for mode in kind.fault_modes:
        weight = usual_weight(part, mode)
        alike = [fault for fault in known if fault.mode is mode] or [PartFault(part.id, mode)]
        for fault in alike:
            yield LikelyFault(part.id, fault, weight / len(alike))


def symptom_chances(sheet: Sheet, part: Part, fault: PartFault | None) -> dict[Symptom, float]:
    """Return how likely each symptom is the one that is told of a fault; they add up to one.

    A contact or a lead that feeds another part shows as that part does when it is not fed: an output of the board
    that drives the pump, the heater's lead in the harness.

    Parameters
    ----------
    sheet
        The machine's type.
    part
        What is faulty.
    fault
        How, None for what only eye and hand judge.
    """
    if fault is not None and is_of_earth(fault):
        return _TINGLES
    mode = fault.mode if fault else None
    fed = _fed_by(sheet, part, fault) if fault and mode not in _NOT_BY_ITS_LOAD else None
    explains = fed.part_kind.explains if fed else part.part_kind.explains
    whatever = _WHATEVER_PART.get(mode, {}) if mode else {}
    if mode is FaultMode.WELDED and part.traits.role is Role.INTERLOCK:
        # An interlock that never opens is a danger, and stops nothing: at most the door stays shut.
        explains = {Symptom.NO_OPEN: BYPASSED_NO_OPEN} if Symptom.NO_OPEN in explains else {}
    told = {
        symptom: STRAY_SYMPTOM + max(explains.get(symptom, 0.0) * _shows(symptom, mode), whatever.get(symptom, 0.0))
        for symptom in Symptom
    }
    total = sum(told.values())
    return {symptom: chance / total for symptom, chance in told.items()}


_NOT_BY_ITS_LOAD = frozenset({FaultMode.LEAK, FaultMode.SHORT})
_SWITCHES = frozenset({Role.BOARD, Role.TIMER, Role.HARNESS})


def is_of_earth(fault: PartFault) -> bool:
    """Tell whether a fault is one of the protective conductor."""
    return fault.mode is FaultMode.EARTH_OPEN or fault.element == EARTH_PIN


# A broken earth does nothing but let the chassis float: the capacitors of the filter alone make it tingle. Where it
# was found along with something else that thing is told (ours).
_TINGLES = {symptom: 0.6 if symptom is Symptom.SHOCK else 0.4 / (len(Symptom) - 1) for symptom in Symptom}


def _fed_by(sheet: Sheet, part: Part, fault: PartFault) -> Part | None:
    """Return the part that a board's output, a timer's contact or a lead feeds: by the nets, whatever it is called."""
    if part.traits.role not in _SWITCHES:
        return None
    named = (row for row in elements_of(sheet, part.id) if not fault.element or row.name == fault.element)
    element = next((row for row in named if fault.mode in row.effects), None)
    if element is None or FaultMode.BAD_JOINT not in element.effects:
        return None
    fed = fed_part(sheet, part.id, element.name)
    return sheet.part(fed) if fed else None


def _shows(symptom: Symptom, mode: FaultMode | None) -> float:
    if mode is None:
        return 1.0
    listed, other = _BY_MODE.get(symptom, (_FUNCTION_LOST, 1.0))
    return listed.get(mode, other)
