"""What goes out of a job: sheet, label, archive, files."""

from __future__ import annotations

import tempfile
from pathlib import Path

from flask import Response
from flask_openapi3 import APIBlueprint
from pydantic import BaseModel, Field

from ohmcensus.services.sheet_out.show_sheet_out import show_sheet_out
from ohmcensus.services.sheet_out.view import SheetOutView
from ohmcensus.services.sheet_out.write_report import label_pdf, report_pdf
from ohmcensus.services.transfer.export_job import export_archive, export_text
from ohmcensus.web.answers import answer, context
from ohmcensus.web.downloads import describes, download
from ohmcensus.web.paths import JobPath

blueprint = APIBlueprint("sheet_out", __name__, url_prefix="/api/jobs")
_MIMETYPES = {"csv": "text/csv; charset=utf-8", "json": "application/json"}


class ExportPath(JobPath):
    """Which job in which format."""

    ending: str


class RevisionQuery(BaseModel):
    """A revision at which the job was signed off, nought for the job as it stands."""

    revision: int = Field(default=0, ge=0, le=2**53)


@blueprint.get("/<job_id>/sheet-out", responses={200: SheetOutView}, summary="What goes out")
def sheet_out(path: JobPath) -> Response:
    """Return what goes out of a job, what it costs and who signed it off."""
    return answer(show_sheet_out(context(), path.job_id))


@blueprint.get("/<job_id>/report.pdf", responses=describes("application/pdf"), summary="The job sheet as PDF")
def report(path: JobPath, query: RevisionQuery) -> Response:
    """Return the job sheet that goes out, as it stands or as it was signed off at a revision."""
    pdf = report_pdf(context(), path.job_id, query.revision)
    return download(pdf, f"job-{path.job_id[:8]}.pdf", "application/pdf", is_inline=True)


@blueprint.get(
    "/<job_id>/label.pdf", responses=describes("application/pdf"), summary="The label for the machine as PDF"
)
def label(path: JobPath) -> Response:
    """Return the label of a machine whose job has ended: proved, or unsafe."""
    pdf = label_pdf(context(), path.job_id)
    return download(pdf, f"label-{path.job_id[:8]}.pdf", "application/pdf", is_inline=True)


@blueprint.get(
    "/<job_id>/archive.zip", responses=describes("application/zip"), summary="The job with its papers and photos"
)
def archive(path: JobPath) -> Response:
    """Return the whole job in one zip."""
    with tempfile.TemporaryDirectory() as folder:
        file = Path(folder) / "archive.zip"
        export_archive(context(), [path.job_id], file)
        return download(file.read_bytes(), f"job-{path.job_id[:8]}.zip", "application/zip")


@blueprint.get(
    "/<job_id>/export.<ending>", responses=describes("text/csv", "application/json"), summary="The job sheet as a file"
)
def export(path: ExportPath) -> Response:
    """Return the job sheet as CSV or JSON."""
    text = export_text(context(), path.job_id, path.ending)
    return download(text, f"job-{path.job_id[:8]}.{path.ending}", _MIMETYPES[path.ending])
