"""Tests of a plain coil between two tags, shared by pumps and valves."""

from __future__ import annotations

from pydantic import Field

from ohmcensus.core.meter import Function
from ohmcensus.core.parts.expect import Expect
from ohmcensus.core.parts.kind import FaultMode, MachineState, Pin, Ratings, TestSpec

LOW_SUPPLY_V = 180.0

COIL_FAULT_MODES = (FaultMode.OPEN, FaultMode.SHORT, FaultMode.SHORTED_TURNS, FaultMode.LEAK, FaultMode.BAD_JOINT)
COIL_PINS = (Pin("a", "tag 1"), Pin("b", "tag 2"))


class CoilRatings(Ratings):
    """Supply that the coil is made for."""

    volts: float = Field(gt=0, le=500)

    @property
    def is_low_supply(self) -> bool:
        """Whether the coil belongs to the 120 V world."""
        return self.volts < LOW_SUPPLY_V


def coil_test(expect: Expect) -> TestSpec:
    """Build the test of a coil between its tags."""
    return TestSpec(
        name="coil",
        title="coil",
        between=("a", "b"),
        function=Function.OHM,
        expect=expect,
        blind_to=(FaultMode.LEAK, FaultMode.BAD_JOINT, FaultMode.SHORTED_TURNS),
        state=MachineState.PLUG_PULLED,
        copper=True,
    )
