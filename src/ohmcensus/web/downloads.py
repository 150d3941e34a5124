"""How a file that goes out is described and sent."""

from __future__ import annotations

from typing import Any

from flask import Response


def describes(*types: str) -> dict[str | int, Any]:
    """Return the description of an answer that is a file of one of some types."""
    schema = {"schema": {"type": "string", "format": "binary"}}
    return {200: {"description": "The file", "content": dict.fromkeys(types, schema)}}


def download(content: bytes | str, name: str, content_type: str, *, is_inline: bool = False) -> Response:
    """Return a file under a name, to be saved or shown."""
    response = Response(content, content_type=content_type)
    response.headers["Content-Disposition"] = f'{"inline" if is_inline else "attachment"}; filename="{name}"'
    return response
