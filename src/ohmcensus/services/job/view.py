"""A job as every room shows it: at a glance, its stages, dangers and power."""

from __future__ import annotations

from datetime import datetime
from typing import Any

from pydantic import BaseModel

from ohmcensus.core.course.following import Next
from ohmcensus.core.course.stages import StageState, stages
from ohmcensus.core.course.what_next import what_next
from ohmcensus.core.machine.asked import is_interlock_contact
from ohmcensus.core.safety import Danger, Safety, SafetyState
from ohmcensus.core.safety.after_event import was_said
from ohmcensus.services.at_hand.job import JobAtHand
from ohmcensus.services.at_hand.ways_on import WayOnView, act_view


class StageView(BaseModel):
    """A stage of the job and how it stands."""

    id: str
    state: StageState
    words: str


class NextView(BaseModel):
    """The one thing to do next, the stage where, and the part and the line that it is about."""

    stage: str
    words: str
    part: str = ""
    test: str = ""


class HazardView(BaseModel):
    """A danger that stands: what was found, what it forbids, the one thing to do, and what is typed for that.

    ``is_told`` says that it was told, tapped or looked at here, so that it may have been noted in error; ``act`` is the
    way to the one thing; ``asks_door`` whether its reading says nothing without how the door stands; ``look``
    the look that is answered for it, empty where it is none.
    """

    hazard: str
    words: str
    forbids_power: bool
    forbids: list[str]
    remedy: str
    typed: str
    is_told: bool
    act: WayOnView
    asks_door: bool
    look: str


class PowerView(BaseModel):
    """The state of the machine at a moment, as every answer and every refusal carries it.

    ``shout`` is a voltage that was found where none should be and is not shown to be gone; ``cut`` how it is cut off;
    ``is_shut`` whether no cover is noted as off.
    """

    state: SafetyState
    at: str
    until: str
    reason: str
    lapsed: str
    cut: str
    shout: str
    is_shut: bool


class JobCard(BaseModel):
    """A job as the list shows it.

    Attributes
    ----------
    safety
        State of safety now.
    ended
        Why the job is over, None while it goes on.
    asked, lines, outside
        Lines of the census sheet with a reading, all lines, and those that are surely outside.
    """

    id: str
    machine: str
    place: str
    customer: str
    sheet_title: str
    complaint: str
    symptoms: list[str]
    changed_at: str
    revision: int
    safety: SafetyState
    power: PowerView
    hazards: list[HazardView]
    ended: str | None
    asked: int
    lines: int
    outside: int


class JobView(JobCard):
    """A job at a glance.

    Attributes
    ----------
    safety_at, safety_until, safety_reason, safety_lapsed
        Since when the state holds, until when it does by itself, why live, why no longer dead.
    """

    machine_id: str
    sheet: str
    supply: str
    watts: float
    serial: str
    type_number: str
    opened_at: str
    safety_at: str
    safety_until: str
    safety_reason: str
    safety_lapsed: str
    stays_connected: str
    stages: list[StageView]


def job_card(job: JobAtHand, now: datetime) -> JobCard:
    """Return a job as the list shows it at a moment."""
    return JobCard(**_card(job, job.safety(now)))


def next_view(job: JobAtHand, now: datetime, act: Next | None) -> NextView:
    """Return the one thing to do next at a moment; by what the search wants, where that is known."""
    row = what_next(job.case, job.safety(now), job.lines, act)
    return NextView(stage=row.room, words=row.words, part=row.part, test=row.test)


def job_view(job: JobAtHand, now: datetime) -> JobView:
    """Return a job as it stands at a moment."""
    stored, case, sheet = job.stored, job.case, job.case.sheet
    safety = job.safety(now)
    return JobView(
        **_card(job, safety),
        machine_id=stored.machine_id,
        sheet=stored.sheet_id,
        supply=sheet.supply,
        watts=sheet.watts,
        serial=case.plate.serial,
        type_number=case.plate.type_number,
        opened_at=stored.opened_at,
        safety_at=safety.at,
        safety_until=safety.until,
        safety_reason=safety.reason,
        safety_lapsed=safety.lapsed,
        stays_connected=safety.stays_connected,
        stages=[StageView(id=row.id, state=row.state, words=row.words) for row in stages(case, safety)],
    )


def _card(job: JobAtHand, safety: Safety) -> dict[str, Any]:
    stored, case = job.stored, job.case
    end = case.ended
    asked, outside = job.counted
    return {
        "id": stored.id,
        "machine": stored.machine,
        "place": stored.place,
        "customer": stored.customer,
        "sheet_title": case.sheet.title,
        "complaint": case.complaint.words,
        "symptoms": [symptom.words for symptom in case.complaint.symptoms],
        "changed_at": stored.changed_at,
        "revision": stored.revision,
        "safety": safety.state,
        "power": power_view(safety),
        "hazards": [hazard_view(row) for row in safety.dangers],
        "ended": end.body.why if end is not None else None,
        "asked": asked,
        "lines": len(job.lines),
        "outside": outside,
    }


def power_view(safety: Safety) -> PowerView:
    """Return the state at a moment, and how long it holds."""
    return PowerView(
        state=safety.state,
        at=safety.at,
        until=safety.until,
        reason=safety.reason,
        lapsed=safety.lapsed,
        cut=safety.cut.value if safety.cut else "",
        shout=safety.shout,
        is_shut=not safety.walk.covers,
    )


def _asks_door(danger: Danger) -> bool:
    """Tell whether what lifts it next reads the contact of an interlock."""
    part, _, test = danger.typed.strip().partition(" ")
    return is_interlock_contact(danger.causes[0].terms.sheet, part, test)


def hazard_view(danger: Danger) -> HazardView:
    """Return a danger in print."""
    return HazardView(
        hazard=danger.id,
        words=danger.words,
        forbids_power=danger.forbids_power,
        forbids=[act.words for act in danger.forbids],
        remedy=danger.lifted_by,
        typed=danger.typed,
        is_told=any(was_said(row) for row in danger.causes),
        act=act_view(danger.act),
        asks_door=_asks_door(danger),
        look=danger.look,
    )
