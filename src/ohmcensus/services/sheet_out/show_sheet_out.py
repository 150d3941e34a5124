"""Sheet-out: what goes out, what it costs, who signed it off and when."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import asdict

from ohmcensus.core.event import CostsNoted, Ended
from ohmcensus.core.proof import blocking, is_asked
from ohmcensus.core.shelf import WantedPart
from ohmcensus.core.shelf.costs import proposed_costs
from ohmcensus.services.at_hand.context import Context
from ohmcensus.services.at_hand.job import JobAtHand, take
from ohmcensus.services.at_hand.wanted import wanted_of
from ohmcensus.services.job.view import job_view
from ohmcensus.services.sheet_out.compose import composed
from ohmcensus.services.sheet_out.keep_signed import signed_body, signed_sheet
from ohmcensus.services.sheet_out.view import LeakTestView, SheetOutView, SignedRevision
from ohmcensus.storage import photos


def show_sheet_out(context: Context, job_id: str) -> SheetOutView:
    """Return what goes out of a job.

    Raises
    ------
    NotFoundError
        If there is no such job.
    """
    with context.store.read() as session:
        job, wanted = take(context, session, job_id), wanted_of(session, job_id)
        pictures = len(photos.of_job(session, job_id))
    case, safety = job.case, job.safety(context.clock())
    end = case.ended
    signed = signed_body(signed_sheet(context, job_id, end.order)) if end is not None else None
    report = signed.report if signed else composed(context, job, wanted)
    noted = case.last(CostsNoted)
    costs = noted.body if noted else _proposed(job, wanted)
    good = sum(row.state == "good" for row in report.proofs)
    return SheetOutView(
        job=job_view(job, context.clock()),
        is_signed=end is not None,
        can_label=signed is not None and signed.label is not None,
        blocking=list(blocking(case, safety)),
        found=report.found,
        leak_tests=[LeakTestView.model_validate(asdict(row)) for row in report.leak_tests],
        done=list(report.done),
        proved=f"{good} of {len(report.proofs)} shown and good" if report.proofs or is_asked(safety) else "",
        signed=report.signed,
        plain=list(report.plain),
        costs=costs,
        is_costed=noted is not None,
        total=f"{costs.total:.2f}",
        revisions=[
            SignedRevision(
                revision=event.order,
                at=event.at,
                who=event.who,
                why=event.body.why,
                is_labelled_unsafe=event.body.is_labelled_unsafe,
            )
            for event in case.of(Ended)
        ],
        photos=pictures,
    )


def _proposed(job: JobAtHand, wanted: Sequence[WantedPart]) -> CostsNoted:
    """Return what the job is proposed to cost, at the prices of the setup."""
    prices = job.settings
    return proposed_costs(job.case, wanted, hour=prices.hour_price, call_out=prices.call_out_price)
