"""What held on a job and when: written before the first record under another sheet, complaint, plate or limit."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import replace

from sqlmodel import Session

from ohmcensus.core.job.case import Case, Frame
from ohmcensus.core.sheet import Sheet
from ohmcensus.exchange.frame_body import FrameBody, body_of, frames_from
from ohmcensus.storage import frames


def frames_in(session: Session, job_id: str, sheets: Mapping[str, Sheet], now: Sheet) -> tuple[Frame, ...]:
    """Return the frames of a job; a sheet that is gone counts as the one of now."""
    return frames_from(
        [(order, FrameBody.model_validate_json(body)) for order, body in frames.of_job(session, job_id)], sheets, now
    )


def framed(session: Session, job_id: str, case: Case, order: int) -> Case:
    """Return a case with the frame that holds now written down, where the last one is another.

    Parameters
    ----------
    session, job_id
        Where it is written.
    case
        As it is before the record.
    order
        Revision of the record that comes next.
    """
    last = case.frames[-1] if case.frames else None
    if last is not None and last.holds(case.present):
        return case
    frame = replace(case.present, order=order if last is not None else 0)
    return with_frame(session, job_id, case, frame)


def with_frame(session: Session, job_id: str, case: Case, frame: Frame) -> Case:
    """Return a case with one more frame, written down."""
    frames.append(session, job_id, int(frame.order), body_of(frame).model_dump_json(exclude_defaults=True))
    return replace(case, frames=(*case.frames, frame))
