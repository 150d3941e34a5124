"""Insulation and the protective conductor held to the limits that hold: the stricter of standard, sheet and profile."""

from __future__ import annotations

import math
from dataclasses import replace

from ohmcensus.core.job.case import Case
from ohmcensus.core.job.first_look import FULL_VOLTAGE
from ohmcensus.core.job.mains_plug import is_plug_turned_freely
from ohmcensus.core.limits.terms import Terms
from ohmcensus.core.machine import MachineTest
from ohmcensus.core.machine.net import Crossing, is_whole, nets_of
from ohmcensus.core.meter import Function
from ohmcensus.core.parts.expect import toggling_window
from ohmcensus.core.quantity import Interval, Unit, show_value
from ohmcensus.core.quantity.window import Source, Window

# The test of a low supply; under this there is none, and its outputs say nothing (ours).
SUPPLY, LEAST_SUPPLY_V = "supply", 3.0


def limited(test: MachineTest, terms: Terms) -> MachineTest:
    """Return a test with the limit that holds in its window, where it asks earth, insulation or a current to earth."""
    if test.function is Function.INSULATION:
        part = None if is_whole(test.between[0]) else test.part
        return _insulated(test, terms.least_ohm(part), terms)
    crossing = nets_of(terms.sheet).crossing(test.between)
    if crossing is Crossing.EARTH and test.function is Function.CONTINUITY:
        return _earthed(test, terms)
    return test


def held_on(test: MachineTest, case: Case) -> MachineTest:
    """Return a test as it stands on a job: to the limit that holds, an output against the supply that was measured."""
    held, rails = limited(test, case.terms), test.window.rails
    if is_paired(test.id) and test.window.others:
        return replace(held, window=_either_way(test, case))
    if rails is None:
        return held
    volts = next(
        (row.indication.value for row in reversed(case.standing) if row.test == f"{test.part}.{SUPPLY}"),
        None,
    )
    if volts is None or volts < LEAST_SUPPLY_V:
        return held
    return replace(held, window=toggling_window(volts, may_rest=rails.may_rest))


def is_paired(test_id: str) -> bool:
    """Tell whether a test is one of two that change places with the plug: line and neutral to earth at the outlet."""
    return test_id.rpartition(".")[2] in _PARTNER


_PARTNER = {"le": "ne", "ne": "le"}


def _either_way(test: MachineTest, case: Case) -> Window:
    """Return what a voltage of the outlet must be beside its partner: the one the supply, the other next to nothing.

    Where the plug goes in one way, or the supply is not there at all, only the one that the plan says is right.
    """
    part, _, name = test.id.rpartition(".")
    volts = {row.test: row.indication.value for row in case.standing if row.indication.value is not None}
    supply, partner = volts.get(f"{part}.ln"), volts.get(f"{part}.{_PARTNER[name]}")
    here, turned = test.window, test.window.others[0]
    least = FULL_VOLTAGE * case.sheet.volts
    if not is_plug_turned_freely(case) or (supply is not None and supply < least):
        return replace(here, others=())
    if partner is None:
        return here
    is_line_here = here.interval.hi > turned.hi
    is_partner_line = partner >= least
    return replace(here, interval=turned if is_partner_line is is_line_here else here.interval, others=())


def most_earth_ohm(terms: Terms, window: Window) -> float:
    """Return what the protective conductor may read at most, from the window of the cord's own limit."""
    profile = terms.profile
    if profile.earth_ohm is None:
        return window.interval.hi
    chosen = profile.earth_ohm + ((window.nominal or 0.0) if profile.is_cord_added else 0.0)
    if profile.replaces_standard and window.source is not Source.SHEET:
        return chosen
    return min(chosen, window.interval.hi)


def _insulated(test: MachineTest, least: float, terms: Terms) -> MachineTest:
    """Return an insulation test with the greatest of the figures that hold; a sheet's own may ask more, never less."""
    own = test.window.interval.lo
    wanted = max(own, least) if test.window.source is Source.SHEET else least
    is_named = terms.profile.replaces_standard and test.window.source is not Source.SHEET
    if wanted == own and not is_named:
        return test
    basis = f"{terms.whose}: at least {show_value(wanted, Unit.OHM, figures=2)}; a good one reads over 20 MΩ"
    return replace(test, window=Window(Interval(wanted), Unit.OHM, Source.COMMON, basis))


def _earthed(test: MachineTest, terms: Terms) -> MachineTest:
    most = most_earth_ohm(terms, test.window)
    if most == test.window.interval.hi:
        return test
    profile, cord = terms.profile, test.window.nominal or 0.0
    on_top = f", {profile.earth_ohm:g} Ω and the cord's {cord:.3f} Ω" if profile.is_cord_added else ""
    basis = f"{terms.whose}: at most {show_value(most, Unit.OHM, figures=2)}{on_top}"
    window = Window(Interval(-math.inf, most), Unit.OHM, test.window.source, basis, nominal=test.window.nominal)
    return replace(test, window=window)
