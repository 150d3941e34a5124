"""Power and danger: cut off, plugged in, worked live, and what was found on the way."""

from __future__ import annotations

from enum import StrEnum
from typing import Annotated, Literal

from pydantic import BeforeValidator, Field, StrictBool

from ohmcensus.core.event.record import Because, Name, Record, Said
from ohmcensus.core.event.strip import Over
from ohmcensus.core.text.trimmed import Words

Minutes = Annotated[int, Field(ge=1, le=30, strict=True)]


class Hazard(StrEnum):
    """A danger to people that is open until something shows that it is not."""

    SHOCK = "shock"
    TRIP = "trip"
    BURNT_SMELL = "burnt_smell"
    WATER_INSIDE = "water_inside"
    BYPASS = "bypass"
    EARTH_OFF = "earth_off"
    DRY = "dry"

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
    Hazard.DRY: "heated without water",
}


class CutOff(StrEnum):
    """How the machine was cut off."""

    UNPLUGGED = "unplugged"
    PLUG_IN_HAND = "plug_in_hand"
    LOCKED_OFF = "locked_off"
    SWITCHED_OFF = "switched_off"

    @property
    def words(self) -> str:
        """The cut-off in words."""
        return _CUT_OFF_WORDS[self]


_CUT_OFF_WORDS = {
    CutOff.UNPLUGGED: "unplugged, plug in sight",
    CutOff.PLUG_IN_HAND: "pulled plug in the hand, covers on",
    CutOff.LOCKED_OFF: "locked off in all poles",
    CutOff.SWITCHED_OFF: "switched off, notice hung, no lock to be had",
}


class Says(StrEnum):
    """What is stated before live work while a danger asks for it."""

    LID_SHUT = "lid_shut"
    HEATER_WIRES_OFF = "heater_wires_off"

    @property
    def words(self) -> str:
        """The statement."""
        return _SAYS_WORDS[self]


_SAYS_WORDS = {
    Says.LID_SHUT: "lid or door shut, nobody at the drum",
    Says.HEATER_WIRES_OFF: "wires of the heater off and insulated",
}


class When(StrEnum):
    """Whether something was seen on the powered machine now, or before it was cut off."""

    NOW = "now"
    BEFORE = "before"


def _listed(value: object) -> object:
    """Take one word for a list of one."""
    return (value,) if isinstance(value, str) else value


Statements = Annotated[tuple[Says, ...], BeforeValidator(_listed), Field(max_length=4)]


class Isolated(Record):
    """The machine was cut off, and how."""

    kind: Literal["isolated"] = "isolated"
    how: CutOff = CutOff.UNPLUGGED


class PluggedIn(Record):
    """The plug is in again, panels shut."""

    kind: Literal["plugged_in"] = "plugged_in"


class LiveBegun(Record):
    """Work on the open machine under voltage, for a stated reason and a stated time."""

    kind: Literal["live_begun"] = "live_begun"
    reason: Said
    stays_connected: Words = ""
    minutes: Minutes = 10
    says: Statements = ()


class LiveEnded(Record):
    """The technician left live mode."""

    kind: Literal["live_ended"] = "live_ended"


class Opened(Record):
    """A panel came off."""

    kind: Literal["opened"] = "opened"
    panel: Name


class Shut(Record):
    """A panel is on again; ``over`` names the part that stays off beneath it."""

    kind: Literal["shut"] = "shut"
    panel: Name
    over: Over | None = None


class FoundPowered(Record):
    """The machine stood under voltage all the same, though this record had been refused."""

    kind: Literal["found_powered"] = "found_powered"
    words: Words = ""


class HandsOff(Record):
    """Whoever proved the machine dead has the hands off it: another person may power it."""

    kind: Literal["hands_off"] = "hands_off"


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


class PlaceNoted(Record):
    """The place of a burnt smell was found, or the machine is dry again and where the water came from is noted."""

    kind: Literal["place_noted"] = "place_noted"
    hazard: Literal[Hazard.BURNT_SMELL, Hazard.WATER_INSIDE]
    part: Name | Literal[""] = ""
    words: Said


class NotedInError(Record):
    """A danger that was told, tapped or looked at was noted by mistake; one that was measured never is."""

    kind: Literal["noted_in_error"] = "noted_in_error"
    danger: Name
    because: Because


class OutletNamed(Record):
    """From here on another outlet is read: which."""

    kind: Literal["outlet_named"] = "outlet_named"
    words: Said


class Stamped(Record):
    """A plate or a stamp of a part was read."""

    kind: Literal["stamped"] = "stamped"
    part: Name
    rating: Name
    value: Annotated[float, Field(allow_inf_nan=False, strict=True)]


class BypassRemoved(Record):
    """A bypassed interlock works again."""

    kind: Literal["bypass_removed"] = "bypass_removed"
    words: Said


class Tried(StrEnum):
    """What the machine did as its interlock was tried."""

    NO_START = "no_start"
    STOPS = "stops"
    STARTS = "starts"

    @property
    def words(self) -> str:
        """The outcome in words."""
        return {"no_start": "it did not start", "stops": "it stopped", "starts": "it started"}[self.value]


class InterlockTried(Record):
    """The interlock was tried, hands off and the drum clear.

    Start was pressed with the door or lid open, or the lid was lifted while the drum turned slowly.
    """

    kind: Literal["interlock_tried"] = "interlock_tried"
    open: Literal["door", "lid"]
    outcome: Tried
    was: When | None = None


class EarthLifted(Record):
    """The earth wire of a part is off, so that the part floats while it is tested; or it was found off."""

    kind: Literal["earth_lifted"] = "earth_lifted"
    part: Name
    found: StrictBool = False


class EarthRefitted(Record):
    """The earth wire of a part is back; a reading of earth continuity after it shows that it holds."""

    kind: Literal["earth_refitted"] = "earth_refitted"
    part: Name
