"""Current through a capacitor on the mains, and the resistor that empties it."""

from __future__ import annotations

import math


def capacitive_current_a(capacitance_f: float, volts: float, hertz: float) -> float:
    """Return the effective current I = 2·π·f·C·U, in amperes."""
    return 2 * math.pi * hertz * capacitance_f * volts


def largest_bleed_ohm(capacitance_f: float, start_volts: float, end_volts: float, seconds: float) -> float:
    """Return the largest resistor that empties a capacitor in time, R = t / (C·ln(U₀/U)), in ohms."""
    return seconds / (capacitance_f * math.log(start_volts / end_volts))
