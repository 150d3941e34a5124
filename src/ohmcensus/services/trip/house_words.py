"""The circuit of the house in sentences: budget, breaker, inrush, machine or sum."""

from __future__ import annotations

from ohmcensus.core.event import CircuitNoted
from ohmcensus.core.quantity import Interval, Unit, show_value
from ohmcensus.core.sheet import Sheet
from ohmcensus.core.trip.house import House
from ohmcensus.core.trip.overcurrent import GENERAL_FUSE, PLUG_FUSE, BreakerBands, Inrush, breaker_bands, inrush_of

_ALL_THE_SAME = (
    "It tripped anyway: the leak grows when hot, wet or turning, something else leaks too, or the device goes early."
)


def breaker_words(noted: CircuitNoted) -> str:
    """Say what the breaker or fuse carries and breaks."""
    bands = breaker_bands(noted.curve, noted.rated_a)
    slow = f"holds {bands.slow_a.lo:.3g} A, breaks {bands.slow_a.hi:.3g} A within the hour"
    at_once = f"goes at once from {bands.at_once_a.lo:.3g} to {bands.at_once_a.hi:.3g} A"
    return f"{_name(noted)}: {slow}, {at_once}."


def _name(noted: CircuitNoted) -> str:
    named = {GENERAL_FUSE: "Fuse gG ", PLUG_FUSE: "Plug fuse "}.get(noted.curve, f"Breaker {noted.curve}")
    return f"{named}{noted.rated_a} A"


def draws_words(noted: CircuitNoted, sheet: Sheet) -> str:
    """Say what the machine draws, and whether the inrush of its motor may open the breaker."""
    bands = breaker_bands(noted.curve, noted.rated_a)
    lasting = f"This machine draws {sheet.watts / sheet.volts:.2g} A with everything on"
    return "; ".join([lasting, *(_inrush(row, bands) for row in inrush_of(sheet))]) + "."


def _inrush(row: Inrush, bands: BreakerBands) -> str:
    said = f"{row.title}, at the moment it starts: {row.ampere.lo:.2g} to {row.ampere.hi:.2g} A"
    if row.ampere.hi < bands.at_once_a.lo:
        return f"{said}, which opens nothing"
    return f"{said}, which {'opens it' if row.ampere.lo >= bands.at_once_a.hi else 'may open it on a healthy machine'}"


def budget_words(found: House) -> str:
    """Say what the device must hold and how much of it is used."""
    if found.device is None:
        return "Nothing here adds up leaks: no budget."
    if found.chance is None:
        return "The neutral is not earthed here: leaks do not add up at the device, no budget."
    standing = _milliamperes(found.standing_a)
    must = f"It must hold {current_words(found.device.must_hold_a)}."
    return f"{must} The rest of the circuit leaks {standing}, the machine {_machine(found)}."


def _machine(found: House) -> str:
    said = "" if found.is_machine_proved else " if it is sound"
    return f"{_milliamperes(found.machine_a)}{said}"


def verdict_words(found: House, *, has_tripped: bool) -> str:
    """Say whether the machine trips it, or the sum; and where neither should, that it went all the same."""
    if found.device is None or found.chance is None:
        return ""
    hold = found.device.must_hold_a
    if found.chance.total_a.hi < hold:
        said = "Machine" if found.is_machine_proved else "A sound machine"
        held = f"{said} and rest together stay under what it must hold: the device must not trip."
        return f"{held} {_ALL_THE_SAME}" if has_tripped else held
    if found.machine_a.lo >= hold:
        return "The machine alone may trip it."
    if found.standing_a.lo >= hold:
        return "The rest of the circuit alone may trip it: look there first."
    if found.machine_a.hi < hold:
        return "Only the sum may trip it: neither the machine nor one other appliance alone."
    return "Machine and rest together may trip it."


def _milliamperes(span: Interval) -> str:
    lo, hi = current_words(span.lo), current_words(span.hi)
    return lo if lo == hi else f"{lo} to {hi}"


def current_words(ampere: float) -> str:
    """Return a current in print."""
    return show_value(ampere, Unit.AMPERE, figures=2)
