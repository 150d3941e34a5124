"""The heater in the air channel of a washer-dryer: as the one in the tub, from its own plate."""

from __future__ import annotations

from dataclasses import replace

from ohmcensus.core.parts.heater import KIND as HEATER
from ohmcensus.core.parts.kind import Heats
from ohmcensus.core.symptom import Symptom

KIND = replace(
    HEATER,
    kind="dryer_heater",
    title="Dryer heater",
    traits=replace(HEATER.traits, heats=Heats.ELSEWHERE, governs_heat=False),
    brings=(),
    explains={Symptom.TRIPS: 0.4, Symptom.NO_HEAT: 0.3, Symptom.SMELLS: 0.15, Symptom.OVERHEATS: 0.1},
)
