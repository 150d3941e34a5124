"""The fuse in the plug: the first thing between outlet and machine where plugs have one."""

from __future__ import annotations

from collections.abc import Mapping
from typing import ClassVar

from pydantic import Field

from ohmcensus.core.meter import Function
from ohmcensus.core.parts.element import Element, fuse
from ohmcensus.core.parts.expect import closed_contact
from ohmcensus.core.parts.fault import FaultMode
from ohmcensus.core.parts.kind import MachineState, Nominal, PartKind, Pin, Ratings, TestSpec
from ohmcensus.core.symptom import Symptom

FUSE_LIMIT_OHM = 0.5


class PlugFuseRatings(Ratings):
    """Rated current."""

    amperes: float = Field(gt=0, le=32)


class PlugFuse(PartKind[PlugFuseRatings]):
    """Whole or blown; one that blows at once has found a short."""

    kind = "plug_fuse"
    title = "Plug fuse"
    fault_modes = (FaultMode.OPEN, FaultMode.BAD_JOINT)
    priors: ClassVar[Mapping[FaultMode, float]] = {FaultMode.OPEN: 0.6}
    repair = "find why it blew, then a fuse of the same rating"
    repair_minutes = 5.0
    explains: ClassVar[Mapping[Symptom, float]] = {Symptom.DEAD: 0.3}
    ratings = PlugFuseRatings

    def pins(self, ratings: PlugFuseRatings) -> tuple[Pin, ...]:
        """Return both caps."""
        return (Pin("a", "plug side"), Pin("b", "cord side"))

    def elements(self, ratings: PlugFuseRatings, nominal: Nominal) -> tuple[Element, ...]:
        """Return the wire in it."""
        return (fuse("wire", "a", "b", ohm=0.03),)

    def tests(self, ratings: PlugFuseRatings) -> tuple[TestSpec, ...]:
        """Return the fuse end to end."""
        return (
            TestSpec(
                name="through",
                title="end to end",
                between=("a", "b"),
                function=Function.OHM,
                expect=closed_contact(FUSE_LIMIT_OHM),
                state=MachineState.PLUG_PULLED,
                minutes=0.5,
            ),
        )


KIND = PlugFuse()
