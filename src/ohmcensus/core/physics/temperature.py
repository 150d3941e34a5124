"""Resistance of metal windings with temperature."""

from __future__ import annotations

# Temperature of a machine whose sheet says no other.
REFERENCE_CELSIUS = 20.0

# Inferred temperature of zero resistance, negated: IEC 60335-1 clause 11.8 for copper (from memory).
COPPER_K = 234.5


def winding_resistance_at(resistance_ohm: float, celsius: float, other_celsius: float, *, k: float = COPPER_K) -> float:
    """Return a winding's resistance at another temperature.

    Parameters
    ----------
    resistance_ohm, celsius
        Resistance and the temperature it was taken at.
    other_celsius
        Temperature asked for.
    k
        234.5 for copper in appliances, 235 in IEC 60034-1, 225 for aluminium.

    Returns
    -------
    float
        R₂ = R₁·(k + T₂)/(k + T₁), in ohms.
    """
    return resistance_ohm * (k + other_celsius) / (k + celsius)
