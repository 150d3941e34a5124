"""Leak tests and what they prove."""

from __future__ import annotations

from flask import Response
from flask_openapi3 import APIBlueprint

from ohmcensus.services.event.take_leak_test import NewLeakTest, take_leak_test
from ohmcensus.services.trip.preview_run import RunPreview, TypedRun, preview_run
from ohmcensus.services.trip.show_story import show_trip_story
from ohmcensus.services.trip.show_trip import TripQuery, show_trip
from ohmcensus.services.trip.view import TripStory, TripView
from ohmcensus.web.answers import answer, context, made
from ohmcensus.web.paths import JobPath
from ohmcensus.web.problems import Problem

blueprint = APIBlueprint("trip", __name__, url_prefix="/api/jobs")


@blueprint.get("/<job_id>/trip", responses={200: TripView}, summary="Isolating a leak")
def trip(path: JobPath, query: TripQuery) -> Response:
    """Return the runs, what each part is proved to be, and what to pull next."""
    return answer(show_trip(context(), path.job_id, query))


@blueprint.get("/<job_id>/trip/story", responses={200: TripStory}, summary="What each run proved")
def trip_story(path: JobPath, query: TripQuery) -> Response:
    """Return the runs in order, with what each proved."""
    return answer(show_trip_story(context(), path.job_id, query))


@blueprint.post("/<job_id>/trip/preview", responses={200: RunPreview}, summary="What a typed run says")
def trip_preview(path: JobPath, body: TypedRun) -> Response:
    """Return what a line is understood to say; nothing is stored."""
    return answer(preview_run(context(), path.job_id, body))


@blueprint.post(
    "/<job_id>/trip/tests",
    responses={200: TripView, 201: TripView, 409: Problem},
    summary="Take a leak test as it was typed",
)
def leak_test(path: JobPath, body: NewLeakTest) -> Response:
    """Store a leak test; the same id again changes nothing."""
    return made(take_leak_test(context(), path.job_id, body))
