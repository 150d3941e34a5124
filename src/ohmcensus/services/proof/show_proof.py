"""The proof of a job in print: every criterion with its limit, what was shown, and what blocks signing off."""

from __future__ import annotations

from typing import Literal

from pydantic import BaseModel

from ohmcensus.core.event import CutOff, LeftAs, Way
from ohmcensus.core.job.case import Case
from ohmcensus.core.machine.asked import run_words
from ohmcensus.core.proof import Proof, ShownBy, blocking, is_asked, is_outlets, proofs
from ohmcensus.core.proof.before import before_words
from ohmcensus.core.proof.criteria import is_insulation_barred, tub_heater_watts
from ohmcensus.core.proof.words import computed_words, reads_words, shown_by_words, tester_words
from ohmcensus.core.safety import Safety
from ohmcensus.services.at_hand.choice import Choice, choices
from ohmcensus.services.at_hand.context import Context
from ohmcensus.services.at_hand.described import Described
from ohmcensus.services.at_hand.job import JobAtHand, take
from ohmcensus.services.job.show_job import JobView, job_view


class CriterionView(BaseModel):
    """One criterion.

    Attributes
    ----------
    limit, basis
        What it has to read, and where that comes from; empty where it is seen, and for the warming until it is timed.
    state
        Good, bad, or not shown since the last change.
    reads, tester, shown_by
        What was read or seen, with which tester, and by which method.
    before
        What the machine did before the change: the same test, the fault's run; empty where it was not made.
    line
        How the reading is typed, up to its value; empty where it is no reading.
    is_next
        Whether it is the next to show.
    """

    id: str
    title: str
    how: str
    kind: ShownBy
    limit: str
    basis: str
    caution: str
    state: Literal["good", "bad", "not_shown"]
    reads: str
    tester: str
    shown_by: str
    before: str
    line: str
    is_next: bool


class ProveView(Described):
    """The proof of a job.

    Attributes
    ----------
    blocking
        What keeps it from being signed off, a sentence each.
    ways
        Methods of a current.
    is_insulation_barred
        Whether insulation may not be tested here.
    serial, calibrated
        The tester as it was last named, else as Setup has it.
    is_asked
        Whether proof is asked: something was changed or came off.
    outcomes, heats
        What a run may come to; whether the machine heats water, so that the warming can be timed.
    untested
        Lines that are not shown and that the customer can be told were not tested.
    left_as
        How a machine can be left behind.
    is_cut_off, has_bad_outlet
        Whether it is cut off now; whether the outlet is among its dangers.
    """

    job: JobView
    criteria: list[CriterionView]
    blocking: list[str]
    ways: list[Choice]
    is_insulation_barred: bool
    serial: str
    calibrated: str
    is_asked: bool
    outcomes: list[Choice]
    heats: bool
    is_over: bool
    untested: list[Choice]
    left_as: list[Choice]
    is_cut_off: bool
    has_bad_outlet: bool


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
        criteria=[_criterion(case, row, safety, is_next=row is following) for row in rows],
        blocking=list(blocking(case, safety)),
        ways=[Choice(id=way, words=way.words) for way in Way],
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
    )


def _criterion(case: Case, row: Proof, safety: Safety, *, is_next: bool) -> CriterionView:
    criterion, window = row.criterion, row.criterion.window
    return CriterionView(
        id=criterion.id,
        title=criterion.title,
        how=criterion.how,
        kind=criterion.kind,
        limit=window.shown if window else computed_words(row),
        basis=window.basis if window else "",
        caution=criterion.caution,
        state="not_shown" if row.is_good is None else "good" if row.is_good else "bad",
        reads=reads_words(row),
        tester=tester_words(row),
        shown_by=shown_by_words(row),
        before=before_words(case, row),
        line=_typed(criterion.test, safety),
        is_next=is_next,
    )


def _typed(test: str, safety: Safety) -> str:
    """Begin the quick line of a reading; at the pulled plug in the hand it says so."""
    if not test:
        return ""
    return f"{test.replace('.', ' ')} {'inhand ' if safety.cut is CutOff.PLUG_IN_HAND else ''}"
