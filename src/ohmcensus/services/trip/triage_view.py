"""Which device went and when, in words: what stood at line potential, and what is measured first."""

from __future__ import annotations

from pydantic import BaseModel

from ohmcensus.core.job.case import Case
from ohmcensus.core.symptom import Device, Moment
from ohmcensus.core.trip.triage import Energised, triage


class TriagePart(BaseModel):
    """A part as it stood when the device went; ``share`` of all the weight is its own."""

    id: str
    title: str
    words: str
    is_new: bool
    share: float


class TriageView(BaseModel):
    """What device and moment say of this machine; ``told`` is False where neither is known."""

    device: Device
    moment: Moment
    told: bool
    words: str
    classes: list[str]
    parts: list[TriagePart]
    first: list[str]
    notes: list[str]


def triage_view(case: Case) -> TriageView:
    """Return the triage of a case."""
    found = triage(case)
    total = sum(row.weight for row in found.parts) or 1.0
    titles = {part.id: part.title for part in case.sheet.parts}
    return TriageView(
        device=found.device,
        moment=found.moment,
        told=found.device is not Device.UNKNOWN or found.moment is not Moment.UNKNOWN,
        words=f"{found.device.words}, {found.moment.words}",
        classes=[kind.words for kind in found.classes],
        parts=[
            TriagePart(
                id=row.part, title=titles[row.part], words=_words(row), is_new=row.is_new, share=row.weight / total
            )
            for row in found.parts
        ],
        first=list(found.first),
        notes=list(found.notes),
    )


def _words(row: Energised) -> str:
    if row.is_new:
        return "at line potential from this moment"
    if row.since is not None:
        return f"at line potential {row.since.words}"
    return "only if the plug sits turned" if row.if_turned else "not at line potential by then"
