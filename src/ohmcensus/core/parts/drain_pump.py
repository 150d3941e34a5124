"""The drain pump: a synchronous motor held by plastic, two wires."""

from __future__ import annotations

from collections.abc import Mapping
from typing import ClassVar

from ohmcensus.core.parts.coil import CoilKind
from ohmcensus.core.parts.fault import FaultMode
from ohmcensus.core.parts.kind import PartCheck
from ohmcensus.core.symptom import Symptom


class DrainPump(CoilKind):
    """Two wires in plastic: shorts line to neutral, leaks to earth only when wet."""

    kind = "drain_pump"
    title = "Drain pump"
    at_230 = (100.0, 250.0, "100–250 Ω for a 230 V pump")
    at_120 = (10.0, 40.0, "10–40 Ω for a 120 V pump")
    priors: ClassVar[Mapping[FaultMode, float]] = {
        FaultMode.OPEN: 0.9,
        FaultMode.SHORT: 0.2,
        FaultMode.LEAK: 0.15,
        FaultMode.BAD_JOINT: 0.3,
    }
    checks = (PartCheck("impeller", "Impeller, turned by hand", "blocked, loose on its shaft"),)
    repair = "clear or replace the pump"
    repair_minutes = 25.0
    explains: ClassVar[Mapping[Symptom, float]] = {
        Symptom.NO_DRAIN: 0.55,
        Symptom.NO_SPIN: 0.2,
        Symptom.NOISY: 0.2,
        Symptom.LEAKS: 0.15,
        Symptom.TRIPS: 0.08,
        Symptom.CODE: 0.15,
        Symptom.HUMS: 0.15,
    }
    tools = ("tray and wet vacuum",)
    tricks = (
        "Turn the impeller by hand through the filter: it steps from pole to pole, and is stiff only when seized.",
        "Note which way the hose's ears point: they foul the cover otherwise.",
    )
    cautions = ("The sump behind the drain filter holds a bucketful.",)


KIND = DrainPump()
