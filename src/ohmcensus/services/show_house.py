"""The circuit of the house in words: budget, chance of a trip, what the device cannot see."""

from __future__ import annotations

from pydantic import BaseModel

from ohmcensus.core.case import Case
from ohmcensus.core.event import CircuitNoted, Supply
from ohmcensus.core.quantity import Interval, Unit, show_value
from ohmcensus.core.symptom import Device
from ohmcensus.core.trip.house import House, house_of
from ohmcensus.core.trip.isolate import isolate
from ohmcensus.core.trip.of_case import MILLIAMPERES, problem_of
from ohmcensus.core.trip.overcurrent import breaker_bands
from ohmcensus.core.trip.problem import Method

_DEVICES = (Device.RCD, Device.RCBO, Device.GFCI, Device.BREAKER, Device.AFCI)


class HouseChoice(BaseModel):
    """Something that can be chosen, with its words."""

    id: str
    words: str


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
        What the breaker carries and breaks.
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
    blind_to: list[str]
    supplies: list[HouseChoice]
    devices: list[HouseChoice]


def house_view(case: Case) -> HouseView:
    """Return the circuit of a case."""
    found = house_of(case, _machine_a(case))
    device = found.device
    return HouseView(
        noted=found.noted,
        title=device.title if device else "no residual-current device",
        budget=_budget(found),
        verdict=_verdict(found),
        chance_lo=found.chance.chance.lo if found.chance else None,
        chance_hi=found.chance.chance.hi if found.chance else None,
        used=min(1.0, found.chance.total_a.hi / device.must_hold_a) if found.chance and device else 0.0,
        breaker=_breaker(found.noted),
        blind_to=list(found.blind_to),
        supplies=[HouseChoice(id=row, words=row.words) for row in Supply],
        devices=[HouseChoice(id=row, words=row.words) for row in _DEVICES],
    )


def _breaker(noted: CircuitNoted) -> str:
    bands = breaker_bands(noted.curve, noted.rated_a)
    slow = f"holds {bands.slow_a.lo:.3g} A, breaks {bands.slow_a.hi:.3g} A within the hour"
    at_once = f"goes at once from {bands.at_once_a.lo:.3g} to {bands.at_once_a.hi:.3g} A"
    return f"{noted.curve}{noted.rated_a} A: {slow}, {at_once}."


def _machine_a(case: Case) -> Interval | None:
    """Return what the runs prove of the whole machine's leakage, None where no leakage run says."""
    problem = problem_of(case, Method.LEAKAGE)
    names = {part.id for part in problem.present}
    whole = [run for run in problem.counted if names <= run.connected | run.maybe]
    if not whole or isolate(problem).is_refused:
        return None
    last = whole[-1].interval.scaled(1 / MILLIAMPERES)
    return last if last.finite_hi is not None else Interval(last.lo, max(last.lo, 1.0))


def _budget(found: House) -> str:
    if found.device is None:
        return "Nothing here adds up leaks: no budget."
    standing = _milliamperes(found.standing_a)
    must = f"It must hold {_ma(found.device.must_hold_a)}."
    return f"{must} The rest of the circuit leaks {standing}, the machine {_machine(found)}."


def _machine(found: House) -> str:
    said = "" if found.is_machine_proved else " if it is sound"
    return f"{_milliamperes(found.machine_a)}{said}"


def _verdict(found: House) -> str:
    """Say whether the machine trips it, or the sum."""
    if found.device is None or found.chance is None:
        return ""
    hold = found.device.must_hold_a
    if found.chance.total_a.hi < hold:
        return "Machine and rest together stay under what it must hold: nothing here explains a trip."
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
