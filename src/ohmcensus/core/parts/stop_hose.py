"""The stop hose: a valve at the tap with a coil of its own."""

from __future__ import annotations

from ohmcensus.core.parts.coil import VALVE_AT_120, VALVE_AT_230, coil_kind
from ohmcensus.core.parts.fault import FaultMode
from ohmcensus.core.symptom import Symptom

KIND = coil_kind(
    "stop_hose",
    "Stop hose",
    VALVE_AT_230,
    VALVE_AT_120,
    priors={FaultMode.OPEN: 0.3},
    explains={Symptom.NO_WATER: 0.4, Symptom.STOPS: 0.1, Symptom.NO_START: 0.05, Symptom.CODE: 0.1},
)
