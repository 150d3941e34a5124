"""Views to responses, and the way from a request to the use cases."""

from __future__ import annotations

from typing import cast

from flask import Response, current_app
from pydantic import BaseModel

from ohmcensus.services.context import Context


def context() -> Context:
    """Return the context of the running application."""
    return cast("Context", current_app.extensions["ohmcensus"])


def answer(view: BaseModel, status: int = 200) -> Response:
    """Return a view as JSON."""
    return Response(view.model_dump_json(), status=status, mimetype="application/json")
