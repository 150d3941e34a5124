"""An analogue level sensor: a frequency that falls as the water rises."""

from __future__ import annotations

from dataclasses import replace

from ohmcensus.core.meter import Function
from ohmcensus.core.parts.build import SENSOR_MODES, live_at_ground, output_test, sensor, supply_test
from ohmcensus.core.parts.element import resistor
from ohmcensus.core.parts.expect import common
from ohmcensus.core.parts.fault import FaultMode
from ohmcensus.core.parts.kind import PartCheck, Pin, Role
from ohmcensus.core.quantity import Unit
from ohmcensus.core.symptom import Symptom

_MEAN = "A live test at low voltage: no earthed instrument. It swings too fast to follow: a meter shows its mean."

KIND = sensor(
    "level_sensor",
    "Level sensor, analogue",
    Role.LEVEL,
    (Pin("out", "output", may_be_free=True),),
    resistor("input", "vcc", "gnd", 2200.0, is_linear=False),
    lambda ratings: (
        live_at_ground(
            "frequency",
            "frequency, tub empty",
            "out",
            common(20e3, 50e3, Unit.HERTZ, "20–50 kHz by type, falls as water rises"),
            Function.HERTZ,
            advice="By mouth, gently, into the tube: it falls, and holds for a minute.",
        ),
        replace(supply_test(ratings), blind_to=SENSOR_MODES),
        output_test("output", "output, volts", "out", ratings, _MEAN, may_rest=True, blind_to=(FaultMode.DRIFT,)),
    ),
    priors={FaultMode.OPEN: 0.3, FaultMode.DRIFT: 0.5, FaultMode.BAD_JOINT: 0.3},
    explains={
        Symptom.NO_TURN: 0.1,
        Symptom.OVERHEATS: 0.15,
        Symptom.NO_HEAT: 0.1,
        Symptom.OVERFILLS: 0.35,
        Symptom.NO_WATER: 0.15,
        Symptom.LEAKS: 0.15,
        Symptom.STOPS: 0.1,
        Symptom.CODE: 0.2,
        Symptom.NO_SPIN: 0.1,
    },
    checks=(PartCheck("tube", "Air tube and trap", "off, holed, water or fluff in it", mechanical=0.5),),
)
