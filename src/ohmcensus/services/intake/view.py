"""The intake as it is shown."""

from __future__ import annotations

from pydantic import BaseModel

from ohmcensus.core.event import CheckOutcome
from ohmcensus.core.intake import Complaint, DataPlate
from ohmcensus.core.job.case import Case
from ohmcensus.core.job.first_look import OutletFinding, eye_checks, outside_tests
from ohmcensus.core.job.van_list import van_list
from ohmcensus.core.judgement import Verdict
from ohmcensus.core.judgement.judge import window_with_basis
from ohmcensus.core.meter import Function
from ohmcensus.services.at_hand.choice import Choice
from ohmcensus.services.at_hand.job import JobAtHand
from ohmcensus.services.job.photo_view import PhotoView
from ohmcensus.services.job.points_view import PointView
from ohmcensus.services.job.view import JobView


class OutsideLine(BaseModel):
    """A reading made from outside: what to type, what it should read, what stands.

    ``typed`` begins the quick line; ``is_at_plug`` tells that it is read at the pins of the pulled plug,
    ``is_running`` that the machine runs meanwhile, its panels shut.
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
    is_running: bool


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
    """The intake of a job.

    Attributes
    ----------
    as_sheet
        What the plate reads where it reads as the sheet of the type says.
    asks_shock
        Whether words of the complaint smell of a shock: then it is asked whether anybody felt one.
    """

    job: JobView
    intake_revision: int
    complaint: Complaint
    plate: DataPlate
    as_sheet: DataPlate
    remarks: list[str]
    asks_shock: bool
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


def outside_lines(job: JobAtHand, *, is_in_hand: bool) -> list[OutsideLine]:
    """Return the lines that are read from outside."""
    wanted = outside_tests(job.case)
    found = []
    for line in job.lines:
        test = line.test
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
                reads=line.reads,
                verdict=line.verdict,
                sentence=line.sentence,
                is_at_plug=is_at_plug,
                is_running=test.function is Function.AMPERE,
            )
        )
    return found


def check_views(case: Case) -> list[CheckView]:
    """Return the checks by eye, with what was seen."""
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


def van_view(case: Case) -> VanView:
    """Return what to take along."""
    found = van_list(case)
    parts = [
        VanPartView(title=row.title, weight=row.weight, because=[symptom.words for symptom in row.because])
        for row in found.parts
    ]
    return VanView(parts=parts, tools=list(found.tools))
