"""Ohm's law and the power law: any two of volts, amperes, ohms and watts give the others."""

from __future__ import annotations

import math
from dataclasses import dataclass

from ohmcensus.core.errors import InputError
from ohmcensus.core.quantity import Interval

# Power input tolerance of heating appliances above 200 W, IEC 60335-1 clause 10.1 (from memory).
POWER_OVER = 0.05
POWER_UNDER = 0.10
# A cold element reads lower than a hot one, and a machine's plate may count its motor too (our choice).
MACHINE_PLATE_SLACK = 0.04


@dataclass(frozen=True, slots=True)
class Load:
    """A resistive load at work: all four quantities that Ohm's law and the power law tie together."""

    volts: float
    amperes: float
    ohms: float
    watts: float


def load_from(
    *,
    volts: float | None = None,
    amperes: float | None = None,
    ohms: float | None = None,
    watts: float | None = None,
) -> Load:
    """Return the whole load from any two of its quantities (U = I·R, P = U·I).

    Raises
    ------
    InputError
        If not exactly two are given, or one is not a positive number.
    """
    given = {"volts": volts, "amperes": amperes, "ohms": ohms, "watts": watts}
    stated = {name: value for name, value in given.items() if value is not None}
    if len(stated) != 2:  # noqa: PLR2004 - two quantities settle the other two
        raise InputError(what=f"{len(stated)} of volts, amperes, ohms and watts given", remedy="give exactly two")
    for name, value in stated.items():
        if not (math.isfinite(value) and value > 0):
            raise InputError(what=f"{name} {value:g} is not above zero", remedy="give a positive number", field=name)
    u = _volts(volts, amperes, ohms, watts)
    i = amperes or (u / ohms if ohms else (watts or 0.0) / u)
    return Load(volts=u, amperes=i, ohms=u / i, watts=u * i)


def _volts(volts: float | None, amperes: float | None, ohms: float | None, watts: float | None) -> float:
    """Return the voltage from the two quantities given."""
    if volts:
        return volts
    if amperes and ohms:
        return amperes * ohms
    if amperes and watts:
        return watts / amperes
    return math.sqrt((watts or 0.0) * (ohms or 0.0))


def element_resistance_ohm(volts: float, watts: float) -> float:
    """Return the resistance of a heating element from its plate, R = U²/P."""
    return volts * volts / watts


def element_window_ohm(volts: float, watts: float, *, stamped_on_element: bool = True) -> Interval:
    """Return the resistances that a good element may have.

    Parameters
    ----------
    volts, watts
        Rated, from the plate.
    stamped_on_element
        False where only the machine's plate is known: the lower end is then 4 % lower.

    Returns
    -------
    Interval
        In ohms: U²/(1.05·P) to U²/(0.90·P), the power tolerance of IEC 60335-1 (from memory).
    """
    nominal = element_resistance_ohm(volts, watts)
    slack = 1.0 if stamped_on_element else 1.0 - MACHINE_PLATE_SLACK
    return Interval(nominal / (1 + POWER_OVER) * slack, nominal / (1 - POWER_UNDER))
