"""Heating water: energy, and how long a heater takes."""

from __future__ import annotations

from ohmcensus.core.errors import InputError
from ohmcensus.core.physics.ohm_and_power import POWER_OVER, POWER_UNDER

# Specific heat of water, kJ/(kg·K), and its density, kg/l, near 20 °C (handbook values, from memory).
WATER_KJ_PER_KG_K, WATER_KG_PER_LITRE = 4.19, 1.0
JOULE_A_KWH = 3.6e6
# What tub and laundry take besides, as a share of the water's own (ours).
TUB_SHARE = 0.15
# What a thermometer in the water may be off at either end (ours).
THERMOMETER_K = 1.0
MOST_LITRES, MOST_CELSIUS = 200.0, 100.0


def heat_energy_j(litres: float, from_celsius: float, to_celsius: float) -> float:
    """Return the energy that water takes: Q = m·c·ΔT, in joule.

    Parameters
    ----------
    litres
        Of water.
    from_celsius, to_celsius
        Temperatures.

    Raises
    ------
    InputError
        If there is no water, or it would be cooled.
    """
    if not 0 < litres <= MOST_LITRES:
        raise InputError(what=f"{litres:g} litres", remedy=f"give 0 to {MOST_LITRES:g}", field="litres")
    if not from_celsius < to_celsius <= MOST_CELSIUS:
        what = f"from {from_celsius:g} to {to_celsius:g} °C"
        raise InputError(what=what, remedy=f"give a rise, at most to {MOST_CELSIUS:g} °C", field="celsius")
    return litres * WATER_KG_PER_LITRE * WATER_KJ_PER_KG_K * 1e3 * (to_celsius - from_celsius)


def heat_up_bounds(
    litres: float, from_celsius: float, to_celsius: float, watts: float, *, volts_share: float = 1.0
) -> tuple[float, float]:
    """Return the least and the most minutes that a sound heater takes.

    Parameters
    ----------
    litres, from_celsius, to_celsius
        Water, and by thermometer where it begins and ends; either end may be a degree off.
    watts
        Stamped power.
    volts_share
        Supply voltage as a share of the rated one: P goes with U².

    Notes
    -----
    Least: the water alone, a rise two degrees smaller, power 5 % over. Most: tub and laundry with it, a rise two
    degrees greater, power 10 % under (tolerance of power input as in IEC 60335-1, from memory; the rest ours).
    """
    power, unsure = watts * volts_share**2, 2 * THERMOMETER_K
    alone, _ = heat_up_minutes(litres, from_celsius, to_celsius, power)
    a_degree = alone / (to_celsius - from_celsius)
    least = max(0.0, alone - unsure * a_degree) / (1 + POWER_OVER)
    most = (alone + unsure * a_degree) * (1 + TUB_SHARE) / (1 - POWER_UNDER)
    return least, most


def heat_up_minutes(litres: float, from_celsius: float, to_celsius: float, watts: float) -> tuple[float, float]:
    """Return how long a heater takes, in minutes: for the water alone, and with tub and laundry.

    Parameters
    ----------
    litres
        Of water.
    from_celsius, to_celsius
        Temperatures.
    watts
        Of the heater.

    Raises
    ------
    InputError
        If the heater has no power, or the water is none.
    """
    if not watts > 0:
        raise InputError(what=f"{watts:g} W", remedy="give the heater's power in watts", field="watts")
    alone = heat_energy_j(litres, from_celsius, to_celsius) / watts / 60
    return alone, alone * (1 + TUB_SHARE)
