"""Proof after repair."""

from __future__ import annotations

from flask import Response
from flask_openapi3 import APIBlueprint

from ohmcensus.services.proof.show_proof import show_proof
from ohmcensus.services.proof.view import ProveView
from ohmcensus.web.answers import answer, context
from ohmcensus.web.paths import JobPath

blueprint = APIBlueprint("proof", __name__, url_prefix="/api/jobs")


@blueprint.get("/<job_id>/proof", responses={200: ProveView}, summary="Proof after repair")
def proof(path: JobPath) -> Response:
    """Return what has to be shown after repair, what was, and what blocks signing off."""
    return answer(show_proof(context(), path.job_id))
