"""The state of safety of a machine, and the readings that each state forbids."""

from __future__ import annotations

from enum import StrEnum

from ohmcensus.core.errors import SafetyRefusalError
from ohmcensus.core.meter import Function


class SafetyState(StrEnum):
    """What the technician has established about voltage on the machine."""

    NOT_PROVED = "not_proved"
    DEAD = "dead"
    LIVE = "live"


def refuse_unsafe(function: Function, state: SafetyState) -> None:
    """Refuse a reading that the state forbids.

    Parameters
    ----------
    function
        What the instrument would do.
    state
        State of the machine now.

    Raises
    ------
    SafetyRefusalError
        For ohms, continuity, capacitance and insulation on a live machine: a wrong reading, a ruined
        meter and a danger to the hand (docs/guide.md, "Live mode").
    """
    if state is SafetyState.LIVE and function.needs_dead_circuit:
        what = f"live mode: no {_WORDS[function]} reading on a machine under voltage"
        remedy = "unplug it, prove it dead and leave live mode first"
        raise SafetyRefusalError(what=what, remedy=remedy, field="safety")


_WORDS = {
    Function.OHM: "ohms",
    Function.CONTINUITY: "continuity",
    Function.INSULATION: "insulation",
    Function.CAPACITANCE: "capacitance",
}
