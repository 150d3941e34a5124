"""Suspects of a job, what speaks for and against each, and what to ask next."""

from __future__ import annotations

from dataclasses import replace

from pydantic import BaseModel

from ohmcensus.core.course.following import Next, NextKind
from ohmcensus.core.course.outlook import Outlook
from ohmcensus.core.course.what_next import what_next
from ohmcensus.core.diagnosis.apart import alike
from ohmcensus.core.diagnosis.conclusion import Standing
from ohmcensus.core.diagnosis.question import Objective, Question, Reach, part_of
from ohmcensus.core.diagnosis.words import alike_words, cured_words
from ohmcensus.services.at_hand.choice import Choice, choices_of
from ohmcensus.services.at_hand.context import Context
from ohmcensus.services.at_hand.job import JobAtHand, take
from ohmcensus.services.at_hand.outcome_tables import is_being_worked_out
from ohmcensus.services.at_hand.outlook import outlook_of, reach_at
from ohmcensus.services.job.view import job_view
from ohmcensus.services.suspects.view import SuspectsView, act_view, question_view, suspect_views, would_change

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
    found = outlook_of(context, job, objective)
    believed = found.search.believed
    safety = job.safety(context.clock())
    following = what_next(case, safety, job.lines, found.next)
    rows = _questions(found, following, reach_at(job, safety))
    ask_next = [question_view(row, believed, case, safety.state) for row in rows[:3]]
    left_out = reach_at(job, safety).left_out
    return SuspectsView(
        job=job_view(job, context.clock()),
        standing=found.standing,
        sentence=found.sentence,
        named=[Choice(id=part, words=case.sheet.known_part(part).title) for part in found.named],
        act=None if rows else act_view(following, case.sheet),
        suspects=suspect_views(found.search, case.sheet),
        nothing=found.search.known.nothing,
        unknown_bits=believed.bits,
        alike=[alike_words(row, case) for row in alike(believed, left_out)] if rows else [],
        would_change=would_change(believed, ask_next),
        ask=ask_next,
        cured=cured_words(case),
        objective=objective,
        objectives=choices_of(Objective),
    )


def _questions(found: Outlook, following: Next, reach: Reach) -> tuple[Question, ...]:
    """Return what is asked, as every room says it; nothing where something else than a question is next."""
    test = following.before or following.test
    if found.questions and found.questions[0].test == test:
        first, *others = found.questions
        return (replace(first, because=following.why or first.because), *others)
    table, sheet = found.search.known.table, found.search.known.table.sheet
    is_reading = following.kind is NextKind.TEST or (following.kind is NextKind.SAFE and bool(following.before))
    if not is_reading or test not in table.tests:
        return ()
    minutes, plugs, cover = reach.effort_of(test, sheet)
    return (Question(test, part_of(test), minutes, plugs + cover, 0.0, 0.0, because=following.why or following.words),)


def _preparing(context: Context, job: JobAtHand, objective: Objective) -> SuspectsView:
    """Return a view without suspects, while what they follow from is worked out."""
    return SuspectsView(
        job=job_view(job, context.clock()),
        standing=Standing.UNDECIDED,
        sentence="",
        named=[],
        act=None,
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
