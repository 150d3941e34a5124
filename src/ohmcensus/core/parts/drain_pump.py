"""The drain pump: a synchronous motor held by plastic, two wires."""

from __future__ import annotations

from ohmcensus.core.parts.coil import PUMP_AT_120, PUMP_AT_230, coil_kind
from ohmcensus.core.parts.fault import FaultMode
from ohmcensus.core.parts.kind import Brings, PartCheck
from ohmcensus.core.symptom import Symptom

KIND = coil_kind(
    "drain_pump",
    "Drain pump",
    PUMP_AT_230,
    PUMP_AT_120,
    brings=(Brings(FaultMode.SHORTED_TURNS, "control_board", FaultMode.OPEN),),
    priors={
        FaultMode.OPEN: 0.9,
        FaultMode.SHORT: 0.2,
        FaultMode.LEAK: 0.15,
        FaultMode.BAD_JOINT: 0.3,
    },
    checks=(PartCheck("impeller", "Impeller, turned by hand", "blocked, loose on its shaft", mechanical=0.8),),
    repair="clear or replace the pump",
    repair_minutes=25.0,
    explains={
        Symptom.NO_DRAIN: 0.55,
        Symptom.NO_SPIN: 0.2,
        Symptom.NOISY: 0.2,
        Symptom.LEAKS: 0.15,
        Symptom.TRIPS: 0.08,
        Symptom.CODE: 0.15,
        Symptom.HUMS: 0.15,
    },
    tools=("tray and wet vacuum",),
    tricks=(
        "Turn the impeller by hand through the filter: it steps from pole to pole, and is stiff only when seized.",
        "Note which way the hose's ears point: they foul the cover otherwise.",
    ),
    cautions=("The sump behind the drain filter holds a bucketful.",),
)
