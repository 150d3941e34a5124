"""How safe a machine is."""

from __future__ import annotations

from flask import Response
from flask_openapi3 import APIBlueprint

from ohmcensus.services.safety.show_power import show_power
from ohmcensus.services.safety.show_safe import show_safe
from ohmcensus.services.safety.view import PowerNow, SafeQuery, SafeView
from ohmcensus.web.answers import answer, context
from ohmcensus.web.paths import JobPath

blueprint = APIBlueprint("safe", __name__, url_prefix="/api/jobs")


@blueprint.get("/<job_id>/safe", responses={200: SafeView}, summary="How safe the machine is")
def safe(path: JobPath, query: SafeQuery) -> Response:
    """Return the steps, the points of the proof, and the hazards."""
    return answer(show_safe(context(), path.job_id, query.device))


@blueprint.get("/<job_id>/power", responses={200: PowerNow}, summary="How the machine stands right now")
def power(path: JobPath) -> Response:
    """Return the state of the machine: a page that asks is never older than two seconds."""
    return answer(show_power(context(), path.job_id))
