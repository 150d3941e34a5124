"""The door lock with a PTC heater and a bimetal or wax actuator, and the contact it closes when locked."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import replace
from typing import ClassVar

from ohmcensus.core.meter import Function
from ohmcensus.core.parts.element import ClosedWhen, Element, contact, load
from ohmcensus.core.parts.expect import closed_contact, common, open_contact
from ohmcensus.core.parts.fault import FaultMode
from ohmcensus.core.parts.kind import MachineState, Nominal, NoRatings, PartCheck, PartKind, Pin, TestSpec
from ohmcensus.core.quantity import Unit
from ohmcensus.core.symptom import Symptom


class DoorLock(PartKind[NoRatings]):
    """Held by plastic, two wires to its heater, a contact in the supply of heater and motor."""

    kind = "door_lock"
    title = "Door lock"
    fault_modes = (
        FaultMode.OPEN,
        FaultMode.SHORT,
        FaultMode.DRIFT,
        FaultMode.STUCK_OPEN,
        FaultMode.WELDED,
        FaultMode.BAD_JOINT,
    )
    priors: ClassVar[Mapping[FaultMode, float]] = {
        FaultMode.OPEN: 1.2,
        FaultMode.STUCK_OPEN: 1.6,
        FaultMode.BAD_JOINT: 0.5,
        FaultMode.DRIFT: 0.3,
    }
    checks = (PartCheck("latch", "Latch and strike", "worn, broken or loose"),)
    repair = "replace the lock"
    tricks = (
        "The ring that holds the gasket comes off at its spring first, and goes back with the spring last.",
        "Tuck the wires clear of the gasket's lip before the ring goes on.",
        "Locked with nobody at home: look for the emergency pull behind the filter flap before anything is forced.",
    )
    repair_minutes = 20.0
    explains: ClassVar[Mapping[Symptom, float]] = {
        Symptom.NO_START: 0.5,
        Symptom.NO_LOCK: 0.6,
        Symptom.NO_OPEN: 0.5,
        Symptom.DEAD: 0.1,
        Symptom.STOPS: 0.15,
        Symptom.TRIPS: 0.05,
        Symptom.CODE: 0.2,
    }
    ratings = NoRatings

    def pins(self, ratings: NoRatings) -> tuple[Pin, ...]:
        """Return the three tags: line and common, neutral of the heater, switched line."""
        return (Pin("c", "common"), Pin("n", "heater neutral"), Pin("out", "switched"))

    def elements(self, ratings: NoRatings, nominal: Nominal) -> tuple[Element, ...]:
        """Return the PTC, which heats itself, and the contact that closes when locked."""
        ptc = load("ptc", "c", "n", nominal("ptc"))
        locked = ClosedWhen("door", frozenset({"locked"}))
        return (replace(ptc, is_linear=False), contact("contact", "c", "out", locked))

    def tests(self, ratings: NoRatings) -> tuple[TestSpec, ...]:
        """Return the PTC heater and the contact in both positions."""
        return (
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
            TestSpec(
                name="unlocked",
                title="contact, unlocked",
                between=("c", "out"),
                function=Function.OHM,
                expect=open_contact("the contact is open while unlocked"),
                blind_to=(FaultMode.OPEN, FaultMode.SHORT, FaultMode.DRIFT, FaultMode.STUCK_OPEN, FaultMode.BAD_JOINT),
                aliases=("open",),
                state=MachineState.PLUG_PULLED,
                minutes=0.5,
            ),
            TestSpec(
                name="locked",
                title="contact, locked",
                between=("c", "out"),
                function=Function.OHM,
                expect=closed_contact(),
                blind_to=(FaultMode.OPEN, FaultMode.SHORT, FaultMode.DRIFT, FaultMode.WELDED),
                aliases=("contact", "closed"),
                state=MachineState.PLUG_PULLED,
                minutes=1.5,
                sets={"door": "locked"},
            ),
        )


KIND = DoorLock()
