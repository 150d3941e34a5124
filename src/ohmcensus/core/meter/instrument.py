"""An instrument and the interval that one of its indications stands for.

Accuracy is ±(a % of the reading + b digits), taken as a hard limit: GUM type B, rectangular.
"""

from __future__ import annotations

import math
from enum import StrEnum
from typing import Annotated, Self

from pydantic import BaseModel, ConfigDict, Field, StrictBool, StringConstraints, field_serializer, model_validator

from ohmcensus.core.quantity import Bound, Indication, Interval, Unit
from ohmcensus.core.text.trimmed import Trimmed

MeterName = Annotated[str, Trimmed(80, 1)]
Positive = Annotated[float, Field(gt=0, le=1e15, allow_inf_nan=False, strict=True)]
NotNegative = Annotated[float, Field(ge=0, le=1e12, allow_inf_nan=False, strict=True)]


class Function(StrEnum):
    """What an instrument does to a pair of points."""

    OHM = "ohm"
    CONTINUITY = "continuity"
    INSULATION = "insulation"
    LEAKAGE = "leakage"
    CAPACITANCE = "capacitance"
    DIODE = "diode"
    VOLTS_AC = "volts_ac"
    VOLTS_DC = "volts_dc"
    AMPERE = "ampere"
    HERTZ = "hertz"
    TEMPERATURE = "temperature"
    LENGTH = "length"
    RCD_CURRENT = "rcd_current"
    RCD_TIME = "rcd_time"

    @property
    def unit(self) -> Unit:
        """Unit in which this function reads."""
        return _UNITS[self]

    @property
    def scale(self) -> str:
        """What a bare figure is in: MΩ for insulation, mA for a current to earth, µF, mm; else the unit itself."""
        return _SCALES.get(self, "")

    @property
    def is_magnitude(self) -> bool:
        """Whether it shows a size without a sign: alternating volts and all currents."""
        return self in _MAGNITUDES

    @property
    def shows_open(self) -> bool:
        """Whether over-range is an open circuit here; elsewhere it is merely more than the scale."""
        return self in _SHOWS_OPEN

    @property
    def words(self) -> str:
        """What it shows, as it is spoken of."""
        return _WORDS.get(self, self.value.replace("_", " "))

    @property
    def needs_dead_circuit(self) -> bool:
        """Whether the instrument drives the circuit itself, which must then be without voltage."""
        return self in _DRIVES


_DRIVES = frozenset({Function.OHM, Function.CONTINUITY, Function.INSULATION, Function.CAPACITANCE, Function.DIODE})
_SCALES = {
    Function.INSULATION: "M",
    Function.LEAKAGE: "m",
    Function.CAPACITANCE: "u",
    Function.LENGTH: "mm",
    Function.RCD_CURRENT: "m",
    Function.RCD_TIME: "m",
}
_MAGNITUDES = frozenset({Function.VOLTS_AC, Function.AMPERE, Function.LEAKAGE, Function.RCD_CURRENT})
_SHOWS_OPEN = frozenset({Function.OHM, Function.CONTINUITY, Function.DIODE})
_WORDS = {Function.VOLTS_AC: "volts AC", Function.AMPERE: "amperes", Function.LEAKAGE: "currents to earth"}
_UNITS = {
    Function.OHM: Unit.OHM,
    Function.CONTINUITY: Unit.OHM,
    Function.INSULATION: Unit.OHM,
    Function.LEAKAGE: Unit.AMPERE,
    Function.CAPACITANCE: Unit.FARAD,
    Function.DIODE: Unit.VOLT,
    Function.VOLTS_AC: Unit.VOLT,
    Function.VOLTS_DC: Unit.VOLT,
    Function.AMPERE: Unit.AMPERE,
    Function.HERTZ: Unit.HERTZ,
    Function.TEMPERATURE: Unit.CELSIUS,
    Function.LENGTH: Unit.METRE,
    Function.RCD_CURRENT: Unit.AMPERE,
    Function.RCD_TIME: Unit.SECOND,
}


def _is_below(indication: Indication) -> bool:
    return indication.bound is Bound.BELOW


class Range(BaseModel):
    """One range of one function, in the SI unit of that function.

    Attributes
    ----------
    full_scale
        Largest value shown.
    resolution
        Weight of the last digit.
    percent
        Part of the accuracy that goes with the reading, in percent.
    digits
        Part of the accuracy in last digits.
    """

    model_config = ConfigDict(frozen=True, extra="forbid")

    full_scale: Positive
    resolution: Positive
    percent: Annotated[float, Field(ge=0, le=50, allow_inf_nan=False, strict=True)]
    digits: Annotated[float, Field(ge=0, le=1000, allow_inf_nan=False, strict=True)]

    def error_of(self, value: float) -> float:
        """Return the limit of error of a shown value, in its unit."""
        return abs(value) * self.percent / 100 + self.digits * self.resolution

    @model_validator(mode="after")
    def _resolution_fits(self) -> Self:
        if self.resolution > self.full_scale:
            msg = f"resolution {self.resolution:g} is above full scale {self.full_scale:g}: swap or correct them"
            raise ValueError(msg)
        return self


class Meter(BaseModel):
    """An instrument as its leaflet describes it.

    Attributes
    ----------
    id, title
        Stable name in commands, and name in print.
    functions
        Ranges of each function, smallest first.
    input_impedance_ohm
        Of the voltage function.
    lead_resistance_ohm
        Of both test leads together.
    nulled
        Whether the lead resistance is already taken off what is shown.
    over_range_texts
        What the display shows beyond its range, besides the usual OL.
    shows_ol
        Whether the display shows OL; a tester that writes ">299 MΩ" does not.
    lowest_step_v
        Of a tester with lamps: what its lowest one needs, in volts AC; None for a meter with figures.
    serial, calibrated
        Its own number, and the date of its calibration (ISO 8601); empty where they are not stated.
    """

    model_config = ConfigDict(frozen=True, extra="forbid")

    id: MeterName
    title: MeterName
    functions: dict[Function, tuple[Range, ...]] = Field(min_length=1)
    input_impedance_ohm: Positive = 10e6
    lead_resistance_ohm: NotNegative = 0.2
    nulled: StrictBool = False
    over_range_texts: frozenset[str] = frozenset()
    shows_ol: StrictBool = True
    lowest_step_v: Annotated[float, Field(gt=0, le=100, allow_inf_nan=False, strict=True)] | None = None
    serial: Annotated[str, Trimmed(60)] = ""
    calibrated: Annotated[str, StringConstraints(pattern=r"^(\d{4}-\d{2}-\d{2})?$")] = ""

    @model_validator(mode="after")
    def _ranges_ascend(self) -> Self:
        for function, ranges in self.functions.items():
            scales = [r.full_scale for r in ranges]
            if not scales or scales != sorted(set(scales)):
                msg = f"{function.value}: ranges must be given, each larger than the one before"
                raise ValueError(msg)
        return self

    @field_serializer("over_range_texts")
    def _in_order(self, texts: frozenset[str]) -> list[str]:
        """Return what the display shows beyond its range in order: the same meter is written the same way."""
        return sorted(texts)

    def measures(self, function: Function) -> bool:
        """Tell whether the instrument has the function."""
        return function in self.functions

    def full_scale(self, function: Function) -> float:
        """Return the end of the highest range, in the function's unit."""
        return self.functions[function][-1].full_scale

    def can_show(self, indication: Indication, function: Function) -> bool:
        """Tell whether this display could have shown the indication with the function."""
        if not self.measures(function):
            return False
        if indication.has_moved:
            return all(self.can_show(end, function) for end in indication.ends)
        if indication.value is None:
            return self.shows_ol or bool(self.over_range_texts)
        return abs(indication.value) <= self.full_scale(function) * (1 + 1e-9)

    def interval_of(self, indication: Indication, function: Function) -> Interval:
        """Return all values that the indication may stand for.

        Parameters
        ----------
        indication
            In the unit of ``function``. Over-range without a figure counts for the highest range, and so does a
            figure at its end or beyond: at least that much.
        function
            One that this instrument has.

        Returns
        -------
        Interval
            In the same unit. Leads that were not nulled widen it downwards for ohms and continuity;
            what cannot be negative never is.

        Notes
        -----
        ``R ± e`` gives ``[R − e − leads, R + e]``; ``> R`` gives ``[R − e − leads, ∞)``; ``< R`` gives
        ``(-∞, R + e]``, from 0 where negative values do not exist; a display that moved, all from its lower end to
        its upper one. ``e`` is the limit of error and half the last place typed, where that is coarser than the
        display's own: independent limits, added as the root of their squares.
        """
        if indication.has_moved:
            first, last = (self.interval_of(end, function) for end in indication.ends)
            return Interval(min(first.lo, last.lo), max(first.hi, last.hi))
        full = self.full_scale(function)
        is_over = indication.value is None or (indication.value >= full * (1 - 1e-9) and not _is_below(indication))
        value = full if indication.value is None or is_over else indication.value
        scale = self._range_for(value, function)
        error = math.hypot(scale.error_of(value), 0.0 if is_over else self.rounding_of(indication, function))
        leads = self.lead_resistance_ohm if function in {Function.OHM, Function.CONTINUITY} and not self.nulled else 0.0
        has_sign = indication.unit.notation.may_be_negative and not function.is_magnitude
        floor = -math.inf if has_sign else 0.0
        lo = floor if indication.bound is Bound.BELOW else max(floor, value - error - leads)
        hi = math.inf if indication.bound is Bound.ABOVE or is_over else value + error
        return Interval(lo, hi)

    def rounding_of(self, indication: Indication, function: Function) -> float:
        """Return half the last place that was typed where it is coarser than the display, 0 where it is not."""
        if indication.value is None or indication.bound is not Bound.EXACT:
            return 0.0
        resolution = self._range_for(indication.value, function).resolution
        return indication.last_place / 2 if indication.last_place > resolution * (1 + 1e-9) else 0.0

    def resolution_at(self, value: float, function: Function) -> float:
        """Return the weight of the last digit where a value is shown."""
        return self._range_for(value, function).resolution

    def is_typed_coarse(self, indication: Indication, function: Function) -> bool:
        """Tell whether rounding by whoever typed it is more than the meter's own error."""
        rounding = self.rounding_of(indication, function)
        return rounding > self._range_for(indication.value or 0.0, function).error_of(indication.value or 0.0)

    def _range_for(self, value: float, function: Function) -> Range:
        """Return the smallest range that shows the value, the highest where none does."""
        ranges = self.functions[function]
        return next((r for r in ranges if abs(value) <= r.full_scale * (1 + 1e-9)), ranges[-1])
