"""What is stamped on the parts of one machine: where it is not what the sheet of its type says, it holds."""

from __future__ import annotations

from collections.abc import Iterable
from functools import lru_cache
from typing import Any

from pydantic import ValidationError

from ohmcensus.core.errors import InputError
from ohmcensus.core.machine.expected import expected
from ohmcensus.core.meter import Function
from ohmcensus.core.parts.kind import TestSpec
from ohmcensus.core.physics.temperature import REFERENCE_CELSIUS
from ohmcensus.core.quantity import Unit
from ohmcensus.core.sheet import Expected, Part, Sheet

# Figures of the supply: every part has them, none is told apart by them.
_OF_SUPPLY = frozenset({"volts", "hertz"})
_VALUES = frozenset({Function.OHM, Function.CAPACITANCE})
# A figure that is moved by so much shows which tests hang on it.
_NUDGE = 1.1
_STAMP = "the stamp on the part"


def as_stamped(sheet: Sheet, stamps: Iterable[tuple[str, str, float]]) -> Sheet:
    """Return the sheet of a machine with what is stamped on its parts instead of the figures of its type.

    Parameters
    ----------
    sheet
        The machine's type.
    stamps
        Part, rating and value that were read, the last of a part's rating counts. A rating is one of the part's own,
        or the name of one of its tests with the value that is printed for it, SI. One that the part does not have, or
        that cannot be, moves nothing.
    """
    last = {(part, rating): value for part, rating, value in stamps}
    if not last:
        return sheet
    parts = []
    for part in sheet.parts:
        own = {rating: value for (name, rating), value in last.items() if name == part.id}
        parts.append(_stamped(sheet, part, own) if own else part)
    return sheet if tuple(parts) == sheet.parts else sheet.model_copy(update={"parts": tuple(parts)})


def valued_tests(sheet: Sheet, part: Part) -> tuple[TestSpec, ...]:
    """Return the tests of a part that read a value which may be another one on another variant."""
    found = []
    for spec in part.tests():
        if spec.function in _VALUES and not spec.load_of:
            span = expected(sheet, part, spec, REFERENCE_CELSIUS).interval
            if span.finite_lo and span.finite_hi:
                found.append(spec)
    return tuple(found)


@lru_cache(maxsize=512)
def rating_of(sheet: Sheet, part_id: str, test: str) -> str:
    """Return what to read on a part for a test of it: one of its ratings, else the test's own name.

    Parameters
    ----------
    sheet
        The machine's type.
    part_id, test
        Whose test, and which: ("heater", "element") gives "watts".
    """
    part = sheet.known_part(part_id)
    spec = next((row for row in part.tests() if row.name == test), None)
    if spec is None or test in part.expects:
        return test
    nominal = expected(sheet, part, spec, REFERENCE_CELSIUS).nominal
    for name, value in part.ratings.model_dump().items():
        if name in _OF_SUPPLY or isinstance(value, bool) or not isinstance(value, int | float) or not value:
            continue
        moved = _rated(part, name, value * _NUDGE)
        other = next((row for row in moved.tests() if row.name == test), None)
        if other is not None and expected(sheet, moved, other, REFERENCE_CELSIUS).nominal != nominal:
            return name
    return test


def stated_figure(sheet: Sheet, part_id: str, rating: str) -> float | None:
    """Return the figure that the sheet has for a rating of a part, or for the test of that name; None for none."""
    part = sheet.known_part(part_id)
    value = getattr(part.ratings, rating, None)
    if isinstance(value, int | float):
        return float(value)
    spec = next((row for row in part.tests() if row.name == rating), None)
    return expected(sheet, part, spec, REFERENCE_CELSIUS).nominal if spec else None


def rating_unit(sheet: Sheet, part_id: str, rating: str) -> Unit:
    """Return the unit in which a rating is printed on a part."""
    found = next((unit for ending, unit in _UNITS.items() if rating.endswith(ending)), None)
    spec = next((row for row in sheet.known_part(part_id).tests() if row.name == rating), None)
    return found or (spec.function.unit if spec else Unit.OHM)


_UNITS = {"watts": Unit.WATT, "_ohm": Unit.OHM, "farad": Unit.FARAD, "_m": Unit.METRE, "amperes": Unit.AMPERE}


def _stamped(sheet: Sheet, part: Part, own: dict[str, float]) -> Part:
    for rating, value in own.items():
        spec = next((row for row in part.tests() if row.name == rating), None)
        if hasattr(part.ratings, rating):
            part = _rated(part, rating, value)
        elif spec is not None and value > 0:
            part = _printed(sheet, part, spec, value)
    return part


def _rated(part: Part, rating: str, value: float) -> Part:
    """Return a part with another rating; the part itself where its kind has no such figure, or not such a one."""
    is_mark = isinstance(getattr(part.ratings, rating, None), bool)
    plain: dict[str, Any] = part.ratings.model_dump() | {rating: bool(value) if is_mark else value}
    try:
        ratings = type(part.ratings).model_validate(plain)
        part.part_kind.tests(ratings)
    except (ValidationError, InputError, ArithmeticError, ValueError):
        return part
    return part.model_copy(update={"ratings": ratings})


def _printed(sheet: Sheet, part: Part, spec: TestSpec, value: float) -> Part:
    """Return a part of which a test reads what is printed, within the same share of it as before."""
    window = expected(sheet, part, spec, REFERENCE_CELSIUS)
    lo, hi = window.interval.finite_lo, window.interval.finite_hi
    if not lo or not hi:
        return part
    usual = window.nominal or (lo * hi) ** 0.5
    own = Expected(lo=value * lo / usual, hi=value * hi / usual, nominal=value, source=_STAMP)
    return part.model_copy(update={"expects": {**part.expects, spec.name: own}})
