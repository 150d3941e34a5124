"""The sensor that tells a direct drive where its rotor stands: three outputs that toggle."""

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


class RotorPositionSensor(PartKind[NoRatings]):
    """Rotor position sensor: its points, how it fails, what is measured on it."""

    kind = "rotor_position_sensor"
    title = "Rotor position sensor"
    fault_modes = (
        FaultMode.OPEN,
        FaultMode.DRIFT,
        FaultMode.BAD_JOINT,
    )
    priors: ClassVar[Mapping[FaultMode, float]] = {FaultMode.OPEN: 0.8, FaultMode.BAD_JOINT: 0.4}
    explains: ClassVar[Mapping[Symptom, float]] = {
        Symptom.NO_TURN: 0.35,
        Symptom.HUMS: 0.2,
        Symptom.NO_SPIN: 0.3,
        Symptom.CODE: 0.3,
        Symptom.NOISY: 0.05,
    }
    repair = "replace it"
    tricks = ("Its tongue snaps into the stator: bend the tongue, not the leads.",)
    repair_minutes = 15.0

    ratings = NoRatings

    def pins(self, ratings: NoRatings) -> tuple[Pin, ...]:
        """Return the points that a probe can touch."""
        return (
            Pin("vcc", "supply"),
            Pin("gnd", "ground"),
            Pin("h1", "output 1", may_be_free=True),
            Pin("h2", "output 2", may_be_free=True),
            Pin("h3", "output 3", may_be_free=True),
        )

    def elements(self, ratings: NoRatings, nominal: Nominal) -> tuple[Element, ...]:
        """Return what it is electrically."""
        return (resistor("supply", "vcc", "gnd", 1500.0, is_linear=False),)

    def tests(self, ratings: NoRatings) -> tuple[TestSpec, ...]:
        """Return its tests, the usual one first."""
        return (
            TestSpec(
                name="supply",
                title="supply",
                between=("vcc", "gnd"),
                function=Function.VOLTS_DC,
                expect=common(4.5, 15.5, Unit.VOLT, "5 or 12 V by type"),
                state=MachineState.LIVE,
                advice="A live test: the wiring counts as mains. No earthed instrument.",
            ),
            *(_output(number) for number in (1, 2, 3)),
        )


def _output(number: int) -> TestSpec:
    """Build the test of one output."""
    return TestSpec(
        name=f"h{number}",
        title=f"output {number}, rotor turned by hand",
        between=(f"h{number}", "gnd"),
        function=Function.VOLTS_DC,
        expect=common(0.5, 11.0, Unit.VOLT, "toggles: at neither rail while turned; three never all alike at 120°"),
        state=MachineState.LIVE,
    )


KIND = RotorPositionSensor()
