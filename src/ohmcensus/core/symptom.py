"""What a machine does wrong, in the words of the trade: what a customer says, sorted."""

from __future__ import annotations

from enum import StrEnum


class Symptom(StrEnum):
    """What the machine does, or does not do."""

    DEAD = "dead"
    NO_START = "no_start"
    HUMS = "hums"
    NO_TURN = "no_turn"
    NO_SPIN = "no_spin"
    NO_DRAIN = "no_drain"
    NO_HEAT = "no_heat"
    OVERHEATS = "overheats"
    NO_LOCK = "no_lock"
    NO_OPEN = "no_open"
    STOPS = "stops"
    TRIPS = "trips"
    CODE = "code"
    NOISY = "noisy"
    NO_WATER = "no_water"
    OVERFILLS = "overfills"
    LEAKS = "leaks"
    SMELLS = "smells"
    SHOCK = "shock"

    @property
    def words(self) -> str:
        """The symptom as a person says it."""
        return _SYMPTOM_WORDS[self]


_SYMPTOM_WORDS = {
    Symptom.DEAD: "dead",
    Symptom.NO_START: "lights but will not start",
    Symptom.HUMS: "hums, does not turn",
    Symptom.NO_TURN: "fills, no turn",
    Symptom.NO_SPIN: "turns, no spin",
    Symptom.NO_DRAIN: "no drain",
    Symptom.NO_HEAT: "no heat",
    Symptom.OVERHEATS: "overheats, or heats when it should not",
    Symptom.NO_LOCK: "door will not lock",
    Symptom.NO_OPEN: "door will not open",
    Symptom.STOPS: "stops mid-cycle",
    Symptom.TRIPS: "trips",
    Symptom.CODE: "shows a code",
    Symptom.NOISY: "noisy",
    Symptom.NO_WATER: "takes no water, or slowly",
    Symptom.OVERFILLS: "overfills, or fills when off",
    Symptom.LEAKS: "leaks water",
    Symptom.SMELLS: "smells burnt",
    Symptom.SHOCK: "gives a shock or tingle",
}


class Device(StrEnum):
    """Protective device that went."""

    RCD = "rcd"
    BREAKER = "breaker"
    RCBO = "rcbo"
    GFCI = "gfci"
    AFCI = "afci"
    FUSE = "fuse"
    UNKNOWN = "unknown"

    @property
    def words(self) -> str:
        """The device as it is written on the board."""
        return _DEVICE_WORDS[self]


_DEVICE_WORDS = {
    Device.RCD: "RCD (residual current)",
    Device.BREAKER: "breaker (overcurrent)",
    Device.RCBO: "combined RCBO",
    Device.GFCI: "GFCI, 120 V",
    Device.AFCI: "AFCI, 120 V",
    Device.FUSE: "plug or board fuse",
    Device.UNKNOWN: "not known which",
}


class Moment(StrEnum):
    """When it went: what stood at line potential by then."""

    PLUGGING_IN = "plugging_in"
    SWITCHING_ON = "switching_on"
    START = "start"
    FILLING = "filling"
    HEATING = "heating"
    TURNING = "turning"
    DRAINING = "draining"
    HOT_ONLY = "hot_only"
    AFTER_REST = "after_rest"
    RANDOM = "random"
    UNKNOWN = "unknown"

    @property
    def words(self) -> str:
        """The moment as a person says it."""
        return _MOMENT_WORDS[self]


_MOMENT_WORDS = {
    Moment.PLUGGING_IN: "on plugging in, machine off",
    Moment.SWITCHING_ON: "on switching on",
    Moment.START: "on pressing start, as the door locks",
    Moment.FILLING: "on filling",
    Moment.HEATING: "when heat is called, minutes in",
    Moment.TURNING: "when the drum turns or spins",
    Moment.DRAINING: "on draining",
    Moment.HOT_ONLY: "only when hot",
    Moment.AFTER_REST: "only after a rest",
    Moment.RANDOM: "at random, with no pattern",
    Moment.UNKNOWN: "not known when",
}
