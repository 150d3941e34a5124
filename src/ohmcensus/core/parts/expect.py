"""Windows that many kinds of part share."""

from __future__ import annotations

import math
from collections.abc import Callable

from ohmcensus.core.meter import Function
from ohmcensus.core.parts.fault import FaultMode
from ohmcensus.core.parts.kind import Weaker
from ohmcensus.core.physics.supply import SUPPLY_TOLERANCE
from ohmcensus.core.quantity import Interval, Unit
from ohmcensus.core.quantity.window import Source, Window

Expect = Callable[[float], Window]

CLOSED_CONTACT_OHM = 1.0
OPEN_CONTACT_OHM = 1e6
# Limits after repair, EN 50678 class I with and without heating elements (from memory).
EARTH_LIMIT_OHM = 0.3
INSULATION_LIMIT_OHM = 1e6
INSULATION_LIMIT_HEATING_OHM = 0.3e6

BY_OHMMETER = Weaker(
    Function.OHM, (FaultMode.LEAK,), "an ohmmeter drives a few volts and misses most leaks: 500 V shows them"
)
BY_PLAIN_OHMS = Weaker(Function.OHM, (), "a plain ohm range resolves 0.1 Ω at best: a low-ohm range settles more")


def common(lo: float, hi: float, unit: Unit, rule: str) -> Expect:
    """Return the range that good parts of the trade read, common practice.

    Parameters
    ----------
    lo, hi
        Ends, in the unit's SI base.
    unit
        Of the window.
    rule
        The range in words.
    """
    window = Window(Interval(lo, hi), unit, Source.COMMON, f"common range: {rule}")
    return lambda _celsius: window


def closed_contact(limit_ohm: float = CLOSED_CONTACT_OHM) -> Expect:
    """Return what a closed contact or a whole wire reads."""
    window = Window(
        Interval(-math.inf, limit_ohm), Unit.OHM, Source.COMMON, f"common range: closed, under {limit_ohm:g} Ω"
    )
    return lambda _celsius: window


def open_contact(rule: str) -> Expect:
    """Return what an open contact reads: over-range, at least 1 MΩ."""
    window = Window(Interval(OPEN_CONTACT_OHM), Unit.OHM, Source.COMMON, f"common range: {rule}", words="OL")
    return lambda _celsius: window


def insulation(*, heating: bool) -> Expect:
    """Return the insulation resistance that a part of a class I machine must have to earth."""
    limit = INSULATION_LIMIT_HEATING_OHM if heating else INSULATION_LIMIT_OHM
    which = "0.3 MΩ with heating elements" if heating else "1 MΩ"
    basis = f"EN 50678 (from memory): at least {which}; a good one reads over 20 MΩ"
    window = Window(Interval(limit), Unit.OHM, Source.COMMON, basis)
    return lambda _celsius: window


def no_short() -> Expect:
    """Return what line to neutral reads on a machine whose loads are not known: no dead short."""
    window = Window(Interval(CLOSED_CONTACT_OHM), Unit.OHM, Source.COMMON, "common range: no dead short")
    return lambda _celsius: window


def earthed() -> Expect:
    """Return what the way from the plug's earth pin to an earthed body may read, a cord of usual length in it."""
    basis = f"EN 50678 (from memory): at most {EARTH_LIMIT_OHM:g} Ω for a cord up to 5 m"
    window = Window(Interval(-math.inf, EARTH_LIMIT_OHM), Unit.OHM, Source.COMMON, basis)
    return lambda _celsius: window


def mains_volts(volts: float) -> Expect:
    """Return what a switched output shows when it is called: the supply, ±10 %."""
    span = Interval(1 - SUPPLY_TOLERANCE, 1 + SUPPLY_TOLERANCE).scaled(volts)
    window = Window(span, Unit.VOLT, Source.PLATE, f"the supply: {volts:g} V ±10 %, switched through", nominal=volts)
    return lambda _celsius: window
