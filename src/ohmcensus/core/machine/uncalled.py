"""Volts at a load in a step that does not call it: what shows a relay or a driver that is stuck."""

from __future__ import annotations

import math
from functools import lru_cache
from itertools import combinations

from ohmcensus.core.machine.feeds import load_points
from ohmcensus.core.machine.netlist import Configuration
from ohmcensus.core.machine.probe import Probe, predict
from ohmcensus.core.meter import Function
from ohmcensus.core.parts.control_board import HEATER_RELAY
from ohmcensus.core.parts.fault import FaultMode
from ohmcensus.core.parts.kind import MachineState, TestSpec
from ohmcensus.core.quantity import Interval, Unit
from ohmcensus.core.quantity.window import Source, Window
from ohmcensus.core.sheet import Part, Sheet

UNCALLED, REST = "uncalled", "off"
_DOORS = ("door", "lid")
# A load that is not called has nothing but ghost volts, up to so much of the supply; over half its relay or driver is
# stuck (common practice, no source).
GHOST_SHARE, STUCK_SHARE = 0.3, 0.5


def uncalled_test(sheet: Sheet, part: Part) -> TestSpec | None:
    """Return the test of a load in a step that does not call it; None of a part that nothing switches.

    Parameters
    ----------
    sheet
        The machine's type.
    part
        Which part.

    Notes
    -----
    A load is switched where the nominal machine puts over half of the supply across it in one step and next to
    nothing in another. The step that is named is the first of those, rest only where there is no other.
    """
    found = _switched(sheet, part.id)
    if found is None:
        return None
    (one, other), states = found
    own = (one.partition(".")[2], other.partition(".")[2])
    return TestSpec(
        name=UNCALLED,
        title="volts, not called",
        between=own,
        function=Function.VOLTS_AC,
        expect=lambda _celsius: _window(sheet.volts),
        blind_to=tuple(FaultMode),
        state=MachineState.LIVE,
        minutes=2.0,
        sets=states,
        advice="In a step that does not call it: say in which. Where it has electronics, by a low-impedance meter.",
    )


def load_ohm(sheet: Sheet, part_id: str) -> float:
    """Return what lies between the points of a switched load, in ohms; infinite where nothing is known."""
    found = _switched(sheet, part_id)
    if found is None:
        return math.inf
    shown = predict(sheet, Probe(Function.OHM, found[0]), Configuration(frozenset({"mains_plug"} & sheet.plugs.keys())))
    return math.inf if shown.value is None else shown.value


def _window(volts: float) -> Window:
    words = f"ghost volts, under {GHOST_SHARE * volts:.0f} V"
    basis = f"not called: {words}; over half of {volts:g} V its relay or driver is stuck (common practice)"
    return Window(Interval(-math.inf, GHOST_SHARE * volts), Unit.VOLT, Source.COMMON, basis, nominal=0.0, words=words)


@lru_cache(maxsize=512)
def _switched(sheet: Sheet, part_id: str) -> tuple[tuple[str, str], dict[str, str]] | None:
    """Return the points of a load that is switched, and how the machine stands while it is not called."""
    part = sheet.part(part_id)
    steps = sheet.states.get("programme", ())
    if part is None or not sheet.nets or not steps:
        return None
    best: tuple[float, tuple[str, str], dict[str, float]] | None = None
    for pair in combinations(sorted(load_points(sheet, part) & {*sheet.points}), 2):
        volts = {step: _volts(sheet, pair, step) for step in steps}
        most = max(volts.values())
        # Of a motor the winding that stands at the supply, not two in a row.
        if best is None or abs(most - sheet.volts) < abs(best[0] - sheet.volts):
            best = (most, pair, volts)
    if best is None or best[0] <= STUCK_SHARE * sheet.volts:
        return None
    idle = [step for step in steps if best[2][step] < GHOST_SHARE * sheet.volts]
    step = next((step for step in idle if step != REST), next(iter(idle), None))
    return None if step is None else (best[1], _states(sheet, step))


def _volts(sheet: Sheet, pair: tuple[str, str], step: str) -> float:
    shown = predict(sheet, Probe(Function.VOLTS_AC, pair), Configuration(frozenset(), _states(sheet, step)))
    return abs(shown.value or 0.0)


def _states(sheet: Sheet, step: str) -> dict[str, str]:
    """Return how a machine stands in a step: door and lid as far shut as they go, the heater's relay as it calls."""
    states = {"programme": step}
    states |= {name: sheet.states[name][-1] for name in _DOORS if sheet.states.get(name)}
    if HEATER_RELAY in sheet.states:
        states[HEATER_RELAY] = "closed" if step == "heat" else "open"
    return states
