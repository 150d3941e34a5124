"""The rotor position sensor of a direct drive: three outputs that toggle as the rotor is turned."""

from __future__ import annotations

from ohmcensus.core.parts.build import output_test, sensor, supply_test
from ohmcensus.core.parts.element import resistor
from ohmcensus.core.parts.expect import LowSupply
from ohmcensus.core.parts.fault import FaultMode
from ohmcensus.core.parts.kind import Pin, Role, TestSpec
from ohmcensus.core.symptom import Symptom

_OUTPUTS = (1, 2, 3)
_TURN = "A live test at low voltage: no earthed instrument. Turn the rotor slowly; three never all alike at 120°."


def _tests(ratings: LowSupply) -> tuple[TestSpec, ...]:
    outputs = (
        output_test(f"h{number}", f"output {number}, rotor turned by hand", f"h{number}", ratings, _TURN)
        for number in _OUTPUTS
    )
    return (supply_test(ratings), *outputs)


KIND = sensor(
    "rotor_position_sensor",
    "Rotor position sensor",
    Role.SENSOR,
    tuple(Pin(f"h{number}", f"output {number}", may_be_free=True) for number in _OUTPUTS),
    resistor("supply", "vcc", "gnd", 1500.0, is_linear=False),
    _tests,
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
