"""What was changed and what ran after it: conclusive or not; and what each way to go on would cost."""

from __future__ import annotations

from pydantic import BaseModel, ConfigDict, Field

from ohmcensus.core.course.following import NextKind
from ohmcensus.core.course.way_back import open_changes, way_back
from ohmcensus.core.diagnosis.mending import mending
from ohmcensus.core.diagnosis.words import cured_words
from ohmcensus.core.event import Changed, Intervention, RunWatched
from ohmcensus.core.job.strip_plan import strip_plan
from ohmcensus.core.machine.asked import THROUGH, run_words
from ohmcensus.core.proof.criteria import tub_heater_watts
from ohmcensus.core.worth import Assumptions, options, usual_offers
from ohmcensus.services.at_hand.choice import Choice, choices
from ohmcensus.services.at_hand.context import Context
from ohmcensus.services.at_hand.job import JobAtHand, take
from ohmcensus.services.at_hand.outlook import outlook_of
from ohmcensus.services.at_hand.settings import Settings
from ohmcensus.services.job.photo_view import photo_view
from ohmcensus.services.job.view import job_view
from ohmcensus.services.repair.plan_view import plan_view
from ohmcensus.services.repair.strip_view import strip_view
from ohmcensus.services.repair.view import RepairView, WorthChoice, WorthView, assumed_words, step_view
from ohmcensus.services.repair.way_back_view import way_back_view
from ohmcensus.storage import events, photos

# A part that no sheet prices is taken to cost this (ours).
UNPRICED = 40.0


class WorthAsked(BaseModel):
    """Which part, and what to reckon with; none for what is usual."""

    model_config = ConfigDict(extra="forbid")

    part: str = Field(max_length=60)
    given: Assumptions | None = None


class RepairQuery(BaseModel):
    """For which part the plan is wanted; empty for the one that is mended next."""

    model_config = ConfigDict(extra="forbid")

    part: str = Field(default="", max_length=60)


def show_repair(context: Context, job_id: str, query: RepairQuery | None = None) -> RepairView:
    """Return the repair of a job, with the plan for a part.

    Raises
    ------
    NotFoundError
        If there is no such job.
    UnknownNameError
        If the machine has no such part.
    """
    with context.store.read() as session:
        job = take(context, session, job_id)
        leader = _leader(context, job)
        part = job.case.sheet.known_part((query.part if query else "") or leader)
        plan = strip_plan(job.case, part, events.strip_steps(session, job.stored.sheet_id, but=job_id))
        before = photos.of_records(session, [record for row in plan for record in row.before])
        pictures = [photo_view(row) for row in photos.of_job(session, job_id)]
    case = job.case
    rows = case.of(Changed, RunWatched)
    is_on_way = bool(open_changes(case)) and case.ended is None
    back = way_back(case, job.safety(context.clock()), job.lines) if is_on_way else ()
    return RepairView(
        job=job_view(job, context.clock()),
        steps=[step_view(event, case) for event in rows],
        plan=plan_view(
            case,
            part,
            mending(case, job.lines, part.id),
            plan,
            {record: photo_view(row) for record, row in before.items()},
        ),
        strip=strip_view(case, pictures),
        way_back=way_back_view(back),
        cured=cured_words(case),
        parts=[Choice(id=part.id, words=part.title) for part in case.sheet.parts],
        interventions=[Choice(id=row.value, words=row.words) for row in Intervention],
        outcomes=choices(run_words(case.sheet)),
        heats=tub_heater_watts(case.sheet) > 0,
        leader=leader,
        asks_saw_fail=not case.of(Changed) and not any(run.body.outcome != THROUGH for run in case.of(RunWatched)),
        is_over=case.ended is not None,
    )


def weigh_worth(context: Context, job_id: str, asked: WorthAsked) -> WorthView:
    """Return what mending, replacing and giving up are expected to cost; nothing is stored.

    Raises
    ------
    NotFoundError
        If there is no such job.
    UnknownNameError
        If the machine has no such part.
    """
    with context.store.read() as session:
        job = take(context, session, job_id)
    part = job.case.sheet.known_part(asked.part)
    given = asked.given or _usual(context, job, part.id, job.settings)
    rows = options(given)
    best, other = rows[0], rows[1]
    return WorthView(
        part=part.id,
        given=given,
        choices=[
            WorthChoice(
                id=row.id,
                title=row.title,
                now=round(row.now, 2),
                expected=round(row.expected, 2),
                years=round(row.years, 2),
                per_year=round(row.per_year, 2),
            )
            for row in rows
        ],
        advice=f"{best.title}: {best.per_year:.0f} a year of use; next {other.title.lower()}, {other.per_year:.0f}.",
        assumed=assumed_words(given),
    )


def _usual(context: Context, job: JobAtHand, name: str, settings: Settings) -> Assumptions:
    """Return what is usual for a part: the sheet's price and minutes, the firm's rates, how sure the diagnosis is."""
    sheet = job.case.sheet
    part = sheet.known_part(name)
    known = outlook_of(context, job).search.known
    table = known.table
    sure = float(known.of_part[table.parts.index(name)]) if name in table.parts and known.observations else 1.0
    return Assumptions(
        hour=settings.hour_price,
        call_out=settings.call_out_price,
        minutes=part.part_kind.repair_minutes + job.case.cover_minutes.get(part.behind or "", 0.0),
        offers=usual_offers(UNPRICED if part.price is None else part.price),
        sure=round(sure, 2),
    )


def _leader(context: Context, job: JobAtHand) -> str:
    """Return the part that is mended next, else the one in front."""
    found = outlook_of(context, job)
    due = found.next.part if found.next is not None and found.next.kind is NextKind.REPAIR else ""
    return due or found.search.known.leader or job.case.sheet.parts[0].id
