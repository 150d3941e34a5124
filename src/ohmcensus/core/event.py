"""What happens on a job besides readings: one record each, only ever appended.

The state of safety, the open hazards, the first look, the codes and the test cycle are all worked out
from these records and the readings. ``order`` is the revision of the job at which a record was written;
readings are counted in the same row, so that the two can be told apart in time to the last one.
"""

from __future__ import annotations

from dataclasses import dataclass
from enum import StrEnum
from typing import Annotated, Literal

from pydantic import BaseModel, ConfigDict, Field, StrictBool, StringConstraints

from ohmcensus.core.codes import Outcome
from ohmcensus.core.meter import Function, Meter
from ohmcensus.core.symptom import Device, Moment

Name = Annotated[str, StringConstraints(pattern=r"^[a-z][a-z0-9_.]{0,59}$")]
Words = Annotated[str, StringConstraints(strip_whitespace=True, max_length=300)]
Said = Annotated[str, StringConstraints(strip_whitespace=True, min_length=3, max_length=300)]
Minutes = Annotated[int, Field(ge=1, le=30, strict=True)]


class Hazard(StrEnum):
    """A danger to people that is open until something shows that it is not."""

    SHOCK = "shock"
    TRIP = "trip"
    BURNT_SMELL = "burnt_smell"
    WATER_INSIDE = "water_inside"
    BYPASS = "bypass"

    @property
    def words(self) -> str:
        """The hazard in words."""
        return _HAZARD_WORDS[self]


_HAZARD_WORDS = {
    Hazard.SHOCK: "gave a shock or tingle",
    Hazard.TRIP: "tripped a protective device",
    Hazard.BURNT_SMELL: "smells burnt",
    Hazard.WATER_INSIDE: "water inside",
    Hazard.BYPASS: "an interlock is bypassed",
}


class CheckOutcome(StrEnum):
    """What a look or a touch found."""

    GOOD = "good"
    BAD = "bad"
    NOT_SEEN = "not_seen"


class _Body(BaseModel):
    model_config = ConfigDict(frozen=True, extra="forbid")


class Isolated(_Body):
    """The machine was cut off: the plug in sight, or the supply locked off."""

    kind: Literal["isolated"] = "isolated"
    how: Literal["unplugged", "locked_off"] = "unplugged"


class PluggedIn(_Body):
    """The plug is in again, panels shut."""

    kind: Literal["plugged_in"] = "plugged_in"


class LiveBegun(_Body):
    """Work on the open machine under voltage, for a stated reason and a stated time."""

    kind: Literal["live_begun"] = "live_begun"
    reason: Said
    stays_connected: Words = ""
    minutes: Minutes = 10


class LiveEnded(_Body):
    """The technician left live mode."""

    kind: Literal["live_ended"] = "live_ended"


class Opened(_Body):
    """A panel came off."""

    kind: Literal["opened"] = "opened"
    panel: Name


class StepTicked(_Body):
    """A step of making safe was done, or was not after all."""

    kind: Literal["step_ticked"] = "step_ticked"
    step: Name
    is_done: StrictBool = True


class Attended(_Body):
    """Somebody is still at the machine."""

    kind: Literal["attended"] = "attended"


class Tripped(_Body):
    """A protective device went."""

    kind: Literal["tripped"] = "tripped"
    device: Device = Device.UNKNOWN
    moment: Moment = Moment.UNKNOWN


class Reclosed(_Body):
    """The device was closed again, once."""

    kind: Literal["reclosed"] = "reclosed"


class HazardFound(_Body):
    """A danger was seen, smelt or felt."""

    kind: Literal["hazard_found"] = "hazard_found"
    hazard: Hazard
    words: Words = ""


class BypassRemoved(_Body):
    """A bypassed interlock works again."""

    kind: Literal["bypass_removed"] = "bypass_removed"
    words: Said


class Checked(_Body):
    """A check by eye or hand."""

    kind: Literal["checked"] = "checked"
    check: Name
    outcome: CheckOutcome
    words: Words = ""


class CodesRead(_Body):
    """Stored codes in the order in which they were shown; none where nothing is stored."""

    kind: Literal["codes_read"] = "codes_read"
    scheme: Name
    codes: tuple[Annotated[str, StringConstraints(min_length=1, max_length=20)], ...] = Field(max_length=20)


class EntryTried(_Body):
    """An attempt to enter a service mode."""

    kind: Literal["entry_tried"] = "entry_tried"
    sequence: Name
    is_in: StrictBool


class CycleBegun(_Body):
    """An automatic test was started."""

    kind: Literal["cycle_begun"] = "cycle_begun"
    cycle: Name


class CycleTicked(_Body):
    """A step of the running test passed, failed or did not happen."""

    kind: Literal["cycle_ticked"] = "cycle_ticked"
    cycle: Name
    step: Name
    outcome: Outcome


class RunMade(_Body):
    """A leakage test with some parts connected, its reading as typed.

    Attributes
    ----------
    method
        By insulation tester, or by leakage tester.
    connected, maybe
        Parts that were surely, and perhaps, connected.
    text, meter
        What was shown, a bare number in MΩ or mA; and by which meter, where the person said so.
    polarity
        How the plug sat, of a leakage run.
    is_intermittent
        The fault comes and goes.
    instrument
        The meter as it then was; filled in when the run is taken, so that no later change of it touches the run.
    """

    kind: Literal["run_made"] = "run_made"
    method: Literal["insulation", "leakage"]
    connected: tuple[Name, ...] = Field(min_length=1, max_length=60)
    maybe: tuple[Name, ...] = Field(default=(), max_length=60)
    text: Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=40)]
    meter: Annotated[str, StringConstraints(max_length=60)] = ""
    polarity: Literal["normal", "reversed"] | None = None
    is_intermittent: StrictBool = False
    instrument: Meter | None = None

    @property
    def function(self) -> Function:
        """What the instrument did."""
        return Function(self.method)


class RunDoubted(_Body):
    """A run is taken out of the computation, or back into it."""

    kind: Literal["run_doubted"] = "run_doubted"
    run: Annotated[str, StringConstraints(min_length=1, max_length=60)]
    is_doubtful: StrictBool = True


class Ended(_Body):
    """The job is over; a machine that is not safe is labelled so, and the customer told."""

    kind: Literal["ended"] = "ended"
    why: Said
    is_labelled_unsafe: StrictBool = False


class Reopened(_Body):
    """The job goes on after all."""

    kind: Literal["reopened"] = "reopened"


Body = Annotated[
    Isolated
    | PluggedIn
    | LiveBegun
    | LiveEnded
    | Opened
    | StepTicked
    | Attended
    | Tripped
    | Reclosed
    | HazardFound
    | BypassRemoved
    | Checked
    | CodesRead
    | EntryTried
    | CycleBegun
    | CycleTicked
    | RunMade
    | RunDoubted
    | Ended
    | Reopened,
    Field(discriminator="kind"),
]


@dataclass(frozen=True, slots=True)
class Event:
    """One record: what, when (ISO 8601, UTC), by whom, and its place in the job's row."""

    id: str
    body: Body
    at: str
    who: str = ""
    order: int = 0
