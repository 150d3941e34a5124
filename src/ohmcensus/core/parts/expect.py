"""Windows that many kinds of part share."""

from __future__ import annotations

import math
from collections.abc import Callable
from typing import Literal

from ohmcensus.core.meter import Function
from ohmcensus.core.parts.fault import FaultMode
from ohmcensus.core.parts.kind import Ratings, Weaker
from ohmcensus.core.physics.supply import SUPPLY_TOLERANCE
from ohmcensus.core.quantity import Interval, Unit
from ohmcensus.core.quantity.window import Rails, Source, Window

Expect = Callable[[float], Window]

CLOSED_CONTACT_OHM = 1.0
OPEN_CONTACT_OHM = 1e6
OPEN_CONTACT_WORDS = "OL"
# Limits after repair, EN 50678 class I with and without heating elements (from memory).
EARTH_LIMIT_OHM = 0.3
INSULATION_LIMIT_OHM = 1e6
INSULATION_LIMIT_HEATING_OHM = 0.3e6

BY_OHMMETER = Weaker(
    Function.OHM, (FaultMode.LEAK,), "an ohmmeter drives a few volts and misses most leaks: 500 V shows them"
)
# What conducts at a few milliamperes may still part at a fault's current: 0.2 A and 0.01 Ω show an earth or a joint.
NO_PROOF = Weaker(Function.OHM, (), "it conducts: not a proof", proves_nothing=True)
BY_ANY_OHMS = Weaker(Function.OHM, (), "any ohm range will do")


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


class LowSupply(Ratings):
    """The low voltage that a sensor or a board is fed with, as the sheet states it; 5 or 12 V where it does not."""

    supply_volts: Literal[5, 12] | None = None


# Of a low supply; of an output, in shares of it: low at most, high at least (common practice, no source).
_SUPPLY_SHARE = {5: 0.05, 12: 0.10}
LOW_AT_MOST_V, HIGH_FROM, OVER_SUPPLY = 0.8, 0.7, 1.1


def low_supply(volts: int | None) -> Expect:
    """Return what the supply of a sensor reads: 5 V ±5 % or 12 V ±10 %; either where the sheet states none."""
    spans = [Interval(1 - _SUPPLY_SHARE[each], 1 + _SUPPLY_SHARE[each]).scaled(each) for each in _supplies(volts)]
    words = "" if volts else "5 or 12 V"
    basis = "common range: 5 V ±5 %, 12 V ±10 %"
    window = Window(spans[0], Unit.VOLT, Source.COMMON, basis, volts, words, others=tuple(spans[1:]))
    return lambda _celsius: window


def toggling(volts: float | None, *, may_rest: bool = False) -> Expect:
    """Return what an output does that toggles between its rails.

    Parameters
    ----------
    volts
        Supply of the sensor, as measured or as the sheet states it; None where nobody knows: the lower of 5 and 12 V
        says from where high is high, the higher one how high it may be.
    may_rest
        Whether a meter may show a steady mean: a line that talks all the time.
    """
    window = toggling_window(volts, may_rest=may_rest)
    return lambda _celsius: window


def toggling_window(volts: float | None, *, may_rest: bool = False) -> Window:
    """Return the window of an output that toggles; see ``toggling``."""
    least, most = (volts, volts) if volts else (5.0, 12.0)
    rails = Rails(
        Interval(-LOW_AT_MOST_V, LOW_AT_MOST_V), Interval(HIGH_FROM * least, OVER_SUPPLY * most), may_rest=may_rest
    )
    whose = f"a supply of {volts:.3g} V" if volts else "5 or 12 V by type"
    words = "moves" if may_rest else f"< {LOW_AT_MOST_V:g}, > {rails.high.lo:.2g} V"
    how = "at neither rail" if may_rest else "toggles; type both, e.g. 0.1..4.9"
    basis = f"common range: {how}; {whose}"
    span = Interval(rails.low.lo, rails.high.hi)
    return Window(span, Unit.VOLT, Source.COMMON, basis, words=words, rails=rails)


def _supplies(volts: int | None) -> tuple[int, ...]:
    return (volts,) if volts else tuple(_SUPPLY_SHARE)


def closed_contact(limit_ohm: float = CLOSED_CONTACT_OHM) -> Expect:
    """Return what a closed contact or a whole wire reads."""
    window = Window(
        Interval(-math.inf, limit_ohm), Unit.OHM, Source.COMMON, f"common range: closed, under {limit_ohm:g} Ω"
    )
    return lambda _celsius: window


def open_contact(rule: str) -> Expect:
    """Return what an open contact reads: over-range, at least 1 MΩ."""
    window = Window(
        Interval(OPEN_CONTACT_OHM), Unit.OHM, Source.COMMON, f"common range: {rule}", words=OPEN_CONTACT_WORDS
    )
    return lambda _celsius: window


def insulation(*, heating: bool) -> Expect:
    """Return the insulation resistance that a part of a class I machine must have to earth."""
    limit = INSULATION_LIMIT_HEATING_OHM if heating else INSULATION_LIMIT_OHM
    which = "0.3 MΩ with heating elements" if heating else "1 MΩ"
    basis = f"EN 50678: at least {which}; a good one reads over 20 MΩ"
    window = Window(Interval(limit), Unit.OHM, Source.COMMON, basis)
    return lambda _celsius: window


def no_short() -> Expect:
    """Return what line to neutral reads on a machine whose loads are not known: no dead short."""
    window = Window(Interval(CLOSED_CONTACT_OHM), Unit.OHM, Source.COMMON, "common range: no dead short")
    return lambda _celsius: window


def earthed() -> Expect:
    """Return what the way from the plug's earth pin to an earthed body may read, a cord of usual length in it."""
    basis = f"EN 50678: at most {EARTH_LIMIT_OHM:g} Ω for a cord up to 5 m"
    window = Window(Interval(-math.inf, EARTH_LIMIT_OHM), Unit.OHM, Source.COMMON, basis)
    return lambda _celsius: window


def mains_volts(volts: float) -> Expect:
    """Return what a switched output shows when it is called: the supply, ±10 %."""
    span = Interval(1 - SUPPLY_TOLERANCE, 1 + SUPPLY_TOLERANCE).scaled(volts)
    window = Window(span, Unit.VOLT, Source.PLATE, f"the supply: {volts:g} V ±10 %, switched through", nominal=volts)
    return lambda _celsius: window
