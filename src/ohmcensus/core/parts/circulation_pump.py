"""The circulation pump: a synchronous motor held by plastic, two wires."""

from __future__ import annotations

from collections.abc import Mapping
from typing import ClassVar

from ohmcensus.core.parts.coil import CoilKind
from ohmcensus.core.parts.fault import FaultMode
from ohmcensus.core.symptom import Symptom


class CirculationPump(CoilKind):
    """Turns water over while washing; fails as the drain pump does."""

    kind = "circulation_pump"
    title = "Circulation pump"
    at_230 = (100.0, 250.0, "100–250 Ω for a 230 V pump")
    at_120 = (10.0, 40.0, "10–40 Ω for a 120 V pump")
    priors: ClassVar[Mapping[FaultMode, float]] = {FaultMode.OPEN: 0.4, FaultMode.BAD_JOINT: 0.2}
    explains: ClassVar[Mapping[Symptom, float]] = {Symptom.NOISY: 0.1, Symptom.LEAKS: 0.15, Symptom.TRIPS: 0.06}


KIND = CirculationPump()
