"""Suspects of a job, what speaks for and against each, and what to ask next."""

from __future__ import annotations

from dataclasses import replace

from pydantic import BaseModel

from ohmcensus.core.diagnosis.again import concluded
from ohmcensus.core.diagnosis.apart import alike
from ohmcensus.core.diagnosis.conclusion import Standing
from ohmcensus.core.diagnosis.of_case import diagnosed, reach_of
from ohmcensus.core.diagnosis.question import Objective
from ohmcensus.core.diagnosis.ranking import ask
from ohmcensus.core.diagnosis.words import alike_words, cured_words, standing_words
from ohmcensus.core.safety import SafetyState
from ohmcensus.services.at_hand.choice import choices_of
from ohmcensus.services.at_hand.context import Context
from ohmcensus.services.at_hand.job import JobAtHand, take
from ohmcensus.services.at_hand.outcome_tables import is_being_worked_out, table_of
from ohmcensus.services.job.view import job_view
from ohmcensus.services.suspects.view import SuspectsView, question_view, suspect_views, would_change

# Plugging in, and proving dead again after; proving dead (ours).
TO_LIVE_MINUTES, TO_DEAD_MINUTES = 3.0, 4.0
PREPARING = (
    "Working out what every fault of this machine type would read: a few seconds, once for each type. "
    "Everything else works meanwhile."
)


class SuspectsQuery(BaseModel):
    """What questions are chosen for."""

    objective: Objective = Objective.SOONEST


def show_suspects(context: Context, job_id: str, query: SuspectsQuery) -> SuspectsView:
    """Return the suspects of a job.

    Raises
    ------
    NotFoundError
        If there is no such job.
    """
    with context.store.read() as session:
        job = take(context, session, job_id)
    return suspects_view(context, job, query.objective)


def suspects_view(context: Context, job: JobAtHand, objective: Objective) -> SuspectsView:
    """Return the suspects of a job at hand."""
    case = job.case
    if is_being_worked_out(context, case.sheet):
        return _preparing(context, job, objective)
    table = table_of(context.store.folder, case.sheet)
    known = diagnosed(case, job.lines, table)
    safety = job.safety(context.clock())
    state = safety.state
    reach = replace(
        reach_of(case, job.lines, safety),
        to_live=TO_LIVE_MINUTES if state is SafetyState.DEAD else 0.0,
        to_dead=0.0 if state is SafetyState.DEAD else TO_DEAD_MINUTES,
        live_penalty=job.settings.live_penalty,
        minute_cost=job.settings.hour_price / 60,
    )
    found = concluded(known, reach)
    rows = () if case.ended is not None else ask(known, reach, objective)
    ask_next = [question_view(row, known, case, state) for row in rows[:3]]
    return SuspectsView(
        job=job_view(job, context.clock()),
        standing=found.standing,
        sentence=standing_words(found, reach.left_out),
        suspects=suspect_views(known, case.sheet),
        nothing=known.nothing,
        unknown_bits=known.bits,
        alike=[alike_words(row, case) for row in alike(known, reach.left_out)] if rows else [],
        would_change=would_change(known, ask_next),
        ask=ask_next,
        cured=cured_words(case),
        objective=objective,
        objectives=choices_of(Objective),
    )


def _preparing(context: Context, job: JobAtHand, objective: Objective) -> SuspectsView:
    """Return a view without suspects, while what they follow from is worked out."""
    return SuspectsView(
        job=job_view(job, context.clock()),
        standing=Standing.UNDECIDED,
        sentence="",
        suspects=[],
        nothing=0.0,
        unknown_bits=0.0,
        alike=[],
        would_change=[],
        ask=[],
        cured=cured_words(job.case),
        objective=objective,
        objectives=choices_of(Objective),
        preparing=PREPARING,
    )
