"""The lock of a lid: a coil, the contact that it closes, and one that the lid presses."""

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


class LidLock(PartKind[NoRatings]):
    """Lid lock: its points, how it fails, what is measured on it."""

    kind = "lid_lock"
    title = "Lid lock"
    fault_modes = (
        FaultMode.OPEN,
        FaultMode.SHORT,
        FaultMode.STUCK_OPEN,
        FaultMode.WELDED,
        FaultMode.BAD_JOINT,
    )
    priors: ClassVar[Mapping[FaultMode, float]] = {
        FaultMode.OPEN: 0.6,
        FaultMode.STUCK_OPEN: 1.3,
        FaultMode.BAD_JOINT: 0.4,
    }
    explains: ClassVar[Mapping[Symptom, float]] = {
        Symptom.NO_START: 0.4,
        Symptom.NO_LOCK: 0.6,
        Symptom.NO_OPEN: 0.4,
        Symptom.NO_SPIN: 0.4,
        Symptom.CODE: 0.2,
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
            Pin("locked", "locked contact"),
            Pin("lid", "lid contact", may_be_free=True),
        )

    def elements(self, ratings: NoRatings, nominal: Nominal) -> tuple[Element, ...]:
        """Return what it is electrically."""
        return (
            load("coil", "coil_a", "coil_b", nominal("coil"), henry=0.1),
            contact("locked", "c", "locked", ClosedWhen("lid", frozenset({"locked"}))),
            contact("lid", "c", "lid", ClosedWhen("lid", frozenset({"shut", "locked"}))),
        )

    def tests(self, ratings: NoRatings) -> tuple[TestSpec, ...]:
        """Return its tests, the usual one first."""
        return (
            TestSpec(
                name="coil",
                title="lock coil",
                between=("coil_a", "coil_b"),
                function=Function.OHM,
                expect=common(30.0, 200.0, Unit.OHM, "30–200 Ω by type"),
                state=MachineState.PLUG_PULLED,
                copper=True,
            ),
            TestSpec(
                name="locked",
                title="contact, locked",
                between=("c", "locked"),
                function=Function.OHM,
                expect=closed_contact(),
                state=MachineState.PLUG_PULLED,
                sets={"lid": "locked"},
            ),
            TestSpec(
                name="unlocked",
                title="contact, unlocked",
                between=("c", "locked"),
                function=Function.OHM,
                expect=open_contact("open while unlocked"),
                state=MachineState.PLUG_PULLED,
            ),
            TestSpec(
                name="lid",
                title="lid contact, lid shut",
                between=("c", "lid"),
                function=Function.OHM,
                expect=closed_contact(),
                state=MachineState.PLUG_PULLED,
                sets={"lid": "shut"},
            ),
        )


KIND = LidLock()
