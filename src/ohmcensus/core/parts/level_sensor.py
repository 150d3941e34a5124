"""An analogue level sensor: a frequency that falls as the water rises."""

from __future__ import annotations

from ohmcensus.core.meter import Function
from ohmcensus.core.parts.build import fixed, live_at_ground, sensor
from ohmcensus.core.parts.element import resistor
from ohmcensus.core.parts.expect import common
from ohmcensus.core.parts.fault import FaultMode
from ohmcensus.core.parts.kind import PartCheck, Pin, Role
from ohmcensus.core.quantity import Unit
from ohmcensus.core.symptom import Symptom

KIND = sensor(
    "level_sensor",
    "Level sensor, analogue",
    Role.LEVEL,
    (Pin("out", "output", may_be_free=True),),
    resistor("input", "vcc", "gnd", 2200.0, is_linear=False),
    fixed(
        live_at_ground(
            "frequency",
            "frequency, tub empty",
            "out",
            common(20e3, 50e3, Unit.HERTZ, "20–50 kHz by type, falls as water rises"),
            Function.HERTZ,
            advice="Blow gently into the tube: it falls, and holds for a minute.",
        ),
    ),
    priors={FaultMode.OPEN: 0.3, FaultMode.DRIFT: 0.5, FaultMode.BAD_JOINT: 0.3},
    explains={
        Symptom.NO_TURN: 0.1,
        Symptom.OVERHEATS: 0.15,
        Symptom.NO_HEAT: 0.1,
        Symptom.LEAKS: 0.15,
        Symptom.STOPS: 0.1,
        Symptom.CODE: 0.2,
        Symptom.NO_SPIN: 0.1,
    },
    checks=(PartCheck("tube", "Air tube and trap", "off, holed, water or fluff in it"),),
)
