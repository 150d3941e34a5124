"""What a repaired machine has to show, in the order in which it is shown.

Order, methods and limits as in EN 50678 and EN 50699, from memory; 120 V practice where the supply is of that world.
Each part of the order protects the next: no voltage on a machine whose earth is not proved.
"""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import dataclass
from enum import StrEnum

from ohmcensus.core.case import Case
from ohmcensus.core.event import Changed, InsulationNotAllowed
from ohmcensus.core.judgement import limited
from ohmcensus.core.limits import HEATING, LimitProfile
from ohmcensus.core.machine import machine_tests
from ohmcensus.core.parts.kind import Proves
from ohmcensus.core.quantity import Interval, Unit
from ohmcensus.core.sheet import Sheet
from ohmcensus.core.window import Source, Window

# Protective conductor current, in amperes: in general; each kW of heating over 3.5 kW; never more.
CURRENT_A, CURRENT_A_PER_KW, HEATING_FROM_W, MOST_CURRENT_A = 3.5e-3, 1e-3, 3500.0, 10e-3
AMPERE_A_MILLIAMPERE = 1e-3
TUB_HEATER = "heater"
# Kinds whose change may have spoilt the heating: the warming is timed then, and not after a new lock.
_HEATING_HANGS_ON = frozenset({TUB_HEATER, "ntc", "thermal_cutout", "control_board", "harness", "pressure_switch"})


class ShownBy(StrEnum):
    """How a criterion is shown."""

    SEEN = "seen"
    READING = "reading"
    CURRENT = "current"
    RUN = "run"
    HEAT = "heat"


@dataclass(frozen=True, slots=True)
class Criterion:
    """One thing to show.

    Parameters
    ----------
    id, title, how
        Its name, what it is, what to do.
    kind
        Seen, a reading of the quick line, a current with its method, a watched run, or the warming timed in one.
    window
        What it has to read, None where it is seen.
    test
        Test of the sheet whose reading shows it, empty for all others.
    caution
        What can hurt here.
    """

    id: str
    title: str
    how: str
    kind: ShownBy
    window: Window | None = None
    test: str = ""
    caution: str = ""


def criteria(case: Case) -> tuple[Criterion, ...]:
    """Return what the machine of a case has to show, in order."""
    return tuple(_criteria(case))


def current_limit_a(sheet: Sheet, limits: LimitProfile) -> float:
    """Return the greatest protective conductor current in amperes.

    Notes
    -----
    The profile's own where it has one; else 3.5 mA, over 3.5 kW of heating 1 mA a kW, at most 10 mA.
    """
    if limits.conductor_ma is not None:
        return limits.conductor_ma * AMPERE_A_MILLIAMPERE
    heating = sum(float(getattr(part.ratings, "watts", 0.0)) for part in sheet.parts if part.kind in HEATING)
    if heating <= HEATING_FROM_W:
        return CURRENT_A
    return min(MOST_CURRENT_A, CURRENT_A_PER_KW * heating / 1000)


def tub_heater_watts(sheet: Sheet) -> float:
    """Return the stamped power of what heats the tub, nought where nothing does."""
    return sum(float(getattr(part.ratings, "watts", 0.0)) for part in sheet.parts if part.kind == TUB_HEATER)


def _is_heating_touched(case: Case) -> bool:
    """Tell whether a part was changed that the heating hangs on."""
    changed = {event.body.part for event in case.events if isinstance(event.body, Changed)}
    return any(part.id in changed and part.kind in _HEATING_HANGS_ON for part in case.sheet.parts)


def _criteria(case: Case) -> Iterator[Criterion]:
    yield Criterion("visual", "Looked at", "Cord, plug, covers, seals, earth tags: whole and in place.", ShownBy.SEEN)
    yield from _dead(case)
    yield from _currents(case)
    yield Criterion("function", "Runs through", "Lock, fill, heat, turn both ways, drain, spin, unlock.", ShownBy.RUN)
    if tub_heater_watts(case.sheet) and _is_heating_touched(case):
        how = "Time the heating: litres, temperature by thermometer before and after. Dry heat: stop at once."
        yield Criterion("heat", "Water warms as computed", how, ShownBy.HEAT)
    yield Criterion("joints", "No leak", "Every joint that was disturbed is dry after the run.", ShownBy.SEEN)
    drum = "Turned by hand, the machine unplugged: no knock, no scrape."
    yield Criterion("drum", "Drum turns free", drum, ShownBy.SEEN)
    if case.sheet.service.schemes:
        yield Criterion("codes", "Codes cleared and read again", "None is stored after the run.", ShownBy.SEEN)


def _dead(case: Case) -> Iterator[Criterion]:
    """Yield earth and insulation: readings of the quick line, machine proved dead."""
    words = {
        Proves.EARTH: ("protective_conductor", "Protective conductor", "From the plug's earth pin, cord flexed."),
        Proves.INSULATION: ("insulation", "Insulation at 500 V", "L and N joined against earth, switched on."),
    }
    for test in machine_tests(case.sheet, case.celsius):
        if test.proves is None or (test.proves is Proves.EARTH and case.sheet.protection_class == "II"):
            continue
        if test.proves is Proves.INSULATION and is_insulation_barred(case):
            continue
        name, title, how = words[test.proves]
        window = limited(test, case.sheet, case.limits).window
        caution = "Hands off while it drives 500 V; discharge after." if test.proves is Proves.INSULATION else ""
        yield Criterion(name, title, how, ShownBy.READING, window, test.id, caution)


def is_insulation_barred(case: Case) -> bool:
    """Tell whether insulation may not be tested: the current with heat on is mandatory then."""
    return any(isinstance(event.body, InsulationNotAllowed) for event in case.events)


def _currents(case: Case) -> Iterator[Criterion]:
    live = "Live: stand insulated, touch nothing but the tester."
    if case.sheet.protection_class != "II":
        window = _at_most(current_limit_a(case.sheet, case.limits), case.limits)
        heat = ", heat on" if is_insulation_barred(case) else ""
        for name, how in (("current", f"Machine running{heat}."), ("current_turned", f"The same{heat}, plug turned.")):
            turned = ", plug turned" if name == "current_turned" else ""
            yield Criterion(name, f"Protective conductor current{turned}", how, ShownBy.CURRENT, window, caution=live)
    else:
        yield Criterion(
            "touch",
            "Touch current",
            "Every metal part that can be touched and is not earthed.",
            ShownBy.CURRENT,
            _at_most(case.limits.touch_ma * AMPERE_A_MILLIAMPERE, case.limits),
            caution=live,
        )


def _at_most(ampere: float, limits: LimitProfile) -> Window:
    basis = f"{limits.title}: {limits.basis}" if limits.basis else limits.title
    return Window(Interval(-math.inf, ampere), Unit.AMPERE, Source.COMMON, basis)
