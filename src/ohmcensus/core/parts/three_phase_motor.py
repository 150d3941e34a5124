"""A motor with three alike windings in star, fed by an inverter."""

from __future__ import annotations

from collections.abc import Mapping
from typing import ClassVar

from ohmcensus.core.meter import Function
from ohmcensus.core.parts.element import Element, load
from ohmcensus.core.parts.expect import common
from ohmcensus.core.parts.fault import FaultMode
from ohmcensus.core.parts.kind import MachineState, Nominal, NoRatings, PartKind, Pin, TestSpec
from ohmcensus.core.parts.to_earth import to_earth
from ohmcensus.core.quantity import Unit
from ohmcensus.core.symptom import Symptom


class ThreePhaseMotor(PartKind[NoRatings]):
    """Three-phase motor: its points, how it fails, what is measured on it."""

    kind = "three_phase_motor"
    title = "Three-phase motor"
    fault_modes = (
        FaultMode.OPEN,
        FaultMode.SHORTED_TURNS,
        FaultMode.SHORT,
        FaultMode.LEAK,
        FaultMode.BAD_JOINT,
    )
    priors: ClassVar[Mapping[FaultMode, float]] = {
        FaultMode.OPEN: 0.4,
        FaultMode.SHORTED_TURNS: 0.4,
        FaultMode.LEAK: 0.5,
        FaultMode.BAD_JOINT: 0.4,
    }
    explains: ClassVar[Mapping[Symptom, float]] = {
        Symptom.NO_TURN: 0.35,
        Symptom.HUMS: 0.3,
        Symptom.NO_SPIN: 0.25,
        Symptom.TRIPS: 0.15,
        Symptom.NOISY: 0.2,
        Symptom.CODE: 0.15,
    }
    repair = "replace the motor"
    tricks = ("Slip the belt off the drum's wheel first, turning it; take the motor's weight before the last bolt.",)
    repair_minutes = 40.0

    ratings = NoRatings

    def pins(self, ratings: NoRatings) -> tuple[Pin, ...]:
        """Return the points that a probe can touch."""
        return (
            Pin("u", "phase U"),
            Pin("v", "phase V"),
            Pin("w", "phase W"),
            Pin("pe", "frame"),
        )

    def elements(self, ratings: NoRatings, nominal: Nominal) -> tuple[Element, ...]:
        """Return what it is electrically."""
        return (
            load("u", "u", "star", nominal("uv") / 2, henry=0.01, chassis="pe"),
            load("v", "v", "star", nominal("uv") / 2, henry=0.01, chassis="pe"),
            load("w", "w", "star", nominal("uv") / 2, henry=0.01, chassis="pe"),
        )

    def tests(self, ratings: NoRatings) -> tuple[TestSpec, ...]:
        """Return its tests, the usual one first."""
        return (
            *(_winding(a, b) for a, b in (("u", "v"), ("v", "w"), ("w", "u"))),
            to_earth(
                ("u", "pe"),
                (),
                "Its plug off the inverter: never 500 V into a connected one. Discharge after.",
                aliases=("frame", "insulation"),
            ),
        )


def _winding(a: str, b: str) -> TestSpec:
    """Build the test of one pair of phases."""
    return TestSpec(
        name=f"{a}{b}",
        title=f"winding {a.upper()} to {b.upper()}",
        between=(a, b),
        function=Function.OHM,
        expect=common(2.0, 20.0, Unit.OHM, "2–20 Ω, all three alike within ±5 %"),
        state=MachineState.PLUG_PULLED,
        copper=True,
        minutes=0.7,
    )


KIND = ThreePhaseMotor()
