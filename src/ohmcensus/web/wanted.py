"""The parts that a job wants, and the pieces of the shelf that would do."""

from __future__ import annotations

from uuid import UUID

from flask import Response
from flask_openapi3 import APIBlueprint
from pydantic import BaseModel, Field

from ohmcensus.services.shelf.keep_wanted import (
    NewWanted,
    PartsView,
    PieceList,
    keep_wanted,
    remove_wanted,
    show_pieces,
    show_wanted,
)
from ohmcensus.web.answers import answer, context
from ohmcensus.web.problems import Problem

blueprint = APIBlueprint("wanted", __name__, url_prefix="/api")


class JobPartsPath(BaseModel):
    """Which job."""

    job_id: str


class WantedPath(JobPartsPath):
    """Which part that a job wants."""

    wanted_id: UUID


@blueprint.get("/jobs/<job_id>/parts", responses={200: PartsView}, summary="Parts that a job wants")
def parts(path: JobPartsPath) -> Response:
    """Return what a job wants, with the pieces of the shelf that may fit."""
    return answer(show_wanted(context(), path.job_id))


@blueprint.put(
    "/jobs/<job_id>/parts/<wanted_id>", responses={200: PartsView, 409: Problem}, summary="Keep a part that is wanted"
)
def new_wanted(path: WantedPath, body: NewWanted) -> Response:
    """Keep what a job wants, new or changed."""
    return answer(keep_wanted(context(), path.job_id, path.wanted_id, body))


@blueprint.delete("/jobs/<job_id>/parts/<wanted_id>", responses={200: PartsView}, summary="Take a wish back")
def old_wanted(path: WantedPath) -> Response:
    """Take back what a job wants."""
    return answer(remove_wanted(context(), path.job_id, path.wanted_id))


class PieceQuery(BaseModel):
    """The part that is to be replaced."""

    part: str = Field(max_length=60)


@blueprint.get("/jobs/<job_id>/pieces", responses={200: PieceList}, summary="Pieces of the shelf for a part")
def pieces(path: JobPartsPath, query: PieceQuery) -> Response:
    """Return the pieces of the shelf that a part of a job may be replaced by, what fits first."""
    return answer(show_pieces(context(), path.job_id, query.part))
