"""Protective devices that went, and the runs that isolate a leak."""

from __future__ import annotations

from enum import StrEnum
from typing import Annotated, ClassVar, Literal

from pydantic import BaseModel, ConfigDict, Field, StrictBool, StringConstraints

from ohmcensus.core.event.record import Name, Record, RowId
from ohmcensus.core.meter import Function, Meter
from ohmcensus.core.symptom import Device, Moment
from ohmcensus.core.text.trimmed import Trimmed, Words

# What a protective device did, where no meter was read.
TRIPS, HOLDS = "trips", "holds"


class Supply(StrEnum):
    """How the outlet is fed: where the neutral is earthed, and where it is not."""

    EARTHED = "earthed"
    GALVANIC_ISOLATOR = "galvanic_isolator"
    GENERATOR = "generator"
    ISOLATED = "isolated"
    TWO_LIVE_POLES = "two_live_poles"

    @property
    def words(self) -> str:
        """The supply as it is called."""
        return _SUPPLY_WORDS[self]

    @property
    def is_neutral_earthed(self) -> bool:
        """Whether a leak to earth has one way back only, to an earthed neutral."""
        return self in {Supply.EARTHED, Supply.GALVANIC_ISOLATOR}


_SUPPLY_WORDS = {
    Supply.EARTHED: "mains, neutral earthed",
    Supply.GALVANIC_ISOLATOR: "shore power through a galvanic isolator",
    Supply.GENERATOR: "generator, neutral not earthed",
    Supply.ISOLATED: "isolating transformer or inverter",
    Supply.TWO_LIVE_POLES: "two live poles, 240 V split phase",
}


class Appliance(BaseModel):
    """Something else on the same protective device, and what it leaks as it stands."""

    model_config = ConfigDict(frozen=True, extra="forbid")

    name: Annotated[str, Trimmed(80, 1)]
    leakage_ma: float = Field(ge=0, le=1000, allow_inf_nan=False, strict=True)


class CircuitNoted(Record):
    """The circuit of the house that feeds the machine, as it was found; the last one written holds.

    Attributes
    ----------
    supply
        How it is fed.
    device, rated_ma, wave
        The residual-current device, its rating, and to which waves it answers; a GFCI of class A has no rating.
    curve, rated_a
        The breaker's letter, empty in the 120 V world, or the kind of fuse; and rating.
    appliances
        What else is on it.
    plug
        How the machine's plug goes in: either way round, one way, or not to be drawn; None as its type has it.
    """

    kind: Literal["circuit_noted"] = "circuit_noted"
    supply: Supply = Supply.EARTHED
    device: Device = Device.RCD
    rated_ma: Literal[10, 30, 100, 300] = 30
    wave: Literal["AC", "A", "F", "B"] = "A"
    curve: Literal["B", "C", "D", "", "gG", "plug"] = "B"
    rated_a: Annotated[int, Field(ge=1, le=125, strict=True)] = 16
    appliances: tuple[Appliance, ...] = Field(default=(), max_length=30)
    plug: Literal["reversible", "polarised", "fixed"] | None = None


class StoodOn(BaseModel):
    """A protective device at the moment of a run: where it must hold and must trip, and what else leaked into it."""

    model_config = ConfigDict(frozen=True, extra="forbid")

    title: Words
    must_hold_a: float
    must_trip_a: float
    standing_a: float


class Tripped(Record):
    """A protective device went, with the machine in the outlet or out of it."""

    kind: Literal["tripped"] = "tripped"
    device: Device = Device.UNKNOWN
    moment: Moment = Moment.UNKNOWN
    machine: Literal["in", "out"] = "in"


class Reclosed(Record):
    """The device was closed again, once; the machine out of the outlet, or in it.

    Where it is not said, the machine is out while it is cut off, else in.
    """

    kind: Literal["reclosed"] = "reclosed"
    machine: Literal["in", "out"] | None = None


class RunMade(Record):
    """A leakage test with some parts connected, its reading as typed.

    Attributes
    ----------
    method
        By insulation tester, or by leakage tester.
    connected, maybe
        Parts that were surely, and perhaps, connected.
    text, meter
        What was shown, a bare number in MΩ or mA; and by which meter, where the person said so. Of a leakage run
        without a meter: ``trips`` or ``holds``, what the protective device did.
    states
        How the machine stood, where it did not stand at rest: ``{"programme": "heat"}``.
    are_wires_insulated
        The loose wires are insulated one by one and the earth is on: stated for every run that ``trips`` or ``holds``.
    polarity
        How the plug sat, of a leakage run.
    is_intermittent
        The fault comes and goes.
    instrument, device
        The meter, or the protective device and what else stood on it, as they then were; filled in when the run is
        taken, so that no later change of them touches the run.
    """

    kind: Literal["run_made"] = "run_made"
    filled_in: ClassVar[tuple[str, ...]] = ("instrument", "device")
    method: Literal["insulation", "leakage"]
    connected: tuple[Name, ...] = Field(min_length=1, max_length=60)
    maybe: tuple[Name, ...] = Field(default=(), max_length=60)
    text: Annotated[str, Trimmed(40, 1)]
    meter: Annotated[str, StringConstraints(max_length=60)] = ""
    polarity: Literal["normal", "reversed"] | None = None
    is_intermittent: StrictBool = False
    states: dict[str, Words] = Field(default_factory=dict, max_length=10)
    are_wires_insulated: StrictBool = False
    instrument: Meter | None = None
    device: StoodOn | None = None

    @property
    def has_tripped(self) -> bool | None:
        """What the protective device did, None where a meter was read."""
        return {TRIPS: True, HOLDS: False}.get(self.text)

    @property
    def function(self) -> Function:
        """What the instrument did."""
        return Function(self.method)


class RunDoubted(Record):
    """A run is taken out of the computation, or back into it."""

    kind: Literal["run_doubted"] = "run_doubted"
    run: RowId
    is_doubtful: StrictBool = True


class RunWithdrawn(Record):
    """A run was entered by mistake: it is taken back, and stays in the log."""

    kind: Literal["run_withdrawn"] = "run_withdrawn"
    run: RowId
