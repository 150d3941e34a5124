"""Breakers and fuses: what current they must carry, must break, and may break at once."""

from __future__ import annotations

from dataclasses import dataclass
from enum import StrEnum

from ohmcensus.core.errors import InputError
from ohmcensus.core.quantity import Interval

# Magnetic trip in multiples of the rating, IEC 60898-1 (from memory); without a letter the 120 V world.
MAGNETIC = {"B": (3.0, 5.0), "C": (5.0, 10.0), "D": (10.0, 20.0), "": (5.0, 10.0)}
# Thermal: holds at 1.13, breaks at 1.45 within the hour (IEC 60898-1, from memory);
# at 120 V 1.35 within the hour and 2.0 within two minutes (common practice, no source).
THERMAL = {"B": (1.13, 1.45), "C": (1.13, 1.45), "D": (1.13, 1.45), "": (1.0, 1.35)}


class Reaction(StrEnum):
    """What a breaker does with a current."""

    HOLDS = "holds"
    MAY_TRIP_SLOWLY = "may_trip_slowly"
    TRIPS_SLOWLY = "trips_slowly"
    MAY_TRIP_AT_ONCE = "may_trip_at_once"
    TRIPS_AT_ONCE = "trips_at_once"


@dataclass(frozen=True, slots=True)
class BreakerBands:
    """Currents in amperes between which a breaker may do either: slowly, and at once."""

    slow_a: Interval
    at_once_a: Interval


def breaker_bands(letter: str, rated_a: float) -> BreakerBands:
    """Return the bands of a breaker.

    Parameters
    ----------
    letter
        B, C or D; empty for a breaker of the 120 V world.
    rated_a
        Rated current.

    Raises
    ------
    InputError
        If there is no such letter or rating.
    """
    if letter not in MAGNETIC:
        raise InputError(what=f"no breaker '{letter[:10]}'", remedy="letters are B, C and D, or none", field="letter")
    if not 0 < rated_a <= 125:  # noqa: PLR2004 - what the standard covers
        raise InputError(what=f"no breaker of {rated_a:g} A", remedy="give 1 to 125 A", field="rating")
    return BreakerBands(
        Interval(*(factor * rated_a for factor in THERMAL[letter])),
        Interval(*(factor * rated_a for factor in MAGNETIC[letter])),
    )


def reaction(bands: BreakerBands, ampere: float) -> Reaction:
    """Return what a breaker does with a current, be it inrush or lasting."""
    if ampere >= bands.at_once_a.hi:
        return Reaction.TRIPS_AT_ONCE
    if ampere >= bands.at_once_a.lo:
        return Reaction.MAY_TRIP_AT_ONCE
    if ampere >= bands.slow_a.hi:
        return Reaction.TRIPS_SLOWLY
    return Reaction.MAY_TRIP_SLOWLY if ampere > bands.slow_a.lo else Reaction.HOLDS
