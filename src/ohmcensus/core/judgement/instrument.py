"""Which meter, and which of its functions, a typed reading came from."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from ohmcensus.core.errors import InputError, ReadingTextError
from ohmcensus.core.machine import MachineTest
from ohmcensus.core.meter import Function, Meter
from ohmcensus.core.parts.kind import Weaker
from ohmcensus.core.quantity import Bound, Indication, Unit, parse_indication, show_value, with_scale


@dataclass(frozen=True, slots=True)
class Use:
    """A meter used in one function, and what it showed.

    Parameters
    ----------
    meter, function
        The instrument and what it did.
    indication
        What it showed, in the unit of ``function``.
    weaker
        Why this is the lesser instrument for the test, None where it is the proper one.
    """

    meter: Meter
    function: Function
    indication: Indication
    weaker: Weaker | None = None


def choose_use(
    reading: str,
    test: MachineTest | None,
    meters: Sequence[Meter],
    *,
    function: Function,
    must_show: bool = True,
    is_stored: bool = False,
) -> Use:
    """Return how a reading was taken.

    Parameters
    ----------
    reading
        As typed.
    test
        The test it answers, None between two points that no test names.
    meters
        Instruments to consider, the preferred one first; just one where the person named it.
    function
        Function of the test, or the one that was chosen between two points. A bare figure is in its scale: MΩ where
        insulation is asked, by whichever instrument, mA, µF, mm.
    must_show
        Whether a figure beyond the display is refused; else it counts as at least the end of the scale.
    is_stored
        Whether the text was stored: a bare figure of then was in the plain unit, and one of now carries its scale.

    Returns
    -------
    Use
        The first meter that has the proper function and could have shown this, else the first that
        has the lesser function and could have. A display that writes no OL cannot have shown one.

    Raises
    ------
    ReadingTextError
        If the text is no reading.
    InputError
        If no meter at hand has a function for the test, or none that has can have shown this.
    """
    ways = _ways(test, meters, function)
    if not ways:
        names = ", ".join(meter.title for meter in meters) or "no meter"
        what = f"{names} cannot read {function.value.replace('_', ' ')}"
        raise InputError(what=what, remedy="choose a meter that has it, or add yours in Setup", field="meter")
    if reading.strip().casefold() == NO_LAMP:
        return _no_lamp(ways)
    _refuse_negative(reading, function)
    scale = "" if is_stored else function.scale
    uses = [_use(reading, meter, way, weaker, scale) for meter, way, weaker in ways]
    if not must_show:
        return uses[0]
    if not is_stored:
        _ask_for_the_unit(reading, test, uses[0], function)
    able = next((use for use in uses if use.meter.can_show(use.indication, use.function)), None)
    if able is None:
        raise _cannot_show(reading, uses)
    return able


def _cannot_show(reading: str, uses: Sequence[Use]) -> InputError:
    """Say that no meter at hand has such a display: a slip of the unit, or another meter."""
    first = uses[0]
    full = show_value(first.meter.full_scale(first.function), first.function.unit)
    remedy = (
        f"its {first.function.value.replace('_', ' ')} scale ends at {full}; read the unit again, or name the meter"
    )
    return InputError(what=f"{first.meter.title} cannot have shown {reading}", remedy=remedy, field="line")


# What a two-pole tester shows where not even its lowest step lights.
NO_LAMP = "none"


def _no_lamp(ways: Sequence[tuple[Meter, Function, Weaker | None]]) -> Use:
    """Return what no lamp of a two-pole tester says: less than its lowest step."""
    for meter, way, weaker in ways:
        if meter.lowest_step_v is not None and way is Function.VOLTS_AC:
            return Use(meter, way, Indication(meter.lowest_step_v, Unit.VOLT, Bound.BELOW), weaker)
    what = "no meter in the bag lights lamps"
    raise InputError(what=what, remedy="type what it shows in volts, or add a two-pole tester in Setup", field="meter")


def _ways(
    test: MachineTest | None, meters: Sequence[Meter], function: Function
) -> list[tuple[Meter, Function, Weaker | None]]:
    """Return every way to take the reading, proper ones first."""
    ways: list[tuple[Meter, Function, Weaker | None]] = [(m, function, None) for m in meters if m.measures(function)]
    if test is not None and test.weaker is not None:
        lesser = test.weaker
        ways += [(m, lesser.function, lesser) for m in meters if m.measures(lesser.function)]
    return ways


# Further off its window than this, a bare figure may be meant in the unit itself (ours).
_THREE_DECADES = 1e3


def _ask_for_the_unit(reading: str, test: MachineTest | None, use: Use, function: Function) -> None:
    """Ask whether a bare figure is in the scale of its test or in the plain unit, where only the latter fits."""
    typed = with_scale(reading, function.scale, use.meter.over_range_texts)
    value = use.indication.value
    if test is None or typed == reading or value is None or use.indication.has_moved:
        return
    window = test.window.interval
    plain = parse_indication(reading, function.unit).value or 0.0
    is_far = value * _THREE_DECADES < window.lo or value > window.hi * _THREE_DECADES
    is_beyond = value > use.meter.full_scale(use.function)
    if (is_far or is_beyond) and window.lo <= plain <= window.hi:
        symbol = function.unit.symbol
        figure = reading.strip()
        scaled = f"{figure} {function.scale if function.scale == 'mm' else function.scale.replace('u', 'µ') + symbol}"
        raise ReadingTextError(what=f"{scaled} or {figure} {symbol}?", remedy="type the unit behind it", field="line")


def _refuse_negative(reading: str, function: Function) -> None:
    """Refuse a minus where the display shows a size."""
    if function.is_magnitude and reading.strip().startswith(("-", "−")):
        what = f"'{reading.strip()[:40]}' cannot be: {function.words} are never negative"
        raise ReadingTextError(what=what, remedy="leave the minus out", field="reading")


def _use(reading: str, meter: Meter, function: Function, weaker: Weaker | None, scale: str) -> Use:
    """Read the text as this meter would have shown it."""
    typed = with_scale(reading, scale, meter.over_range_texts)
    indication = parse_indication(typed, function.unit, over_range_texts=meter.over_range_texts)
    return Use(meter, function, indication, weaker)
