"""Isolating a leak: the runs, what each part is proved to be, and what to pull next."""

from __future__ import annotations

from typing import Literal

from pydantic import BaseModel, ConfigDict

from ohmcensus.core.layout.run_matrix import Bracket, bracket
from ohmcensus.core.quantity import Interval, Unit, show_indication, show_value
from ohmcensus.core.sheet import Sheet
from ohmcensus.core.trip.isolate import Isolation, Proved, State, isolate
from ohmcensus.core.trip.of_case import (
    MEGOHM,
    MILLIAMPERES,
    off_before_test,
    problem_of,
    run_records,
)
from ohmcensus.core.trip.planner import Pull
from ohmcensus.core.trip.problem import Method, Problem
from ohmcensus.services.at_hand import JobAtHand, take
from ohmcensus.services.context import Context
from ohmcensus.services.show_job import JobView, job_view
from ohmcensus.services.take_run import may_run


class TripPart(BaseModel):
    """A part that may leak, and what is proved of it."""

    model_config = ConfigDict(arbitrary_types_allowed=True)

    id: str
    title: str
    state: State
    is_presumed: bool
    proved: str
    limit: str
    bracket: Bracket


class TripRun(BaseModel):
    """One run; its parts by id."""

    id: str
    at: str
    reads: str
    meter: str
    connected: list[str]
    maybe: list[str]
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
    """

    model_config = ConfigDict(arbitrary_types_allowed=True)

    job: JobView
    method: Method
    unit: str
    parts: list[TripPart]
    runs: list[TripRun]
    next: NextRun | None
    explanations: list[list[str]]
    conflict: str
    spread: str
    refused: str
    off_first: list[str]
    may_run: str


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
    problem = problem_of(case, method)
    found = isolate(problem)
    titles = {part.id: part.title for part in case.sheet.parts}
    return TripView(
        job=job_view(job, now),
        method=method,
        unit="MΩ" if method is Method.INSULATION else "mA",
        parts=[_part(part.id, titles[part.id], part.limit, found.parts[part.id], method) for part in problem.parts],
        runs=_runs(job, method, found),
        next=_next(case.sheet, found.next, problem),
        explanations=[[titles[part] for part in row] for row in found.explanations],
        conflict=_conflict(found),
        spread="Every part is under its limit, the whole is over: the leak is spread." if found.is_spread else "",
        refused=_refused(problem) if found.is_refused else "",
        off_first=[part.title for part in off_before_test(case)] if method is Method.INSULATION else [],
        may_run=may_run(job, method, now),
    )


def _part(part: str, title: str, limit: float, proved: Proved, method: Method) -> TripPart:
    return TripPart(
        id=part,
        title=title,
        state=proved.state,
        is_presumed=proved.is_presumed,
        proved=_bounds_words(proved.bounds, method),
        limit=_limit_words(limit, method),
        bracket=bracket(proved.bounds, limit),
    )


def _bounds_words(bounds: Interval, method: Method) -> str:
    """Say what is proved in the unit of the instrument: a leak of at least, at most."""
    if method is Method.LEAKAGE:
        lo, hi = (show_value(end / MILLIAMPERES, Unit.AMPERE, figures=2) for end in (bounds.lo, bounds.finite_hi or 0))
        least, most = bounds.lo > 0, bounds.finite_hi is not None
    else:
        least, most = bounds.finite_hi is not None and bounds.hi > 0, bounds.lo > 0
        lo = show_value(MEGOHM / bounds.hi, Unit.OHM, figures=2) if least else ""
        hi = show_value(MEGOHM / bounds.lo, Unit.OHM, figures=2) if most else ""
    if least and most:
        return f"{lo} to {hi}"
    return f"at least {lo}" if least else f"at most {hi}" if most else "nothing proved"


def _limit_words(limit: float, method: Method) -> str:
    if method is Method.LEAKAGE:
        return f"at most {show_value(limit / MILLIAMPERES, Unit.AMPERE, figures=2)}"
    return f"at least {show_value(MEGOHM / limit, Unit.OHM, figures=2)}"


def _runs(job: JobAtHand, method: Method, found: Isolation) -> list[TripRun]:
    return [
        TripRun(
            id=record.event.id,
            at=record.event.at,
            reads=show_indication(record.indication),
            meter=record.meter.title,
            connected=list(record.body.connected),
            maybe=list(record.body.maybe),
            polarity=record.body.polarity,
            is_doubtful=record.is_doubtful,
            is_intermittent=record.body.is_intermittent,
            in_conflict=record.event.id in found.conflict,
            to_repeat=record.event.id in found.repeat,
        )
        for record in run_records(job.case, method)
    ]


def _refused(problem: Problem) -> str:
    if not problem.is_earth_ok:
        return "The protective conductor failed: no leakage verdict before it passes."
    return "The neutral is not earthed here: currents of two live poles can cancel. Use the insulation tester."


def _conflict(found: Isolation) -> str:
    if not found.conflict:
        return ""
    return f"{len(found.conflict)} runs contradict each other: nothing is proved. Repeat the marked run."


def _next(sheet: Sheet, pull: Pull | None, problem: Problem) -> NextRun | None:
    """Say the next run the way one says it at the machine."""
    if pull is None:
        return None
    titles = {part.id: part.title for part in sheet.parts}
    minutes = f"{pull.minutes:g} min" if pull.minutes < 1 else f"{round(pull.minutes * 2) / 2:g} min"
    if not problem.runs:
        words = f"The whole machine first, everything connected; {minutes}."
    elif pull.is_at_part:
        words = f"Test {titles[pull.connected[0]]} alone, at its own tags, its earth on; {minutes}."
    else:
        off = _listed([_plug_of(sheet, part) for part in pull.pull])
        back = _listed([titles[part] for part in pull.refit])
        said = [f"pull {off}" if off else "", f"put back {back}" if back else ""]
        words = f"{'; '.join(filter(None, said)) or 'leave all as it is'}; keep everything else as it is; {minutes}."
        words = words[0].upper() + words[1:]
    return NextRun(words=words, connected=list(pull.connected), minutes=pull.minutes)


def _plug_of(sheet: Sheet, part: str) -> str:
    """Return what one pulls to take a part out: the title of the plug that names it, else the part's own."""
    named = [plug.title for plug in sheet.plugs.values() if part in plug.parts and plug.parts[0] != "outlet"]
    own = next((row.title for row in sheet.parts if row.id == part), part)
    return named[-1].lower() if named and part not in {"cord", "filter"} else own.lower()


def _listed(names: list[str]) -> str:
    unique = list(dict.fromkeys(names))
    return unique[0] if len(unique) == 1 else f"{', '.join(unique[:-1])} and {unique[-1]}" if unique else ""
