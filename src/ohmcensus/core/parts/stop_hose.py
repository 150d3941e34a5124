"""The stop hose: a valve at the tap with a coil of its own."""

from __future__ import annotations

from collections.abc import Mapping
from typing import ClassVar

from ohmcensus.core.parts.coil import CoilKind
from ohmcensus.core.parts.fault import FaultMode
from ohmcensus.core.symptom import Symptom


class StopHose(CoilKind):
    """Shuts the water at the tap when the leak float lifts."""

    kind = "stop_hose"
    title = "Stop hose"
    at_230 = (2000.0, 5000.0, "2–5 kΩ for a 230 V valve")
    at_120 = (500.0, 1500.0, "0.5–1.5 kΩ for a 120 V valve")
    priors: ClassVar[Mapping[FaultMode, float]] = {FaultMode.OPEN: 0.3}
    explains: ClassVar[Mapping[Symptom, float]] = {Symptom.STOPS: 0.1, Symptom.NO_START: 0.05, Symptom.CODE: 0.1}


KIND = StopHose()
