"""The typed reference sheet of a machine type."""

from __future__ import annotations

import math
from collections.abc import Mapping
from functools import cached_property
from typing import Annotated, Any, Literal, Self

from pydantic import BaseModel, ConfigDict, Field, StringConstraints, model_validator

from ohmcensus.core.codes import Cycle, EntrySequence, Meaning, Scheme
from ohmcensus.core.errors import UnknownNameError
from ohmcensus.core.parts import part_kinds
from ohmcensus.core.parts.element import CHASSIS
from ohmcensus.core.parts.kind import PartKind, Pin, Ratings, Role, TestSpec, Traits
from ohmcensus.core.parts.to_earth import EARTH_OF_PART
from ohmcensus.core.physics.supply import LOW_VOLTS
from ohmcensus.core.symptom import Device
from ohmcensus.core.text.names import nearest
from ohmcensus.core.text.trimmed import Slug, Title

SheetId = Annotated[str, StringConstraints(pattern=r"^[a-z0-9][a-z0-9-]{0,39}$")]

EARTH_PIN = "pe"

FORMAT: Literal["ohmcensus-sheet/1"] = "ohmcensus-sheet/1"


class _Frozen(BaseModel):
    model_config = ConfigDict(frozen=True, extra="forbid")


class Panel(_Frozen):
    """A cover that has to come off: what it is called, what it takes, and how it is said where *off* is not it.

    One that ``carries_earth`` has an earth strap: the earth is read again once it was off.
    """

    title: Title
    minutes: float = Field(gt=0, le=240)
    opened: Title | None = None
    carries_earth: bool = False

    @property
    def off_words(self) -> str:
        """The cover out of the way: "Back panel off", "Machine tipped back"."""
        return self.opened or f"{self.title} off"


class Plug(_Frozen):
    """A connector that can be pulled, and the parts that it disconnects.

    Attributes
    ----------
    pins
        Points that come off with it; empty for every tag of its parts that is no earth.
    """

    title: Title
    parts: tuple[Slug, ...] = Field(min_length=1)
    pins: tuple[str, ...] = ()


class Terminals(_Frozen):
    """Points at which the supply enters the machine: here it is proved dead."""

    l: str  # noqa: E741 - the conductor's own letter
    n: str
    pe: str


class Protection(_Frozen):
    """A protective device on the circuit of the machine: what it is, and what is printed on it."""

    device: Device
    rating: Title


class Handling(_Frozen):
    """What it takes to move the machine and to empty it.

    Attributes
    ----------
    weight_kg, sump_litres, hottest_celsius
        Weight; water that stays in the sump, and how hot it may be.
    """

    weight_kg: float = Field(gt=0, le=500)
    sump_litres: float = Field(default=0.0, ge=0, le=50)
    hottest_celsius: float = Field(default=60.0, ge=0, le=100)


class Service(_Frozen):
    """How the machine tells codes, how that is asked for, and its own tests.

    Attributes
    ----------
    schemes, sequences, cycles
        Ways to show a code, ways into the service mode, automatic tests.
    meanings
        What codes mean, by scheme.
    """

    schemes: tuple[Scheme, ...] = ()
    sequences: tuple[EntrySequence, ...] = ()
    cycles: tuple[Cycle, ...] = ()
    meanings: Mapping[Slug, tuple[Meaning, ...]] = Field(default_factory=dict)

    def scheme(self, scheme_id: str) -> Scheme | None:
        """Return a scheme by its id, None where there is none."""
        return next((scheme for scheme in self.schemes if scheme.id == scheme_id), None)

    def sequence(self, sequence_id: str) -> EntrySequence | None:
        """Return an entry sequence by its id, None where there is none."""
        return next((sequence for sequence in self.sequences if sequence.id == sequence_id), None)

    def cycle(self, cycle_id: str) -> Cycle | None:
        """Return a test cycle by its id, None where there is none."""
        return next((cycle for cycle in self.cycles if cycle.id == cycle_id), None)

    def meaning(self, scheme_id: str, code: str) -> Meaning | None:
        """Return what a code means, None where the table does not say."""
        return next((row for row in self.meanings.get(scheme_id, ()) if row.code == code), None)


class Expected(_Frozen):
    """The sheet's own figure for a test; it wins over every computed one.

    Attributes
    ----------
    lo, hi
        Ends of the window in the SI unit of the test; one may be missing.
    nominal
        Most likely value.
    source
        Where the figure is printed.
    at_celsius
        Temperature it holds at; windings are moved from there to the temperature of the day.
    """

    lo: float | None = Field(default=None, allow_inf_nan=False)
    hi: float | None = Field(default=None, allow_inf_nan=False)
    nominal: float | None = Field(default=None, allow_inf_nan=False)
    source: Title
    at_celsius: float = 20.0

    @model_validator(mode="after")
    def _ends_in_order(self) -> Self:
        if self.lo is None and self.hi is None:
            msg = "neither lo nor hi is given: state at least one end"
            raise ValueError(msg)
        lo = -math.inf if self.lo is None else self.lo
        hi = math.inf if self.hi is None else self.hi
        if lo > hi:
            msg = f"lo {lo:g} is above hi {hi:g}: swap the ends"
            raise ValueError(msg)
        if self.nominal is not None and not lo <= self.nominal <= hi:
            msg = f"nominal {self.nominal:g} lies outside {lo:g} to {hi:g}: correct one of them"
            raise ValueError(msg)
        return self


class Part(_Frozen):
    """One part of the machine.

    Attributes
    ----------
    id, kind, title, aliases
        Name in commands, kind of part, name in print (the kind's own where none is given), other names.
    ratings
        What is printed on it, typed by its kind.
    chassis
        Whether it touches the chassis and so can leak to earth.
    behind
        Panel that covers it.
    expects
        The sheet's own figures by test name.
    price
        What a new one costs, in the currency of the firm; None where it is mended, not bought.
    """

    model_config = ConfigDict(arbitrary_types_allowed=True)

    id: Slug
    kind: str
    title: Title
    aliases: tuple[Title, ...] = ()
    ratings: Ratings
    chassis: bool = False
    behind: Slug | None = None
    expects: Mapping[str, Expected] = Field(default_factory=dict)
    price: float | None = Field(default=None, ge=0, le=100_000)

    @property
    def part_kind(self) -> PartKind[Any]:
        """The kind of this part."""
        return part_kinds()[self.kind]

    @property
    def traits(self) -> Traits:
        """What other rooms ask of its kind."""
        return self.part_kind.traits

    def point(self, pin: str) -> str:
        """Return the machine's name of a pin; the chassis is everybody's, one with a dot is another part's."""
        return pin if pin == CHASSIS or "." in pin else f"{self.id}.{pin}"

    def pins(self) -> tuple[Pin, ...]:
        """Return the points of this part that a probe can touch."""
        return self.part_kind.pins(self.ratings)

    @property
    def is_earthed(self) -> bool:
        """Whether its body hangs on the machine's earth by a wire of its own."""
        return self.traits.role is not Role.OUTLET and EARTH_PIN in {pin.name for pin in self.pins()}

    def tests(self) -> tuple[TestSpec, ...]:
        """Return the tests of this part, the default one first; one that is earthed is asked from the plug last."""
        own = self.part_kind.tests(self.ratings)
        return (*own, EARTH_OF_PART) if self.is_earthed else own


class Sheet(_Frozen):
    """A machine type, its parts in the order in which current passes them."""

    format: Literal["ohmcensus-sheet/1"] = FORMAT
    id: SheetId
    title: Title
    volts: float = Field(gt=0, le=500)
    hertz: float = Field(gt=0, le=400)
    watts: float = Field(gt=0, le=20_000)
    protection_class: Literal["I", "II"]
    terminals: Terminals | None = None
    handling: Handling | None = None
    protection: tuple[Protection, ...] = ()
    plug: Literal["reversible", "polarised", "fixed"] | None = None
    service: Service = Field(default_factory=Service)
    panels: Mapping[Slug, Panel] = Field(default_factory=dict)
    plugs: Mapping[Slug, Plug] = Field(default_factory=dict)
    states: Mapping[Slug, tuple[Title, ...]] = Field(default_factory=dict)
    parts: tuple[Part, ...] = Field(min_length=1, max_length=60)
    nets: Mapping[Slug, tuple[str, ...]] = Field(default_factory=dict)

    @property
    def is_plug_reversible(self) -> bool:
        """Whether the plug goes in either way round, so that both are right; usual at 230 V where nothing is said."""
        return self.plug == "reversible" or (self.plug is None and self.volts >= LOW_VOLTS)

    @property
    def supply(self) -> str:
        """The rated supply in print."""
        return f"{self.volts:g} V {self.hertz:g} Hz"

    def part(self, part_id: str) -> Part | None:
        """Return a part by its id, None where there is none."""
        return next((part for part in self.parts if part.id == part_id), None)

    def with_role(self, *roles: Role) -> tuple[Part, ...]:
        """Return the parts that are there for one of some things, in their order."""
        return tuple(part for part in self.parts if part.traits.role in roles)

    def known_part(self, part_id: str) -> Part:
        """Return a part by its id.

        Raises
        ------
        UnknownNameError
            If there is none.
        """
        found = self.part(part_id)
        if found is None:
            ids = [part.id for part in self.parts]
            close = nearest(part_id, ids)
            remedy = f"{close}?" if close else f"its parts are {', '.join(ids)}"
            raise UnknownNameError(what=f"no '{part_id[:40]}' on this sheet", remedy=remedy, field="part")
        return found

    def __hash__(self) -> int:
        """Hash by content: drafts of one sheet share their id and would all meet in one bucket of every cache."""
        return self._hash

    @cached_property
    def _hash(self) -> int:
        return hash(repr(self))

    def plug_points(self, name: str) -> frozenset[str]:
        """Return the points that come off with a plug: those it names, else every tag of its parts that is no earth."""
        plug = self.plugs[name]
        if plug.pins:
            return frozenset(plug.pins)
        earths = {f"{part}.pe" for part in plug.parts}
        return frozenset(point for point in self.points if point.partition(".")[0] in plug.parts) - earths

    @cached_property
    def points(self) -> Mapping[str, str]:
        """Every point of the machine, "heater.a", with what is written beside it."""
        return {f"{part.id}.{pin.name}": f"{part.title}, {pin.label}" for part in self.parts for pin in part.pins()}
