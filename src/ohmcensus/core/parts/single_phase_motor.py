"""A motor with a run and a start winding on one common point."""

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


class SinglePhaseMotor(PartKind[NoRatings]):
    """Motor with run and start winding: its points, how it fails, what is measured on it."""

    kind = "single_phase_motor"
    title = "Motor with run and start winding"
    fault_modes = (
        FaultMode.OPEN,
        FaultMode.SHORTED_TURNS,
        FaultMode.SHORT,
        FaultMode.LEAK,
        FaultMode.BAD_JOINT,
    )
    priors: ClassVar[Mapping[FaultMode, float]] = {
        FaultMode.OPEN: 0.6,
        FaultMode.SHORTED_TURNS: 0.5,
        FaultMode.LEAK: 0.4,
        FaultMode.BAD_JOINT: 0.4,
    }
    explains: ClassVar[Mapping[Symptom, float]] = {
        Symptom.NO_TURN: 0.4,
        Symptom.HUMS: 0.45,
        Symptom.NO_SPIN: 0.3,
        Symptom.TRIPS: 0.15,
        Symptom.SMELLS: 0.2,
        Symptom.NOISY: 0.15,
    }
    repair = "replace the motor"
    tricks = ("Take its weight before the last bolt: it drops on the belt side.",)
    repair_minutes = 40.0

    ratings = NoRatings

    def pins(self, ratings: NoRatings) -> tuple[Pin, ...]:
        """Return the points that a probe can touch."""
        return (
            Pin("c", "common"),
            Pin("run", "run"),
            Pin("start", "start"),
            Pin("pe", "frame"),
        )

    def elements(self, ratings: NoRatings, nominal: Nominal) -> tuple[Element, ...]:
        """Return what it is electrically."""
        return (
            load("run", "c", "run", nominal("run"), henry=0.03, chassis="pe"),
            load("start", "c", "start", nominal("start"), henry=0.04, chassis="pe"),
        )

    def tests(self, ratings: NoRatings) -> tuple[TestSpec, ...]:
        """Return its tests, the usual one first."""
        return (
            TestSpec(
                name="run",
                title="run winding",
                between=("c", "run"),
                function=Function.OHM,
                expect=common(1.0, 5.0, Unit.OHM, "1–5 Ω"),
                state=MachineState.PLUG_PULLED,
                copper=True,
                aliases=("main",),
            ),
            TestSpec(
                name="start",
                title="start winding",
                between=("c", "start"),
                function=Function.OHM,
                expect=common(2.0, 10.0, Unit.OHM, "2–10 Ω, more than the run winding"),
                state=MachineState.PLUG_PULLED,
                copper=True,
            ),
            to_earth(("c", "pe"), (), "Discharge after 500 V.", aliases=("frame", "insulation")),
        )


KIND = SinglePhaseMotor()
