"""What happens on a job."""

from __future__ import annotations

from flask import Response
from flask_openapi3 import APIBlueprint

from ohmcensus.services.event.record_event import NewEvent, record_event
from ohmcensus.services.job.view import JobView
from ohmcensus.web.answers import context, made
from ohmcensus.web.paths import JobPath
from ohmcensus.web.problems import Problem

blueprint = APIBlueprint("events", __name__, url_prefix="/api/jobs")


@blueprint.post(
    "/<job_id>/events", responses={200: JobView, 201: JobView, 409: Problem}, summary="Write down what happened"
)
def new_event(path: JobPath, body: NewEvent) -> Response:
    """Store an event; what safety forbids is refused."""
    return made(record_event(context(), path.job_id, body))
