"""The control board with the relay that switches the heater."""

from __future__ import annotations

from collections.abc import Mapping
from typing import ClassVar

from ohmcensus.core.meter import Function
from ohmcensus.core.parts.expect import closed_contact, common, open_contact
from ohmcensus.core.parts.kind import FaultMode, MachineState, PartKind, Pin, Ratings, TestSpec
from ohmcensus.core.quantity import Unit
from ohmcensus.core.symptom import Symptom


class ControlBoardRatings(Ratings):
    """Nothing is printed on it that a window could come from."""


class ControlBoard(PartKind[ControlBoardRatings]):
    """Supply tags, its own fuse, and the heater relay's contact and coil."""

    kind = "control_board"
    title = "Control board"
    fault_modes = (FaultMode.OPEN, FaultMode.WELDED, FaultMode.STUCK_OPEN, FaultMode.BAD_JOINT)
    explains: ClassVar[Mapping[Symptom, float]] = {
        Symptom.DEAD: 0.3,
        Symptom.NO_START: 0.25,
        Symptom.STOPS: 0.25,
        Symptom.NO_HEAT: 0.2,
        Symptom.OVERHEATS: 0.35,
        Symptom.NO_TURN: 0.15,
        Symptom.NO_SPIN: 0.15,
        Symptom.NO_DRAIN: 0.1,
        Symptom.CODE: 0.2,
        Symptom.SMELLS: 0.25,
        Symptom.NO_LOCK: 0.15,
        Symptom.NO_OPEN: 0.1,
    }
    ratings = ControlBoardRatings

    def pins(self, ratings: ControlBoardRatings) -> tuple[Pin, ...]:
        """Return the tags of supply, relay and fuse."""
        return (
            Pin("l", "line in"),
            Pin("n", "neutral in"),
            Pin("relay_in", "heater relay, line side"),
            Pin("relay_out", "heater relay, heater side"),
            Pin("coil_a", "heater relay coil 1"),
            Pin("coil_b", "heater relay coil 2"),
            Pin("fuse_out", "behind the board fuse"),
        )

    def tests(self, ratings: ControlBoardRatings) -> tuple[TestSpec, ...]:
        """Return the relay at rest, its coil and the fuse."""
        return (
            TestSpec(
                name="relay",
                title="heater relay, at rest",
                between=("relay_in", "relay_out"),
                function=Function.OHM,
                expect=open_contact("an idle relay is open; under 1 Ω is welded"),
                blind_to=(FaultMode.STUCK_OPEN, FaultMode.OPEN, FaultMode.BAD_JOINT),
                aliases=("heater relay", "contact"),
                state=MachineState.PLUG_PULLED,
            ),
            TestSpec(
                name="coil",
                title="heater relay coil",
                between=("coil_a", "coil_b"),
                function=Function.OHM,
                expect=common(200.0, 400.0, Unit.OHM, "200–400 Ω for a 12 V relay"),
                blind_to=(FaultMode.WELDED, FaultMode.STUCK_OPEN, FaultMode.BAD_JOINT),
                aliases=("relay coil",),
                state=MachineState.PLUG_PULLED,
                minutes=2.0,
            ),
            TestSpec(
                name="fuse",
                title="board fuse",
                between=("l", "fuse_out"),
                function=Function.OHM,
                expect=closed_contact(),
                blind_to=(FaultMode.WELDED, FaultMode.STUCK_OPEN),
            ),
        )


KIND = ControlBoard()
