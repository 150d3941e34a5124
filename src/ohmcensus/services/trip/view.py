"""Leak tests as they are shown: parts with their bounds, runs, the next pull, the story."""

from __future__ import annotations

from typing import Literal

from pydantic import BaseModel, ConfigDict

from ohmcensus.core.job.case import Case
from ohmcensus.core.layout.run_matrix import Bracket, bracket
from ohmcensus.core.quantity import Interval
from ohmcensus.core.safety import DangerId, Safety
from ohmcensus.core.trip.isolate import Isolation, State
from ohmcensus.core.trip.of_case import RunRecord
from ohmcensus.core.trip.problem import LeakyPart, Method
from ohmcensus.core.trip.story import repeated
from ohmcensus.core.trip.words import bounds_words, limit_words
from ohmcensus.services.at_hand.job import JobAtHand
from ohmcensus.services.job.view import JobView
from ohmcensus.services.trip.house_view import HouseView
from ohmcensus.services.trip.triage_view import TriageView


class TripPart(BaseModel):
    """A part that may leak, and what is proved of it.

    ``has_earth`` tells that it has an earth wire of its own, ``is_earth_off`` that it is off or not shown to hold.
    """

    model_config = ConfigDict(arbitrary_types_allowed=True)

    id: str
    title: str
    state: State
    is_presumed: bool
    is_unhealthy: bool
    proved: str
    limit: str
    bracket: Bracket
    has_earth: bool
    is_earth_off: bool


class TripRun(BaseModel):
    """One run; its parts by id.

    ``from_neutral`` and ``not_reached`` say how far the poles came to the parts that were connected; ``is_line`` that
    it was typed as a line of the census sheet, where it is corrected.
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
    is_line: bool


class NextRun(BaseModel):
    """The run to make next, in words and as a set; why it begins elsewhere than expected, empty where it does not."""

    words: str
    reason: str
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
    advice, leads_to
        What there is to do, in one sentence, a leak test or something else; the room where it is done, empty for here.
    unhealthy
        Parts that keep their limit and are not healthy, by title.
    explanations
        Smallest sets of parts that alone could be at fault, by title.
    off_first
        Parts whose plugs come off before 500 V; they are not asked.
    may_run
        Empty where a run may be made now, else why not.
    limits
        Whose limits hold.
    is_plug_reversible
        Whether the plug can be turned, so that currents are read both ways.
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
    advice: str
    leads_to: str
    unhealthy: list[str]
    explanations: list[list[str]]
    conflict: str
    spread: str
    refused: str
    off_first: list[str]
    may_run: str
    limits: str
    is_plug_reversible: bool
    states: dict[str, list[str]]
    repeated: list[RepeatedView]


def trip_part(
    case: Case, own: LeakyPart, found: Isolation, method: Method, safety: Safety, convicted: frozenset[str]
) -> TripPart:
    """Return a part with what is proved of it; guilty is who leak tests say so of, not lines alone."""
    name, proved = own.id, found.parts[own.id]
    part = case.sheet.part(name)
    return TripPart(
        id=name,
        title=part.title if part else name,
        state=State.OPEN if proved.state is State.GUILTY and name not in convicted else proved.state,
        is_presumed=proved.is_presumed,
        is_unhealthy=name in found.unhealthy,
        proved=bounds_words(proved.bounds, method),
        limit=limit_words(own.limit, method),
        bracket=bracket(proved.bounds, own.limit),
        has_earth=part is not None and part.is_earthed,
        is_earth_off=any(row.id is DangerId.EARTH and row.part == name for row in safety.walk.found),
    )


def trip_run(record: RunRecord, found: Isolation) -> TripRun:
    """Return a leak test that was made."""
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
        is_line=record.is_line,
    )


def repeated_views(job: JobAtHand, method: Method, titles: dict[str, str]) -> list[RepeatedView]:
    """Return leak tests before a change, beside the same after it."""

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


class StoryStep(BaseModel):
    """One run: when, what it read, and what was known after it, in words."""

    run: str
    at: str
    reads: str
    words: str
    is_conflict: bool


class TripStory(BaseModel):
    """The runs of one method, oldest first."""

    steps: list[StoryStep]
