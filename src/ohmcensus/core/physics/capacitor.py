"""Current through a capacitor on the mains, and the resistor that empties it."""

from __future__ import annotations

import math


def capacitive_current_a(capacitance_f: float, volts: float, hertz: float) -> float:
    """Return the effective current I = 2·π·f·C·U, in amperes.

    Parameters
    ----------
    capacitance_f, volts, hertz
        Farads; effective volts; frequency.
    """
    return 2 * math.pi * hertz * capacitance_f * volts


def stored_energy_j(capacitance_f: float, volts: float) -> float:
    """Return the energy of a charged capacitor, W = ½·C·U², in joules."""
    return capacitance_f * volts * volts / 2


def discharge_seconds(capacitance_f: float, ohms: float, start_volts: float, end_volts: float) -> float:
    """Return the time until a capacitor has emptied through a resistor, t = R·C·ln(U₀/U), in seconds.

    A capacitor that starts at or below the end is there at once.

    Parameters
    ----------
    capacitance_f, ohms
        Farads and the resistor across it.
    start_volts, end_volts
        From, and down to.
    """
    if start_volts <= end_volts:
        return 0.0
    return ohms * capacitance_f * math.log(start_volts / end_volts)
