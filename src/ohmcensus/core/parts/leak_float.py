"""A float in the base that stops the machine when water stands there."""

from __future__ import annotations

from collections.abc import Mapping
from typing import ClassVar

from ohmcensus.core.meter import Function
from ohmcensus.core.parts.element import ClosedWhen, Element, contact
from ohmcensus.core.parts.expect import closed_contact, open_contact
from ohmcensus.core.parts.fault import FaultMode
from ohmcensus.core.parts.kind import MachineState, Nominal, NoRatings, PartCheck, PartKind, Pin, TestSpec
from ohmcensus.core.symptom import Symptom


class LeakFloat(PartKind[NoRatings]):
    """Leak float: its points, how it fails, what is measured on it."""

    kind = "leak_float"
    title = "Leak float"
    fault_modes = (
        FaultMode.STUCK_OPEN,
        FaultMode.WELDED,
        FaultMode.BAD_JOINT,
    )
    priors: ClassVar[Mapping[FaultMode, float]] = {FaultMode.STUCK_OPEN: 0.3, FaultMode.BAD_JOINT: 0.2}
    explains: ClassVar[Mapping[Symptom, float]] = {
        Symptom.DEAD: 0.05,
        Symptom.STOPS: 0.15,
        Symptom.CODE: 0.2,
        Symptom.NO_START: 0.1,
    }
    repair = "replace it"
    repair_minutes = 15.0

    checks = (PartCheck("base", "Base tray", "water standing in it"),)

    ratings = NoRatings

    def pins(self, ratings: NoRatings) -> tuple[Pin, ...]:
        """Return the points that a probe can touch."""
        return (
            Pin("a", "tag 1"),
            Pin("b", "tag 2"),
        )

    def elements(self, ratings: NoRatings, nominal: Nominal) -> tuple[Element, ...]:
        """Return what it is electrically."""
        return (contact("contact", "a", "b", ClosedWhen("float", frozenset({"down"}))),)

    def tests(self, ratings: NoRatings) -> tuple[TestSpec, ...]:
        """Return its tests, the usual one first."""
        return (
            TestSpec(
                name="dry",
                title="contact, base dry",
                between=("a", "b"),
                function=Function.OHM,
                expect=closed_contact(),
                state=MachineState.PLUG_PULLED,
                minutes=0.5,
            ),
            TestSpec(
                name="lifted",
                title="contact, float lifted",
                between=("a", "b"),
                function=Function.OHM,
                expect=open_contact("opens when lifted"),
                state=MachineState.PLUG_PULLED,
                sets={"float": "lifted"},
                minutes=0.5,
            ),
        )


KIND = LeakFloat()
