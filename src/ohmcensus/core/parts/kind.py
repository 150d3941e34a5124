"""What a kind of part is: its ratings, its pins, how it can fail, and the tests that ask it.

One module of this folder describes one kind and ends in ``KIND = …``. Other rooms know kinds by their traits only.
"""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass, field
from enum import StrEnum
from typing import Any, Generic, TypeVar

from pydantic import BaseModel, ConfigDict

from ohmcensus.core.meter import Function
from ohmcensus.core.parts.comparison import Comparison
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
    """A check of a part by eye or hand: what to look at, and what a bad one looks like.

    ``mechanical`` is how often a part of electrical kind has just this, beside its other faults; 0 where what is seen
    is only the trace of an electrical one.
    """

    id: str
    title: str
    bad: str
    minutes: float = 1.0
    mechanical: float = 0.0


@dataclass(frozen=True, slots=True)
class Weaker:
    """A lesser instrument for a test: what it misses on top, and why; whether it can only fail, and never pass."""

    function: Function
    blind_to: tuple[FaultMode, ...]
    why: str
    proves_nothing: bool = False


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
    at_zero
        What a reading of nothing says, in a few words; empty for most.
    load_of
        Element of the part whose load is read through it; empty where the test asks the part itself.
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
    at_zero: str = ""
    load_of: str = ""


class Role(StrEnum):
    """What a part is for in a machine: by this, not by its name, others find it."""

    OUTLET = "outlet"
    CORD = "cord"
    FUSE = "fuse"
    FILTER = "filter"
    HARNESS = "harness"
    BOARD = "board"
    DRIVE = "drive"
    TIMER = "timer"
    INTERLOCK = "interlock"
    PROTECTOR = "protector"
    LEVEL = "level"
    SENSOR = "sensor"
    CAPACITOR = "capacitor"
    LOAD = "load"
    MECHANICAL = "mechanical"


class Waves(StrEnum):
    """What a part makes of the mains: what a protective device has to understand of its leaks."""

    SINE = "sine"
    CHOPPED = "chopped"
    INVERTED = "inverted"


class Heats(StrEnum):
    """What a part heats: the water of the tub, something else, nothing."""

    NOTHING = "nothing"
    TUB = "tub"
    ELSEWHERE = "elsewhere"


# What a good part reads to earth at 500 V at least (common practice: a good one reads over 20 MΩ).
HEALTHY_INSULATION_OHM = 20e6


@dataclass(frozen=True, slots=True, kw_only=True)
class Traits:
    """What other rooms ask of a kind. Nothing has a default: a kind that leaves one out cannot be written.

    Parameters
    ----------
    role
        What it is for.
    off_before_500_v
        Whether it has to be off before 500 V are put on: electronics, which the test would kill.
    waves
        What it makes of the mains.
    heats
        What it heats.
    starts_direct
        Whether it is a motor that is switched straight onto the mains: its inrush may open a breaker.
    governs_heat
        Whether the warming hangs on it: after it was changed, the rise of the water is timed.
    healthy_insulation_ohm
        What a good one reads to earth at least, ohms.
    """

    role: Role
    off_before_500_v: bool
    waves: Waves
    heats: Heats
    starts_direct: bool
    governs_heat: bool
    healthy_insulation_ohm: float

    @property
    def is_heating(self) -> bool:
        """Whether it is a heating element, for which the limits of insulation are looser."""
        return self.heats is not Heats.NOTHING


@dataclass(frozen=True, slots=True)
class Interlock:
    """What keeps hands out: the test of its contact that must read open, and the one that must read closed.

    ``by_hand`` tells whether the contact can be held closed without voltage: a lid switch can, a wax or bimetal lock
    cannot; ``closed_at`` are the states of door or lid in which it is closed.
    """

    at_rest: str
    held: str
    by_hand: bool = False
    closed_at: frozenset[str] = frozenset({"locked"})


@dataclass(frozen=True, slots=True)
class Brings:
    """A fault that brings another one with it: which of one's own, None for a mechanical one, and which of a kind."""

    own: FaultMode | None
    kind: str
    other: FaultMode


R = TypeVar("R", bound=Ratings)
Nominal = Callable[[str], float]


def _no_elements(_ratings: Any, _nominal: Nominal) -> tuple[Element, ...]:
    return ()


def _no_charges(_ratings: Any) -> tuple[StoredCharge, ...]:
    return ()


@dataclass(frozen=True, kw_only=True, eq=False)
class PartKind(Generic[R]):
    """A kind of part: data, and four questions that depend on what is printed on the part.

    Parameters
    ----------
    kind, title
        Its name in sheets, and on the screen.
    traits
        What other rooms ask of it.
    ratings
        Model of what is printed on such a part.
    pins
        The points that a probe can touch, from the ratings.
    tests
        Its tests from the ratings, the one that is meant when none is named first.
    elements
        What it is electrically, from the ratings and from the most likely good value of a test by its name; the first
        element that knows a fault mode is the one that has it.
    stored_charges
        The capacitors that may stay charged, from the ratings; none for most kinds.
    fault_modes
        How it can fail electrically; none for what only eye and hand can judge.
    explains
        How readily a fault of the part shows as each symptom, 0 to 1 (common practice, no source).
    priors
        How often each fault mode occurs against the others of the machine; a mode that is not named
        counts one tenth (our choice: relative, no service data).
    brings
        Faults that come with one of its own.
    interlock
        Its two tests, where it keeps hands out.
    comparisons
        Tests of its own whose readings are held against one another.
    alike, alike_within
        Test by which several parts of this kind and of one window are held against one another, and by how much they
        may differ from their mean; empty where they are not.
    seen_outside
        Checks of the first look that look at it.
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
    repair, repair_minutes
        The usual repair, and the time for it with the part in reach.
    """

    kind: str
    title: str
    traits: Traits
    ratings: type[R]
    pins: Callable[[R], tuple[Pin, ...]]
    tests: Callable[[R], tuple[TestSpec, ...]]
    elements: Callable[[R, Nominal], tuple[Element, ...]] = _no_elements
    stored_charges: Callable[[R], tuple[StoredCharge, ...]] = _no_charges
    fault_modes: tuple[FaultMode, ...]
    explains: Mapping[Symptom, float] = field(default_factory=dict)
    priors: Mapping[FaultMode, float] = field(default_factory=dict)
    brings: tuple[Brings, ...] = ()
    interlock: Interlock | None = None
    comparisons: tuple[Comparison, ...] = ()
    alike: str = ""
    alike_within: float = 0.1
    seen_outside: tuple[str, ...] = ()
    is_spare: bool = True
    is_fed: bool = True
    tools: tuple[str, ...] = ()
    cautions: tuple[str, ...] = ()
    tricks: tuple[str, ...] = ()
    checks: tuple[PartCheck, ...] = ()
    repair: str = "replace it"
    repair_minutes: float = 20.0
