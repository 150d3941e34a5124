"""A turbine that counts the water."""

from __future__ import annotations

from collections.abc import Mapping
from typing import ClassVar

from ohmcensus.core.meter import Function
from ohmcensus.core.parts.element import Element, resistor
from ohmcensus.core.parts.expect import common
from ohmcensus.core.parts.fault import FaultMode
from ohmcensus.core.parts.kind import MachineState, Nominal, NoRatings, PartKind, Pin, TestSpec
from ohmcensus.core.quantity import Unit
from ohmcensus.core.symptom import Symptom


class FlowMeter(PartKind[NoRatings]):
    """Flow meter: its points, how it fails, what is measured on it."""

    kind = "flow_meter"
    title = "Flow meter"
    fault_modes = (
        FaultMode.OPEN,
        FaultMode.DRIFT,
        FaultMode.BAD_JOINT,
    )
    priors: ClassVar[Mapping[FaultMode, float]] = {FaultMode.OPEN: 0.3, FaultMode.DRIFT: 0.2}
    explains: ClassVar[Mapping[Symptom, float]] = {Symptom.STOPS: 0.1, Symptom.CODE: 0.15, Symptom.LEAKS: 0.05}
    repair = "replace it"
    repair_minutes = 15.0

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
        return (resistor("input", "vcc", "gnd", 4700.0, is_linear=False),)

    def tests(self, ratings: NoRatings) -> tuple[TestSpec, ...]:
        """Return its tests, the usual one first."""
        return (
            TestSpec(
                name="pulses",
                title="pulses while water runs",
                between=("out", "gnd"),
                function=Function.HERTZ,
                expect=common(5.0, 200.0, Unit.HERTZ, "5–200 Hz while water runs; count them for one measured litre"),
                state=MachineState.LIVE,
                advice="Fill one measured litre: the sheet says how many pulses, ±5 %.",
            ),
        )


KIND = FlowMeter()
