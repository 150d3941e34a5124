"""The circuit of the house in words: budget, chance of a trip, what the device cannot see."""

from __future__ import annotations

from pydantic import BaseModel

from ohmcensus.core.event import CircuitNoted, Supply
from ohmcensus.core.job.case import Case
from ohmcensus.core.symptom import Device
from ohmcensus.core.trip.house import house_of
from ohmcensus.core.trip.of_case import MILLIAMPERES
from ohmcensus.core.trip.triage import last_trip
from ohmcensus.core.trip.whole import machine_a
from ohmcensus.services.at_hand.choice import Choice, choices_of
from ohmcensus.services.trip.house_words import breaker_words, budget_words, current_words, draws_words, verdict_words

_DEVICES = (Device.RCD, Device.RCBO, Device.GFCI, Device.BREAKER, Device.AFCI)

_SENSE_LEAKS = frozenset({Device.RCD, Device.RCBO, Device.GFCI})


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
        budget=budget_words(found),
        verdict=verdict_words(found, has_tripped=last_trip(case)[0] in _SENSE_LEAKS),
        chance_lo=found.chance.chance.lo if found.chance else None,
        chance_hi=found.chance.chance.hi if found.chance else None,
        used=min(1.0, found.chance.total_a.hi / device.must_hold_a) if found.chance and device else 0.0,
        breaker=breaker_words(found.noted),
        draws=draws_words(found.noted, case.sheet),
        appliances=[f"{row.name}: {current_words(row.leakage_ma / MILLIAMPERES)}" for row in found.noted.appliances],
        blind_to=list(found.blind_to),
        supplies=choices_of(Supply),
        devices=choices_of(_DEVICES),
    )
