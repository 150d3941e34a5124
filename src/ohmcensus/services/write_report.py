"""The job sheet and the label that go out, as PDF."""

from __future__ import annotations

from datetime import datetime, timedelta

from ohmcensus.core.case import Case
from ohmcensus.core.errors import InputError, NotFoundError
from ohmcensus.core.event import Ended
from ohmcensus.core.proof import proofs
from ohmcensus.core.safety import Safety
from ohmcensus.core.stages import ended
from ohmcensus.exchange.report import Label
from ohmcensus.services.at_hand import take
from ohmcensus.services.compose_report import composed
from ohmcensus.services.context import Context
from ohmcensus.services.keep_wanted import wanted_of

# After so long a proof is made again (common practice, no source).
NEXT_AFTER = timedelta(days=365)


def report_pdf(context: Context, job_id: str, revision: int = 0) -> bytes:
    """Return the job sheet of a job as PDF.

    Parameters
    ----------
    context, job_id
        Which.
    revision
        Revision at which it was signed off; nought for the job as it stands. What was signed once is never lost:
        the sheet of that revision can be made again after the job was reopened.

    Raises
    ------
    NotFoundError
        If there is no such job, or it was not signed off at that revision.
    """
    from ohmcensus.exchange.report_pdf import write_report  # noqa: PLC0415 - a quarter of a second to load

    with context.store.read() as session:
        job, wanted = take(context, session, job_id), wanted_of(session, job_id)
    if revision:
        if not any(isinstance(event.body, Ended) and event.order == revision for event in job.case.events):
            what = f"this job was not signed off at revision {revision}"
            raise NotFoundError(what=what, remedy="choose one of the list in Sheet-out", field="revision")
        job = job.as_of(revision)
    return write_report(composed(context, job, wanted))


def label_pdf(context: Context, job_id: str) -> bytes:
    """Return the label of a machine whose job has ended, as PDF.

    Raises
    ------
    NotFoundError
        If there is no such job.
    InputError
        If the job has not ended, or nothing was proved and it is not labelled unsafe either.
    """
    from ohmcensus.exchange.label_pdf import write_label  # noqa: PLC0415 - a quarter of a second to load

    with context.store.read() as session:
        job = take(context, session, job_id)
    if (end := ended(job.case)) is None or not isinstance(end.body, Ended):
        raise InputError(what="this job has not ended: no label yet", remedy="sign it off in Prove", field="job")
    safety = job.safety(context.clock())
    is_unsafe, rows = end.body.is_labelled_unsafe, proofs(job.case, safety)
    if not is_labelled(job.case, safety):
        what = "nothing was proved on this job: a label would claim it"
        raise InputError(what=what, remedy="show the proof first, or label it unsafe", field="job")
    made = next((row.event for row in reversed(rows) if row.event and row.event.serial), None)
    day = datetime.fromisoformat(end.at).date()
    return write_label(
        Label(
            machine=job.stored.machine,
            job_id=job.stored.id,
            date=day.isoformat(),
            next_date="" if is_unsafe else (day + NEXT_AFTER).isoformat(),
            tester=f"Tester {made.serial}, calibrated {made.calibrated or 'not stated'}" if made else "",
            limits="" if is_unsafe else job.case.terms.whose,
            is_unsafe=is_unsafe,
        )
    )


def is_labelled(case: Case, safety: Safety) -> bool:
    """Tell whether a machine gets a label: its job has ended, and it was proved or is labelled unsafe."""
    end = ended(case)
    if end is None or not isinstance(end.body, Ended):
        return False
    if end.body.not_tested:
        return False
    return end.body.is_labelled_unsafe or all(
        row.is_good or (row.is_good is None and row.criterion.is_optional) for row in proofs(case, safety)
    )
