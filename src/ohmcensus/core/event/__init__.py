"""What happens on a job besides readings: one record each, only ever appended.

The state of safety, the open hazards, the first look, the codes, the test cycle and the isolation are all worked out
from these records and the readings. ``order`` is the revision of the job at which a record was written;
readings are counted in the same row, so that the two can be told apart in time to the last one.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Annotated, Generic

from pydantic import Field
from typing_extensions import TypeVar

from ohmcensus.core.event.asking import HeatRise, RunWatched, Skipped, WhySkipped
from ohmcensus.core.event.change import Changed, Intervention
from ohmcensus.core.event.codes import CodesRead, CycleBegun, CycleTicked, EntryTried
from ohmcensus.core.event.costs import CostLine, CostsNoted
from ohmcensus.core.event.ending import Ended, LeftAs, PhotosChosen, Reopened, Signature
from ohmcensus.core.event.look import Checked, CheckOutcome
from ohmcensus.core.event.proof import InsulationNotAllowed, ProofMade, Way
from ohmcensus.core.event.record import Record
from ohmcensus.core.event.safety import (
    Attended,
    BypassRemoved,
    CutOff,
    EarthLifted,
    EarthRefitted,
    FoundPowered,
    HandsOff,
    Hazard,
    HazardFound,
    InterlockTried,
    Isolated,
    LiveBegun,
    LiveEnded,
    NotedInError,
    Opened,
    OutletNamed,
    PlaceNoted,
    PluggedIn,
    Says,
    Shut,
    Stamped,
    StepTicked,
    Tried,
    When,
)
from ohmcensus.core.event.strip import ConnectorNoted, ConnectorTicked, Over, PinMark, StripBack, StripStep
from ohmcensus.core.event.trip import (
    HOLDS,
    TRIPS,
    Appliance,
    CircuitNoted,
    Reclosed,
    RunDoubted,
    RunMade,
    RunWithdrawn,
    StoodOn,
    Supply,
    Tripped,
)
from ohmcensus.core.event.withdrawal import RecordWithdrawn

Body = Annotated[
    Isolated
    | PluggedIn
    | LiveBegun
    | LiveEnded
    | Opened
    | Shut
    | FoundPowered
    | HandsOff
    | StepTicked
    | Attended
    | Tripped
    | Reclosed
    | HazardFound
    | PlaceNoted
    | NotedInError
    | OutletNamed
    | Stamped
    | BypassRemoved
    | InterlockTried
    | EarthLifted
    | EarthRefitted
    | Checked
    | CodesRead
    | EntryTried
    | CycleBegun
    | CycleTicked
    | CircuitNoted
    | RunMade
    | RunDoubted
    | RunWithdrawn
    | ProofMade
    | StripStep
    | StripBack
    | ConnectorNoted
    | ConnectorTicked
    | InsulationNotAllowed
    | Changed
    | Skipped
    | RunWatched
    | CostsNoted
    | PhotosChosen
    | RecordWithdrawn
    | Ended
    | Reopened,
    Field(discriminator="kind"),
]


B_co = TypeVar("B_co", bound=Record, covariant=True, default=Body)


@dataclass(frozen=True, slots=True)
class Event(Generic[B_co]):
    """One record: what, when (ISO 8601, UTC), by whom, on which device, and its place in the job's row.

    ``refused`` says why it would not have been taken here, of a record that came in from a file: it counts for what it
    tells of power, voltage or danger, and lifts, proves, cuts off and ends nothing.
    """

    id: str
    body: B_co
    at: str
    who: str = ""
    order: int = 0
    device: str = ""
    refused: str = ""


__all__ = [
    "HOLDS",
    "TRIPS",
    "Appliance",
    "Attended",
    "Body",
    "BypassRemoved",
    "Changed",
    "CheckOutcome",
    "Checked",
    "CircuitNoted",
    "CodesRead",
    "ConnectorNoted",
    "ConnectorTicked",
    "CostLine",
    "CostsNoted",
    "CutOff",
    "CycleBegun",
    "CycleTicked",
    "EarthLifted",
    "EarthRefitted",
    "Ended",
    "EntryTried",
    "Event",
    "FoundPowered",
    "HandsOff",
    "Hazard",
    "HazardFound",
    "HeatRise",
    "InsulationNotAllowed",
    "InterlockTried",
    "Intervention",
    "Isolated",
    "LeftAs",
    "LiveBegun",
    "LiveEnded",
    "NotedInError",
    "Opened",
    "OutletNamed",
    "Over",
    "PhotosChosen",
    "PinMark",
    "PlaceNoted",
    "PluggedIn",
    "ProofMade",
    "Reclosed",
    "RecordWithdrawn",
    "Reopened",
    "RunDoubted",
    "RunMade",
    "RunWatched",
    "RunWithdrawn",
    "Says",
    "Shut",
    "Signature",
    "Skipped",
    "Stamped",
    "StepTicked",
    "StoodOn",
    "StripBack",
    "StripStep",
    "Supply",
    "Tried",
    "Tripped",
    "Way",
    "When",
    "WhySkipped",
]
