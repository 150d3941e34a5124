"""Breakers and fuses: what current they must carry, must break, and may break at once; what a machine asks of them."""

from __future__ import annotations

import math
from dataclasses import dataclass
from enum import StrEnum

from ohmcensus.core.errors import InputError
from ohmcensus.core.machine.netlist import elements_of
from ohmcensus.core.parts.element import Element
from ohmcensus.core.quantity import Interval
from ohmcensus.core.sheet import Sheet

GENERAL_FUSE, PLUG_FUSE = "gG", "plug"
# At once, in multiples of the rating: breakers by IEC 60898-1, within 0.1 s; without a letter the 120 V world;
# fuses within 0.1 s by the gates of IEC 60269-2 and the curves of BS 1362 (all from memory, the last two rough).
AT_ONCE = {
    "B": (3.0, 5.0),
    "C": (5.0, 10.0),
    "D": (10.0, 20.0),
    "": (5.0, 10.0),
    GENERAL_FUSE: (5.0, 11.0),
    PLUG_FUSE: (6.0, 13.0),
}
# Slowly: holds the first, breaks the second within the hour. Breakers 1.13 and 1.45 (IEC 60898-1, from memory); at
# 120 V 1.0 and 1.35 (common practice, no source); plug fuses 1.6 and 1.9 (BS 1362, from memory).
SLOWLY = {"B": (1.13, 1.45), "C": (1.13, 1.45), "D": (1.13, 1.45), "": (1.0, 1.35), PLUG_FUSE: (1.6, 1.9)}
# Conventional non-fusing and fusing currents of gG up to a rating in amperes (IEC 60269-1 and -2, from memory).
GENERAL_FUSE_SLOWLY = ((4.0, (1.5, 2.1)), (16.0, (1.5, 1.9)), (125.0, (1.25, 1.6)))
MOST_PLUG_FUSE_A = 13.0


class Reaction(StrEnum):
    """What a breaker or fuse does with a current."""

    HOLDS = "holds"
    MAY_TRIP_SLOWLY = "may_trip_slowly"
    TRIPS_SLOWLY = "trips_slowly"
    MAY_TRIP_AT_ONCE = "may_trip_at_once"
    TRIPS_AT_ONCE = "trips_at_once"


@dataclass(frozen=True, slots=True)
class BreakerBands:
    """Currents in amperes between which a breaker or fuse may do either: slowly, and at once."""

    slow_a: Interval
    at_once_a: Interval


def breaker_bands(letter: str, rated_a: float) -> BreakerBands:
    """Return the bands of a breaker or fuse.

    Parameters
    ----------
    letter
        B, C or D; empty for a breaker of the 120 V world; "gG" for a fuse of the board, "plug" for one in a plug.
    rated_a
        Rated current.

    Raises
    ------
    InputError
        If there is no such letter or rating.
    """
    if letter not in AT_ONCE:
        remedy = "letters are B, C and D, gG and plug for fuses, or none"
        raise InputError(what=f"no breaker '{letter[:10]}'", remedy=remedy, field="letter")
    most = MOST_PLUG_FUSE_A if letter == PLUG_FUSE else GENERAL_FUSE_SLOWLY[-1][0]
    if not 0 < rated_a <= most:
        what = f"no {'plug fuse' if letter == PLUG_FUSE else 'breaker or fuse'} of {rated_a:g} A"
        raise InputError(what=what, remedy=f"give 1 to {most:g} A", field="rating")
    slowly = (
        next(factors for end, factors in GENERAL_FUSE_SLOWLY if rated_a <= end)
        if letter == GENERAL_FUSE
        else SLOWLY[letter]
    )
    return BreakerBands(
        Interval(*(factor * rated_a for factor in slowly)),
        Interval(*(factor * rated_a for factor in AT_ONCE[letter])),
    )


def reaction(bands: BreakerBands, ampere: float) -> Reaction:
    """Return what a breaker or fuse does with a current, be it inrush or lasting."""
    if ampere >= bands.at_once_a.hi:
        return Reaction.TRIPS_AT_ONCE
    if ampere >= bands.at_once_a.lo:
        return Reaction.MAY_TRIP_AT_ONCE
    if ampere >= bands.slow_a.hi:
        return Reaction.TRIPS_SLOWLY
    return Reaction.MAY_TRIP_SLOWLY if ampere > bands.slow_a.lo else Reaction.HOLDS


@dataclass(frozen=True, slots=True)
class Inrush:
    """What a motor may draw in amperes at the moment it is switched on, standing still."""

    part: str
    title: str
    ampere: Interval


def inrush_of(sheet: Sheet) -> tuple[Inrush, ...]:
    """Return the inrush of every motor that is switched straight onto the mains; one behind a board starts softly.

    Notes
    -----
    At least the run winding alone, its inductance in the way (U over its impedance); at most all windings beside
    each other by their resistance alone, as when the voltage is caught at its zero (U over R).
    """
    found = []
    for part in sheet.parts:
        windings = elements_of(sheet, part.id) if part.traits.starts_direct else ()
        if windings:
            most = sum(sheet.volts / _ohm(winding) for winding in windings)
            least = sheet.volts / _impedance(windings[0], sheet.hertz)
            found.append(Inrush(part.id, part.title, Interval(least, most)))
    return tuple(found)


def _ohm(winding: Element) -> float:
    return sum(branch.ohm for branch in winding.branches[:2])


def _impedance(winding: Element, hertz: float) -> float:
    henry = sum(branch.henry for branch in winding.branches[:2])
    return math.hypot(_ohm(winding), 2 * math.pi * hertz * henry)
