"""Isolating a leak: the runs, what each part is proved to be, and what to pull next."""

from __future__ import annotations

from typing import Literal

from pydantic import BaseModel, ConfigDict

from ohmcensus.core.job.case import Case
from ohmcensus.core.layout.run_matrix import Bracket, bracket
from ohmcensus.core.quantity import Interval
from ohmcensus.core.safety import DangerId, Safety
from ohmcensus.core.safety.leak_test import may_test
from ohmcensus.core.trip.isolate import Isolation, Proved, State, isolate
from ohmcensus.core.trip.of_case import RunRecord, off_before_test, problem_of, run_records
from ohmcensus.core.trip.problem import Method
from ohmcensus.core.trip.story import repeated
from ohmcensus.services.at_hand.context import Context
from ohmcensus.services.at_hand.job import JobAtHand, take
from ohmcensus.services.job.show_job import JobView, job_view
from ohmcensus.services.trip.house import HouseView, house_view
from ohmcensus.services.trip.triage import TriageView, triage_view
from ohmcensus.services.trip.words import (
    bounds_words,
    conflict_words,
    limit_words,
    next_words,
    refused_words,
    spread_words,
)


class TripPart(BaseModel):
    """A part that may leak, and what is proved of it.

    ``has_earth`` tells that it has an earth wire of its own, ``is_earth_off`` that it is off or not shown to hold.
    """

    model_config = ConfigDict(arbitrary_types_allowed=True)

    id: str
    title: str
    state: State
    is_presumed: bool
    proved: str
    limit: str
    bracket: Bracket
    has_earth: bool
    is_earth_off: bool


class TripRun(BaseModel):
    """One run; its parts by id.

    ``from_neutral`` and ``not_reached`` say how far the poles came to the parts that were connected.
    """

    id: str
    at: str
    reads: str
    meter: str
    connected: list[str]
    maybe: list[str]
    from_neutral: list[str]
    not_reached: list[str]
    states: dict[str, str]
    polarity: Literal["normal", "reversed"] | None
    is_doubtful: bool
    is_intermittent: bool
    in_conflict: bool
    to_repeat: bool


class NextRun(BaseModel):
    """The run to make next, in words and as a set."""

    words: str
    connected: list[str]
    minutes: float


class RepeatedView(BaseModel):
    """The same run before and after a part was changed; what it reads after is empty while it is not made."""

    words: str
    run: list[str]
    before: str
    after: str


class TripView(BaseModel):
    """An isolation by one method.

    Attributes
    ----------
    conflict, spread, refused
        One sentence each, empty where it does not hold.
    explanations
        Smallest sets of parts that alone could be at fault, by title.
    off_first
        Parts whose plugs come off before 500 V; they are not asked.
    may_run
        Empty where a run may be made now, else why not.
    limits
        Whose limits hold.
    states
        In which states the machine may stand in a run; the first of each is rest.
    """

    model_config = ConfigDict(arbitrary_types_allowed=True)

    job: JobView
    method: Method
    unit: str
    triage: TriageView
    house: HouseView
    parts: list[TripPart]
    runs: list[TripRun]
    next: NextRun | None
    explanations: list[list[str]]
    conflict: str
    spread: str
    refused: str
    off_first: list[str]
    may_run: str
    limits: str
    states: dict[str, list[str]]
    repeated: list[RepeatedView]


class TripQuery(BaseModel):
    """By which instrument."""

    model_config = ConfigDict(extra="ignore")

    method: Literal["insulation", "leakage"] = "insulation"


def show_trip(context: Context, job_id: str, query: TripQuery) -> TripView:
    """Return the isolation of a job.

    Raises
    ------
    NotFoundError
        If there is no such job.
    """
    with context.store.read() as session:
        job = take(context, session, job_id)
    now, method, case = context.clock(), Method(query.method), job.case
    problem, safety = problem_of(case, method), job.safety(now)
    found = isolate(problem)
    titles = {part.id: part.title for part in case.sheet.parts}
    following = found.next
    refused = refused_words(problem) if found.is_refused else ""
    return TripView(
        job=job_view(job, now),
        method=method,
        unit="MΩ" if method is Method.INSULATION else "mA",
        triage=triage_view(case),
        house=house_view(case),
        parts=[_part(case, part.id, part.limit, found.parts[part.id], method, safety) for part in problem.present],
        runs=[_run(record, found) for record in run_records(case, method)],
        next=None
        if following is None
        else NextRun(
            words=next_words(case.sheet, following, problem),
            connected=list(following.connected),
            minutes=following.minutes,
        ),
        explanations=[[titles[part] for part in row] for row in found.explanations],
        conflict=conflict_words(found),
        spread=spread_words(found, titles),
        refused=refused,
        off_first=[part.title for part in off_before_test(case)] if method is Method.INSULATION else [],
        may_run=refused or may_test(method, safety),
        limits=case.terms.basis,
        states={name: list(values) for name, values in case.sheet.states.items()},
        repeated=_repeated(job, method, titles),
    )


def _part(case: Case, name: str, limit: float, proved: Proved, method: Method, safety: Safety) -> TripPart:
    part = case.sheet.part(name)
    return TripPart(
        id=name,
        title=part.title if part else name,
        state=proved.state,
        is_presumed=proved.is_presumed,
        proved=bounds_words(proved.bounds, method),
        limit=limit_words(limit, method),
        bracket=bracket(proved.bounds, limit),
        has_earth=part is not None and part.is_earthed,
        is_earth_off=any(row.id is DangerId.EARTH and row.part == name for row in safety.walk.found),
    )


def _run(record: RunRecord, found: Isolation) -> TripRun:
    body, driven = record.body, record.driven
    return TripRun(
        id=record.event.id,
        at=record.event.at,
        reads=record.shows,
        meter=body.instrument.title if body.instrument else body.device.title if body.device else "",
        connected=list(body.connected),
        maybe=list(body.maybe),
        from_neutral=[part for part in body.connected if driven and part in driven.only_from_neutral],
        not_reached=[part for part in body.connected if part in record.not_reached],
        states=dict(body.states),
        polarity=body.polarity,
        is_doubtful=record.is_doubtful,
        is_intermittent=body.is_intermittent,
        in_conflict=record.event.id in found.conflict,
        to_repeat=record.event.id in found.repeat,
    )


def _repeated(job: JobAtHand, method: Method, titles: dict[str, str]) -> list[RepeatedView]:
    def shown(record: RunRecord) -> str:
        proved: Interval = record.interval
        return f"{record.shows} ({bounds_words(proved, method)})"

    return [
        RepeatedView(
            words=f"{titles[row.body.part]}: {row.body.intervention.words}",
            run=list(row.before.body.connected),
            before=shown(row.before),
            after=shown(row.after) if row.after else "",
        )
        for row in repeated(job.case, method)
    ]
