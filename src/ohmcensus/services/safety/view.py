"""Safe as it is shown: steps, points, what is missing, the record."""

from __future__ import annotations

from typing import Literal

from pydantic import BaseModel, ConfigDict

from ohmcensus.core.job.case import Case
from ohmcensus.core.judgement.passes import named_test
from ohmcensus.core.safety import Safety, may
from ohmcensus.core.safety.power import power_needs
from ohmcensus.core.safety.steps import StepKind
from ohmcensus.services.at_hand.choice import Choice
from ohmcensus.services.at_hand.meters import DeviceId
from ohmcensus.services.job.points_view import PointView
from ohmcensus.services.job.view import HazardView, JobView, PowerView


class StepView(BaseModel):
    """A step of making safe; ``waits_until`` is the moment until which a charge is waited for, empty for none.

    ``is_optional`` says that nobody is held up by it.
    """

    id: str
    kind: StepKind
    title: str
    how: str
    is_done: bool
    waits_until: str
    is_optional: bool


class ProofView(BaseModel):
    """A test that must pass before power, and what to type for it."""

    key: str
    typed: str
    title: str
    should: str


class PanelView(BaseModel):
    """A cover, and whether it is off."""

    id: str
    words: str
    is_off: bool


class RecordView(BaseModel):
    """One event, for the list of what was done."""

    id: str
    at: str
    who: str
    words: str


class VoltageView(BaseModel):
    """A voltage that was found where none should be, and when."""

    at: str
    words: str


class MayView(BaseModel):
    """What would be accepted now."""

    power: bool
    live: bool
    run: bool


class SafeView(BaseModel):
    """Making a machine safe.

    ``cuts`` are the ways to cut it off; ``hand`` the two readings that come first with the plug in the hand;
    ``refusals`` say what forbids power; ``asks`` what has to be stated before live work; ``parts`` are the places at
    which a smell or water can have been; ``opens`` is what an interlock of it keeps shut, None where it has none;
    ``others_in`` says that somebody else may have the hands in; ``is_prover`` that this device proved it.
    """

    job: JobView
    steps: list[StepView]
    cuts: list[Choice]
    points: list[PointView]
    hand: list[PointView]
    meter: str
    sentence: str
    hazards: list[HazardView]
    missing: list[ProofView]
    refusals: list[str]
    may: MayView
    asks: list[Choice]
    cautions: list[str]
    panels: list[PanelView]
    parts: list[Choice]
    records: list[RecordView]
    voltages: list[VoltageView]
    opens: Literal["door", "lid"] | None
    others_in: bool
    is_prover: bool


class SafeQuery(BaseModel):
    """Which device asks: a random id that it keeps."""

    model_config = ConfigDict(extra="forbid")

    device: DeviceId = ""


def may_view(case: Case, safety: Safety, device: str) -> MayView:
    """Return what the machine may be used for now, from a device."""
    allowed = may(case, safety, sign_off=False, device=device)
    return MayView(power=allowed.power, live=allowed.live, run=allowed.run)


def missing_proofs(case: Case, safety: Safety) -> list[ProofView]:
    """Return the readings that are still missing before power, each once."""
    found = []
    for need in power_needs(safety):
        test = named_test(need.typed.strip().replace(" ", "."), case.terms)
        title = f"{test.part_title}, {test.title}" if test else need.words
        found.append(
            ProofView(key=need.typed.strip(), typed=need.typed, title=title, should=test.window.shown if test else "")
        )
    return found


class PowerNow(BaseModel):
    """The state of a machine, the revision of the job, and the server's clock."""

    revision: int
    now: str
    power: PowerView
