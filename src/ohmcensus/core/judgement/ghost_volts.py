"""Volts that wires couple into one another: a meter of high impedance shows them where nothing is fed."""

from __future__ import annotations

from ohmcensus.core.meter import Function, Meter
from ohmcensus.core.quantity import Interval

# A third of the least that a supply shows is 30 % of its nominal volts (common practice).
_SHARE, _HIGH_IMPEDANCE_OHM, _MAINS_V = 1 / 3, 1e6, 50.0


def ghost_volts_below(function: Function, meter: Meter, window: Interval) -> float:
    """Return the volts under which a reading may be no volts at all.

    Parameters
    ----------
    function, meter
        What was read, and with what.
    window
        Where a healthy machine reads, in the function's unit; what is no mains voltage has no ghosts.

    Returns
    -------
    float
        In volts; 0 where a reading stands for itself.
    """
    is_mains = function is Function.VOLTS_AC and window.lo > _MAINS_V
    return _SHARE * window.lo if is_mains and meter.input_impedance_ohm >= _HIGH_IMPEDANCE_OHM else 0.0
