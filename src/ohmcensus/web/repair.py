"""Changes, runs, and ways to go on."""

from __future__ import annotations

from flask import Response
from flask_openapi3 import APIBlueprint

from ohmcensus.services.repair.show_repair import RepairQuery, WorthAsked, show_repair, weigh_worth
from ohmcensus.services.repair.view import RepairView, WorthView
from ohmcensus.web.answers import answer, context
from ohmcensus.web.paths import JobPath

blueprint = APIBlueprint("repair", __name__, url_prefix="/api/jobs")


@blueprint.get("/<job_id>/repair", responses={200: RepairView}, summary="Changes and the runs after them")
def repair(path: JobPath, query: RepairQuery) -> Response:
    """Return what was changed, what ran after it, and whether that is conclusive."""
    return answer(show_repair(context(), path.job_id, query))


@blueprint.post("/<job_id>/worth", responses={200: WorthView}, summary="Mend, replace, or give up")
def worth(path: JobPath, body: WorthAsked) -> Response:
    """Return what each way to go on is expected to cost; nothing is stored."""
    return answer(weigh_worth(context(), path.job_id, body))
