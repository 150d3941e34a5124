"""The heater in the air channel of a washer-dryer: as the one in the tub, from its own plate."""

from __future__ import annotations

from collections.abc import Mapping
from typing import ClassVar

from ohmcensus.core.parts.heater import Heater
from ohmcensus.core.symptom import Symptom


class DryerHeater(Heater):
    """A heater with a plate of its own."""

    kind = "dryer_heater"
    title = "Dryer heater"
    explains: ClassVar[Mapping[Symptom, float]] = {
        Symptom.TRIPS: 0.4,
        Symptom.NO_HEAT: 0.3,
        Symptom.SMELLS: 0.15,
        Symptom.OVERHEATS: 0.1,
    }


KIND = DryerHeater()
