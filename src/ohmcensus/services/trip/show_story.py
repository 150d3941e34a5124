"""The runs in order, each with what it proved."""

from __future__ import annotations

from ohmcensus.core.trip.story import story_of
from ohmcensus.core.trip.words import story_words
from ohmcensus.services.at_hand.context import Context
from ohmcensus.services.at_hand.job import take
from ohmcensus.services.trip.show_trip import TripQuery
from ohmcensus.services.trip.view import StoryStep, TripStory


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
                words=story_words(step, titles),
                is_conflict=step.is_conflict,
            )
            for step in story_of(case, query.of(case))
        ]
    )
