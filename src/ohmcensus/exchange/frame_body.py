"""What held on a job from a revision on, as it is kept and as it goes into a file."""

from __future__ import annotations

from collections.abc import Mapping

from pydantic import BaseModel, ConfigDict

from ohmcensus.core.intake import Complaint, DataPlate
from ohmcensus.core.job.case import Frame
from ohmcensus.core.job.former import FormerDanger
from ohmcensus.core.limits.profile import LimitProfile
from ohmcensus.core.sheet import Sheet


class FormerBody(BaseModel):
    """A danger that an earlier job left behind, with the line that opened it and the part whose line that is."""

    model_config = ConfigDict(frozen=True, extra="ignore")

    id: str
    line: str = ""
    part: str = ""


class FrameBody(BaseModel):
    """A frame as it is kept: the sheet by its id, all else whole.

    Attributes
    ----------
    former
        Dangers that an earlier job on this serial number left behind; just the id where no line is known.
    is_arrival
        Whether the job came in from a file at this point.
    """

    model_config = ConfigDict(frozen=True, extra="ignore")

    sheet: str
    complaint: Complaint
    plate: DataPlate
    profile: LimitProfile
    former: tuple[str | FormerBody, ...] = ()
    is_arrival: bool = False


def frames_from(rows: list[tuple[int, FrameBody]], sheets: Mapping[str, Sheet], now: Sheet) -> tuple[Frame, ...]:
    """Return frames of the core from what is kept."""
    found = []
    for order, body in rows:
        sheet = now if body.sheet == now.id else sheets.get(body.sheet, now)
        former = tuple(map(_former, body.former))
        found.append(Frame(order, sheet, body.complaint, body.plate, body.profile, former, is_arrival=body.is_arrival))
    return tuple(found)


def _former(told: str | FormerBody) -> FormerDanger:
    return FormerDanger(told) if isinstance(told, str) else FormerDanger(told.id, told.line, told.part)


def _kept(row: FormerDanger) -> str | FormerBody:
    return FormerBody(id=row.id, line=row.line, part=row.part) if row.line or row.part else row.id


def body_of(frame: Frame) -> FrameBody:
    """Return a frame as it is kept."""
    return FrameBody(
        sheet=frame.sheet.id,
        complaint=frame.complaint,
        plate=frame.plate,
        profile=frame.profile,
        former=tuple(map(_kept, frame.former)),
        is_arrival=frame.is_arrival,
    )
