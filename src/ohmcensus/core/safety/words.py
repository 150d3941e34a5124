"""Names of the dangers and of the states, and the words for them."""

from __future__ import annotations

from enum import StrEnum

from ohmcensus.core.meter import Function


class SafetyState(StrEnum):
    """What is established about voltage on the machine."""

    NOT_PROVED = "not_proved"
    DEAD = "dead"
    LIVE = "live"
    UNDER_VOLTAGE = "under_voltage"


class DangerId(StrEnum):
    """A danger to people that stands until a reading shows that it does not."""

    SHOCK = "shock"
    TRIP = "trip"
    BURNT_SMELL = "burnt_smell"
    WATER_INSIDE = "water_inside"
    EARTH = "earth"
    INSULATION = "insulation"
    CORD = "cord"
    BYPASS = "bypass"
    CONTACT = "contact"
    DRY = "dry"
    CHARGE = "charge"
    LIVE_THOUGH_FORBIDDEN = "live_though_forbidden"

    @property
    def words(self) -> str:
        """The danger in words."""
        return _DANGER_WORDS[self]


class Forbidden(StrEnum):
    """What a danger may forbid."""

    POWER = "power"
    CYCLE = "cycle"
    SIGN_OFF = "sign_off"
    READING = "reading"

    @property
    def words(self) -> str:
        """The same in words."""
        return _ACT_WORDS[self]


_DANGER_WORDS = {
    DangerId.SHOCK: "gave a shock or tingle",
    DangerId.TRIP: "tripped a protective device",
    DangerId.BURNT_SMELL: "smells burnt",
    DangerId.WATER_INSIDE: "water inside",
    DangerId.EARTH: "the earth does not hold",
    DangerId.INSULATION: "insulation to earth failed",
    DangerId.CORD: "cord or plug is bad",
    DangerId.BYPASS: "an interlock is bypassed",
    DangerId.CONTACT: "a contact is closed that should be open",
    DangerId.DRY: "heated without water",
    DangerId.CHARGE: "a stored charge does not bleed off",
    DangerId.LIVE_THOUGH_FORBIDDEN: "under voltage although that is forbidden",
}
_ACT_WORDS = {
    Forbidden.POWER: "no power",
    Forbidden.CYCLE: "no test cycle, no watched run",
    Forbidden.SIGN_OFF: "it does not go out as safe",
    Forbidden.READING: "no reading, leak test or run but the outlet and the proof of dead",
}
# What each danger forbids while it stands; every one keeps the machine from going out as safe.
FORBIDS = {
    DangerId.SHOCK: (Forbidden.POWER, Forbidden.SIGN_OFF),
    DangerId.TRIP: (Forbidden.POWER, Forbidden.SIGN_OFF),
    DangerId.BURNT_SMELL: (Forbidden.POWER, Forbidden.SIGN_OFF),
    DangerId.WATER_INSIDE: (Forbidden.POWER, Forbidden.SIGN_OFF),
    DangerId.EARTH: (Forbidden.POWER, Forbidden.SIGN_OFF),
    DangerId.INSULATION: (Forbidden.POWER, Forbidden.SIGN_OFF),
    DangerId.CORD: (Forbidden.POWER, Forbidden.SIGN_OFF),
    DangerId.BYPASS: (Forbidden.CYCLE, Forbidden.SIGN_OFF),
    DangerId.CONTACT: (Forbidden.SIGN_OFF,),
    DangerId.DRY: (Forbidden.CYCLE, Forbidden.SIGN_OFF),
    DangerId.CHARGE: (Forbidden.SIGN_OFF,),
    DangerId.LIVE_THOUGH_FORBIDDEN: (Forbidden.POWER, Forbidden.READING, Forbidden.SIGN_OFF),
}
FUNCTION_WORDS = {
    Function.OHM: "ohms",
    Function.CONTINUITY: "continuity",
    Function.INSULATION: "insulation",
    Function.CAPACITANCE: "capacitance",
    Function.DIODE: "diode test",
}
