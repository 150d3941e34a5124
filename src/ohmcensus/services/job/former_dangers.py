"""Dangers that an earlier job on the same serial number left behind, and that nobody has lifted since."""

from __future__ import annotations

from sqlmodel import Session

from ohmcensus.core.job.former import FormerDanger
from ohmcensus.core.safety.clock import moment
from ohmcensus.core.safety.danger import Found, is_that_former
from ohmcensus.core.safety.words import DangerId
from ohmcensus.services.at_hand.context import Context
from ohmcensus.services.at_hand.job import JobAtHand, at_hand
from ohmcensus.storage import jobs

# What follows from power alone does not outlive the job.
_NEVER = frozenset({DangerId.LIVE_THOUGH_FORBIDDEN})


def former_dangers(context: Context, session: Session, serial: str, but: str) -> tuple[FormerDanger, ...]:
    """Return the dangers with which the newest unsafe job on a serial number ended, less what any later job lifted.

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
    later: list[JobAtHand] = []
    for row in jobs.of_serial(session, serial.strip()):
        if row.id == but:
            continue
        job = at_hand(context, session, row)
        end = job.case.ended
        if end is None or not end.body.is_labelled_unsafe:
            later.append(job)
            continue
        stood = (found for danger in job.safety(moment(end.at)).dangers for found in danger.causes)
        left = dict.fromkeys(_left_behind(found) for found in stood if found.id not in _NEVER)
        return tuple(danger for danger in left if not any(_is_lifted(danger, other) for other in later))
    return ()


def _left_behind(found: Found) -> FormerDanger:
    """Return a danger as the next job begins with it: with its line and part where a line opened it."""
    has_line = found.is_measured or (found.is_former and "." in found.line)
    part = (found.part or "") if has_line or found.part else ""
    return FormerDanger(found.id.value, found.line if has_line else "", part)


def _is_lifted(danger: FormerDanger, job: JobAtHand) -> bool:
    """Tell whether a later job began with a danger and has it no more."""
    if danger not in job.case.present.former:
        return False
    return not any(is_that_former(found, danger) for found in job.walk.found)
