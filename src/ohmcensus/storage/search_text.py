"""The words of a record, as they can be searched."""

from __future__ import annotations

import json
from collections.abc import Iterator


def words_in(body: str) -> str:
    """Return every text of a JSON document, its keys and its kind left out; empty where it is none."""
    try:
        return " ".join(_texts(json.loads(body)))
    except ValueError:
        return ""


def _texts(value: object) -> Iterator[str]:
    if isinstance(value, str):
        yield value
    elif isinstance(value, dict):
        for key, inner in value.items():
            if key != "kind":
                yield from _texts(inner)
    elif isinstance(value, list):
        for inner in value:
            yield from _texts(inner)
