"""Jobs: list, open, trace, readings, notes, safety, changes, export."""

from __future__ import annotations

from flask import Response
from flask_openapi3 import APIBlueprint
from pydantic import BaseModel, Field

from ohmcensus.services.export_job import export_text
from ohmcensus.services.log_reading import NewReading, Withdrawal, log_reading, withdraw_reading
from ohmcensus.services.open_job import JobView, NewJob, list_jobs, open_job
from ohmcensus.services.preview_line import LinePreview, TypedLine, preview_line
from ohmcensus.services.show_changes import Changes, show_changes
from ohmcensus.services.show_trace import TraceView, show_trace
from ohmcensus.services.state_safety import SafetyStatement, state_safety
from ohmcensus.services.write_note import NewNote, write_note
from ohmcensus.web.answers import answer, context
from ohmcensus.web.problems import Problem

blueprint = APIBlueprint(
    "jobs",
    __name__,
    url_prefix="/api/jobs",
    abp_responses={400: Problem, 403: Problem, 404: Problem, 409: Problem, 415: Problem, 422: Problem},
)
_MIMETYPES = {"csv": "text/csv; charset=utf-8", "json": "application/json"}


class JobPath(BaseModel):
    """Which job."""

    job_id: str


class ReadingPath(JobPath):
    """Which reading of which job."""

    reading_id: str


class ExportPath(JobPath):
    """Which job in which format."""

    ending: str


class AfterQuery(BaseModel):
    """The revision that the reader knows."""

    after: int = Field(default=0, ge=0, le=2**53)


class JobList(BaseModel):
    """All jobs, the last changed one first."""

    jobs: list[JobView]


@blueprint.get("", responses={200: JobList}, summary="All jobs")
def all_jobs() -> Response:
    """Return all jobs, the last changed one first."""
    return answer(JobList(jobs=list_jobs(context())))


@blueprint.post("", responses={201: JobView}, summary="Open a job")
def new_job(body: NewJob) -> Response:
    """Open a job; the same id again returns the job that is there."""
    return answer(open_job(context(), body), 201)


@blueprint.get("/<job_id>/trace", responses={200: TraceView}, summary="The trace of a job")
def trace(path: JobPath) -> Response:
    """Return everything that the trace screen shows."""
    return answer(show_trace(context(), path.job_id))


@blueprint.post("/<job_id>/preview", responses={200: LinePreview}, summary="What a typed line says")
def preview(path: JobPath, body: TypedLine) -> Response:
    """Return what a line is understood to say; nothing is stored."""
    return answer(preview_line(context(), path.job_id, body))


@blueprint.post("/<job_id>/readings", responses={201: TraceView}, summary="Log a reading")
def new_reading(path: JobPath, body: NewReading) -> Response:
    """Store a reading; the same id again changes nothing."""
    return answer(log_reading(context(), path.job_id, body), 201)


@blueprint.post("/<job_id>/readings/<reading_id>/withdrawal", responses={201: TraceView}, summary="Take a reading back")
def withdrawal(path: ReadingPath, body: Withdrawal) -> Response:
    """Take a reading back; it stays in the history."""
    return answer(withdraw_reading(context(), path.job_id, path.reading_id, body), 201)


@blueprint.post("/<job_id>/notes", responses={201: TraceView}, summary="Write a note on a line")
def new_note(path: JobPath, body: NewNote) -> Response:
    """Write a note; an empty one takes the standing one back."""
    return answer(write_note(context(), path.job_id, body), 201)


@blueprint.put("/<job_id>/safety", responses={200: TraceView}, summary="State what is known about voltage")
def safety(path: JobPath, body: SafetyStatement) -> Response:
    """Write down whether the machine is dead or live."""
    return answer(state_safety(context(), path.job_id, body))


@blueprint.get("/<job_id>/changes", responses={200: Changes}, summary="What changed after a revision")
def changes(path: JobPath, query: AfterQuery) -> Response:
    """Return what was written after the revision that the reader knows."""
    return answer(show_changes(context(), path.job_id, query.after))


@blueprint.get("/<job_id>/export.<ending>", summary="The job sheet as a file")
def export(path: ExportPath) -> Response:
    """Return the job sheet as CSV or JSON."""
    text = export_text(context(), path.job_id, path.ending)
    response = Response(text, content_type=_MIMETYPES[path.ending])
    response.headers["Content-Disposition"] = f'attachment; filename="job-{path.job_id[:8]}.{path.ending}"'
    return response
