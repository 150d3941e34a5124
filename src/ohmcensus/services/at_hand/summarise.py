"""A job in short, written with every change of it: how much was asked, what is outside, what it can be found by."""

from __future__ import annotations

from sqlmodel import Session

from ohmcensus.services.at_hand.job import JobAtHand
from ohmcensus.storage import summaries


def summarise(session: Session, job: JobAtHand, words: str = "") -> None:
    """Write the summary of a job after a change, in the transaction of that change.

    Parameters
    ----------
    session
        That writes the change.
    job
        As it is after it.
    words
        What was written, as it can be searched.
    """
    summaries.write(session, job.stored.id, *job.counted, words)


def summarise_head(session: Session, job: JobAtHand) -> None:
    """Write by what names, complaint and plate a job can be found."""
    summaries.head(session, job.stored.id, _head(job))


def _head(job: JobAtHand) -> str:
    stored, complaint, plate = job.stored, job.case.complaint, job.case.plate
    return " ".join(
        (
            f"{stored.machine} {stored.place} {stored.customer} {stored.sheet_id}",
            complaint.words,
            *(symptom.words for symptom in complaint.symptoms),
            *(f"{row.words} {row.by}" for row in complaint.tried),
            *(row.words for row in complaint.alterations),
            f"{plate.type_number} {plate.serial} {plate.variants}",
        )
    )
