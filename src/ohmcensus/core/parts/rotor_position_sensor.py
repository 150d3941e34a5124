"""The rotor position sensor of a direct drive: three outputs that toggle as the rotor is turned."""

from __future__ import annotations

from ohmcensus.core.meter import Function
from ohmcensus.core.parts.build import SUPPLY_TEST, live_at_ground, sensor
from ohmcensus.core.parts.element import resistor
from ohmcensus.core.parts.expect import common
from ohmcensus.core.parts.fault import FaultMode
from ohmcensus.core.parts.kind import Pin, Role
from ohmcensus.core.quantity import Unit
from ohmcensus.core.symptom import Symptom

_OUTPUTS = (1, 2, 3)
_TOGGLES = common(0.5, 11.0, Unit.VOLT, "toggles: at neither rail while turned; three never all alike at 120°")

KIND = sensor(
    "rotor_position_sensor",
    "Rotor position sensor",
    Role.SENSOR,
    tuple(Pin(f"h{number}", f"output {number}", may_be_free=True) for number in _OUTPUTS),
    resistor("supply", "vcc", "gnd", 1500.0, is_linear=False),
    (
        SUPPLY_TEST,
        *(
            live_at_ground(
                f"h{number}", f"output {number}, rotor turned by hand", f"h{number}", _TOGGLES, Function.VOLTS_DC
            )
            for number in _OUTPUTS
        ),
    ),
    priors={FaultMode.OPEN: 0.8, FaultMode.BAD_JOINT: 0.4},
    explains={
        Symptom.NO_TURN: 0.35,
        Symptom.HUMS: 0.2,
        Symptom.NO_SPIN: 0.3,
        Symptom.CODE: 0.3,
        Symptom.NOISY: 0.05,
    },
    tricks=("Its tongue snaps into the stator: bend the tongue, not the leads.",),
)
