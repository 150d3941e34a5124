"""What a test of a machine should read: the sheet's own figure, else what the machine as a whole makes of it."""

from __future__ import annotations

import math
import re
from collections.abc import Callable, Sequence
from dataclasses import replace
from functools import lru_cache

from ohmcensus.core.machine.draws import draw_window, load_window
from ohmcensus.core.meter import Function
from ohmcensus.core.parts.expect import INSULATION_LIMIT_HEATING_OHM, INSULATION_LIMIT_OHM
from ohmcensus.core.parts.kind import Proves, Role, TestSpec
from ohmcensus.core.physics.residual import GFCI, ResidualDevice, break_seconds, rcd
from ohmcensus.core.physics.temperature import REFERENCE_CELSIUS, winding_resistance_at
from ohmcensus.core.quantity import Interval, Unit, show_value
from ohmcensus.core.quantity.window import Source, Window
from ohmcensus.core.sheet import Expected, Part, Sheet
from ohmcensus.core.symptom import Device

INSULATION_LIMIT_CLASS_II_OHM = 2e6
# Less of the lowest load than this is no load any more (ours, SAFETY "no short").
OF_LOWEST_LOAD = 0.9
ACROSS, N_PE, EARTH = "across", "n_pe", "earth"


# A room in which nobody read the thermometer (DOMAIN: 10 to 30 °C).
ROOM_C = (10.0, 30.0)


def expected(sheet: Sheet, part: Part, spec: TestSpec, celsius: float | None) -> Window:
    """Return what a good part reads.

    Parameters
    ----------
    sheet
        The machine's type.
    part, spec
        Whose test, and which.
    celsius
        Temperature of the part, None where nobody stated it: the window spans a room of 10 to 30 °C.

    Notes
    -----
    Provenance: the sheet's own figure, else plate physics, else the common range. The whole machine's insulation
    follows its class and its heating elements, a part's earth the cord that it is read through, a load from afar
    reads as it does by itself, and no machine reads less from line to neutral than its lowest load.
    """
    if celsius is not None:
        return _expected_at(sheet, part, spec, celsius)
    window = _expected_at(sheet, part, spec, REFERENCE_CELSIUS)
    ends = [_expected_at(sheet, part, spec, end).interval for end in ROOM_C]
    span = Interval(min(end.lo for end in ends), max(end.hi for end in ends))
    if not _is_moved(window, ends):
        return window
    basis = f"{window.basis}, at {ROOM_C[0]:g} to {ROOM_C[1]:g} °C: no temperature stated"
    return replace(window, interval=span, basis=basis)


def _is_moved(window: Window, ends: Sequence[Interval]) -> bool:
    """Tell whether a window of a coil, a winding or a sensor goes with its temperature."""
    return window.interval.finite_lo is not None and any(end != window.interval for end in ends)


def nominal_by_celsius(sheet: Sheet, part: Part, spec: TestSpec) -> Callable[[float], float] | None:
    """Return a test's nominal value by temperature, None where it does not go with it or there is none."""
    windows = [_expected_at(sheet, part, spec, end) for end in ROOM_C]
    if not _is_moved(windows[0], [windows[1].interval]) or None in {window.nominal for window in windows}:
        return None
    return lambda celsius: _expected_at(sheet, part, spec, celsius).nominal or 0.0


def _expected_at(sheet: Sheet, part: Part, spec: TestSpec, celsius: float) -> Window:
    own = part.expects.get(spec.name)
    if own is not None:
        return _own(own, spec, celsius)
    window = spec.expect(celsius)
    if spec.load_of:
        window = load_window(sheet, part, spec, window, celsius)
    if spec.function is Function.INSULATION and window.source is Source.COMMON:
        return _insulation(sheet, part, window)
    if part.traits.role is Role.OUTLET:
        return _of_outlet(sheet, part, spec, window, celsius)
    cord = next(iter(sheet.with_role(Role.CORD)), None)
    if spec.name == EARTH and part.is_earthed and cord is not None:
        return _through_cord(cord, window, celsius)
    if part is cord and spec.name == ACROSS:
        return _across(sheet, window)
    return window


def lowest_load_ohm(sheet: Sheet) -> float | None:
    """Return the smallest resistance of one load of a machine at mains, None where it has none."""
    loads = [
        float(volts) ** 2 / float(watts)
        for part in sheet.parts
        if (watts := getattr(part.ratings, "watts", None)) and (volts := getattr(part.ratings, "volts", None))
    ]
    nominal = [window.nominal for window in _load_windows(sheet) if window.nominal]
    return min([*loads, *nominal], default=None)


@lru_cache(maxsize=64)
def _load_windows(sheet: Sheet) -> tuple[Window, ...]:
    """Return the windows of everything that draws current: coils and windings, as their tests have them."""
    return tuple(
        expected(sheet, part, spec, 20.0)
        for part in sheet.parts
        for spec in part.tests()
        if part.part_kind.is_fed and spec.copper and spec.function is Function.OHM
    )


def _insulation(sheet: Sheet, part: Part, window: Window) -> Window:
    """Return the insulation that holds in this machine."""
    if sheet.protection_class == "II":
        limit, which = INSULATION_LIMIT_CLASS_II_OHM, "2 MΩ in class II"
    elif part.traits.role is Role.CORD and any(row.traits.is_heating for row in sheet.parts):
        limit, which = INSULATION_LIMIT_HEATING_OHM, "0.3 MΩ with heating elements"
    elif part.traits.role is Role.CORD:
        limit, which = INSULATION_LIMIT_OHM, "1 MΩ"
    else:
        return window
    basis = f"EN 50678: at least {which}; a good one reads over 20 MΩ"
    return replace(window, interval=Interval(limit), basis=basis)


# What is asked of the residual-current device before the outlet.
OF_THE_DEVICE = frozenset({Function.RCD_CURRENT, Function.RCD_TIME})
_MILLIAMPERE = re.compile(r"(\d+(?:\.\d+)?)\s*mA")


def residual_device(sheet: Sheet) -> ResidualDevice | None:
    """Return the residual-current device of a type's circuit, None where it has none; 30 mA where it is not said."""
    for row in sheet.protection:
        if row.device is Device.GFCI:
            return GFCI
        if row.device in {Device.RCD, Device.RCBO}:
            rated = _MILLIAMPERE.search(row.rating)
            return rcd(float(rated[1]) / 1000 if rated else 0.03)
    return None


def _of_device(sheet: Sheet, spec: TestSpec, window: Window) -> Window:
    """Return at which current and within which time the device on this circuit must trip."""
    device = residual_device(sheet)
    if device is None:
        return window
    source = "UL 943" if device is GFCI else "IEC 61008-1"
    basis = f"{device.title} ({source})"
    if spec.function is Function.RCD_CURRENT:
        span = Interval(device.must_hold_a, device.must_trip_a)
    else:
        span = Interval(0.0, break_seconds(device, device.must_trip_a) or math.inf)
        basis += ", at its rated current"
    return replace(window, interval=span, source=Source.PLATE, basis=basis)


# Which voltage of the outlet is which, the other way round.
_EITHER_WAY = {"le": "ne", "ne": "le"}


def _of_outlet(sheet: Sheet, outlet: Part, spec: TestSpec, window: Window, celsius: float) -> Window:
    """Return what an outlet shows: currents by the machine's loads; where the plug turns, both ways are right."""
    if spec.function is Function.AMPERE:
        return draw_window(sheet, outlet, spec, window)
    if spec.function in OF_THE_DEVICE:
        return _of_device(sheet, spec, window)
    name = _EITHER_WAY.get(spec.name) if sheet.is_plug_reversible else None
    other = next((row for row in outlet.tests() if row.name == name), None)
    if other is None:
        return window
    turned = other.expect(celsius).interval
    basis = f"{window.basis}; the plug goes in either way round: {_EITHER_WAY[spec.name].upper()} is then the other"
    return replace(window, others=(turned,), basis=basis)


def _through_cord(cord: Part, window: Window, celsius: float) -> Window:
    """Return the limit of the protective conductor, which holds up to every earthed body."""
    spec = next((row for row in cord.tests() if row.proves is Proves.EARTH), None)
    if spec is None:
        return window
    own = cord.expects.get(spec.name)
    return spec.expect(celsius) if own is None else _own(own, spec, celsius)


def _across(sheet: Sheet, window: Window) -> Window:
    """Return what line to neutral reads at least: nearly the lowest load, were it alone."""
    lowest = lowest_load_ohm(sheet)
    if lowest is None:
        return window
    least = OF_LOWEST_LOAD * lowest
    basis = f"the loads of this machine: none reads under {show_value(lowest, Unit.OHM, figures=2)}"
    return replace(window, interval=Interval(least), source=Source.PLATE, basis=basis)


def _own(own: Expected, spec: TestSpec, celsius: float) -> Window:
    """Return the sheet's own figure as a window, a winding moved to the temperature of the day."""
    factor = winding_resistance_at(1.0, own.at_celsius, celsius) if spec.copper else 1.0
    span = Interval(-math.inf if own.lo is None else own.lo, math.inf if own.hi is None else own.hi).scaled(factor)
    moved = f", at {celsius:g} °C" if spec.copper and celsius != own.at_celsius else ""
    nominal = None if own.nominal is None else own.nominal * factor
    return Window(span, spec.function.unit, Source.SHEET, f"{own.source}{moved}", nominal=nominal)
