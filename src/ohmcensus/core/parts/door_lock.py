"""The door lock with a PTC heater and a bimetal or wax actuator, and the contact it closes when locked."""

from __future__ import annotations

from dataclasses import replace

from ohmcensus.core.meter import Function
from ohmcensus.core.parts.build import closed, fixed, opened, plain
from ohmcensus.core.parts.element import ClosedWhen, Element, contact, load
from ohmcensus.core.parts.expect import common
from ohmcensus.core.parts.fault import FaultMode
from ohmcensus.core.parts.kind import (
    Interlock,
    MachineState,
    Nominal,
    NoRatings,
    PartCheck,
    PartKind,
    Pin,
    Role,
    TestSpec,
)
from ohmcensus.core.quantity import Unit
from ohmcensus.core.symptom import Symptom


def _elements(ratings: NoRatings, nominal: Nominal) -> tuple[Element, ...]:
    """Return the PTC, which heats itself, and the contact that closes when locked."""
    ptc = load("ptc", "c", "n", nominal("ptc"))
    locked = ClosedWhen("door", frozenset({"locked"}))
    return (replace(ptc, is_linear=False), contact("contact", "c", "out", locked))


KIND = PartKind(
    kind="door_lock",
    title="Door lock",
    traits=plain(Role.INTERLOCK),
    interlock=Interlock("unlocked", "locked"),
    fault_modes=(
        FaultMode.OPEN,
        FaultMode.SHORT,
        FaultMode.DRIFT,
        FaultMode.STUCK_OPEN,
        FaultMode.WELDED,
        FaultMode.BAD_JOINT,
    ),
    priors={
        FaultMode.OPEN: 1.2,
        FaultMode.STUCK_OPEN: 1.6,
        FaultMode.BAD_JOINT: 0.5,
        FaultMode.DRIFT: 0.3,
    },
    checks=(PartCheck("latch", "Latch and strike", "worn, broken or loose", mechanical=0.4),),
    repair="replace the lock",
    tricks=(
        "The ring that holds the gasket comes off at its spring first, and goes back with the spring last.",
        "Tuck the wires clear of the gasket's lip before the ring goes on.",
        "Locked: unplugged, drum at rest, water below the door, look for the emergency pull behind the filter flap.",
    ),
    repair_minutes=20.0,
    explains={
        Symptom.NO_START: 0.5,
        Symptom.NO_LOCK: 0.6,
        Symptom.NO_OPEN: 0.5,
        Symptom.DEAD: 0.1,
        Symptom.STOPS: 0.15,
        Symptom.TRIPS: 0.05,
        Symptom.CODE: 0.2,
    },
    ratings=NoRatings,
    pins=fixed(Pin("c", "common"), Pin("n", "heater neutral"), Pin("out", "switched")),
    elements=_elements,
    tests=fixed(
        TestSpec(
            name="ptc",
            title="PTC tags, cold",
            between=("c", "n"),
            function=Function.OHM,
            expect=common(500.0, 2000.0, Unit.OHM, "0.5–2 kΩ cold"),
            blind_to=(FaultMode.STUCK_OPEN, FaultMode.WELDED, FaultMode.BAD_JOINT),
            aliases=("heater", "tags"),
            state=MachineState.PLUG_PULLED,
            advice="Ten minutes cold before judging: hot it reads nearly open.",
        ),
        opened(
            "unlocked",
            "contact, unlocked",
            ("c", "out"),
            "the contact is open while unlocked",
            blind_to=(FaultMode.OPEN, FaultMode.SHORT, FaultMode.DRIFT, FaultMode.STUCK_OPEN, FaultMode.BAD_JOINT),
            aliases=("open",),
            minutes=0.5,
        ),
        closed(
            "locked",
            "contact, locked",
            ("c", "out"),
            blind_to=(FaultMode.OPEN, FaultMode.SHORT, FaultMode.DRIFT, FaultMode.WELDED),
            aliases=("contact", "closed"),
            minutes=1.5,
            sets={"door": "locked"},
        ),
    ),
)
