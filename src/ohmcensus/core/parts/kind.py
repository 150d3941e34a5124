"""What a kind of part is: its ratings, its pins, how it can fail, and the tests that ask it.

One module of this folder describes one kind and ends in ``KIND = …``; nothing else has to know of it.
"""

from __future__ import annotations

from abc import ABC, abstractmethod
from collections.abc import Callable, Mapping
from dataclasses import dataclass, field
from enum import StrEnum
from typing import ClassVar, Generic, TypeVar

from pydantic import BaseModel, ConfigDict

from ohmcensus.core.meter import Function
from ohmcensus.core.parts.element import Element
from ohmcensus.core.parts.fault import FaultMode
from ohmcensus.core.quantity.window import Window
from ohmcensus.core.symptom import Symptom


class MachineState(StrEnum):
    """State in which a test is made."""

    UNPLUGGED = "unplugged"
    PLUG_PULLED = "plug_pulled"
    LIVE = "live"

    @property
    def words(self) -> str:
        """The state as an instruction."""
        return _STATE_WORDS[self]


_STATE_WORDS = {
    MachineState.UNPLUGGED: "machine unplugged",
    MachineState.PLUG_PULLED: "machine unplugged, the part's own plug pulled",
    MachineState.LIVE: "live",
}


class Ratings(BaseModel):
    """Figures of one part as a sheet states them; every kind has its own fields."""

    model_config = ConfigDict(frozen=True, extra="forbid", strict=True)


class NoRatings(Ratings):
    """Nothing is printed on the part that a window could come from."""


@dataclass(frozen=True, slots=True)
class Pin:
    """A point of the part that a probe can touch.

    Parameters
    ----------
    name, label
        Short name, and what is written beside it.
    may_be_free
        Whether nothing need be joined to it: an unused throw, a coil that the board itself feeds.
    """

    name: str
    label: str
    may_be_free: bool = False


class Proves(StrEnum):
    """What a good reading of a test proves of the whole machine."""

    EARTH = "earth"
    INSULATION = "insulation"


@dataclass(frozen=True, slots=True)
class StoredCharge:
    """A capacitor that can hold a dangerous charge after the plug is out.

    Parameters
    ----------
    title
        What it is called: "X-capacitor".
    between
        Names of the two pins.
    capacitance_f, volts
        Size, and the highest DC voltage it can be charged to.
    bleed_ohm
        Resistor that empties it by itself, None where there is none to rely on.
    is_link
        Whether it is the link of an inverter: its charge can come back after it was emptied.
    """

    title: str
    between: tuple[str, str]
    capacitance_f: float
    volts: float
    bleed_ohm: float | None
    is_link: bool = False


@dataclass(frozen=True, slots=True)
class PartCheck:
    """A check of a part by eye or hand: what to look at, and what a bad one looks like."""

    id: str
    title: str
    bad: str
    minutes: float = 1.0


@dataclass(frozen=True, slots=True)
class Weaker:
    """A lesser instrument for a test: what it misses on top, and why."""

    function: Function
    blind_to: tuple[FaultMode, ...]
    why: str


@dataclass(frozen=True, slots=True)
class TestSpec:
    """One measurement on a part.

    Parameters
    ----------
    name, title, aliases
        Short name ("pe"), what stands in the line ("to earth"), other words for it.
    between
        Names of the two pins; one with a dot is of another part: ``cord.plug_l``.
    function
        What the instrument must do.
    expect
        Surrounding temperature in °C to the window of a good part.
    blind_to
        Fault modes of the part that a reading inside the window does not exclude.
    state
        In which state of the machine the test is made.
    minutes
        Time for the test itself, the point being in reach.
    weaker
        A lesser instrument that may be used instead.
    advice
        What to do with the hands, in one sentence; may be empty.
    copper
        Whether the value is that of a copper winding and goes with its temperature.
    load_volts
        Supply of a plain resistive load, None for everything else.
    proves
        What a good reading proves of the whole machine, None for most.
    sets
        States of the machine that the test needs, by name.
    joined
        Pins that are joined before the reading is taken: L and N for the whole machine.
    is_reversed
        Whether the plug is turned for it: neutral at the line contact.
    is_bare
        Whether every plug of the machine is off for it.
    """

    __test__ = False

    name: str
    title: str
    between: tuple[str, str]
    function: Function
    expect: Callable[[float], Window]
    blind_to: tuple[FaultMode, ...] = ()
    aliases: tuple[str, ...] = ()
    state: MachineState = MachineState.UNPLUGGED
    minutes: float = 1.0
    weaker: Weaker | None = None
    advice: str = ""
    copper: bool = False
    load_volts: float | None = None
    proves: Proves | None = None
    sets: Mapping[str, str] = field(default_factory=dict)
    joined: tuple[str, ...] = ()
    is_reversed: bool = False
    is_bare: bool = False


R = TypeVar("R", bound=Ratings)
Nominal = Callable[[str], float]


class PartKind(ABC, Generic[R]):
    """A kind of part; subclasses state everything that is true of every part of the kind.

    Attributes
    ----------
    explains
        How readily a fault of the part shows as each symptom, 0 to 1 (common practice, no source).
    is_spare
        Whether it is a part that one takes along.
    is_fed
        Whether its load is fed from the mains, as a sensor's is not.
    tools
        What its tests and its replacement need besides a meter and the usual drivers.
    cautions
        What can hurt at this part, one sentence each.
    tricks
        How it comes off and goes back well, one sentence each (common practice, no source).
    checks
        What eye and hand can tell of it.
    priors
        How often each fault mode occurs against the others of the machine; a mode that is not named
        counts one tenth (our choice: relative, no service data).
    repair, repair_minutes
        The usual repair, and the time for it with the part in reach.
    """

    kind: ClassVar[str]
    title: ClassVar[str]
    fault_modes: ClassVar[tuple[FaultMode, ...]]
    explains: ClassVar[Mapping[Symptom, float]] = {}
    is_spare: ClassVar[bool] = True
    is_fed: ClassVar[bool] = True
    tools: ClassVar[tuple[str, ...]] = ()
    cautions: ClassVar[tuple[str, ...]] = ()
    tricks: ClassVar[tuple[str, ...]] = ()
    checks: ClassVar[tuple[PartCheck, ...]] = ()
    priors: ClassVar[Mapping[FaultMode, float]] = {}
    repair: ClassVar[str] = "replace it"
    repair_minutes: ClassVar[float] = 20.0
    ratings: type[R]

    @abstractmethod
    def pins(self, ratings: R) -> tuple[Pin, ...]:
        """Return the points that a probe can touch."""

    @abstractmethod
    def tests(self, ratings: R) -> tuple[TestSpec, ...]:
        """Return the tests, the one that is meant when none is named first."""

    def elements(self, ratings: R, nominal: Nominal) -> tuple[Element, ...]:
        """Return what the part is electrically; the first element that knows a fault mode is the one that has it.

        Parameters
        ----------
        ratings
            What is printed on the part.
        nominal
            Most likely good value of one of its tests, by the test's name.
        """
        return ()

    def stored_charges(self, ratings: R) -> tuple[StoredCharge, ...]:
        """Return the capacitors that may stay charged; none for most kinds."""
        return ()
