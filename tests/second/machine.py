"""The two machines by hand: what proves them dead, what each figure says of its line, what is behind what."""

from __future__ import annotations

from dataclasses import dataclass

from tests.second.log import Log, last, remembered

SUPPLY = ("dead ln", "dead le", "dead ne")
GOOD_POINTS = {"dead ln": "0.2", "dead le": "0.1", "dead ne": "0.1", "dead filter": "0.3", "dead drive": "0.3"}
SOURCE, DIRECT = "source 231", "source dc 9.3"
SERIES = {
    "fl7-u": (SOURCE, "dead ln 0.2", "dead le 0.1", "dead ne 0.1", "dead filter 0.3", SOURCE),
    "fl9-t": (SOURCE, "dead ln 0.2", "dead le 0.1", "dead ne 0.1", DIRECT, "dead filter 0.3", "dead drive 0.3", SOURCE),
}
POINTS = {"fl7-u": (*SUPPLY, "dead filter"), "fl9-t": (*SUPPLY, "dead filter", "dead drive")}
# Charges over 0.35 J, which ask a source of direct voltage and forbid every reason until they are read.
BIG = {"fl7-u": frozenset[str](), "fl9-t": frozenset({"dead drive"})}
# The line of each figure, and how bad it is: 0 keeps every limit, 1 breaks the stricter ones, 2 breaks every one.
LINES = {
    "cord pe 0.08": ("cord.pe", 0),
    "cord pe 0.2": ("cord.pe", 1),
    "cord pe >20": ("cord.pe", 2),
    "cord insulation 50M": ("whole", 0),
    "cord insulation 0.6M": ("whole", 1),
    "cord insulation 0.02M": ("whole", 2),
    "heater earth 0.08": ("heater.earth", 0),
    "filter earth 0.08": ("filter.earth", 0),
    "cord insulation >299M at 250 V": ("whole", 0),
    "heater pe 50M": ("heater.pe", 0),
    "heater pe 0.02M": ("heater.pe", 2),
    "motor pe 50M": ("motor.pe", 0),
    "steam pe 50M": ("steam.pe", 0),
    "steam pe 0.02M": ("steam.pe", 2),
    "cord l 0.2": ("cord.l", 0),
    "cord l 2.4": ("cord.l", 2),
    "cord n 0.3": ("cord.n", 0),
    "cord across 640k": ("across", 0),
    "cord across 0.3": ("across", 2),
    "lock unlocked OL": ("lock.unlocked", 0),
    "lock unlocked 0.3": ("lock.unlocked", 2),
    "board relay OL": ("board.relay", 0),
    "board relay 0.2": ("board.relay", 2),
    "outlet amps_drain 0.8": ("outlet.amps_drain", 0),
    "outlet amps_drain 9.4": ("outlet.amps_drain", 2),
    "outlet 231": ("outlet.ln", 0),
    "outlet le 231": ("outlet.le", 0),
    "outlet le 2": ("outlet.le", 0),
    "outlet ne 0.4": ("outlet.ne", 0),
    "outlet ne 231": ("outlet.ne", 0),
    "level empty 0.2": ("level.empty", 0),
    "level rest OL": ("level.rest", 0),
    "level full 0.2": ("level.full", 0),
    "level left OL": ("level.left", 0),
}
LEVELS = ("level.empty", "level.rest", "level.full", "level.left")
OUTLET = frozenset({"outlet.ln", "outlet.le", "outlet.ne"})
# Which danger a line opens when it is bad; whose part it is.
OPENS = {
    "cord.pe": "earth",
    "heater.earth": "earth",
    "whole": "insulation",
    "heater.pe": "insulation",
    "steam.pe": "insulation",
    "cord.l": "cord",
    "lock.unlocked": "bypass",
    "board.relay": "contact",
    "outlet.amps_drain": "contact",
}
PART = {"steam.pe": "steam", "heater.pe": "heater", "heater.earth": "heater"}
INSULATION = frozenset({"whole", "heater.pe", "motor.pe", "steam.pe"})
AT_PLUG = frozenset({"cord.pe", "whole"})
# What the plug does not see, so that it is read by itself.
HIDDEN = {"fl7-u": (), "fl9-t": ("motor.pe",)}


@dataclass(frozen=True)
class Terms:
    """What holds at a moment: the machine, whether it has no earth, whether the firm's stricter limits hold."""

    sheet: str = "fl7-u"
    is_two: bool = False
    is_strict: bool = False


TERMS = {
    "it is fl7-u": Terms(),
    "it is fl9-t": Terms("fl9-t"),
    "it is class II": Terms(is_two=True),
    "stricter limits": Terms(is_strict=True),
}


@remembered
def terms(log: Log) -> Terms:
    """Return what holds after a log."""
    place = last(log, *TERMS)
    return Terms() if place < 0 else TERMS[log[place].what]


def is_known(line: str, held: Terms) -> bool:
    """Tell whether a line is on the sheet that holds."""
    return held.sheet == "fl9-t" if line in {"motor.pe", "steam.pe"} else held.sheet == "fl7-u" or line not in LEVELS


def is_kept(text: str, held: Terms) -> bool:
    """Tell whether a figure keeps its limit: the stricter ones are the firm's, and 2 megohm of class II."""
    line, bad = LINES[text]
    is_stricter = held.is_strict or (held.is_two and line == "whole")
    return bad == 0 or (bad == 1 and not is_stricter)
