"""Isolating a leak: the runs, what each part is proved to be, and what to pull next."""

from __future__ import annotations

from datetime import datetime
from typing import Literal

from pydantic import BaseModel, ConfigDict

from ohmcensus.core.job.case import Case
from ohmcensus.core.job.mains_plug import is_plug_turned_freely
from ohmcensus.core.safety.leak_test import may_test
from ohmcensus.core.trip.advice import Advice, AdviceKind, advice
from ohmcensus.core.trip.isolate import Isolation, isolate
from ohmcensus.core.trip.of_case import (
    convicted,
    goes_on_plugging_in,
    last_run,
    off_before_test,
    problem_of,
    run_records,
)
from ohmcensus.core.trip.planner import TEST_MINUTES, Pull
from ohmcensus.core.trip.problem import Method
from ohmcensus.core.trip.words import advice_words, conflict_words
from ohmcensus.services.at_hand.context import Context
from ohmcensus.services.at_hand.job import JobAtHand, take
from ohmcensus.services.job.view import job_view
from ohmcensus.services.trip.house_view import house_view
from ohmcensus.services.trip.triage_view import triage_view
from ohmcensus.services.trip.view import NextRun, TripView, repeated_views, trip_part, trip_run
from ohmcensus.services.trip.words import (
    reason_words,
    refused_words,
    spread_words,
)


class TripQuery(BaseModel):
    """By which instrument; that of the last leak test where none is said."""

    model_config = ConfigDict(extra="ignore")

    method: Literal["insulation", "leakage"] | None = None

    def of(self, case: Case) -> Method:
        """Return the method that is asked on a job."""
        last = last_run(case)
        return Method(self.method or (last.body.method if last is not None else Method.INSULATION))


def show_trip(context: Context, job_id: str, query: TripQuery) -> TripView:
    """Return the isolation of a job.

    Raises
    ------
    NotFoundError
        If there is no such job.
    """
    with context.store.read() as session:
        job = take(context, session, job_id)
    return trip_view(job, context.clock(), query.of(job.case))


def trip_view(job: JobAtHand, now: datetime, method: Method) -> TripView:
    """Return the isolation of a job at hand, as a method proves it."""
    case = job.case
    problem, safety = problem_of(case, method), job.safety(now)
    found = isolate(problem)
    titles = {part.id: part.title for part in case.sheet.parts}
    records = run_records(case, method)
    sure = convicted(case, method, found.guilty, records)
    told = advice(case.sheet, problem, found, turns=is_plug_turned_freely(case), convicted=sure)
    words = advice_words(case.sheet, told, found, problem)
    refused = refused_words(problem) if found.is_refused else ""
    return TripView(
        job=job_view(job, now),
        method=method,
        unit="MΩ" if method is Method.INSULATION else "mA",
        triage=triage_view(case),
        house=house_view(case),
        parts=[trip_part(case, part, found, method, safety, sure) for part in problem.present],
        runs=[trip_run(record, found) for record in records],
        next=_next_run(case, told, found, words),
        advice=words,
        leads_to="repair" if told.kind is AdviceKind.REPLACE else "",
        unhealthy=[titles[part] for part in found.unhealthy],
        explanations=[[titles[part] for part in row] for row in found.explanations],
        conflict=conflict_words(found),
        spread=spread_words(found, titles),
        refused=refused,
        off_first=[part.title for part in off_before_test(case)] if method is Method.INSULATION else [],
        may_run=refused or may_test(method, safety),
        limits=case.terms.basis,
        is_plug_reversible=is_plug_turned_freely(case),
        states={name: list(values) for name, values in case.sheet.states.items()},
        repeated=repeated_views(job, method, titles),
    )


def _next_run(case: Case, told: Advice, found: Isolation, words: str) -> NextRun | None:
    """Return the leak test that is proposed, None where none is."""
    following = found.next if told.kind in {AdviceKind.TEST, AdviceKind.AS_IT_STANDS} else None
    if told.kind is AdviceKind.CONFIRM:
        following = Pull(told.parts[:1], (), (), TEST_MINUTES)
    if following is None:
        return None
    return NextRun(
        words=words,
        reason=reason_words(case.sheet, told, found, is_plugging_in=goes_on_plugging_in(case)),
        connected=list(following.connected),
        minutes=following.minutes,
    )
