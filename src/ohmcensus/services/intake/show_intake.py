"""Everything the intake screen shows: complaint, plate, first look, van list, earlier visits."""

from __future__ import annotations

from pydantic import BaseModel

from ohmcensus.core.event import CheckOutcome, CutOff
from ohmcensus.core.intake import Complaint, DataPlate, plate_remarks
from ohmcensus.core.job.case import Case
from ohmcensus.core.job.first_look import OutletFinding, eye_checks, outlet_verdict, outside_tests
from ohmcensus.core.job.van_list import van_list
from ohmcensus.core.judgement import Verdict
from ohmcensus.core.judgement.judge import window_with_basis
from ohmcensus.core.quantity import show_indication
from ohmcensus.core.symptom import Device, Moment, Symptom
from ohmcensus.services.at_hand.choice import Choice
from ohmcensus.services.at_hand.context import Context
from ohmcensus.services.at_hand.job import JobAtHand, at_hand, take
from ohmcensus.services.job.points import PointView, hand_points
from ohmcensus.services.job.show_job import JobView, job_view
from ohmcensus.services.photo.keep_photo import PhotoView, photo_view
from ohmcensus.storage import jobs, photos


class OutsideLine(BaseModel):
    """A reading made from outside: what to type, what it should read, what stands.

    ``typed`` begins the quick line; ``is_at_plug`` tells that it is read at the pins of the pulled plug.
    """

    key: str
    typed: str
    part_title: str
    title: str
    should: str
    reads: str
    verdict: Verdict | None
    sentence: str
    is_at_plug: bool


class CheckView(BaseModel):
    """A check by eye or hand, and what it found."""

    id: str
    title: str
    how: str
    ends_with: str
    outcome: CheckOutcome | None
    words: str


class OutletView(BaseModel):
    """What the three voltages say."""

    finding: OutletFinding
    words: str
    ends_with: str


class VanView(BaseModel):
    """What is worth taking: parts, each with the symptoms that it explains, and tools."""

    parts: list[VanPartView]
    tools: list[str]


class VanPartView(BaseModel):
    """A part worth taking."""

    title: str
    weight: float
    because: list[str]


class VisitView(BaseModel):
    """An earlier visit to the same machine, and its lines that read outside."""

    id: str
    opened_at: str
    complaint: str
    ended: str | None
    found: list[str]


class IntakeView(BaseModel):
    """The intake of a job."""

    job: JobView
    intake_revision: int
    complaint: Complaint
    plate: DataPlate
    remarks: list[str]
    symptoms: list[Choice]
    devices: list[Choice]
    moments: list[Choice]
    outside: list[OutsideLine]
    hand: list[PointView]
    outlet: OutletView
    checks: list[CheckView]
    van: VanView
    visits: list[VisitView]
    photos: list[PhotoView]


def show_intake(context: Context, job_id: str) -> IntakeView:
    """Return the intake of a job.

    Raises
    ------
    NotFoundError
        If there is no such job.
    """
    with context.store.read() as session:
        job = take(context, session, job_id)
        others = [
            at_hand(context, session, stored)
            for stored in jobs.of_machine(session, job.stored.machine_id)
            if stored.id != job_id
        ]
        pictures = [photo_view(row) for row in photos.of_job(session, job_id)]
    case, now = job.case, context.clock()
    outlet, safety = outlet_verdict(case), job.safety(now)
    return IntakeView(
        job=job_view(job, now),
        intake_revision=job.stored.intake_revision,
        complaint=case.complaint,
        plate=case.plate,
        remarks=list(plate_remarks(case.plate, case.sheet)),
        symptoms=[Choice(id=symptom, words=symptom.words) for symptom in Symptom],
        devices=[Choice(id=device, words=device.words) for device in Device],
        moments=[Choice(id=moment, words=moment.words) for moment in Moment],
        outside=_outside(job, is_in_hand=safety.cut is CutOff.PLUG_IN_HAND),
        hand=hand_points(case, safety),
        outlet=OutletView(finding=outlet.finding, words=outlet.words, ends_with=outlet.ends_with),
        checks=_checks(case),
        van=_van(case),
        visits=[_visit(other, context) for other in others],
        photos=pictures,
    )


def _outside(job: JobAtHand, *, is_in_hand: bool) -> list[OutsideLine]:
    """Return the lines that are read from outside."""
    wanted = outside_tests(job.case)
    found = []
    for line in job.lines:
        test, answer = line.test, line.answer
        if test is None or test.id not in wanted:
            continue
        is_at_plug = test.function.needs_dead_circuit
        found.append(
            OutsideLine(
                key=test.id,
                typed=f"{test.part} {test.name} {'inhand ' if is_in_hand and is_at_plug else ''}",
                part_title=test.part_title,
                title=test.title,
                should=window_with_basis(test.window),
                reads=show_indication(answer.reading.indication) if answer else "",
                verdict=answer.judgement.verdict if answer else None,
                sentence=answer.judgement.sentence if answer else "",
                is_at_plug=is_at_plug,
            )
        )
    return found


def _checks(case: Case) -> list[CheckView]:
    return [
        CheckView(
            id=check.id,
            title=check.title,
            how=check.how,
            ends_with=check.ends_with,
            outcome=state.outcome if state else None,
            words=state.words if state else "",
        )
        for check, state in eye_checks(case)
    ]


def _van(case: Case) -> VanView:
    found = van_list(case)
    parts = [
        VanPartView(title=row.title, weight=row.weight, because=[symptom.words for symptom in row.because])
        for row in found.parts
    ]
    return VanView(parts=parts, tools=list(found.tools))


def _visit(other: JobAtHand, context: Context) -> VisitView:
    """Return an earlier visit in a few words."""
    view = job_view(other, context.clock())
    outside = [
        f"{line.test.part_title}, {line.test.title}: {show_indication(line.answer.reading.indication)}"
        for line in other.lines
        if line.test and line.answer and line.answer.judgement.verdict.is_outside
    ]
    return VisitView(
        id=view.id, opened_at=view.opened_at, complaint=view.complaint, ended=view.ended, found=outside[:5]
    )
