"""What a machine draws in a step of its programme: U/R of what runs, within the tolerances of parts and supply."""

from __future__ import annotations

import math
import re
from collections.abc import Callable
from dataclasses import replace
from functools import lru_cache

from ohmcensus.core.machine.coverage import configuration_of, driven, is_answered, probe_of
from ohmcensus.core.machine.netlist import Configuration, ends_of, netlist, nominal_of
from ohmcensus.core.machine.probe import Probe, predict, prepared, shown
from ohmcensus.core.parts.element import Element
from ohmcensus.core.parts.kind import Role, TestSpec, Waves
from ohmcensus.core.physics.supply import SUPPLY_TOLERANCE
from ohmcensus.core.quantity import Interval, Unit, show_value
from ohmcensus.core.quantity.window import Window
from ohmcensus.core.sheet import Part, Sheet

# What a board takes for itself beside its loads (ours).
SLACK_A = 0.03
_AMPERES = re.compile(r"\d+(?:\.\d+)?")


def draw_window(sheet: Sheet, part: Part, spec: TestSpec, window: Window) -> Window:
    """Return what a machine may draw in a step: from the circuit, never over its plate or its fuse.

    I = U/Z of the step with every load at either end of its own window and the supply at either end of its ±10 %,
    as a share of the nominal one. Where a motor runs that turns the mains into something else, the window of the
    sheet stays: a circuit at rest does not know what it draws.

    Parameters
    ----------
    sheet
        The machine's type.
    part, spec
        The outlet, and the test of its current.
    window
        What the outlet's kind makes of it: half to twice.
    """
    nominal = window.nominal
    if nominal is None or not is_answered(sheet, part, spec):
        return window
    shares = _shares(sheet, part.id, spec.name)
    lo, hi = window.interval.lo, window.interval.hi
    basis = window.basis
    if shares is not None:
        lo, hi = max(0.0, nominal * shares.lo - SLACK_A), nominal * shares.hi + SLACK_A
        basis = "the loads that run in this step, each within its own window, the supply ±10 %"
    most = most_ampere(sheet)
    if most < hi:
        hi, basis = max(most, nominal), f"{basis}; never over {show_value(most, Unit.AMPERE)} of plate or fuse"
    return replace(window, interval=Interval(lo, hi), basis=basis)


def most_ampere(sheet: Sheet) -> float:
    """Return what a machine may draw at most: its plate at nominal volts, the breaker and the fuse before it."""
    rated = [
        float(found[0])
        for row in sheet.protection
        if row.device in {"breaker", "fuse", "rcbo"} and (found := _AMPERES.search(row.rating))
    ]
    fuses = [float(part.ratings.amperes) for part in sheet.with_role(Role.FUSE) if hasattr(part.ratings, "amperes")]
    return min([sheet.watts / sheet.volts, *rated, *fuses])


@lru_cache(maxsize=256)
def _shares(sheet: Sheet, part_id: str, test: str) -> Interval | None:
    """Return least and most of a step's current as shares of the nominal one; None where a circuit cannot say."""
    part = sheet.known_part(part_id)
    spec = next(row for row in part.tests() if row.name == test)
    configuration, probe = configuration_of(sheet, part, spec), probe_of(part, spec)
    found = predict(sheet, probe, configuration)
    if not found.value or any(_turns(sheet.known_part(name)) for name in driven(sheet, configuration).from_line):
        return None
    least, most = (_ampere(sheet, configuration, probe, at_end) for at_end in (1, 0))
    return Interval(
        least / found.value * (1 - SUPPLY_TOLERANCE), max(most, found.value) / found.value * (1 + SUPPLY_TOLERANCE)
    )


def _turns(part: Part) -> bool:
    """Tell whether a part is a motor that a circuit at rest does not describe."""
    return part.traits.role is Role.LOAD and (part.traits.waves is not Waves.SINE or part.traits.starts_direct)


def _ampere(sheet: Sheet, configuration: Configuration, probe: Probe, end: int) -> float:
    """Return the current with every load at one end of its window: 0 the lower, 1 the upper."""

    def built(part: Part) -> tuple[Element, ...]:
        return part.part_kind.elements(part.ratings, _at_end(part, end))

    setup = prepared(sheet, probe, netlist(sheet, configuration, built=built))
    return shown(setup)[0] or 0.0


def _at_end(part: Part, end: int) -> Callable[[str], float]:
    specs = {spec.name: spec for spec in part.tests()}

    def value(test: str) -> float:
        spec = specs[test]
        ends = ends_of(part, spec)
        is_load = ends[0] > 0 and math.isfinite(ends[1])
        return ends[end] if is_load else nominal_of(part, spec)

    return value
