"""Jobs: list, open, trace, readings, notes, safety, changes, export."""

from __future__ import annotations

import tempfile
from pathlib import Path

from flask import Response
from flask_openapi3 import APIBlueprint
from pydantic import BaseModel, Field

from ohmcensus.services.codes.show_codes import (
    AttemptView,
    Clicks,
    CodesView,
    DecodedCode,
    Pattern,
    coach,
    decode,
    show_codes,
)
from ohmcensus.services.event.record_event import NewEvent, record_event
from ohmcensus.services.intake.keep_intake import NewIntake, keep_intake
from ohmcensus.services.intake.show_intake import IntakeView, show_intake
from ohmcensus.services.job.list_jobs import JobsPage, JobsQuery, list_jobs
from ohmcensus.services.job.open_job import NewJob, open_job
from ohmcensus.services.job.show_changes import Changes, show_changes
from ohmcensus.services.job.show_job import JobView, show_job
from ohmcensus.services.proof.show_proof import ProveView, show_proof
from ohmcensus.services.reading.log_reading import NewReading, Withdrawal, log_reading, withdraw_reading
from ohmcensus.services.reading.preview_line import LinePreview, TypedLine, preview_line
from ohmcensus.services.reading.show_rungs import RungsQuery, RungsView, rungs_svg, show_rungs
from ohmcensus.services.reading.show_trace import TraceView, show_trace
from ohmcensus.services.reading.write_note import NewNote, write_note
from ohmcensus.services.repair.show_repair import RepairView, WorthAsked, WorthView, show_repair, weigh_worth
from ohmcensus.services.safety.show_power import PowerNow, show_power
from ohmcensus.services.safety.show_safe import SafeView, show_safe
from ohmcensus.services.sheet_out.show_sheet_out import SheetOutView, show_sheet_out
from ohmcensus.services.sheet_out.write_report import label_pdf, report_pdf
from ohmcensus.services.suspects.show_suspects import SuspectsQuery, SuspectsView, show_suspects
from ohmcensus.services.transfer.export_job import export_archive, export_text
from ohmcensus.services.trip.preview_run import RunPreview, TypedRun, preview_run
from ohmcensus.services.trip.show_story import TripStory, show_trip_story
from ohmcensus.services.trip.show_trip import TripQuery, TripView, show_trip
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


class RevisionQuery(BaseModel):
    """A revision at which the job was signed off, nought for the job as it stands."""

    revision: int = Field(default=0, ge=0, le=2**53)


@blueprint.get("", responses={200: JobsPage}, summary="Jobs, page by page")
def all_jobs(query: JobsQuery) -> Response:
    """Return one page of the jobs that hold every word of a search, the last changed one first."""
    return answer(list_jobs(context(), query))


@blueprint.post("", responses={201: JobView}, summary="Open a job")
def new_job(body: NewJob) -> Response:
    """Open a job; the same id again returns the job that is there."""
    return answer(open_job(context(), body), 201)


@blueprint.get("/<job_id>", responses={200: JobView}, summary="A job at a glance")
def one_job(path: JobPath) -> Response:
    """Return where a job stands: what the frame of every room shows."""
    return answer(show_job(context(), path.job_id))


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


@blueprint.post("/<job_id>/events", responses={201: JobView}, summary="Write down what happened")
def new_event(path: JobPath, body: NewEvent) -> Response:
    """Store an event; what safety forbids is refused."""
    return answer(record_event(context(), path.job_id, body), 201)


@blueprint.get("/<job_id>/intake", responses={200: IntakeView}, summary="The intake of a job")
def intake(path: JobPath) -> Response:
    """Return complaint, plate, first look, van list, earlier visits and photos."""
    return answer(show_intake(context(), path.job_id))


@blueprint.put("/<job_id>/intake", responses={200: IntakeView}, summary="Write the intake")
def new_intake(path: JobPath, body: NewIntake) -> Response:
    """Write complaint and plate; a newer intake of somebody else is not overwritten."""
    return answer(keep_intake(context(), path.job_id, body))


@blueprint.get("/<job_id>/safe", responses={200: SafeView}, summary="How safe the machine is")
def safe(path: JobPath) -> Response:
    """Return the steps, the points of the proof, and the hazards."""
    return answer(show_safe(context(), path.job_id))


@blueprint.get("/<job_id>/power", responses={200: PowerNow}, summary="How the machine stands right now")
def power(path: JobPath) -> Response:
    """Return the state of the machine: a page that asks is never older than two seconds."""
    return answer(show_power(context(), path.job_id))


@blueprint.get("/<job_id>/suspects", responses={200: SuspectsView}, summary="Suspects and what to ask next")
def suspects(path: JobPath, query: SuspectsQuery) -> Response:
    """Return the suspects, what speaks for and against each, and the next question."""
    return answer(show_suspects(context(), path.job_id, query))


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


@blueprint.get("/<job_id>/repair", responses={200: RepairView}, summary="Changes and the runs after them")
def repair(path: JobPath) -> Response:
    """Return what was changed, what ran after it, and whether that is conclusive."""
    return answer(show_repair(context(), path.job_id))


@blueprint.get("/<job_id>/proof", responses={200: ProveView}, summary="Proof after repair")
def proof(path: JobPath) -> Response:
    """Return what has to be shown after repair, what was, and what blocks signing off."""
    return answer(show_proof(context(), path.job_id))


@blueprint.post("/<job_id>/worth", responses={200: WorthView}, summary="Mend, replace, or give up")
def worth(path: JobPath, body: WorthAsked) -> Response:
    """Return what each way to go on is expected to cost; nothing is stored."""
    return answer(weigh_worth(context(), path.job_id, body))


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


@blueprint.get("/<job_id>/rungs", responses={200: RungsView}, summary="The machine as a ladder")
def rungs(path: JobPath, query: RungsQuery) -> Response:
    """Return the rung view in a configuration."""
    return answer(show_rungs(context(), path.job_id, query))


@blueprint.get("/<job_id>/rungs.svg", summary="The ladder as a picture")
def rungs_picture(path: JobPath, query: RungsQuery) -> Response:
    """Return the rung view as SVG."""
    response = Response(rungs_svg(context(), path.job_id, query), content_type="image/svg+xml")
    response.headers["Content-Disposition"] = f'attachment; filename="ladder-{path.job_id[:8]}.svg"'
    return response


@blueprint.get("/<job_id>/changes", responses={200: Changes}, summary="What changed after a revision")
def changes(path: JobPath, query: AfterQuery) -> Response:
    """Return what was written after the revision that the reader knows."""
    return answer(show_changes(context(), path.job_id, query.after))


@blueprint.get("/<job_id>/report.pdf", summary="The job sheet as PDF")
def report(path: JobPath, query: RevisionQuery) -> Response:
    """Return the job sheet that goes out, as it stands or as it was signed off at a revision."""
    response = Response(report_pdf(context(), path.job_id, query.revision), content_type="application/pdf")
    response.headers["Content-Disposition"] = f'inline; filename="job-{path.job_id[:8]}.pdf"'
    return response


@blueprint.get("/<job_id>/label.pdf", summary="The label for the machine as PDF")
def label(path: JobPath) -> Response:
    """Return the label of a machine whose job has ended: proved, or unsafe."""
    response = Response(label_pdf(context(), path.job_id), content_type="application/pdf")
    response.headers["Content-Disposition"] = f'inline; filename="label-{path.job_id[:8]}.pdf"'
    return response


@blueprint.get("/<job_id>/sheet-out", responses={200: SheetOutView}, summary="What goes out")
def sheet_out(path: JobPath) -> Response:
    """Return what goes out of a job, what it costs and who signed it off."""
    return answer(show_sheet_out(context(), path.job_id))


@blueprint.get("/<job_id>/archive.zip", summary="The job with its papers and photos")
def archive(path: JobPath) -> Response:
    """Return the whole job in one zip."""
    with tempfile.TemporaryDirectory() as folder:
        file = Path(folder) / "archive.zip"
        export_archive(context(), [path.job_id], file)
        response = Response(file.read_bytes(), content_type="application/zip")
    response.headers["Content-Disposition"] = f'attachment; filename="job-{path.job_id[:8]}.zip"'
    return response


@blueprint.get("/<job_id>/export.<ending>", summary="The job sheet as a file")
def export(path: ExportPath) -> Response:
    """Return the job sheet as CSV or JSON."""
    text = export_text(context(), path.job_id, path.ending)
    response = Response(text, content_type=_MIMETYPES[path.ending])
    response.headers["Content-Disposition"] = f'attachment; filename="job-{path.job_id[:8]}.{path.ending}"'
    return response
