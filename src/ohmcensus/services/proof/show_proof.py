"""The proof of a job in print: every criterion with its limit, what was shown, and what blocks signing off."""

from __future__ import annotations

from ohmcensus.core.event import LeftAs
from ohmcensus.core.machine.asked import run_words
from ohmcensus.core.proof import blocking, is_asked, is_outlets, proofs, ways
from ohmcensus.core.proof.criteria import is_insulation_barred, tub_heater_watts
from ohmcensus.core.proof.sentences import done_words, standing_words
from ohmcensus.services.at_hand.choice import Choice, choices
from ohmcensus.services.at_hand.context import Context
from ohmcensus.services.at_hand.job import JobAtHand, take
from ohmcensus.services.job.view import job_view
from ohmcensus.services.proof.view import ProveView, criterion_view, way_view


def show_proof(context: Context, job_id: str) -> ProveView:
    """Return the proof of a job.

    Raises
    ------
    NotFoundError
        If there is no such job.
    """
    with context.store.read() as session:
        job = take(context, session, job_id)
    return proof_view(context, job)


def proof_view(context: Context, job: JobAtHand) -> ProveView:
    """Return the proof of a job at hand."""
    case = job.case
    safety = job.safety(context.clock())
    rows = proofs(case, safety)
    following = next((row for row in rows if not row.is_good), None)
    last = next((row.event for row in reversed(rows) if row.event and row.event.serial), None)
    tester = next(
        (job.meters[name] for name in job.settings.bag if name in job.meters and job.meters[name].serial), None
    )
    return ProveView(
        job=job_view(job, context.clock()),
        criteria=[criterion_view(case, row, safety, is_next=row is following) for row in rows],
        blocking=list(blocking(case, safety)),
        ways=[way_view(way, safety) for way in ways(case, safety)],
        is_insulation_barred=is_insulation_barred(safety),
        serial=last.serial if last else tester.serial if tester else "",
        calibrated=last.calibrated if last else tester.calibrated if tester else "",
        is_asked=is_asked(safety),
        outcomes=choices(run_words(case.sheet)),
        heats=tub_heater_watts(case.sheet) > 0,
        is_over=case.ended is not None,
        untested=[
            Choice(id=row.criterion.id, words=row.criterion.title)
            for row in rows
            if row.is_good is None and not row.criterion.is_optional
        ],
        left_as=[Choice(id=way, words=way.words) for way in LeftAs],
        is_cut_off=safety.isolated,
        has_bad_outlet=any(is_outlets(row) for row in safety.dangers),
        done=done_words(case),
        unsafe_because=standing_words(safety),
    )
