"""Resistance of a flexible copper core by its length, its size and its temperature."""

from __future__ import annotations

from ohmcensus.core.errors import InputError
from ohmcensus.core.physics.temperature import REFERENCE_CELSIUS, winding_resistance_at

# Largest resistance of class 5 plain copper at 20 °C, IEC 60228 table 3 (from memory), ohm per metre.
CLASS_5_OHM_PER_M = {0.5: 39.0e-3, 0.75: 26.0e-3, 1.0: 19.5e-3, 1.5: 13.3e-3, 2.5: 7.98e-3, 4.0: 4.95e-3}
# The same of stranded copper by gauge: 18, 16 and 14 AWG by their area in mm² (from memory).
GAUGE_OHM_PER_M = {0.82: 20.9e-3, 1.31: 13.2e-3, 2.08: 8.3e-3}
_GAUGE = {0.82: "18 AWG", 1.31: "16 AWG", 2.08: "14 AWG"}


def core_resistance_ohm(length_m: float, area_mm2: float, *, celsius: float = REFERENCE_CELSIUS) -> float:
    """Return the largest resistance of one core of a flexible cord.

    Parameters
    ----------
    length_m
        One way.
    area_mm2
        A size of the tables: 0.5, 0.75, 1, 1.5, 2.5 or 4 mm²; 0.82, 1.31 or 2.08 mm² for 18, 16 or 14 AWG.
    celsius
        Temperature of the copper.

    Raises
    ------
    InputError
        If the size is not in the table.
    """
    sizes = {**CLASS_5_OHM_PER_M, **GAUGE_OHM_PER_M}
    if area_mm2 not in sizes:
        known = ", ".join(f"{size:g}" for size in sizes)
        raise InputError(what=f"no class 5 core of {area_mm2:g} mm²", remedy=f"sizes are {known} mm²", field="area_mm2")
    return winding_resistance_at(sizes[area_mm2] * length_m, REFERENCE_CELSIUS, celsius)


def core_source(area_mm2: float) -> str:
    """Return where the resistance of a core comes from, in words."""
    gauge = _GAUGE.get(area_mm2)
    return gauge or "IEC 60228"


def grounding_conductor_limit_ohm(length_m: float, area_mm2: float) -> float:
    """Return the limit of the 120 V world: 0.1 Ω and the cord's own copper (common practice, no source)."""
    return 0.1 + core_resistance_ohm(length_m, area_mm2)


def protective_conductor_limit_ohm(length_m: float) -> float:
    """Return the limit from earth pin to chassis: 0.3 Ω to 5 m, +0.1 Ω per further 7.5 m, at most 1.0 Ω.

    Source: EN 50678 / EN 50699 (from memory).
    """
    whole_steps = max(0.0, -(-(length_m - 5.0) // 7.5))
    return min(1.0, 0.3 + 0.1 * whole_steps)
