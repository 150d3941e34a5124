"""The door lock that a solenoid works."""

from __future__ import annotations

from collections.abc import Mapping
from typing import ClassVar

from ohmcensus.core.meter import Function
from ohmcensus.core.parts.element import ClosedWhen, Element, contact, load
from ohmcensus.core.parts.expect import closed_contact, common, open_contact
from ohmcensus.core.parts.fault import FaultMode
from ohmcensus.core.parts.kind import MachineState, Nominal, NoRatings, PartKind, Pin, TestSpec
from ohmcensus.core.quantity import Unit
from ohmcensus.core.symptom import Symptom


class LockSolenoid(PartKind[NoRatings]):
    """Door lock, solenoid: its points, how it fails, what is measured on it."""

    kind = "lock_solenoid"
    title = "Door lock, solenoid"
    fault_modes = (
        FaultMode.OPEN,
        FaultMode.SHORT,
        FaultMode.SHORTED_TURNS,
        FaultMode.STUCK_OPEN,
        FaultMode.WELDED,
        FaultMode.BAD_JOINT,
    )
    priors: ClassVar[Mapping[FaultMode, float]] = {
        FaultMode.OPEN: 0.7,
        FaultMode.STUCK_OPEN: 1.2,
        FaultMode.BAD_JOINT: 0.4,
    }
    explains: ClassVar[Mapping[Symptom, float]] = {
        Symptom.NO_START: 0.45,
        Symptom.NO_LOCK: 0.6,
        Symptom.NO_OPEN: 0.4,
        Symptom.CODE: 0.2,
        Symptom.STOPS: 0.1,
    }
    repair = "replace it"
    repair_minutes = 15.0

    ratings = NoRatings

    def pins(self, ratings: NoRatings) -> tuple[Pin, ...]:
        """Return the points that a probe can touch."""
        return (
            Pin("coil_a", "coil 1"),
            Pin("coil_b", "coil 2"),
            Pin("c", "common"),
            Pin("out", "switched"),
        )

    def elements(self, ratings: NoRatings, nominal: Nominal) -> tuple[Element, ...]:
        """Return what it is electrically."""
        return (
            load("coil", "coil_a", "coil_b", nominal("coil"), henry=0.2),
            contact("contact", "c", "out", ClosedWhen("door", frozenset({"locked"}))),
        )

    def tests(self, ratings: NoRatings) -> tuple[TestSpec, ...]:
        """Return its tests, the usual one first."""
        return (
            TestSpec(
                name="coil",
                title="solenoid coil",
                between=("coil_a", "coil_b"),
                function=Function.OHM,
                expect=common(30.0, 200.0, Unit.OHM, "30–200 Ω by type"),
                state=MachineState.PLUG_PULLED,
                copper=True,
            ),
            TestSpec(
                name="unlocked",
                title="contact, unlocked",
                between=("c", "out"),
                function=Function.OHM,
                expect=open_contact("the contact is open while unlocked"),
                state=MachineState.PLUG_PULLED,
            ),
            TestSpec(
                name="locked",
                title="contact, locked",
                between=("c", "out"),
                function=Function.OHM,
                expect=closed_contact(),
                state=MachineState.PLUG_PULLED,
                sets={"door": "locked"},
            ),
        )


KIND = LockSolenoid()
