"""The shelf of spares, and the parts that jobs want."""

from __future__ import annotations

from uuid import UUID

from flask import Response
from flask_openapi3 import APIBlueprint
from pydantic import BaseModel

from ohmcensus.services.shelf.keep_spare import NewAcceptance, NewSpare, keep_spare, measure_spare, show_shelf
from ohmcensus.services.shelf.keep_wanted import NewWanted, PartsView, keep_wanted, remove_wanted, show_wanted
from ohmcensus.services.shelf.view import ShelfView
from ohmcensus.web.answers import answer, context
from ohmcensus.web.problems import Problem

blueprint = APIBlueprint(
    "shelf",
    __name__,
    url_prefix="/api",
    abp_responses={400: Problem, 404: Problem, 409: Problem, 415: Problem, 422: Problem},
)


class SparePath(BaseModel):
    """Which piece."""

    spare_id: UUID


class JobPartsPath(BaseModel):
    """Which job."""

    job_id: str


class WantedPath(JobPartsPath):
    """Which part that a job wants."""

    wanted_id: UUID


@blueprint.get("/shelf", responses={200: ShelfView}, summary="The shelf of spares")
def all_spares() -> Response:
    """Return every piece with what is known of it and where it is."""
    return answer(show_shelf(context()))


@blueprint.put("/shelf/<spare_id>", responses={200: ShelfView}, summary="Keep a spare")
def new_spare(path: SparePath, body: NewSpare) -> Response:
    """Keep a piece, new or changed."""
    return answer(keep_spare(context(), path.spare_id, body))


@blueprint.post("/shelf/<spare_id>/readings", responses={201: ShelfView}, summary="Measure a spare in the hand")
def new_acceptance(path: SparePath, body: NewAcceptance) -> Response:
    """Keep an acceptance reading of a piece."""
    return answer(measure_spare(context(), path.spare_id, body), 201)


@blueprint.get("/jobs/<job_id>/parts", responses={200: PartsView}, summary="Parts that a job wants")
def parts(path: JobPartsPath) -> Response:
    """Return what a job wants, with the pieces of the shelf that may fit."""
    return answer(show_wanted(context(), path.job_id))


@blueprint.put("/jobs/<job_id>/parts/<wanted_id>", responses={200: PartsView}, summary="Keep a part that is wanted")
def new_wanted(path: WantedPath, body: NewWanted) -> Response:
    """Keep what a job wants, new or changed."""
    return answer(keep_wanted(context(), path.job_id, path.wanted_id, body))


@blueprint.delete("/jobs/<job_id>/parts/<wanted_id>", responses={200: PartsView}, summary="Take a wish back")
def old_wanted(path: WantedPath) -> Response:
    """Take back what a job wants."""
    return answer(remove_wanted(context(), path.job_id, path.wanted_id))
