"""Sheet-out: what goes out, what it costs, who signed it off and when."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import asdict

from ohmcensus.core.event import CostsNoted, Ended
from ohmcensus.core.proof import Proof, blocking, is_asked, proofs
from ohmcensus.core.shelf import WantedPart
from ohmcensus.core.shelf.costs import proposed_costs, total_words
from ohmcensus.exchange.report import Report, ReportSection
from ohmcensus.services.at_hand.context import Context
from ohmcensus.services.at_hand.job import JobAtHand, take
from ohmcensus.services.job.photo_view import photo_view
from ohmcensus.services.job.view import job_view
from ohmcensus.services.sheet_out.compose import composed
from ohmcensus.services.sheet_out.given import chosen_photos, given_in
from ohmcensus.services.sheet_out.keep_signed import signed_body, signed_sheet
from ohmcensus.services.sheet_out.view import LeakTestView, SectionView, SheetOutView, SignedRevision
from ohmcensus.storage import photos


def show_sheet_out(context: Context, job_id: str) -> SheetOutView:
    """Return what goes out of a job.

    Raises
    ------
    NotFoundError
        If there is no such job.
    """
    with context.store.read() as session:
        job = take(context, session, job_id)
        given = given_in(session, job_id, job.case)
        pictures = [photo_view(row) for row in photos.of_job(session, job_id)]
    case, safety = job.case, job.safety(context.clock())
    end = case.ended
    signed = signed_body(signed_sheet(context, job_id, end.order)) if end is not None else None
    report = signed.report if signed else composed(context, job, given)
    noted = case.last(CostsNoted)
    costs = noted.body if noted else _proposed(job, given.wanted)
    good, asked = _shown(report) if signed else _shown_of(proofs(case, safety))
    return SheetOutView(
        job=job_view(job, context.clock()),
        is_signed=end is not None,
        can_label=signed is not None and signed.label is not None,
        blocking=list(blocking(case, safety)),
        found=report.found,
        leak_tests=[LeakTestView.model_validate(asdict(row)) for row in report.leak_tests],
        done=list(report.done),
        proved=f"{good} of {asked} shown and good" if report.proofs or is_asked(safety) else "",
        signed=report.signed,
        customer=[SectionView(title=row.title, sentences=list(row.sentences)) for row in _customer(report)],
        signature=report.signature.name if report.signature else "",
        costs=costs,
        is_costed=noted is not None,
        total=total_words(costs),
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
        chosen=[row for row in chosen_photos(case) if row in {kept.id for kept in pictures}],
    )


def _shown(report: Report) -> tuple[int, int]:
    """Return how many criteria a signed sheet shows as good, and of how many."""
    return sum(row.state == "good" for row in report.proofs), len(report.proofs)


def _shown_of(rows: Sequence[Proof]) -> tuple[int, int]:
    """Return how many criteria are good so far, and of how many."""
    return sum(bool(row.is_good) for row in rows), len(rows)


def _customer(report: Report) -> tuple[ReportSection, ...]:
    """Return the customer's page; of a sheet that was signed before it had headings, its sentences."""
    return report.customer or (ReportSection("", report.plain),)


def _proposed(job: JobAtHand, wanted: Sequence[WantedPart]) -> CostsNoted:
    """Return what the job is proposed to cost, at the prices of the setup."""
    prices = job.settings
    return proposed_costs(job.case, wanted, hour=prices.hour_price, call_out=prices.call_out_price, firm=prices.firm)
