"""Changes, runs and ways to go on as they are shown."""

from __future__ import annotations

from pydantic import BaseModel

from ohmcensus.core.diagnosis.words import change_words
from ohmcensus.core.event import Changed, Event, RunWatched
from ohmcensus.core.job.case import Case
from ohmcensus.core.machine.asked import THROUGH
from ohmcensus.core.worth import Assumptions, fails_within, years_left
from ohmcensus.services.at_hand.choice import Choice
from ohmcensus.services.at_hand.described import Described
from ohmcensus.services.job.view import JobView
from ohmcensus.services.repair.plan_view import PlanView
from ohmcensus.services.repair.strip_view import StripView
from ohmcensus.services.repair.way_back_view import BackView


class RepairStep(BaseModel):
    """One change, or one run that was watched; ``has_passed`` is none for a change."""

    id: str
    at: str
    who: str
    words: str
    has_passed: bool | None


class RepairView(Described):
    """The repair of a job.

    Attributes
    ----------
    steps
        Changes and watched runs, the oldest first.
    plan
        How the part that is mended comes out, and with what it is replaced.
    strip
        What came off, and how it goes back.
    way_back
        Everything a change wants until the machine runs again, in its order; empty where nothing was changed since the
        last run.
    cured
        Whether what was changed has cured it, in words; empty while no run has passed.
    parts, interventions, outcomes
        What can be chosen for a change and for a run.
    heats
        Whether the machine heats water, so that the warming can be timed.
    leader
        The part that a repair is most likely about.
    asks_saw_fail
        Whether it is still to be told if somebody saw it fail: nothing was changed yet, and no failed run was noted.
    is_over
        Whether the job has ended.
    """

    job: JobView
    steps: list[RepairStep]
    plan: PlanView
    strip: StripView
    way_back: list[BackView]
    cured: str
    parts: list[Choice]
    interventions: list[Choice]
    outcomes: list[Choice]
    heats: bool
    leader: str
    asks_saw_fail: bool
    is_over: bool


class WorthChoice(BaseModel):
    """One way to go on, in the currency of the firm."""

    id: str
    title: str
    now: float
    expected: float
    years: float
    per_year: float


class WorthView(Described):
    """Every way to go on, the least cost a year of use first.

    Attributes
    ----------
    given
        What was reckoned with.
    advice
        The first choice against the others in one sentence.
    assumed
        What the figures rest on, one sentence each.
    """

    part: str
    given: Assumptions
    choices: list[WorthChoice]
    advice: str
    assumed: list[str]


def assumed_words(given: Assumptions) -> list[str]:
    """Say what the costs are worked out from."""
    left = years_left(given.age_years, given.life_years)
    fails = fails_within(given.age_years, given.life_years)
    age = (
        f"At {given.age_years:g} of {given.life_years:g} years such a machine runs {left:.1f} more on average; "
        f"{fails:.0%} come to their end within the next year."
    )
    return [
        age,
        "A repair that does not last a year is done once more: new part, work and visit.",
        f"That this part is the fault is taken as {given.sure:.0%}; if not, one more visit is counted.",
        "How long parts last varies as wear does (our assumption); prices and chances are yours to change.",
    ]


def step_view(event: Event[Changed] | Event[RunWatched], case: Case) -> RepairStep:
    """Return a change or a run that was watched."""
    body = event.body
    passed = body.outcome == THROUGH if isinstance(body, RunWatched) else None
    return RepairStep(id=event.id, at=event.at, who=event.who, words=change_words(event, case), has_passed=passed)
