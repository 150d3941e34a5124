"""Power and danger: cut off, plugged in, worked live, and what was found on the way."""

from __future__ import annotations

from enum import StrEnum
from typing import Annotated, Literal

from pydantic import Field, StrictBool

from ohmcensus.core.event.record import Name, Record, Said, Words

Minutes = Annotated[int, Field(ge=1, le=30, strict=True)]


class Hazard(StrEnum):
    """A danger to people that is open until something shows that it is not."""

    SHOCK = "shock"
    TRIP = "trip"
    BURNT_SMELL = "burnt_smell"
    WATER_INSIDE = "water_inside"
    BYPASS = "bypass"
    EARTH_OFF = "earth_off"

    @property
    def words(self) -> str:
        """The hazard in words."""
        return _HAZARD_WORDS[self]


_HAZARD_WORDS = {
    Hazard.SHOCK: "gave a shock or tingle",
    Hazard.TRIP: "tripped a protective device",
    Hazard.BURNT_SMELL: "smells burnt",
    Hazard.WATER_INSIDE: "water inside",
    Hazard.BYPASS: "an interlock is bypassed",
    Hazard.EARTH_OFF: "an earth wire is off",
}


class Isolated(Record):
    """The machine was cut off: the plug in sight, or the supply locked off."""

    kind: Literal["isolated"] = "isolated"
    how: Literal["unplugged", "locked_off"] = "unplugged"


class PluggedIn(Record):
    """The plug is in again, panels shut."""

    kind: Literal["plugged_in"] = "plugged_in"


class LiveBegun(Record):
    """Work on the open machine under voltage, for a stated reason and a stated time."""

    kind: Literal["live_begun"] = "live_begun"
    reason: Said
    stays_connected: Words = ""
    minutes: Minutes = 10


class LiveEnded(Record):
    """The technician left live mode."""

    kind: Literal["live_ended"] = "live_ended"


class Opened(Record):
    """A panel came off."""

    kind: Literal["opened"] = "opened"
    panel: Name


class StepTicked(Record):
    """A step of making safe was done, or was not after all."""

    kind: Literal["step_ticked"] = "step_ticked"
    step: Name
    is_done: StrictBool = True


class Attended(Record):
    """Somebody is still at the machine."""

    kind: Literal["attended"] = "attended"


class HazardFound(Record):
    """A danger was seen, smelt or felt."""

    kind: Literal["hazard_found"] = "hazard_found"
    hazard: Hazard
    words: Words = ""


class BypassRemoved(Record):
    """A bypassed interlock works again."""

    kind: Literal["bypass_removed"] = "bypass_removed"
    words: Said


class EarthLifted(Record):
    """The earth wire of a part is off, so that the part floats while it is tested."""

    kind: Literal["earth_lifted"] = "earth_lifted"
    part: Name


class EarthRefitted(Record):
    """The earth wire of a part is back; a reading of earth continuity after it shows that it holds."""

    kind: Literal["earth_refitted"] = "earth_refitted"
    part: Name
