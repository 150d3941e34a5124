"""The shelf of spares."""

from __future__ import annotations

from uuid import UUID

from flask import Response
from flask_openapi3 import APIBlueprint
from pydantic import BaseModel

from ohmcensus.services.shelf.keep_spare import NewAcceptance, NewSpare, keep_spare, measure_spare, show_shelf
from ohmcensus.services.shelf.view import ShelfView
from ohmcensus.web.answers import answer, context, made
from ohmcensus.web.problems import Problem

blueprint = APIBlueprint("shelf", __name__, url_prefix="/api")


class SparePath(BaseModel):
    """Which piece."""

    spare_id: UUID


@blueprint.get("/shelf", responses={200: ShelfView}, summary="The shelf of spares")
def all_spares() -> Response:
    """Return every piece with what is known of it and where it is."""
    return answer(show_shelf(context()))


@blueprint.put("/shelf/<spare_id>", responses={200: ShelfView, 409: Problem}, summary="Keep a spare")
def new_spare(path: SparePath, body: NewSpare) -> Response:
    """Keep a piece, new or changed."""
    return answer(keep_spare(context(), path.spare_id, body))


@blueprint.post(
    "/shelf/<spare_id>/readings",
    responses={200: ShelfView, 201: ShelfView, 409: Problem},
    summary="Measure a spare in the hand",
)
def new_acceptance(path: SparePath, body: NewAcceptance) -> Response:
    """Keep an acceptance reading of a piece."""
    return made(measure_spare(context(), path.spare_id, body))
