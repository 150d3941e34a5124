"""Kinds of part as a form asks for them."""

from __future__ import annotations

from typing import Any, Literal

from pydantic import BaseModel

from ohmcensus.core.parts import part_kinds
from ohmcensus.core.parts.fault import FaultMode
from ohmcensus.services.sheet.typed_figures import YES_NO

Entry = Literal["figure", "text", "choice", "structure"]


class KindField(BaseModel):
    """A rating of a kind: its name, how it is entered, what may be chosen, whether it must be there."""

    name: str
    entry: Entry
    choices: list[str]
    required: bool


class Kind(BaseModel):
    """A kind of part."""

    kind: str
    title: str
    fields: list[KindField]


class Kinds(BaseModel):
    """All kinds."""

    kinds: list[Kind]


def leaking_kinds() -> dict[str, str]:
    """Return the title of every kind of part that can leak to earth."""
    leaking = [kind for kind in part_kinds().values() if FaultMode.LEAK in kind.fault_modes]
    return {kind.kind: kind.title for kind in sorted(leaking, key=lambda kind: kind.title)}


def list_kinds() -> Kinds:
    """Return every kind of part that a sheet may hold, by title."""
    found = [
        Kind(kind=kind.kind, title=kind.title, fields=_fields(kind.ratings.model_json_schema()))
        for kind in part_kinds().values()
    ]
    return Kinds(kinds=sorted(found, key=lambda kind: kind.title))


def _fields(schema: dict[str, Any]) -> list[KindField]:
    required = set(schema.get("required", ()))
    return [
        KindField(name=name, entry=_entry(field), choices=_choices(field), required=name in required)
        for name, field in schema.get("properties", {}).items()
    ]


def _choices(field: dict[str, Any]) -> list[str]:
    return [*YES_NO] if field.get("type") == "boolean" else field.get("enum", [])


def _entry(field: dict[str, Any]) -> Entry:
    kinds = {field.get("type"), *(option.get("type") for option in field.get("anyOf", ()))}
    if "enum" in field or "boolean" in kinds:
        return "choice"
    if kinds & {"number", "integer"}:
        return "figure"
    return "structure" if "$ref" in field or kinds & {"object", "array"} else "text"
