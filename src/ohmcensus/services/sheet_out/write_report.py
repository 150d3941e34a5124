"""The job sheet and the label that go out, as PDF: of a job that was signed as they were signed."""

from __future__ import annotations

from ohmcensus.core.errors import InputError, NotFoundError
from ohmcensus.core.event import Ended
from ohmcensus.services.at_hand.context import Context
from ohmcensus.services.at_hand.job import take
from ohmcensus.services.sheet_out.compose import composed
from ohmcensus.services.sheet_out.given import given_in
from ohmcensus.services.sheet_out.keep_signed import signed_body, signed_sheet
from ohmcensus.storage import photos, signed_sheets


def report_pdf(context: Context, job_id: str, revision: int = 0) -> bytes:
    """Return the job sheet of a job as PDF.

    Parameters
    ----------
    context, job_id
        Which.
    revision
        Revision at which it was signed off; nought for the job as it stands, which is the last signature where it has
        ended. What was signed is never computed again: its very bytes are kept.

    Raises
    ------
    NotFoundError
        If there is no such job, or it was not signed off at that revision.
    """
    from ohmcensus.exchange.paper.sheet import write_report  # noqa: PLC0415 - a quarter of a second to load

    def picture(content: str) -> str:
        file = photos.path_of(context.store.folder, content)
        return str(file) if file.is_file() else ""

    with context.store.read() as session:
        job = take(context, session, job_id)
        given = given_in(session, job_id, job.case)
    end = job.case.ended
    if revision and not any(event.order == revision for event in job.case.of(Ended)):
        what = f"this job was not signed off at revision {revision}"
        raise NotFoundError(what=what, remedy="choose one of the list in Sheet-out", field="revision")
    if not revision and end is None:
        with context.printing:
            return write_report(composed(context, job, given), picture)
    row = signed_sheet(context, job_id, revision or (end.order if end else 0))
    if row.pdf is not None:
        return row.pdf
    with context.printing:
        pdf = write_report(signed_body(row).report, picture)
    return _kept(context, job_id, row.revision, pdf=pdf)


def label_pdf(context: Context, job_id: str) -> bytes:
    """Return the label of a machine whose job has ended, as PDF.

    Raises
    ------
    NotFoundError
        If there is no such job.
    InputError
        If the job has not ended, or nothing was proved and it is not labelled unsafe either.
    """
    from ohmcensus.exchange.paper.label import write_label  # noqa: PLC0415 - a quarter of a second to load

    with context.store.read() as session:
        end = take(context, session, job_id).case.ended
    if end is None:
        raise InputError(what="this job has not ended: no label yet", remedy="sign it off in Prove", field="job")
    row = signed_sheet(context, job_id, end.order)
    if row.label is not None:
        return row.label
    label = signed_body(row).label
    if label is None:
        what = "nothing was proved on this job: a label would claim it"
        raise InputError(what=what, remedy="show the proof first, or label it unsafe", field="job")
    with context.printing:
        pdf = write_label(label)
    return _kept(context, job_id, end.order, label=pdf)


def _kept(context: Context, job_id: str, revision: int, *, pdf: bytes = b"", label: bytes = b"") -> bytes:
    """Keep what was printed first; return what is kept."""
    with context.store.write() as session:
        row = signed_sheets.get(session, job_id, revision)
        if row is None:
            return pdf or label
        row.pdf = row.pdf or pdf or None
        row.label = row.label or label or None
        return (row.pdf if pdf else row.label) or b""
