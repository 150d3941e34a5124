"""What the circuit makes of the parts' own windows: what a step of the programme draws, what a load reads from afar."""

from __future__ import annotations

import math
import re
from collections.abc import Callable
from dataclasses import replace
from functools import lru_cache

from ohmcensus.core.machine.coverage import configuration_of, driven, is_answered, probe_of
from ohmcensus.core.machine.feeds import fed_part
from ohmcensus.core.machine.netlist import Configuration, ends_of, netlist, nominal_of
from ohmcensus.core.machine.probe import Probe, predict, prepared, shown
from ohmcensus.core.meter import Function
from ohmcensus.core.parts.element import Element
from ohmcensus.core.parts.kind import Role, TestSpec, Waves
from ohmcensus.core.physics.supply import SUPPLY_TOLERANCE
from ohmcensus.core.physics.temperature import REFERENCE_CELSIUS, winding_resistance_at
from ohmcensus.core.quantity import Interval, Unit, show_value
from ohmcensus.core.quantity.window import Source, Window
from ohmcensus.core.sheet import Part, Sheet

# What a board takes for itself beside its loads (ours).
SLACK_A = 0.03
# What a lead and the contacts before a load may add to it: a contact is good under so much (common practice).
CONTACTS_OHM = 1.0
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


def load_window(sheet: Sheet, part: Part, spec: TestSpec, window: Window, celsius: float) -> Window:
    """Return what a load reads through its lead: within its own window, and what contacts on the way may add.

    Parameters
    ----------
    sheet
        The machine's type.
    part, spec
        Where it is measured from, and the test.
    window
        What any load reads, which stays where no single load hangs there.
    celsius
        Temperature of the load.
    """
    fed = fed_part(sheet, part.id, spec.load_of)
    if fed is None or not is_answered(sheet, part, spec):
        return window
    load = sheet.known_part(fed)
    lo, hi = _load_ends(sheet, part.id, spec.name, spec.between)
    if not (window.interval.lo <= lo <= hi <= window.interval.hi):
        return window
    used = [row for row in load.tests() if row.function is Function.OHM and _is_load_range(load, row)]
    is_copper, is_stated = any(row.copper for row in used), all(_is_stated(load, row) for row in used)
    factor = winding_resistance_at(1.0, REFERENCE_CELSIUS, celsius) if is_copper else 1.0
    basis = f"{load.title.lower()}, within its own window, and at most {CONTACTS_OHM:g} Ω of lead and contacts"
    source = Source.PLATE if is_stated else Source.COMMON
    return replace(window, interval=Interval(lo * factor, hi * factor + CONTACTS_OHM), source=source, basis=basis)


@lru_cache(maxsize=256)
def _load_ends(sheet: Sheet, part_id: str, test: str, between: tuple[str, str]) -> tuple[float, float]:
    """Return what a load reads from afar with every load at the lower and at the upper end of its window."""
    part = sheet.known_part(part_id)
    spec = replace(next(row for row in part.tests() if row.name == test), between=between)
    configuration, probe = configuration_of(sheet, part, spec), probe_of(part, spec)
    lo, hi = (_at_ends(sheet, configuration, probe, end) for end in (0, 1))
    return lo, hi


def _is_load_range(part: Part, spec: TestSpec) -> bool:
    """Tell whether a test reads something that works: between two ends, not a contact that is open or closed."""
    lo, hi = ends_of(part, spec)
    return lo > 0 and math.isfinite(hi)


def _is_stated(part: Part, spec: TestSpec) -> bool:
    return spec.name in part.expects or spec.expect(REFERENCE_CELSIUS).source is not Source.COMMON


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
    least, most = (_at_ends(sheet, configuration, probe, at_end) for at_end in (1, 0))
    return Interval(
        least / found.value * (1 - SUPPLY_TOLERANCE), max(most, found.value) / found.value * (1 + SUPPLY_TOLERANCE)
    )


def _turns(part: Part) -> bool:
    """Tell whether a part is a motor that a circuit at rest does not describe."""
    return part.traits.role is Role.LOAD and (part.traits.waves is not Waves.SINE or part.traits.starts_direct)


def _at_ends(sheet: Sheet, configuration: Configuration, probe: Probe, end: int) -> float:
    """Return what is read with every load at one end of its window: 0 the lower, 1 the upper."""

    def built(part: Part) -> tuple[Element, ...]:
        return part.part_kind.elements(part.ratings, _at_end(part, end))

    setup = prepared(sheet, probe, netlist(sheet, configuration, built=built))
    return shown(setup)[0] or 0.0


def _at_end(part: Part, end: int) -> Callable[[str], float]:
    specs = {spec.name: spec for spec in part.tests()}

    def value(test: str) -> float:
        spec = specs[test]
        return ends_of(part, spec)[end] if _is_load_range(part, spec) else nominal_of(part, spec)

    return value
