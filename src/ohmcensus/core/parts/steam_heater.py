"""The heater of the steam generator: as the one in the tub, from its own plate."""

from __future__ import annotations

from dataclasses import replace

from ohmcensus.core.parts.heater import KIND as HEATER
from ohmcensus.core.parts.kind import Heats
from ohmcensus.core.symptom import Symptom

KIND = replace(
    HEATER,
    kind="steam_heater",
    title="Steam heater",
    traits=replace(HEATER.traits, heats=Heats.ELSEWHERE, governs_heat=False),
    brings=(),
    explains={Symptom.TRIPS: 0.4, Symptom.NO_HEAT: 0.1, Symptom.SHOCK: 0.1},
)
