"""How a machine stands at the moment at which a protective device goes."""

from __future__ import annotations

from ohmcensus.core.parts.control_board import CLOSED, HEATER_RELAY
from ohmcensus.core.sheet import Sheet
from ohmcensus.core.symptom import Moment

# Programme steps of each moment, by the names that sheets give them; a cycle passes the moments in this order.
STEPS = {
    Moment.PLUGGING_IN: ("off",),
    Moment.SWITCHING_ON: ("off",),
    Moment.START: ("lock",),
    Moment.FILLING: ("fill", "prewash"),
    Moment.HEATING: ("heat", "steam", "dry"),
    Moment.TURNING: ("turn", "wash", "shift", "spin"),
    Moment.DRAINING: ("drain",),
}
HEATS = frozenset({"heat"})
# Steps that come after those of the moments behind theirs: it drains before it spins.
_LATER = frozenset({"spin"})
_SHUT = {Moment.PLUGGING_IN: 0, Moment.SWITCHING_ON: 1}


def states_at_moment(sheet: Sheet, moment: Moment, *, is_last: bool = True) -> tuple[dict[str, str], ...]:
    """Return the states in every step of a moment, the door as it then is; none for no moment of a cycle.

    Parameters
    ----------
    sheet
        The machine's type.
    moment
        When.
    is_last
        Whether the cycle went no further: spinning comes after draining.
    """
    found = []
    for step in STEPS.get(moment, ()):
        if step not in sheet.states.get("programme", ()) or (step in _LATER and not is_last):
            continue
        states = {"programme": step}
        for door in ("door", "lid"):
            values = sheet.states.get(door, ())
            if values:
                states[door] = values[min(_SHUT.get(moment, len(values)), len(values) - 1)]
        if HEATER_RELAY in sheet.states:
            states[HEATER_RELAY] = CLOSED if step in HEATS else "open"
        found.append(states)
    return tuple(found)
