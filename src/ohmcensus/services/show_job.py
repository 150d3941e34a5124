"""A job at a glance, and the list of jobs with a search over everything that was written."""

from __future__ import annotations

from datetime import datetime

from pydantic import BaseModel

from ohmcensus.core.event import Ended
from ohmcensus.core.safety import Danger, Safety, SafetyState
from ohmcensus.core.stages import StageState, ended, next_step, stages
from ohmcensus.services.at_hand import JobAtHand, at_hand
from ohmcensus.services.context import Context
from ohmcensus.storage import jobs


class StageView(BaseModel):
    """A stage of the job and how it stands."""

    id: str
    state: StageState
    words: str


class NextView(BaseModel):
    """The one thing to do next, and the stage where."""

    stage: str
    words: str


class HazardView(BaseModel):
    """A danger that stands: what was found, what it forbids, what lifts it and what is typed for that."""

    hazard: str
    words: str
    forbids_power: bool
    forbids: list[str]
    remedy: str
    typed: str
    is_told: bool


class PowerView(BaseModel):
    """The state of the machine at a moment, as every answer and every refusal carries it.

    ``shout`` is a voltage that was found where none should be and is not shown to be gone; ``cut`` how it is cut off.
    """

    state: SafetyState
    at: str
    until: str
    reason: str
    lapsed: str
    cut: str
    shout: str


class JobView(BaseModel):
    """A job at a glance.

    Attributes
    ----------
    safety, safety_at, safety_until, safety_reason, safety_lapsed
        State of safety now, since when, until when it holds by itself, why live, why no longer dead.
    ended
        Why the job is over, None while it goes on.
    asked, lines, outside
        Lines of the census sheet with a reading, all lines, and those that are surely outside.
    """

    id: str
    machine_id: str
    machine: str
    place: str
    customer: str
    sheet: str
    sheet_title: str
    supply: str
    watts: float
    serial: str
    type_number: str
    complaint: str
    symptoms: list[str]
    opened_at: str
    changed_at: str
    revision: int
    safety: SafetyState
    safety_at: str
    safety_until: str
    safety_reason: str
    safety_lapsed: str
    power: PowerView
    stays_connected: str
    hazards: list[HazardView]
    stages: list[StageView]
    next_step: NextView
    ended: str | None
    asked: int
    lines: int
    outside: int


def job_view(job: JobAtHand, now: datetime) -> JobView:
    """Return a job as it stands at a moment."""
    stored, case, sheet = job.stored, job.case, job.case.sheet
    answers = [line.answer for line in job.lines if line.answer]
    safety = job.safety(now)
    step, end = next_step(case, safety), ended(case)
    return JobView(
        id=stored.id,
        machine_id=stored.machine_id,
        machine=stored.machine,
        place=stored.place,
        customer=stored.customer,
        sheet=stored.sheet_id,
        sheet_title=sheet.title,
        supply=sheet.supply,
        watts=sheet.watts,
        serial=case.plate.serial,
        type_number=case.plate.type_number,
        complaint=case.complaint.words,
        symptoms=[symptom.words for symptom in case.complaint.symptoms],
        opened_at=stored.opened_at,
        changed_at=stored.changed_at,
        revision=stored.revision,
        safety=safety.state,
        safety_at=safety.at,
        safety_until=safety.until,
        safety_reason=safety.reason,
        safety_lapsed=safety.lapsed,
        stays_connected=safety.stays_connected,
        power=power_view(safety),
        hazards=[hazard_view(row) for row in safety.dangers],
        stages=[StageView(id=row.id, state=row.state, words=row.words) for row in stages(case, safety)],
        next_step=NextView(stage=step.stage, words=step.words),
        ended=end.body.why if end is not None and isinstance(end.body, Ended) else None,
        asked=len(answers),
        lines=len(job.lines),
        outside=sum(answer.judgement.verdict.is_outside for answer in answers),
    )


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
    )


def hazard_view(danger: Danger) -> HazardView:
    """Return a danger in print."""
    return HazardView(
        hazard=danger.id,
        words=danger.words,
        forbids_power=danger.forbids_power,
        forbids=[act.words for act in danger.forbids],
        remedy=danger.lifted_by,
        typed=danger.typed,
        is_told=any(not row.is_measured for row in danger.causes),
    )


def list_jobs(context: Context, find: str = "") -> list[JobView]:
    """Return the jobs that hold every word of a search, the last changed one first.

    Searched is everything that was written: machine, place, customer, complaint, plate, readings as
    typed, notes and events.
    """
    words, now = find.casefold().split(), context.clock()
    with context.store.read() as session:
        found = [at_hand(context, session, stored) for stored in jobs.newest_first(session)]
    return [job_view(job, now) for job in found if not words or _holds(job, words)]


def _holds(job: JobAtHand, words: list[str]) -> bool:
    stored, case = job.stored, job.case
    text = " ".join(
        (
            f"{stored.machine} {stored.place} {stored.customer} {stored.sheet_id} {case.sheet.title}",
            case.complaint.words,
            *(symptom.words for symptom in case.complaint.symptoms),
            *(f"{row.words} {row.by}" for row in case.complaint.tried),
            *(row.words for row in case.complaint.alterations),
            f"{case.plate.type_number} {case.plate.serial} {case.plate.variants}",
            *(f"{row.line} {row.text}" for row in case.readings),
            *job.notes.values(),
            *(event.body.model_dump_json() for event in case.events),
        )
    ).casefold()
    return all(word in text for word in words)
