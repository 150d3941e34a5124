"""The fuse in the plug: the first thing between outlet and machine where plugs have one."""

from __future__ import annotations

from pydantic import Field

from ohmcensus.core.meter import Function
from ohmcensus.core.parts.build import fixed, plain
from ohmcensus.core.parts.element import Element, fuse
from ohmcensus.core.parts.expect import closed_contact
from ohmcensus.core.parts.fault import FaultMode
from ohmcensus.core.parts.kind import (
    MachineState,
    Nominal,
    PartKind,
    Pin,
    Ratings,
    Role,
    TestSpec,
)
from ohmcensus.core.symptom import Symptom

FUSE_LIMIT_OHM = 0.5


class PlugFuseRatings(Ratings):
    """Rated current."""

    amperes: float = Field(gt=0, le=32)


def _elements(ratings: PlugFuseRatings, nominal: Nominal) -> tuple[Element, ...]:
    """Return the wire in it."""
    return (fuse("wire", "a", "b", ohm=0.03),)


KIND = PartKind(
    kind="plug_fuse",
    title="Plug fuse",
    traits=plain(Role.FUSE),
    seen_outside=("protective_devices",),
    fault_modes=(FaultMode.OPEN, FaultMode.BAD_JOINT),
    priors={FaultMode.OPEN: 0.6},
    repair="find why it blew, then a fuse of the same rating, type and breaking capacity",
    repair_minutes=5.0,
    explains={Symptom.DEAD: 0.3},
    ratings=PlugFuseRatings,
    pins=fixed(Pin("a", "plug side"), Pin("b", "cord side")),
    elements=_elements,
    tests=fixed(
        TestSpec(
            name="through",
            title="end to end",
            between=("a", "b"),
            function=Function.OHM,
            expect=closed_contact(FUSE_LIMIT_OHM),
            state=MachineState.PLUG_PULLED,
            minutes=0.5,
        ),
    ),
)
