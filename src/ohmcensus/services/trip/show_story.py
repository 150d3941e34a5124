"""The runs in order, each with what it proved."""

from __future__ import annotations

from pydantic import BaseModel

from ohmcensus.core.trip.problem import Method
from ohmcensus.core.trip.story import RunStep, story_of
from ohmcensus.services.at_hand.context import Context
from ohmcensus.services.at_hand.job import take
from ohmcensus.services.trip.show_trip import TripQuery


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


def show_trip_story(context: Context, job_id: str, query: TripQuery) -> TripStory:
    """Return what each run of a job proved.

    Raises
    ------
    NotFoundError
        If there is no such job.
    """
    with context.store.read() as session:
        case = take(context, session, job_id).case
    titles = {part.id: part.title for part in case.sheet.parts}
    return TripStory(
        steps=[
            StoryStep(
                run=step.record.event.id,
                at=step.record.event.at,
                reads=step.record.shows,
                words=_words(step, titles),
                is_conflict=step.is_conflict,
            )
            for step in story_of(case, Method(query.method))
        ]
    )


def _words(step: RunStep, titles: dict[str, str]) -> str:
    if step.record.is_doubtful:
        return "Doubted: not counted."
    if step.is_conflict:
        return "Contradicts the runs before it: nothing is proved."
    named = ((step.guilty, "guilty"), (step.cleared, "cleared"), (step.reopened, "open again"))
    said = [f"{', '.join(titles[part] for part in parts)}: {word}" for parts, word in named if parts]
    return f"{'; '.join(said)}." if said else "Narrows the bounds, settles no part yet."
