"""What only a powered machine gives, and what shows nothing."""

from __future__ import annotations

from ohmcensus.core.job.reading import Reading
from ohmcensus.core.judgement.passes import named_test
from ohmcensus.core.limits.terms import Terms
from ohmcensus.core.machine import is_proof
from ohmcensus.core.machine.net import PLUG_L, PLUG_N, PLUG_PE
from ohmcensus.core.meter import Function
from ohmcensus.core.parts.kind import MachineState
from ohmcensus.core.quantity import Interval

# What surely shows power between two points, and what surely shows nothing (SAFETY).
POWER_AC_V, POWER_DC_V = 5.0, 0.5
OUTLET_VOLTS = frozenset({"outlet.ln", "outlet.le", "outlet.ne"})
# What is read at the outlet with the machine's plug out.
OF_THE_HOUSE = OUTLET_VOLTS | {"outlet.rcd_ramp", "outlet.rcd_time"}


def shows_power(reading: Reading, terms: Terms) -> bool:
    """Tell whether a reading surely shows what only a powered machine gives."""
    test = named_test(reading.test, terms, reading.stated_celsius)
    if test is not None and (test.state is not MachineState.LIVE or reading.test in OF_THE_HOUSE):
        return False
    if test is None and is_at_plug(reading):
        return False
    return is_powered_by(reading.function, reading.meter.interval_of(reading.indication, reading.function))


def is_powered_by(function: Function, interval: Interval) -> bool:
    """Tell whether a value surely is one that only a powered machine gives."""
    if function is Function.VOLTS_AC:
        return interval.lo > POWER_AC_V or interval.hi < -POWER_AC_V
    if function is Function.VOLTS_DC:
        return interval.lo > POWER_DC_V or interval.hi < -POWER_DC_V
    return function in {Function.HERTZ, Function.AMPERE, Function.LEAKAGE} and interval.lo > 0


def is_live_test(reading: Reading, terms: Terms) -> bool:
    """Tell whether a reading answers a test of the powered machine, the outlet's volts and the sources apart."""
    test = named_test(reading.test, terms, reading.stated_celsius)
    is_outlet = reading.test in OF_THE_HOUSE
    return test is not None and test.state is MachineState.LIVE and not is_outlet and not is_proof(reading.test)


def is_at_plug(reading: Reading) -> bool:
    """Tell whether volts were read between the pins of the pulled plug."""
    is_volts = reading.function in {Function.VOLTS_AC, Function.VOLTS_DC}
    return is_volts and set(reading.between) <= {PLUG_L, PLUG_N, PLUG_PE}
