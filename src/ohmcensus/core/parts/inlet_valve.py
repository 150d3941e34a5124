"""A water inlet valve: one coil, two wires, held by plastic."""

from __future__ import annotations

from ohmcensus.core.parts.coil import VALVE_AT_120, VALVE_AT_230, coil_kind
from ohmcensus.core.parts.fault import FaultMode
from ohmcensus.core.parts.kind import PartCheck
from ohmcensus.core.symptom import Symptom

KIND = coil_kind(
    "inlet_valve",
    "Inlet valve",
    VALVE_AT_230,
    VALVE_AT_120,
    alike="coil",
    priors={
        FaultMode.OPEN: 0.8,
        FaultMode.BAD_JOINT: 0.2,
        FaultMode.LEAK: 0.1,
    },
    checks=(PartCheck("sieve", "Inlet sieve", "sand or scale in it", mechanical=0.6),),
    repair="replace the valve",
    tricks=(
        "Plastic threads are begun by hand, backwards until they drop, then on: a crossed one strips.",
        "The sieve behind the hose comes out with flat grips, straight.",
    ),
    repair_minutes=15.0,
    explains={
        Symptom.NO_WATER: 0.5,
        Symptom.OVERFILLS: 0.3,
        Symptom.LEAKS: 0.1,
        Symptom.NO_START: 0.05,
        Symptom.STOPS: 0.1,
        Symptom.CODE: 0.1,
    },
    tools=("grips for the fill hoses",),
)
