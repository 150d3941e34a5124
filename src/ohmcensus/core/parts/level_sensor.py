"""A pressure sensor that answers with a frequency."""

from __future__ import annotations

from collections.abc import Mapping
from typing import ClassVar

from ohmcensus.core.meter import Function
from ohmcensus.core.parts.element import Element, resistor
from ohmcensus.core.parts.expect import common
from ohmcensus.core.parts.fault import FaultMode
from ohmcensus.core.parts.kind import MachineState, Nominal, NoRatings, PartCheck, PartKind, Pin, TestSpec
from ohmcensus.core.quantity import Unit
from ohmcensus.core.symptom import Symptom


class LevelSensor(PartKind[NoRatings]):
    """Level sensor, analogue: its points, how it fails, what is measured on it."""

    kind = "level_sensor"
    title = "Level sensor, analogue"
    fault_modes = (
        FaultMode.OPEN,
        FaultMode.DRIFT,
        FaultMode.BAD_JOINT,
    )
    priors: ClassVar[Mapping[FaultMode, float]] = {FaultMode.OPEN: 0.3, FaultMode.DRIFT: 0.5, FaultMode.BAD_JOINT: 0.3}
    explains: ClassVar[Mapping[Symptom, float]] = {
        Symptom.NO_TURN: 0.1,
        Symptom.OVERHEATS: 0.15,
        Symptom.NO_HEAT: 0.1,
        Symptom.LEAKS: 0.15,
        Symptom.STOPS: 0.1,
        Symptom.CODE: 0.2,
        Symptom.NO_SPIN: 0.1,
    }
    repair = "replace it"
    repair_minutes = 15.0

    checks = (PartCheck("tube", "Air tube and trap", "off, holed, water or fluff in it"),)

    ratings = NoRatings

    def pins(self, ratings: NoRatings) -> tuple[Pin, ...]:
        """Return the points that a probe can touch."""
        return (
            Pin("vcc", "supply"),
            Pin("gnd", "ground"),
            Pin("out", "output", may_be_free=True),
        )

    def elements(self, ratings: NoRatings, nominal: Nominal) -> tuple[Element, ...]:
        """Return what it is electrically."""
        return (resistor("input", "vcc", "gnd", 2200.0, is_linear=False),)

    def tests(self, ratings: NoRatings) -> tuple[TestSpec, ...]:
        """Return its tests, the usual one first."""
        return (
            TestSpec(
                name="frequency",
                title="frequency, tub empty",
                between=("out", "gnd"),
                function=Function.HERTZ,
                expect=common(20e3, 50e3, Unit.HERTZ, "20–50 kHz by type, falls as water rises"),
                state=MachineState.LIVE,
                advice="Blow gently into the tube: it falls, and holds for a minute.",
            ),
        )


KIND = LevelSensor()
