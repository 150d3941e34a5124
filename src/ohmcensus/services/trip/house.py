"""The circuit of the house in words: budget, chance of a trip, what the device cannot see."""

from __future__ import annotations

from pydantic import BaseModel

from ohmcensus.core.event import CircuitNoted, Supply
from ohmcensus.core.job.case import Case
from ohmcensus.core.quantity import Interval, Unit, show_value
from ohmcensus.core.sheet import Sheet
from ohmcensus.core.symptom import Device
from ohmcensus.core.trip.house import House, house_of
from ohmcensus.core.trip.of_case import MILLIAMPERES
from ohmcensus.core.trip.overcurrent import GENERAL_FUSE, PLUG_FUSE, BreakerBands, Inrush, breaker_bands, inrush_of
from ohmcensus.core.trip.triage import last_trip
from ohmcensus.core.trip.whole import machine_a
from ohmcensus.services.at_hand.choice import Choice, choices_of

_DEVICES = (Device.RCD, Device.RCBO, Device.GFCI, Device.BREAKER, Device.AFCI)

_SENSE_LEAKS = frozenset({Device.RCD, Device.RCBO, Device.GFCI})
_ALL_THE_SAME = (
    "It went all the same: the leak grows when hot, wet or turning, something else leaks too, or the device goes early."
)


class HouseView(BaseModel):
    """The circuit that feeds the machine.

    Attributes
    ----------
    noted
        As written down.
    title, budget, verdict
        The device; what it holds and what is used of it; machine or sum, in a sentence each.
    chance_lo, chance_hi
        Of a trip, None where nothing senses a leak.
    used
        Share of what the device must hold that is used, with the machine; at most 1.
    breaker
        What the breaker or fuse carries and breaks.
    draws
        What this machine asks of it: its current, and the inrush of its motor.
    appliances
        Everything else on the device with what it leaks, in print.
    blind_to
        One sentence each.
    """

    noted: CircuitNoted
    title: str
    budget: str
    verdict: str
    chance_lo: float | None
    chance_hi: float | None
    used: float
    breaker: str
    draws: str
    appliances: list[str]
    blind_to: list[str]
    supplies: list[Choice]
    devices: list[Choice]


def house_view(case: Case) -> HouseView:
    """Return the circuit of a case."""
    found = house_of(case, machine_a(case))
    device = found.device
    return HouseView(
        noted=found.noted,
        title=device.title if device else "no residual-current device",
        budget=_budget(found),
        verdict=_verdict(found, has_tripped=last_trip(case)[0] in _SENSE_LEAKS),
        chance_lo=found.chance.chance.lo if found.chance else None,
        chance_hi=found.chance.chance.hi if found.chance else None,
        used=min(1.0, found.chance.total_a.hi / device.must_hold_a) if found.chance and device else 0.0,
        breaker=_breaker(found.noted),
        draws=_draws(found.noted, case.sheet),
        appliances=[f"{row.name}: {_ma(row.leakage_ma / MILLIAMPERES)}" for row in found.noted.appliances],
        blind_to=list(found.blind_to),
        supplies=choices_of(Supply),
        devices=choices_of(_DEVICES),
    )


def _breaker(noted: CircuitNoted) -> str:
    bands = breaker_bands(noted.curve, noted.rated_a)
    slow = f"holds {bands.slow_a.lo:.3g} A, breaks {bands.slow_a.hi:.3g} A within the hour"
    at_once = f"goes at once from {bands.at_once_a.lo:.3g} to {bands.at_once_a.hi:.3g} A"
    return f"{_name(noted)}: {slow}, {at_once}."


def _name(noted: CircuitNoted) -> str:
    named = {GENERAL_FUSE: "Fuse gG ", PLUG_FUSE: "Plug fuse "}.get(noted.curve, f"Breaker {noted.curve}")
    return f"{named}{noted.rated_a} A"


def _draws(noted: CircuitNoted, sheet: Sheet) -> str:
    """Say what the machine draws, and whether the inrush of its motor may open the breaker."""
    bands = breaker_bands(noted.curve, noted.rated_a)
    lasting = f"This machine draws {sheet.watts / sheet.volts:.2g} A with everything on"
    return "; ".join([lasting, *(_inrush(row, bands) for row in inrush_of(sheet))]) + "."


def _inrush(row: Inrush, bands: BreakerBands) -> str:
    said = f"{row.title}, at the moment it starts: {row.ampere.lo:.2g} to {row.ampere.hi:.2g} A"
    if row.ampere.hi < bands.at_once_a.lo:
        return f"{said}, which opens nothing"
    return f"{said}, which {'opens it' if row.ampere.lo >= bands.at_once_a.hi else 'may open it on a healthy machine'}"


def _budget(found: House) -> str:
    if found.device is None:
        return "Nothing here adds up leaks: no budget."
    if found.chance is None:
        return "The neutral is not earthed here: leaks do not add up at the device, no budget."
    standing = _milliamperes(found.standing_a)
    must = f"It must hold {_ma(found.device.must_hold_a)}."
    return f"{must} The rest of the circuit leaks {standing}, the machine {_machine(found)}."


def _machine(found: House) -> str:
    said = "" if found.is_machine_proved else " if it is sound"
    return f"{_milliamperes(found.machine_a)}{said}"


def _verdict(found: House, *, has_tripped: bool) -> str:
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
    lo, hi = _ma(span.lo), _ma(span.hi)
    return lo if lo == hi else f"{lo} to {hi}"


def _ma(ampere: float) -> str:
    return show_value(ampere, Unit.AMPERE, figures=2)
