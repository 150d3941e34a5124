"""Everything the intake screen shows: complaint, plate, first look, van list, earlier visits."""

from __future__ import annotations

from ohmcensus.core.event import CutOff
from ohmcensus.core.intake import asks_shock, plate_of, plate_remarks
from ohmcensus.core.job.first_look import outlet_verdict
from ohmcensus.core.symptom import Device, Moment, Symptom
from ohmcensus.services.at_hand.choice import Choice
from ohmcensus.services.at_hand.context import Context
from ohmcensus.services.at_hand.job import JobAtHand, at_hand, take
from ohmcensus.services.intake.view import IntakeView, OutletView, VisitView, check_views, outside_lines, van_view
from ohmcensus.services.job.photo_view import photo_view
from ohmcensus.services.job.points_view import hand_points
from ohmcensus.services.job.view import job_view
from ohmcensus.storage import jobs, photos


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
        as_sheet=plate_of(case.sheet),
        remarks=list(plate_remarks(case.plate, case.sheet)),
        asks_shock=asks_shock(case.complaint),
        symptoms=[Choice(id=symptom, words=symptom.words) for symptom in Symptom],
        devices=[Choice(id=device, words=device.words) for device in Device],
        moments=[Choice(id=moment, words=moment.words) for moment in Moment],
        outside=outside_lines(job, is_in_hand=safety.cut is CutOff.PLUG_IN_HAND),
        hand=hand_points(case, safety),
        outlet=OutletView(finding=outlet.finding, words=outlet.words, ends_with=outlet.ends_with),
        checks=check_views(case),
        van=van_view(case),
        visits=[_visit(other, context) for other in others],
        photos=pictures,
    )


def _visit(other: JobAtHand, context: Context) -> VisitView:
    """Return an earlier visit in a few words."""
    view = job_view(other, context.clock())
    outside = [
        f"{line.test.part_title}, {line.test.title}: {line.reads}"
        for line in other.lines
        if line.test and line.verdict and line.verdict.is_outside
    ]
    return VisitView(
        id=view.id, opened_at=view.opened_at, complaint=view.complaint, ended=view.ended, found=outside[:5]
    )
