"""Resistance of an NTC sensor with temperature, by the beta equation."""

from __future__ import annotations

import math

ZERO_CELSIUS_K = 273.15
R25_CELSIUS = 25.0


def ntc_resistance_ohm(r25_ohm: float, beta_k: float, celsius: float) -> float:
    """Return R = R25·exp(B·(1/T − 1/298.15 K)).

    Parameters
    ----------
    r25_ohm
        Resistance at 25 °C.
    beta_k
        Beta constant, in kelvin.
    celsius
        Temperature of the sensor.
    """
    kelvin = celsius + ZERO_CELSIUS_K
    return r25_ohm * math.exp(beta_k * (1 / kelvin - 1 / (R25_CELSIUS + ZERO_CELSIUS_K)))
