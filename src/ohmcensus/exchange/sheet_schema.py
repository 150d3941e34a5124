"""The published JSON Schema of machine sheets, made from the models that read them."""

from __future__ import annotations

from typing import Any

from pydantic.json_schema import models_json_schema

from ohmcensus.core.parts import part_kinds
from ohmcensus.core.sheet import Part, Sheet


def sheet_schema() -> dict[str, Any]:
    """Return the schema of ``ohmcensus-sheet/1``: each kind of part with its own ratings."""
    kinds = part_kinds()
    models = {kind.ratings.__name__: kind.ratings for kind in kinds.values()}
    _, whole = models_json_schema(
        [(Sheet, "validation"), *((model, "validation") for model in models.values())],
        ref_template="#/$defs/{model}",
    )
    definitions: dict[str, Any] = whole["$defs"]
    part = definitions.pop(Part.__name__)
    definitions.pop("Ratings", None)
    definitions[Part.__name__] = {
        "oneOf": [_of_kind(part, kind.kind, kind.ratings.__name__, definitions) for kind in kinds.values()]
    }
    root = definitions.pop(Sheet.__name__)
    return {
        "$schema": "https://json-schema.org/draft/2020-12/schema",
        "title": "Machine sheet",
        **{key: value for key, value in root.items() if key != "title"},
        "required": sorted({*root.get("required", ()), "format"}),
        "$defs": dict(sorted(definitions.items())),
    }


def _of_kind(part: dict[str, Any], kind: str, ratings: str, definitions: dict[str, Any]) -> dict[str, Any]:
    """Return the schema of a part of one kind."""
    needed = [name for name in part["required"] if name not in {"title", "ratings"}]
    if definitions[ratings].get("required"):
        needed.append("ratings")
    properties = {
        **part["properties"],
        "kind": {"const": kind},
        "ratings": {"$ref": f"#/$defs/{ratings}"},
    }
    return {**part, "title": kind, "properties": properties, "required": needed}
