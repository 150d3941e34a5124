"""The water temperature sensor: a resistor that falls as it warms."""

from __future__ import annotations

from dataclasses import replace

from pydantic import Field

from ohmcensus.core.meter import Function
from ohmcensus.core.parts.build import electronic, fixed
from ohmcensus.core.parts.element import Element, load
from ohmcensus.core.parts.fault import FaultMode
from ohmcensus.core.parts.kind import (
    MachineState,
    Nominal,
    PartKind,
    Pin,
    Ratings,
    Role,
    TestSpec,
)
from ohmcensus.core.physics.thermistor import ntc_resistance_ohm
from ohmcensus.core.quantity import Interval, Unit
from ohmcensus.core.quantity.window import Source, Window
from ohmcensus.core.symptom import Symptom


class NtcRatings(Ratings):
    """Resistance at 25 °C, beta constant, and tolerance in percent."""

    r25_ohm: float = Field(gt=0, le=1e7)
    beta_k: float = Field(gt=500, le=10_000)
    tolerance_percent: float = Field(default=5.0, gt=0, le=50)


def _elements(ratings: NtcRatings, nominal: Nominal) -> tuple[Element, ...]:
    """Return the sensor at the temperature of its test."""
    return (load("sensor", "a", "b", nominal("sensor")),)


def _tests(ratings: NtcRatings) -> tuple[TestSpec, ...]:
    """Return the sensor at the temperature it has."""

    def expect(celsius: float) -> Window:
        nominal = ntc_resistance_ohm(ratings.r25_ohm, ratings.beta_k, celsius)
        part = ratings.tolerance_percent / 100
        basis = (
            f"R25 {ratings.r25_ohm / 1000:g} kΩ, B {ratings.beta_k:g} K at {celsius:g} °C, "
            f"±{ratings.tolerance_percent:g} %"
        )
        return Window(Interval(1 - part, 1 + part).scaled(nominal), Unit.OHM, Source.PLATE, basis, nominal=nominal)

    return (
        TestSpec(
            name="sensor",
            title="sensor",
            between=("a", "b"),
            function=Function.OHM,
            expect=expect,
            blind_to=(FaultMode.LEAK, FaultMode.BAD_JOINT),
            aliases=("tags",),
            state=MachineState.PLUG_PULLED,
            minutes=0.7,
            advice="State the water's temperature: add 'at 21C'.",
        ),
    )


KIND = PartKind(
    kind="ntc",
    title="NTC sensor",
    traits=replace(electronic(Role.SENSOR), governs_heat=True),
    is_fed=False,
    fault_modes=(FaultMode.OPEN, FaultMode.SHORT, FaultMode.DRIFT, FaultMode.LEAK, FaultMode.BAD_JOINT),
    priors={
        FaultMode.OPEN: 0.5,
        FaultMode.DRIFT: 0.7,
        FaultMode.SHORT: 0.2,
    },
    repair="replace the sensor",
    tricks=("It is pulled out by its rim, never by its leads; a wet finger lets the rubber slide back in.",),
    repair_minutes=15.0,
    explains={
        Symptom.NO_HEAT: 0.15,
        Symptom.OVERHEATS: 0.3,
        Symptom.CODE: 0.15,
        Symptom.STOPS: 0.05,
    },
    ratings=NtcRatings,
    pins=fixed(Pin("a", "tag 1"), Pin("b", "tag 2")),
    elements=_elements,
    tests=_tests,
)
