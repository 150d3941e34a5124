"""The ladder of a machine, as data and as a picture."""

from __future__ import annotations

from flask import Response
from flask_openapi3 import APIBlueprint

from ohmcensus.services.reading.show_rungs import RungsQuery, RungsView, rungs_svg, show_rungs
from ohmcensus.web.answers import answer, context
from ohmcensus.web.downloads import describes, download
from ohmcensus.web.paths import JobPath

blueprint = APIBlueprint("ladder", __name__, url_prefix="/api/jobs")


@blueprint.get("/<job_id>/rungs", responses={200: RungsView}, summary="The machine as a ladder")
def rungs(path: JobPath, query: RungsQuery) -> Response:
    """Return the rung view in a configuration."""
    return answer(show_rungs(context(), path.job_id, query))


@blueprint.get("/<job_id>/rungs.svg", responses=describes("image/svg+xml"), summary="The ladder as a picture")
def rungs_picture(path: JobPath, query: RungsQuery) -> Response:
    """Return the rung view as SVG."""
    return download(rungs_svg(context(), path.job_id, query), f"ladder-{path.job_id[:8]}.svg", "image/svg+xml")
