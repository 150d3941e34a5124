"""Codes: schemes, lamps, entry sequences."""

from __future__ import annotations

from flask import Response
from flask_openapi3 import APIBlueprint

from ohmcensus.services.codes.show_codes import Clicks, Pattern, coach, decode, show_codes
from ohmcensus.services.codes.view import AttemptView, CodesView, DecodedCode
from ohmcensus.web.answers import answer, context
from ohmcensus.web.paths import JobPath

blueprint = APIBlueprint("codes", __name__, url_prefix="/api/jobs")


@blueprint.get("/<job_id>/codes", responses={200: CodesView}, summary="Listening to the machine")
def codes(path: JobPath) -> Response:
    """Return schemes, entry sequences, test cycles and the codes that were read."""
    return answer(show_codes(context(), path.job_id))


@blueprint.post("/<job_id>/codes/decode", responses={200: DecodedCode}, summary="Lamps to code, or code to lamps")
def codes_decode(path: JobPath, body: Pattern) -> Response:
    """Return a code with its pattern and meaning; nothing is stored."""
    return answer(decode(context(), path.job_id, body))


@blueprint.post("/<job_id>/codes/coach", responses={200: AttemptView}, summary="Follow an entry sequence")
def codes_coach(path: JobPath, body: Clicks) -> Response:
    """Return how an attempt stands after its clicks; nothing is stored."""
    return answer(coach(context(), path.job_id, body))
