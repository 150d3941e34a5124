"""The intake of a job."""

from __future__ import annotations

from flask import Response
from flask_openapi3 import APIBlueprint

from ohmcensus.services.intake.keep_intake import NewIntake, keep_intake
from ohmcensus.services.intake.show_intake import show_intake
from ohmcensus.services.intake.view import IntakeView
from ohmcensus.web.answers import answer, context
from ohmcensus.web.paths import JobPath
from ohmcensus.web.problems import Problem

blueprint = APIBlueprint("intake", __name__, url_prefix="/api/jobs")


@blueprint.get("/<job_id>/intake", responses={200: IntakeView}, summary="The intake of a job")
def intake(path: JobPath) -> Response:
    """Return complaint, plate, first look, van list, earlier visits and photos."""
    return answer(show_intake(context(), path.job_id))


@blueprint.put("/<job_id>/intake", responses={200: IntakeView, 409: Problem}, summary="Write the intake")
def new_intake(path: JobPath, body: NewIntake) -> Response:
    """Write complaint and plate; a newer intake of somebody else is not overwritten."""
    return answer(keep_intake(context(), path.job_id, body))
