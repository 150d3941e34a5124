"""What a resistive load that reads so would do on its supply."""

from __future__ import annotations

from ohmcensus.core.physics.uncertainty import Estimate, combined, from_interval
from ohmcensus.core.quantity import Indication, Interval, Unit, show_value


def at_work(indication: Indication, interval: Interval, volts: float) -> str:
    """Say what a load takes: "at 230 V it draws 8.9 A and takes 2.04 kW ± 0.042 kW".

    Parameters
    ----------
    indication, interval
        Reading in ohms and all values that it may stand for.
    volts
        Supply that the load is made for.

    Returns
    -------
    str
        Empty for a one-sided reading or one at zero. The uncertainty is the expanded one, k = 2.
    """
    value = indication.value
    if value is None or interval.finite_hi is None or interval.lo <= 0:
        return ""
    ohms = from_interval(value, interval)
    watts = combined(lambda u, r: u * u / r, Estimate(volts), ohms)
    amperes = show_value(volts / value, Unit.AMPERE, figures=2)
    spread = show_value(2 * watts.standard, Unit.WATT, figures=2)
    return f"at {volts:g} V it draws {amperes} and takes {show_value(watts.value, Unit.WATT)} ± {spread}"
