"""Dangers that the last job on the same serial number left behind, where it ended as unsafe."""

from __future__ import annotations

from datetime import datetime

from sqlmodel import Session

from ohmcensus.services.at_hand.context import Context
from ohmcensus.services.at_hand.job import at_hand
from ohmcensus.storage import jobs


def former_dangers(context: Context, session: Session, serial: str, but: str) -> tuple[str, ...]:
    """Return the ids of the dangers that stood when the last job on a serial number ended as unsafe.

    Parameters
    ----------
    context, session
        Where.
    serial
        As printed; nothing is known of a machine without one.
    but
        Id of the job that is being taken.
    """
    if not serial.strip():
        return ()
    last = next((row for row in jobs.of_serial(session, serial.strip()) if row.id != but), None)
    if last is None:
        return ()
    job = at_hand(context, session, last)
    end = job.case.ended
    if end is None or not end.body.is_labelled_unsafe:
        return ()
    return tuple(row.id.value for row in job.safety(datetime.fromisoformat(end.at)).dangers)
