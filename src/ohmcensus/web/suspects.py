"""Suspects and the next question."""

from __future__ import annotations

from flask import Response
from flask_openapi3 import APIBlueprint

from ohmcensus.services.suspects.show_suspects import SuspectsQuery, show_suspects
from ohmcensus.services.suspects.view import SuspectsView
from ohmcensus.web.answers import answer, context
from ohmcensus.web.paths import JobPath

blueprint = APIBlueprint("suspects", __name__, url_prefix="/api/jobs")


@blueprint.get("/<job_id>/suspects", responses={200: SuspectsView}, summary="Suspects and what to ask next")
def suspects(path: JobPath, query: SuspectsQuery) -> Response:
    """Return the suspects, what speaks for and against each, and the next question."""
    return answer(show_suspects(context(), path.job_id, query))
