"""The heater of the steam generator: as the one in the tub, from its own plate."""

from __future__ import annotations

from collections.abc import Mapping
from typing import ClassVar

from ohmcensus.core.parts.heater import Heater
from ohmcensus.core.symptom import Symptom


class SteamHeater(Heater):
    """A heater with a plate of its own."""

    kind = "steam_heater"
    title = "Steam heater"
    explains: ClassVar[Mapping[Symptom, float]] = {Symptom.TRIPS: 0.4, Symptom.NO_HEAT: 0.1, Symptom.SHOCK: 0.1}


KIND = SteamHeater()
