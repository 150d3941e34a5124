"""The proof as it is shown."""

from __future__ import annotations

from typing import Literal

from pydantic import BaseModel

from ohmcensus.core.event import CutOff, Way
from ohmcensus.core.job.case import Case
from ohmcensus.core.proof import Proof, ShownBy
from ohmcensus.core.proof.before import before_words
from ohmcensus.core.proof.stands import Stand, needed, needed_by, stands
from ohmcensus.core.proof.words import limit_words, reads_words, shown_by_words, state_of, tester_words
from ohmcensus.core.safety import Safety
from ohmcensus.services.at_hand.choice import Choice
from ohmcensus.services.at_hand.described import Described
from ohmcensus.services.job.view import JobView


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
    needs, needs_words, stands
        How the machine has to stand for it, in words, empty for any way; whether it stands so now.
    voided, voided_at
        By what it counts no more though it was shown once, and when that was; empty where it counts or never did.
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
    needs: Stand
    needs_words: str
    stands: bool
    voided: str
    voided_at: str


class WayView(BaseModel):
    """A method of a current, and how the machine has to stand for it; whether it stands so now."""

    id: Way
    words: str
    needs: Stand
    needs_words: str
    stands: bool


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
    done, unsafe_because
        What was done, and why it is not safe, in a sentence each out of what was written down; empty where nothing was.
    """

    job: JobView
    criteria: list[CriterionView]
    blocking: list[str]
    ways: list[WayView]
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
    done: str
    unsafe_because: str


def way_view(way: Way, safety: Safety) -> WayView:
    """Return one method with how the machine has to stand."""
    stand = needed_by(way)
    return WayView(id=way, words=way.words, needs=stand, needs_words=stand.words, stands=stands(stand, safety))


def criterion_view(case: Case, row: Proof, safety: Safety, *, is_next: bool) -> CriterionView:
    """Return one criterion with how it stands."""
    criterion, window = row.criterion, row.criterion.window
    return CriterionView(
        id=criterion.id,
        title=criterion.title,
        how=criterion.how,
        kind=criterion.kind,
        limit=limit_words(row),
        basis=window.basis if window else "",
        caution=criterion.caution,
        state=state_of(row),
        reads=reads_words(row),
        tester=tester_words(row),
        shown_by=shown_by_words(row),
        before=before_words(case, row),
        line=_typed(criterion.test, safety),
        is_next=is_next,
        needs=needed(criterion),
        needs_words=needed(criterion).words,
        stands=stands(needed(criterion), safety),
        voided=row.voided.words if row.voided else "",
        voided_at=row.voided.at if row.voided else "",
    )


def _typed(test: str, safety: Safety) -> str:
    """Begin the quick line of a reading; at the pulled plug in the hand it says so."""
    if not test:
        return ""
    return f"{test.replace('.', ' ')} {'inhand ' if safety.cut is CutOff.PLUG_IN_HAND else ''}"
