"""What safety refuses, whoever asks: the page, the API or a script."""

from __future__ import annotations

from ohmcensus.core.case import Case
from ohmcensus.core.errors import InputError, SafetyRefusalError
from ohmcensus.core.event import (
    Body,
    BypassRemoved,
    CycleBegun,
    EarthLifted,
    EarthRefitted,
    EntryTried,
    Hazard,
    HazardFound,
    LiveBegun,
    PluggedIn,
    Reclosed,
    RunWatched,
    Tripped,
)
from ohmcensus.core.meter import Function
from ohmcensus.core.safety.hazards import earths_off, open_hazards, power_hazards
from ohmcensus.core.safety.state import SafetyState
from ohmcensus.core.symptom import Symptom

SHORTEST_REASON = 3


def refuse_unsafe(function: Function, state: SafetyState, *, is_loose: bool = False, override: str = "") -> None:
    """Refuse a reading that the state forbids.

    Parameters
    ----------
    function
        What the instrument would do.
    state
        State of the machine now.
    is_loose
        Whether the part lies loose: off the machine, or a cord in the hand.
    override
        Why the reading is taken although the machine is not proved dead; kept with the reading.

    Raises
    ------
    SafetyRefusalError
        For ohms, continuity, capacitance and insulation unless the machine is proved dead or the part
        lies loose: a wrong reading, a ruined meter and a danger to the hand. On a live machine no
        override helps.
    """
    if not function.needs_dead_circuit or state is SafetyState.DEAD or is_loose:
        return
    if state is SafetyState.LIVE:
        what = f"live mode: no {_WORDS[function]} reading on a machine under voltage"
        raise SafetyRefusalError(what=what, remedy="unplug it, prove it dead and leave live mode first", field="safety")
    if len(override.strip()) < SHORTEST_REASON:
        what = f"not proved dead: no {_WORDS[function]} reading yet"
        remedy = "prove it dead in Safe, say 'loose' for a part in your hand, or override with a reason"
        raise SafetyRefusalError(what=what, remedy=remedy, field="safety")


def refuse_event(case: Case, body: Body, state: SafetyState = SafetyState.NOT_PROVED) -> None:
    """Refuse what would put people in danger, or states what cannot be.

    Parameters
    ----------
    case
        Sheet and everything observed.
    body
        What is to be written down.
    state
        State of safety now.

    Raises
    ------
    SafetyRefusalError
        For power while a hazard forbids it, a second re-close after one trip, and an earth lifted from a machine
        that is not proved dead. What blocks ending a job is a rule of the proof.
    InputError
        For a re-close where nothing tripped, a bypass removed where none was found, an earth of a part that has
        none or whose earth was not off.
    """
    match body:
        case PluggedIn() | LiveBegun() | CycleBegun() | EntryTried() | RunWatched():
            _refuse_power(case)
        case Reclosed():
            _refuse_second_reclose(case)
            _refuse_power(case)
        case BypassRemoved() if not _bypassed(case):
            raise InputError(what="no bypass was found on this job", remedy="note it as found first", field="kind")
        case HazardFound(hazard=Hazard.EARTH_OFF):
            raise InputError(
                what="an earth off, of no part", remedy="note which part's earth is lifted", field="hazard"
            )
        case EarthLifted():
            _refuse_lifting(case, body.part, state)
        case EarthRefitted() if body.part not in earths_off(case):
            what = f"the earth of '{body.part}' is not off"
            raise InputError(what=what, remedy="note it as lifted first", field="part")
        case _:
            return


def _refuse_power(case: Case) -> None:
    blocking = power_hazards(case)
    if blocking:
        words = ", ".join(hazard.words for hazard in blocking)
        raise SafetyRefusalError(what=f"no power: {words}", remedy=blocking[0].remedy, field="hazard")


def _refuse_second_reclose(case: Case) -> None:
    """Allow one re-close for each trip."""
    trips = [event.order for event in case.events if isinstance(event.body, Tripped)]
    if Symptom.TRIPS in case.complaint.symptoms:
        trips = [0, *trips]
    if not trips:
        raise InputError(what="nothing has tripped on this job", remedy="log the trip first", field="kind")
    again = [event for event in case.events if isinstance(event.body, Reclosed) and event.order > trips[-1]]
    if again:
        what = "it was closed again once after this trip: not a second time"
        raise SafetyRefusalError(what=what, remedy="trace the fault with the machine dead", field="kind")


def _refuse_lifting(case: Case, name: str, state: SafetyState) -> None:
    """Allow an earth off only on a dead machine, and only a wire that is there."""
    part = case.sheet.part(name)
    if part is None or "pe" not in {pin.name for pin in part.pins()}:
        with_earth = [row.id for row in case.sheet.parts if "pe" in {pin.name for pin in row.pins()}]
        what = f"no earth wire on '{name}'"
        raise InputError(what=what, remedy=f"there is one on {', '.join(with_earth)}", field="part")
    if state is not SafetyState.DEAD:
        what = "the earth stays on: the machine is not proved dead"
        raise SafetyRefusalError(what=what, remedy="unplug it and prove it dead in Safe first", field="safety")


def _bypassed(case: Case) -> bool:
    return any(hazard.hazard is Hazard.BYPASS for hazard in open_hazards(case))


_WORDS = {
    Function.OHM: "ohms",
    Function.CONTINUITY: "continuity",
    Function.INSULATION: "insulation",
    Function.CAPACITANCE: "capacitance",
    Function.DIODE: "diode test",
}
