"""The circulation pump: a synchronous motor held by plastic, two wires."""

from __future__ import annotations

from ohmcensus.core.parts.coil import PUMP_AT_120, PUMP_AT_230, coil_kind
from ohmcensus.core.parts.fault import FaultMode
from ohmcensus.core.symptom import Symptom

KIND = coil_kind(
    "circulation_pump",
    "Circulation pump",
    PUMP_AT_230,
    PUMP_AT_120,
    priors={FaultMode.OPEN: 0.4, FaultMode.BAD_JOINT: 0.2},
    explains={Symptom.NOISY: 0.1, Symptom.LEAKS: 0.15, Symptom.TRIPS: 0.06},
)
