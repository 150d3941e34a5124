"""A flow meter: pulses while water runs."""

from __future__ import annotations

from ohmcensus.core.meter import Function
from ohmcensus.core.parts.build import fixed, live_at_ground, sensor
from ohmcensus.core.parts.element import resistor
from ohmcensus.core.parts.expect import common
from ohmcensus.core.parts.fault import FaultMode
from ohmcensus.core.parts.kind import Pin, Role
from ohmcensus.core.quantity import Unit
from ohmcensus.core.symptom import Symptom

KIND = sensor(
    "flow_meter",
    "Flow meter",
    Role.SENSOR,
    (Pin("out", "output", may_be_free=True),),
    resistor("input", "vcc", "gnd", 4700.0, is_linear=False),
    fixed(
        live_at_ground(
            "pulses",
            "pulses while water runs",
            "out",
            common(5.0, 200.0, Unit.HERTZ, "5–200 Hz while water runs; count them for one measured litre"),
            Function.HERTZ,
            advice="Fill one measured litre: the sheet says how many pulses, ±5 %.",
        ),
    ),
    priors={FaultMode.OPEN: 0.3, FaultMode.DRIFT: 0.2},
    explains={Symptom.NO_WATER: 0.1, Symptom.STOPS: 0.1, Symptom.CODE: 0.15, Symptom.LEAKS: 0.05},
)
