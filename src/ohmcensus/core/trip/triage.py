"""Before any meter: which device went and when says which parts stood at line potential, and what is asked first."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from enum import StrEnum

from ohmcensus.core.event import Tripped
from ohmcensus.core.job.case import Case
from ohmcensus.core.machine.coverage import Driven, driven
from ohmcensus.core.machine.likely import LEAST_WEIGHT, usual_weight
from ohmcensus.core.machine.moments import STEPS, states_at_moment
from ohmcensus.core.machine.netlist import Configuration, part_modes
from ohmcensus.core.parts.fault import FaultMode
from ohmcensus.core.parts.kind import Role
from ohmcensus.core.sheet import Part, Sheet
from ohmcensus.core.symptom import Device, Moment


class FaultClass(StrEnum):
    """What kind of fault makes a device go."""

    LEAK = "leak"
    NEUTRAL_TO_EARTH = "neutral_to_earth"
    SHORT = "short"
    OVERLOAD = "overload"
    ARC = "arc"

    @property
    def words(self) -> str:
        """The class in words."""
        return _CLASS_WORDS[self]


_CLASS_WORDS = {
    FaultClass.LEAK: "leak from line to earth",
    FaultClass.NEUTRAL_TO_EARTH: "leak from neutral to earth",
    FaultClass.SHORT: "short from line to neutral, or a solid one to earth",
    FaultClass.OVERLOAD: "overload: a seized motor, inrush, too much on the circuit",
    FaultClass.ARC: "arc: brushes, loose tags, a chafed cord",
}
# What each device senses (common practice, no source).
SENSES = {
    Device.RCD: (FaultClass.LEAK, FaultClass.NEUTRAL_TO_EARTH),
    Device.GFCI: (FaultClass.LEAK, FaultClass.NEUTRAL_TO_EARTH),
    Device.BREAKER: (FaultClass.SHORT, FaultClass.OVERLOAD),
    Device.FUSE: (FaultClass.SHORT, FaultClass.OVERLOAD),
    Device.RCBO: (FaultClass.LEAK, FaultClass.NEUTRAL_TO_EARTH, FaultClass.SHORT, FaultClass.OVERLOAD),
    Device.AFCI: (FaultClass.ARC, FaultClass.SHORT),
    Device.UNKNOWN: tuple(FaultClass),
}
# A part that was at line potential before and held, against one that is new by the moment; and one that only
# touches neutral (ours): damp grows, so what held yesterday is not excluded.
HELD_BEFORE, NEUTRAL_ONLY, NOT_REACHED = 0.3, 0.15, 0.02


@dataclass(frozen=True, slots=True)
class Energised:
    """How a part stood when the device went.

    Parameters
    ----------
    part
        Which.
    since
        First moment of a cycle at which line comes to it, None where it never does before the device went.
    is_new
        Line came to it at this very moment.
    if_turned
        It is at line potential from plugging in where the plug sits the other way round, or a neutral is switched.
    stood
        How the way it stood counts, 1 for a part that was new by then.
    weight
        How likely it is the one, against the others.
    """

    part: str
    since: Moment | None
    is_new: bool
    if_turned: bool
    stood: float
    weight: float


@dataclass(frozen=True)
class Triage:
    """What device and moment say.

    Parameters
    ----------
    device, moment
        As last told.
    classes
        Kinds of fault that make this device go.
    parts
        The likeliest first; those that touch nothing dangerous are left out.
    first
        What to measure first, in order.
    notes
        What else it may be.
    """

    device: Device
    moment: Moment
    classes: tuple[FaultClass, ...]
    parts: tuple[Energised, ...]
    first: tuple[str, ...]
    notes: tuple[str, ...]


def triage(case: Case) -> Triage:
    """Return what device and moment of the last trip say of this machine.

    The parts at line potential are worked out from the circuit in the programme steps up to the moment, so that a
    relay left in the neutral or a part without a switch shows; no list of parts by moment is kept anywhere.
    """
    device, moment = last_trip(case)
    classes = SENSES[device]
    passed = _until(moment)
    reached = tuple((when, _driven_at(case.sheet, when, is_last=when is passed[-1])) for when in passed)
    rows = [_energised(case, part, moment, reached, classes) for part in case.sheet.parts if _matters(case, part)]
    return Triage(
        device,
        moment,
        classes,
        tuple(sorted(rows, key=lambda row: -row.weight)),
        tuple(_first(classes, moment)),
        tuple(_notes(device, moment)),
    )


def last_trip(case: Case) -> tuple[Device, Moment]:
    """Return the device and the moment as they were last told."""
    trips = [event.body for event in case.of(Tripped)]
    if trips:
        return trips[-1].device, trips[-1].moment
    return case.complaint.device, case.complaint.moment


def _until(moment: Moment) -> tuple[Moment, ...]:
    """Return the moments of a cycle up to one; all of them where the moment is none of a cycle."""
    order = tuple(STEPS)
    return order[: order.index(moment) + 1] if moment in STEPS else order


def _driven_at(sheet: Sheet, moment: Moment, *, is_last: bool) -> tuple[Driven, ...]:
    """Return how far the poles come in every step of a moment, the door as it then is."""
    at = states_at_moment(sheet, moment, is_last=is_last)
    return tuple(driven(sheet, Configuration(states=states)) for states in at)


def _matters(case: Case, part: Part) -> bool:
    modes = part_modes(case.sheet, part.id)
    return part.traits.role is not Role.OUTLET and (FaultMode.LEAK in modes or FaultMode.SHORT in modes)


def _energised(
    case: Case,
    part: Part,
    moment: Moment,
    reached: tuple[tuple[Moment, tuple[Driven, ...]], ...],
    classes: tuple[FaultClass, ...],
) -> Energised:
    since = next((when for when, steps in reached if any(part.id in step.from_line for step in steps)), None)
    at_rest = reached[0][1]
    if_turned = since is not Moment.PLUGGING_IN and any(part.id in step.only_from_neutral for step in at_rest)
    is_new = since is moment
    stood = 1.0 if is_new else HELD_BEFORE if since else NEUTRAL_ONLY if if_turned else NOT_REACHED
    return Energised(part.id, since, is_new, if_turned, stood, max(_prior(case, part, classes) * stood, 1e-3))


def _prior(case: Case, part: Part, classes: tuple[FaultClass, ...]) -> float:
    """Return how often a part has a fault of these classes: leaks mostly where it touches the chassis."""
    modes = part_modes(case.sheet, part.id)
    leak = short = 0.0
    if FaultClass.LEAK in classes and FaultMode.LEAK in modes:
        leak = max(LEAST_WEIGHT, usual_weight(part, FaultMode.LEAK))
    if FaultClass.SHORT in classes and FaultMode.SHORT in modes:
        short = max(LEAST_WEIGHT, usual_weight(part, FaultMode.SHORT))
    return leak + short


def _first(classes: tuple[FaultClass, ...], moment: Moment) -> Iterator[str]:
    """Yield what to measure first; a dead machine before a live one."""
    if FaultClass.LEAK in classes:
        yield "Machine unplugged and proved dead: L and N joined against earth at 500 V, the whole machine."
    if FaultClass.NEUTRAL_TO_EARTH in classes and moment in {Moment.PLUGGING_IN, Moment.RANDOM, Moment.UNKNOWN}:
        yield "N alone against earth, unplugged, the switch both ways: at least 1 MΩ."
    if FaultClass.SHORT in classes:
        yield "Ohms from L to N at the plug, machine off, then each part that was new by then: none under its window."
    if FaultClass.OVERLOAD in classes:
        yield "Turn the motor and the pump by hand: seized ones draw several times their current."
    if FaultClass.ARC in classes:
        yield "Look: brushes, tags, cord. An arc leaves soot and no reading."
    if moment is Moment.HOT_ONLY:
        yield "Measure it hot: a sheath that opens with heat reads well when cold."
    if moment is Moment.AFTER_REST:
        yield "Measure it before it is run: damp dries out in minutes."


def _notes(device: Device, moment: Moment) -> Iterator[str]:
    """Yield what else it may be."""
    senses_residual = FaultClass.NEUTRAL_TO_EARTH in SENSES[device]
    if senses_residual and moment is Moment.PLUGGING_IN:
        yield (
            "It goes with the machine switched off: a neutral-to-earth fault needs no switch. Single-pole switches and "
            "breakers leave neutral joined, and as soon as other loads run, part of their current returns by earth."
        )
    if device is Device.GFCI:
        yield "A GFCI of class A goes at 4 to 6 mA, and on neutral to earth with no load at all."
    if device is Device.BREAKER:
        yield "Behind an earthed neutral and without an RCD a solid earth fault trips the breaker too."
    if device in {Device.RCBO, Device.UNKNOWN}:
        yield "Ask which it was: it halves the search. Until then both leak and short are measured."
    if device is Device.AFCI:
        yield "Dual-function devices sense residual current too: ask which lamp or code it showed."
    if moment is Moment.RANDOM:
        yield "No pattern: harness chafe, moisture in a connector, or another appliance. Look at the circuit's sum."
    if moment in {Moment.HEATING, Moment.TURNING} and senses_residual:
        yield "It trips when something new is switched on: what was live before that has held so far."
