"""Readings: the trace, a typed line, what is logged and taken back, notes."""

from __future__ import annotations

from flask import Response
from flask_openapi3 import APIBlueprint

from ohmcensus.services.reading.log_reading import NewReading, Withdrawal, log_reading, withdraw_reading
from ohmcensus.services.reading.preview_line import LinePreview, TypedLine, preview_line
from ohmcensus.services.reading.show_trace import show_trace
from ohmcensus.services.reading.view import TraceView
from ohmcensus.services.reading.write_note import NewNote, write_note
from ohmcensus.web.answers import answer, context, made
from ohmcensus.web.paths import JobPath
from ohmcensus.web.problems import Problem

blueprint = APIBlueprint("readings", __name__, url_prefix="/api/jobs")


class ReadingPath(JobPath):
    """Which reading of which job."""

    reading_id: str


@blueprint.get("/<job_id>/trace", responses={200: TraceView}, summary="The trace of a job")
def trace(path: JobPath) -> Response:
    """Return everything that the trace screen shows."""
    return answer(show_trace(context(), path.job_id))


@blueprint.post("/<job_id>/preview", responses={200: LinePreview}, summary="What a typed line says")
def preview(path: JobPath, body: TypedLine) -> Response:
    """Return what a line is understood to say; nothing is stored."""
    return answer(preview_line(context(), path.job_id, body))


@blueprint.post("/<job_id>/readings", responses={200: TraceView, 201: TraceView, 409: Problem}, summary="Log a reading")
def new_reading(path: JobPath, body: NewReading) -> Response:
    """Store a reading; the same id again changes nothing."""
    return made(log_reading(context(), path.job_id, body))


@blueprint.post(
    "/<job_id>/readings/<reading_id>/withdrawal",
    responses={200: TraceView, 201: TraceView, 409: Problem},
    summary="Take a reading back",
)
def withdrawal(path: ReadingPath, body: Withdrawal) -> Response:
    """Take a reading back; it stays in the history."""
    return made(withdraw_reading(context(), path.job_id, path.reading_id, body))


@blueprint.post(
    "/<job_id>/notes", responses={200: TraceView, 201: TraceView, 409: Problem}, summary="Write a note on a line"
)
def new_note(path: JobPath, body: NewNote) -> Response:
    """Write a note; an empty one takes the standing one back."""
    return made(write_note(context(), path.job_id, body))
