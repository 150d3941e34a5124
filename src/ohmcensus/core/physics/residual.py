"""Residual-current devices: what they must do, must not do, and may do."""

from __future__ import annotations

import math
from dataclasses import dataclass

from ohmcensus.core.errors import InputError
from ohmcensus.core.quantity import Interval

# IEC 61008-1 (from memory): no trip below half the rated residual current, a trip at it.
MUST_HOLD_SHARE = 0.5
# A type that answers to half waves too may trip at them from 0.35 and must from 1.4 times the rating (1.4 for over
# 10 mA, 2 at 10 mA; IEC 61008-1, from memory).
HALF_WAVE_HOLD_SHARE, HALF_WAVE_TRIP_SHARE, SMALL_HALF_WAVE_TRIP_SHARE, SMALL_RATED_A = 0.35, 1.4, 2.0, 0.01
# UL 943 class A (from memory): holds below 4 mA, trips at 6 mA within (20/I)^1.43 seconds.
GFCI_MUST_HOLD_A, GFCI_MUST_TRIP_A = 4e-3, 6e-3
GFCI_MILLIAMPERE, GFCI_POWER = 20.0, 1.43
# Break times at I∆n and at 5·I∆n, IEC 61008-1 (from memory).
BREAK_SECONDS, FAST_BREAK_SECONDS, FAST_MULTIPLE = 0.3, 0.04, 5.0


@dataclass(frozen=True, slots=True)
class ResidualDevice:
    """A device by the residual currents between which it may do either."""

    title: str
    must_hold_a: float
    must_trip_a: float


@dataclass(frozen=True, slots=True)
class TripChance:
    """What a device does with a machine and the rest of its circuit.

    Parameters
    ----------
    total_a
        Residual current of both together: phasors of the first quadrant add to between √(I²+S²) and I+S.
    chance
        Of a trip at either end of it, the threshold uniform between hold and trip.
    share
        Of the budget that the machine may use before the device may trip, with what stands already.
    """

    total_a: Interval
    chance: Interval
    share: float


def with_half_waves(device: ResidualDevice) -> ResidualDevice:
    """Return an RCD of type A, F or B with the wider range it has where a leak may be of half waves."""
    rated_a = device.must_trip_a
    trips = SMALL_HALF_WAVE_TRIP_SHARE if rated_a <= SMALL_RATED_A else HALF_WAVE_TRIP_SHARE
    return ResidualDevice(device.title, HALF_WAVE_HOLD_SHARE * rated_a, trips * rated_a)


def rcd(rated_a: float) -> ResidualDevice:
    """Return an RCD by its rated residual current in amperes.

    Raises
    ------
    InputError
        If there is no such device: 10 mA to 1 A.
    """
    if not 0.005 <= rated_a <= 1:  # noqa: PLR2004 - the range of the standard
        what = f"no RCD of {rated_a * 1000:g} mA"
        raise InputError(what=what, remedy="give 0.01, 0.03, 0.1 or 0.3 A", field="rating")
    return ResidualDevice(f"RCD {rated_a * 1000:g} mA", MUST_HOLD_SHARE * rated_a, rated_a)


GFCI = ResidualDevice("GFCI class A", GFCI_MUST_HOLD_A, GFCI_MUST_TRIP_A)


def trip_chance(device: ResidualDevice, machine_a: Interval, standing_a: float) -> TripChance:
    """Return the chance that a device trips.

    Parameters
    ----------
    device
        See there.
    machine_a
        What the machine leaks.
    standing_a
        What the rest of the circuit leaks.

    Raises
    ------
    InputError
        If a current is negative.
    """
    if machine_a.lo < 0 or standing_a < 0:
        raise InputError(what="a leakage below zero", remedy="give 0 or more", field="leakage")
    total = Interval(math.hypot(machine_a.lo, standing_a), machine_a.hi + standing_a)
    budget = device.must_hold_a - standing_a
    share = math.inf if budget <= 0 else machine_a.hi / budget
    return TripChance(total, Interval(_chance(device, total.lo), _chance(device, total.hi)), share)


def _chance(device: ResidualDevice, total_a: float) -> float:
    span = device.must_trip_a - device.must_hold_a
    return min(1.0, max(0.0, (total_a - device.must_hold_a) / span))


def break_seconds(device: ResidualDevice, residual_a: float) -> float | None:
    """Return the longest time to a trip; None where the device need not trip."""
    if residual_a < device.must_trip_a:
        return None
    if device is GFCI:
        return float((GFCI_MILLIAMPERE / (1000 * residual_a)) ** GFCI_POWER)
    return FAST_BREAK_SECONDS if residual_a >= FAST_MULTIPLE * device.must_trip_a else BREAK_SECONDS
