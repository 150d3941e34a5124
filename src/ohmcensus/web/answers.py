"""Views to responses, and the way from a request to the use cases."""

from __future__ import annotations

from typing import cast

from flask import Response, current_app, g
from pydantic import BaseModel

from ohmcensus.services.at_hand.context import Context
from ohmcensus.services.job.view import JobView
from ohmcensus.services.safety.view import PowerNow
from ohmcensus.storage.database import rows_written


def context() -> Context:
    """Return the context of the running application."""
    return cast("Context", current_app.extensions["ohmcensus"])


def count_rows() -> None:
    """Remember before a request how many rows were written so far; see ``made``."""
    g.rows = rows_written()


def made(view: BaseModel) -> Response:
    """Return a view with 201 where this request wrote something down, with 200 where that was there already."""
    return answer(view, 201 if rows_written() > g.rows else 200)


def answer(view: BaseModel, status: int = 200) -> Response:
    """Return a view as JSON; how the machine of its job stands is remembered for the header of the answer."""
    job = getattr(view, "job", view)
    if isinstance(job, JobView):
        g.power = PowerNow(revision=job.revision, now=context().now(), power=job.power)
    return Response(view.model_dump_json(), status=status, mimetype="application/json")
