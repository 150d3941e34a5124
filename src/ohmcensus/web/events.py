"""What happens on a job."""

from __future__ import annotations

from flask import Response
from flask_openapi3 import APIBlueprint

from ohmcensus.services.event.record_event import NewEvent, record_event
from ohmcensus.services.job.view import JobView
from ohmcensus.web.answers import answer, context
from ohmcensus.web.paths import JobPath
from ohmcensus.web.problems import Problem

blueprint = APIBlueprint(
    "events",
    __name__,
    url_prefix="/api/jobs",
    abp_responses={400: Problem, 403: Problem, 404: Problem, 409: Problem, 415: Problem, 422: Problem},
)


@blueprint.post("/<job_id>/events", responses={201: JobView}, summary="Write down what happened")
def new_event(path: JobPath, body: NewEvent) -> Response:
    """Store an event; what safety forbids is refused."""
    return answer(record_event(context(), path.job_id, body), 201)
