"""Jobs: list, open, at a glance, what changed."""

from __future__ import annotations

from flask import Response
from flask_openapi3 import APIBlueprint
from pydantic import BaseModel, Field

from ohmcensus.services.job.list_jobs import JobsPage, JobsQuery, list_jobs
from ohmcensus.services.job.open_job import NewJob, open_job
from ohmcensus.services.job.show_changes import Changes, show_changes
from ohmcensus.services.job.show_job import show_job
from ohmcensus.services.job.show_outlook import OutlookView, show_outlook
from ohmcensus.services.job.view import JobView
from ohmcensus.web.answers import answer, context, made
from ohmcensus.web.paths import JobPath
from ohmcensus.web.problems import Problem

blueprint = APIBlueprint("jobs", __name__, url_prefix="/api/jobs")


class AfterQuery(BaseModel):
    """The revision that the reader knows."""

    after: int = Field(default=0, ge=0, le=2**53)


@blueprint.get("", responses={200: JobsPage}, summary="Jobs, page by page")
def all_jobs(query: JobsQuery) -> Response:
    """Return one page of the jobs that hold every word of a search, the last changed one first."""
    return answer(list_jobs(context(), query))


@blueprint.post("", responses={200: JobView, 201: JobView, 409: Problem}, summary="Open a job")
def new_job(body: NewJob) -> Response:
    """Open a job; the same id again returns the job that is there."""
    return made(open_job(context(), body))


@blueprint.get("/<job_id>", responses={200: JobView}, summary="A job at a glance")
def one_job(path: JobPath) -> Response:
    """Return where a job stands: what the frame of every room shows."""
    return answer(show_job(context(), path.job_id))


@blueprint.get("/<job_id>/outlook", responses={200: OutlookView}, summary="How far a job is, and what is next")
def outlook(path: JobPath) -> Response:
    """Return how far the search is, who is named, and the one thing to do next."""
    return answer(show_outlook(context(), path.job_id))


@blueprint.get("/<job_id>/changes", responses={200: Changes}, summary="What changed after a revision")
def changes(path: JobPath, query: AfterQuery) -> Response:
    """Return what was written after the revision that the reader knows."""
    return answer(show_changes(context(), path.job_id, query.after))
