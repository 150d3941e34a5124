"""Taking the job: the complaint, the plate, and what the machine is called."""

from __future__ import annotations

from dataclasses import replace

from pydantic import BaseModel, ConfigDict, Field

from ohmcensus.core.intake import Complaint, DataPlate
from ohmcensus.core.job.case import Frame
from ohmcensus.core.limits.profile import chosen_profile
from ohmcensus.core.text.trimmed import Title
from ohmcensus.services.at_hand.context import Context
from ohmcensus.services.at_hand.frames import framed, with_frame
from ohmcensus.services.at_hand.job import built, refuse_ended, take
from ohmcensus.services.at_hand.sheets import chosen, sheets_in
from ohmcensus.services.at_hand.summarise import summarise, summarise_head
from ohmcensus.services.intake.show_intake import show_intake
from ohmcensus.services.intake.view import IntakeView
from ohmcensus.services.job.former_dangers import former_dangers
from ohmcensus.services.job.open_job import place_named
from ohmcensus.storage import jobs
from ohmcensus.storage.jobs import Intake


class NewIntake(BaseModel):
    """The intake as it is to stand.

    Attributes
    ----------
    intake_revision
        The one that the writer worked from; another writer's newer one is not overwritten.
    """

    model_config = ConfigDict(extra="forbid")

    intake_revision: int = Field(ge=1, strict=True)
    machine: Title
    place: Title
    sheet: str
    complaint: Complaint
    plate: DataPlate


def keep_intake(context: Context, job_id: str, new: NewIntake) -> IntakeView:
    """Write the intake.

    Raises
    ------
    InputError
        If the plate has a figure that no household machine has, or the job has ended.
    UnknownNameError
        If there is no such sheet.
    StaleRevisionError
        If somebody else wrote the intake meanwhile.
    """
    new.plate.refuse_impossible()
    with context.store.write() as session:
        job = take(context, session, job_id)
        refuse_ended(job)
        before = framed(session, job_id, job.case, job.stored.revision)
        sheet = chosen(sheets_in(session), new.sheet)
        intake = Intake(
            complaint=new.complaint.model_dump_json(exclude_defaults=True),
            machine=new.machine,
            place_id=place_named(session, new.place),
            sheet_id=sheet.id,
            plate=new.plate.model_dump_json(exclude_defaults=True),
        )
        jobs.write_intake(session, job.stored, new.intake_revision, context.now(), intake)
        profile = chosen_profile(job.settings.profile, tuple(job.settings.own_profiles), sheet.volts)
        came = Frame(job.stored.revision + 1, sheet, new.complaint, new.plate, profile, before.present.former)
        former = former_dangers(context, session, new.plate.serial, job_id)
        # A number that is put right before there was power takes away what only the wrong one brought.
        kept = came.former if job.walk.stretch is not None or new.plate.serial == job.case.plate.serial else ()
        came = replace(came, former=tuple(sorted({*kept, *former})))
        if not before.frames[-1].holds(came):
            with_frame(session, job_id, before, came)
        session.flush()
        after = built(session, job_id)
        summarise(session, after)
        summarise_head(session, after)
    return show_intake(context, job_id)
