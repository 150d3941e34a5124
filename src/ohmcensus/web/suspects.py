"""Suspects and the next question."""

from __future__ import annotations

from flask import Response
from flask_openapi3 import APIBlueprint

from ohmcensus.services.suspects.show_suspects import SuspectsQuery, show_suspects
from ohmcensus.services.suspects.view import SuspectsView
from ohmcensus.web.answers import answer, context
from ohmcensus.web.paths import JobPath
from ohmcensus.web.problems import Problem

blueprint = APIBlueprint(
    "suspects",
    __name__,
    url_prefix="/api/jobs",
    abp_responses={400: Problem, 403: Problem, 404: Problem, 409: Problem, 415: Problem, 422: Problem},
)


@blueprint.get("/<job_id>/suspects", responses={200: SuspectsView}, summary="Suspects and what to ask next")
def suspects(path: JobPath, query: SuspectsQuery) -> Response:
    """Return the suspects, what speaks for and against each, and the next question."""
    return answer(show_suspects(context(), path.job_id, query))
