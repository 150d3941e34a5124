"""What held on a job from a revision on, as it is kept and as it goes into a file."""

from __future__ import annotations

from collections.abc import Mapping

from pydantic import BaseModel, ConfigDict

from ohmcensus.core.intake import Complaint, DataPlate
from ohmcensus.core.job.case import Frame
from ohmcensus.core.limits.profile import LimitProfile
from ohmcensus.core.sheet import Sheet


class FrameBody(BaseModel):
    """A frame as it is kept: the sheet by its id, all else whole.

    Attributes
    ----------
    former
        Dangers with which the last job on this serial number ended as unsafe.
    is_arrival
        Whether the job came in from a file at this point.
    """

    model_config = ConfigDict(frozen=True, extra="ignore")

    sheet: str
    complaint: Complaint
    plate: DataPlate
    profile: LimitProfile
    former: tuple[str, ...] = ()
    is_arrival: bool = False


def frames_from(rows: list[tuple[int, FrameBody]], sheets: Mapping[str, Sheet], now: Sheet) -> tuple[Frame, ...]:
    """Return frames of the core from what is kept."""
    found = []
    for order, body in rows:
        sheet = now if body.sheet == now.id else sheets.get(body.sheet, now)
        found.append(
            Frame(order, sheet, body.complaint, body.plate, body.profile, body.former, is_arrival=body.is_arrival)
        )
    return tuple(found)


def body_of(frame: Frame) -> FrameBody:
    """Return a frame as it is kept."""
    return FrameBody(
        sheet=frame.sheet.id,
        complaint=frame.complaint,
        plate=frame.plate,
        profile=frame.profile,
        former=frame.former,
        is_arrival=frame.is_arrival,
    )
