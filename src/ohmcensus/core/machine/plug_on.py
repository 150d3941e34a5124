"""What a test reads while the part's own plug is still on: another number where another way lies beside the part."""

from __future__ import annotations

import math
from dataclasses import replace
from functools import lru_cache

from ohmcensus.core.machine.coverage import MAINS_PLUG, configuration_of, is_answered, probe_of
from ohmcensus.core.machine.netlist import Configuration
from ohmcensus.core.machine.probe import predict
from ohmcensus.core.machine.specs import listed_tests
from ohmcensus.core.meter import Function
from ohmcensus.core.parts.kind import MachineState
from ohmcensus.core.quantity import Bound, Interval
from ohmcensus.core.quantity.window import Window
from ohmcensus.core.sheet import Sheet

# Less than this between the two numbers is not worth a word (ours).
LEAST_DIFFERENCE = 0.05
# What lies beside a part is not read itself: taken as the nominal one, times or over this (ours).
BESIDE_SCATTER = 1.25


@lru_cache(maxsize=2048)
def conductance_beside_s(sheet: Sheet, part_id: str, test_name: str) -> float:
    """Return the conductance that lies beside a part while its plug is on, in siemens; 0 where it does not matter.

    1/R with the plug on less 1/R with it off, both of the nominal machine with the mains plug out.
    """
    part = sheet.part(part_id)
    spec = next((spec for spec in listed_tests(sheet, part_id) if spec.name == test_name), None) if part else None
    if part is None or spec is None or not is_answered(sheet, part, spec):
        return 0.0
    if spec.state is not MachineState.PLUG_PULLED or spec.function is not Function.OHM:
        return 0.0
    probe, off = probe_of(part, spec), configuration_of(sheet, part, spec)
    on = Configuration(off.pulled & {MAINS_PLUG}, off.states)
    with_plug, without = predict(sheet, probe, on), predict(sheet, probe, off)
    if with_plug.bound is Bound.ABOVE or not with_plug.value:
        return 0.0
    alone = 0.0 if without.bound is Bound.ABOVE or not without.value else 1 / without.value
    beside = 1 / with_plug.value - alone
    return beside if beside > LEAST_DIFFERENCE * alone else 0.0


def window_with_plug_on(sheet: Sheet, part_id: str, test_name: str, window: Window) -> Window | None:
    """Return what a good part reads with its plug still on, None where that is the same.

    1/R = 1/R_part + G: the ways beside the part are those of a healthy machine, within their scatter.
    """
    beside = conductance_beside_s(sheet, part_id, test_name)
    if not beside:
        return None
    lo, hi = window.interval.lo, window.interval.hi
    least = 0.0 if lo <= 0 else 1 / (1 / lo + beside * BESIDE_SCATTER)
    most = 1 / (beside / BESIDE_SCATTER + (0.0 if math.isinf(hi) else 1 / hi))
    return replace(window, interval=Interval(least, most), nominal=None, words="", basis="with its plug still on")
