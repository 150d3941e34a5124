"""How the part that is mended comes out, and with what it is replaced."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from typing import Literal

from pydantic import BaseModel

from ohmcensus.core.diagnosis.mending import Mending
from ohmcensus.core.event import StripStep
from ohmcensus.core.job.case import Case
from ohmcensus.core.job.strip_plan import PlannedStep
from ohmcensus.core.sheet import Part
from ohmcensus.services.at_hand.choice import Choice
from ohmcensus.services.job.photo_view import PhotoView


class PlannedView(BaseModel):
    """One step of the plan.

    Attributes
    ----------
    id
        Its place in the plan, by what comes off.
    proposal
        What ticking it writes; fasteners, head, size and place as an earlier job on this type had them.
    minutes
        What it takes, in print; empty where nobody knows.
    told
        Whether an earlier job told of its fasteners.
    state
        To do, off, back whole, or back with something missing.
    step
        The record of it, empty while there is none.
    before
        How it looked on an earlier job on this type, None where nobody took a photo.
    """

    id: str
    proposal: StripStep
    minutes: str
    told: bool
    state: Literal["to_do", "off", "whole", "partly"]
    step: str
    before: PhotoView | None


class PlanView(BaseModel):
    """The way to a part and what is done to it.

    Attributes
    ----------
    part, title
        The part.
    minutes
        Covers and the usual repair together, in print.
    repair, fits
        The repair in words, and what may be noted of it; more than one where a person has to say which.
    steps
        What comes off, in order.
    told
        How many of them earlier jobs on this type told of.
    tricks, cautions
        How it comes off and goes back well, and what can hurt there.
    """

    part: str
    title: str
    minutes: str
    repair: str
    fits: list[Choice]
    steps: list[PlannedView]
    told: int
    tricks: list[str]
    cautions: list[str]


def plan_view(
    case: Case, part: Part, told: Mending, rows: Sequence[PlannedStep], pictures: Mapping[str, PhotoView]
) -> PlanView:
    """Return the plan for a part; pictures of earlier jobs by the record that they show."""
    kind = part.part_kind
    minutes = kind.repair_minutes + case.cover_minutes.get(part.behind or "", 0.0)
    return PlanView(
        part=part.id,
        title=part.title,
        minutes=f"{minutes:.0f} min",
        repair=told.repair,
        fits=[Choice(id=row.value, words=row.words) for row in told.fits],
        steps=[_planned(row, pictures) for row in rows],
        told=sum(row.told for row in rows),
        tricks=list(kind.tricks),
        cautions=list(kind.cautions),
    )


def _planned(row: PlannedStep, pictures: Mapping[str, PhotoView]) -> PlannedView:
    step = row.proposal
    state: Literal["to_do", "off", "whole", "partly"] = "off" if row.is_off else "to_do"
    if row.done is not None and row.done.is_back:
        state = "whole" if row.done.is_whole else "partly"
    return PlannedView(
        id=step.panel or step.part or ",".join(step.plugs),
        proposal=step,
        minutes=f"{row.minutes:.0f} min" if row.minutes else "",
        told=row.told,
        state=state,
        step=row.done.event.id if row.done is not None else "",
        before=next((pictures[record] for record in row.before if record in pictures), None),
    )
