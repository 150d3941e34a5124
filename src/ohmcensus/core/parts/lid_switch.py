"""The switch that the lid presses: without it a top-loader neither turns nor spins."""

from __future__ import annotations

from collections.abc import Mapping
from typing import ClassVar

from ohmcensus.core.meter import Function
from ohmcensus.core.parts.element import ClosedWhen, Element, contact
from ohmcensus.core.parts.expect import closed_contact, open_contact
from ohmcensus.core.parts.fault import FaultMode
from ohmcensus.core.parts.kind import MachineState, Nominal, NoRatings, PartCheck, PartKind, Pin, TestSpec
from ohmcensus.core.symptom import Symptom


class LidSwitch(PartKind[NoRatings]):
    """Lid switch: its points, how it fails, what is measured on it."""

    kind = "lid_switch"
    title = "Lid switch"
    fault_modes = (
        FaultMode.STUCK_OPEN,
        FaultMode.WELDED,
        FaultMode.BAD_JOINT,
    )
    priors: ClassVar[Mapping[FaultMode, float]] = {
        FaultMode.STUCK_OPEN: 1.4,
        FaultMode.WELDED: 0.1,
        FaultMode.BAD_JOINT: 0.4,
    }
    explains: ClassVar[Mapping[Symptom, float]] = {Symptom.NO_TURN: 0.4, Symptom.NO_SPIN: 0.5, Symptom.NO_START: 0.35}
    repair = "replace it"
    tricks = ("Join its plug before the cabinet or console closes: nothing reaches it afterwards.",)
    repair_minutes = 15.0

    checks = (PartCheck("bypass", "Wires behind the lid switch", "joined: a bypass, an open danger"),)
    cautions = ("Never leave a lid switch bypassed: a spinning drum keeps turning.",)

    ratings = NoRatings

    def pins(self, ratings: NoRatings) -> tuple[Pin, ...]:
        """Return the points that a probe can touch."""
        return (
            Pin("a", "tag 1"),
            Pin("b", "tag 2"),
        )

    def elements(self, ratings: NoRatings, nominal: Nominal) -> tuple[Element, ...]:
        """Return what it is electrically."""
        return (contact("contact", "a", "b", ClosedWhen("lid", frozenset({"shut"}))),)

    def tests(self, ratings: NoRatings) -> tuple[TestSpec, ...]:
        """Return its tests, the usual one first."""
        return (
            TestSpec(
                name="shut",
                title="contact, lid shut",
                between=("a", "b"),
                function=Function.OHM,
                expect=closed_contact(),
                state=MachineState.PLUG_PULLED,
                sets={"lid": "shut"},
                advice="A click as the lid comes down.",
                minutes=0.5,
            ),
            TestSpec(
                name="open",
                title="contact, lid open",
                between=("a", "b"),
                function=Function.OHM,
                expect=open_contact("open while the lid is up"),
                state=MachineState.PLUG_PULLED,
                advice="Closed with the lid up is a welded switch, or a bypass behind it.",
                minutes=0.5,
            ),
        )


KIND = LidSwitch()
