"""Figures as a person types them into a sheet, "4n7" for a capacitor, to the numbers that it holds."""

from __future__ import annotations

from typing import Any

from pydantic import BaseModel

from ohmcensus.core.errors import ReadingTextError
from ohmcensus.core.parts import part_kinds
from ohmcensus.core.quantity import Unit, parse_indication

# The unit of a figure by the last word of its name; a figure of another name has none.
_UNITS = {
    "ohm": Unit.OHM,
    "farad": Unit.FARAD,
    "volts": Unit.VOLT,
    "hertz": Unit.HERTZ,
    "watts": Unit.WATT,
    "celsius": Unit.CELSIUS,
    "m": Unit.METRE,
}


def with_typed_figures(raw: dict[str, Any]) -> dict[str, Any]:
    """Return a draft whose typed figures are numbers; what cannot be read stays as it was typed."""
    parts = raw.get("parts")
    if not isinstance(parts, list):
        return raw
    return {**raw, "parts": [_part(part) if isinstance(part, dict) else part for part in parts]}


def _part(part: dict[str, Any]) -> dict[str, Any]:
    kind = part_kinds().get(str(part.get("kind")))
    ratings = part.get("ratings")
    if kind is None:
        return part
    changed = dict(part)
    if isinstance(ratings, dict):
        numeric = _numeric(kind.ratings)
        told = {name: _told(value) for name, value in ratings.items()}
        changed["ratings"] = {
            name: _number(value, _UNITS.get(name.rpartition("_")[2])) if name in numeric else value
            for name, value in told.items()
        }
    if isinstance(part.get("expects"), dict):
        changed["expects"] = {test: _expected(own) for test, own in part["expects"].items()}
    if "price" in part:
        changed["price"] = _number(part["price"], None)
    return changed


# What is chosen where a part has something or has it not.
YES_NO = {"yes": True, "no": False}


def _told(value: object) -> object:
    return YES_NO.get(value, value) if isinstance(value, str) else value


def _expected(own: object) -> object:
    if not isinstance(own, dict):
        return own
    ends = {"lo", "hi", "nominal"}
    return {name: _number(value, None) if name in ends else value for name, value in own.items()}


def _number(value: object, unit: Unit | None) -> object:
    """Return the number that a text stands for; the text where it stands for none."""
    if not isinstance(value, str) or not value.strip():
        return value
    try:
        read = parse_indication(value, unit or Unit.OHM)
    except ReadingTextError:
        return value
    return value if read.value is None else float(read.value)


def _numeric(ratings: type[BaseModel]) -> set[str]:
    """Return the names of the fields that hold a float."""
    return {name for name, field in ratings.model_fields.items() if "float" in str(field.annotation)}
