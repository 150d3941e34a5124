"""A thermal fuse or thermostat: closed below its temperature."""

from __future__ import annotations

from collections.abc import Mapping
from typing import ClassVar

from ohmcensus.core.meter import Function
from ohmcensus.core.parts.element import Element, contact
from ohmcensus.core.parts.expect import closed_contact
from ohmcensus.core.parts.fault import FaultMode
from ohmcensus.core.parts.kind import MachineState, Nominal, NoRatings, PartKind, Pin, TestSpec
from ohmcensus.core.symptom import Symptom


class ThermalCutout(PartKind[NoRatings]):
    """Thermal cut-out: its points, how it fails, what is measured on it."""

    kind = "thermal_cutout"
    title = "Thermal cut-out"
    fault_modes = (
        FaultMode.OPEN,
        FaultMode.BAD_JOINT,
        FaultMode.WELDED,
    )
    priors: ClassVar[Mapping[FaultMode, float]] = {FaultMode.OPEN: 0.9, FaultMode.BAD_JOINT: 0.3}
    explains: ClassVar[Mapping[Symptom, float]] = {
        Symptom.NO_HEAT: 0.35,
        Symptom.DEAD: 0.1,
        Symptom.STOPS: 0.1,
        Symptom.OVERHEATS: 0.1,
    }
    repair = "replace it"
    repair_minutes = 15.0

    ratings = NoRatings

    def pins(self, ratings: NoRatings) -> tuple[Pin, ...]:
        """Return the points that a probe can touch."""
        return (
            Pin("a", "tag 1"),
            Pin("b", "tag 2"),
        )

    def elements(self, ratings: NoRatings, nominal: Nominal) -> tuple[Element, ...]:
        """Return what it is electrically."""
        return (contact("contact", "a", "b", None, ohm=0.03),)

    def tests(self, ratings: NoRatings) -> tuple[TestSpec, ...]:
        """Return its tests, the usual one first."""
        return (
            TestSpec(
                name="cold",
                title="contact, cold",
                between=("a", "b"),
                function=Function.OHM,
                expect=closed_contact(),
                state=MachineState.PLUG_PULLED,
                minutes=0.7,
                advice="Below its temperature; one that opened for good has done its work: find the heat.",
            ),
        )


KIND = ThermalCutout()
