"""Scenes that a history is made of: each leads to where a rule decides, and chance disturbs it on the way.

``!`` before an act gives a reason with it, ``@phone`` after it sends it from the other device, a number waits so many
seconds.
"""

from __future__ import annotations

import random

from tests.second.acts import ACTS, LATER, LEAKS, READINGS
from tests.second.answers import MILD
from tests.second.histories import FRAMES, History
from tests.second.machine import DIRECT, SOURCE
from tests.second.machine import SERIES as SERIES_OF

Scene = tuple[str | int, ...]
SERIES = SERIES_OF["fl7-u"]
CUT: Scene = ("isolated", *SERIES)
CUT_9: Scene = ("isolated", *SERIES_OF["fl9-t"])
SHORT: Scene = ("isolated", SOURCE, "dead ln 0.2", "dead le 0.1", "dead ne 0.1", SOURCE)
PHONE: Scene = tuple(f"{act}@phone" for act in CUT)
EARTH, WHOLE = "cord pe 0.08", "cord insulation 50M"
GOOD: Scene = (EARTH, WHOLE)
OUTLET: Scene = ("outlet 231", "outlet le 231", "outlet ne 0.4")
CORES: Scene = ("cord l 0.2", "cord n 0.3")
NEW_HEATER: Scene = ("heater replaced", "heater earth 0.08", "heater pe 50M")
HAND: Scene = ("plug in hand", SOURCE, "dead ln 0.2")
LEVELS: Scene = ("level empty 0.2", "level rest OL", "level full 0.2", "level left OL")
FIRST: Scene = ("seen", "drum", *GOOD)
CURRENTS: Scene = ("current", "turned")
BEFORE: Scene = ("current before", "turned before")
LAST: Scene = ("joints", "codes good")
SAFE: Scene = ("ended safe",)
UNSAFE: Scene = ("ended unsafe",)
BACK: Scene = ("heater pe 0.02M", "tags off", WHOLE)
ON = "plugged in"
TOLD: tuple[Scene, ...] = (
    ("shock", ON, *CUT, *GOOD, ON, *OUTLET, ON),
    ("smell", *CUT, *GOOD, ON, "place noted", ON),
    ("water", *CUT, WHOLE, ON, "dried", ON, "dead ln 40"),
    ("tripped", "reclosed in", *CUT, EARTH, "reclosed in", "reclosed in"),
    ("tripped", "reclosed out", "reclosed out", *CUT, *GOOD, ON),
    ("tripped", *CUT, *GOOD, ON, "tripped", *CUT, *GOOD, ON, *NEW_HEATER, *GOOD, ON),
    ("breaker", *CUT, *GOOD, ON, "cord across 0.3", ON, "cord across 640k", ON),
    ("tripped", *CUT, EARTH, *BACK, ON, "tripped"),
    ("run trips", *CUT, *GOOD, "cord across 640k", ON),
    ("dry", "run", "interlock holds", "live begun", *CUT, *LEVELS, "run"),
    ("bypass found", "run", "live begun", *CUT, "lock unlocked OL", "bypass out", "interlock holds"),
    ("bypass found", *CUT, "bypass out", "lock unlocked OL", "interlock holds", "run"),
    ("bypass found", "bypass out", "live begun, lid shut", "bypass out", "opened"),
    (*CUT, "lock unlocked 0.3", "lock replaced", "lock unlocked OL", *GOOD, "interlock holds", "interlock starts"),
    (*CUT, "lock unlocked 0.3", 30, "slip", "lock unlocked OL", "run"),
    ("shock", "shock in error", *CUT, *GOOD, "shock in error", ON),
    ("tripped", "trip in error", ON, "trip in error", *CUT, "cord pe >20", "earth in error"),
)
MEASURED: tuple[Scene, ...] = (
    (*CUT, "cord pe >20", ON, EARTH, ON, *SAFE),
    (*CUT, "cord pe >20", EARTH, 61, EARTH, 61, EARTH, *SAFE),
    (*CUT, "cord pe >20", EARTH, "withdraw", ON),
    (*CUT, "cord insulation 0.02M", WHOLE, 61, WHOLE, 61, WHOLE, "withdraw"),
    (*CUT, EARTH, "worse", ON, EARTH, ON),
    (*CUT, "cord l 2.4", 30, "slip", *CORES, *GOOD, ON),
    (*CUT, "cord l 2.4", "cord replaced", ON, *CORES, EARTH, ON, WHOLE, ON),
    ("cord look bad", *CUT, "cord look good", "cord replaced", *CORES, *GOOD, ON),
    (*CUT, *BACK, "opened", ON, "shut", "shut over", ON, "tags back", *SAFE),
    (*CUT, "heater pe 0.02M", "heater replaced", ON, "heater earth 0.08", ON, "heater pe 50M", ON),
    (*CUT, "heater pe 0.02M", "heater replaced", "heater pe 50M", 130, "undo"),
    (*CUT, "earth off", "live begun", ON, "earth back", ON, "heater earth 0.08", *GOOD, ON),
    (*CUT, "earth off", WHOLE, ON, "earth back", "heater earth 0.08", "heater pe 50M", ON),
    ("earth off", "earth found off", "live begun, lid shut", "earth back", *CUT, "earth back"),
    (*CUT, "board relay 0.2", "board relay OL", 61, "board relay OL", 61, "board relay OL", *SAFE),
    (ON, "outlet amps_drain 9.4", "run", *CUT, *SAFE, "outlet amps_drain 0.8"),
    (ON, "outlet amps_drain 9.4", "outlet amps_drain 0.8", 61, "outlet amps_drain 0.8", 61, "outlet amps_drain 0.8"),
    ("outlet 231", "outlet le 2", ON, "outlet ne 231", ON),
    ("outlet 231", "outlet le 2", "outlet ne 0.4", ON, *OUTLET, ON),
    ("plug fixed", "outlet 231", "outlet le 2", ON, *OUTLET, ON),
    ("outlet 231", "outlet ne 231", "plug fixed", ON),
    (*CUT, "cord insulation 0.02M", "arrester", "lead off", WHOLE, ON, "lead back", ON, "filter earth 0.08", MILD, ON),
    ("shock", "arrester", *CUT, EARTH, MILD, *OUTLET, ON, *SAFE),
    ("arrester", *CUT, *NEW_HEATER, *FIRST, "lead off", WHOLE, "lead back", "filter earth 0.08", ON, *SAFE),
    (*CUT, "motor tacho_volts 0.8", ON, "motor tacho_volts 0.8"),
    (*CUT, "tags off", WHOLE, "cord insulation 0.02M", ON, "tags back", WHOLE),
    (*CUT, "cord insulation 0.02M", "barred", "tags off", WHOLE, ON),
    (*CUT, "leak test all 50M", "leak test all 0.02M", "leak test rest 50M", ON),
    ("tripped", *CUT, EARTH, "leak test all 50M", ON, "doubt", "board relay_on 231"),
    (ON, "shock", "board relay_on 231", *UNSAFE, *CUT, *UNSAFE),
    ("shock", "found powered", "heater 26", ON, *HAND),
    ("shock", *CUT, *OUTLET, *GOOD, "live begun", "withdraw", "board relay_on 231"),
    ("water", *CUT, "dried", WHOLE, ON, "withdraw", "outlet amps_drain 0.8"),
    (*CUT, *BACK, ON, "withdraw"),
)
PEOPLE: tuple[Scene, ...] = (
    (*CUT, "plugged in@phone", "hands off@phone", "attended@phone", "hands off", "plugged in@phone"),
    (*CUT, *PHONE, "plugged in@phone", ON, "hands off@phone", ON),
    (*CUT, 500, "isolated@phone", 200, "plugged in@phone", "attended@phone"),
    (*CUT, EARTH, 500, "withdraw@phone", 200, "heater 26"),
    ("isolated", "!heater 26@phone", "!heater 26", "!heater 26", f"!{WHOLE}", "heater 26"),
    ("isolated", 650, "!heater 26", "isolated", "!motor pe 50M", "!cord pe 0.2"),
    ("it is fl9-t", "isolated", "!heater 26", "dead drive 0.3", "!heater 26", *CUT_9, "motor pe 50M"),
    ("isolated", "dead filter 20", "!heater 26", "heater 26", 61, "dead filter 0.3", "!heater 26"),
    ("isolated", "dead filter 20", *SERIES, 61, *SERIES, "heater 26"),
    (*CUT, "dead ln 40", "heater 26", "isolated", "!heater 26", *SERIES),
    ("shock", *CUT, "isolated", "!cord pe 0.2@phone", ON),
    ("isolated", f"!{EARTH}", *OUTLET, "shock", 3, "!cord pe 0.2", ON),
    (*CUT, 605, "heater 26", *SHORT, "heater 26"),
    (*CUT, "dead ln 40", *SHORT, "heater 26"),
    ("switched off", *SERIES, WHOLE, "heater 26", 400, "attended", 250, "switched off", "!heater 26"),
    ("plug fixed", "locked off", *SERIES, WHOLE, "cord across 640k", EARTH),
    (*HAND, *GOOD, "heater 26", "opened", EARTH),
    ("opened", *HAND, EARTH, "shut", EARTH),
    ("plug in hand", EARTH, SOURCE, "dead ln 0.2", EARTH, 650, WHOLE),
    ("shock", *HAND, *GOOD, *OUTLET, ON),
    ("live begun", ON, "reclosed in", "interlock holds", "attended", "heater 26", 121, "live ended"),
    ("opened", "live begun", "board relay_on 231", "tags back", "live ended", "board relay_on 231", ON),
    ("live begun", "tags off", "live begun", "shock", "live begun", "board cleaned"),
    (ON, "opened", "board relay_on 231", "heater replaced", "board cleaned", "shut", ON),
    ("live begun", 119, "board relay_on 231", 2, "heater 26", ON, *UNSAFE),
)
TERMS: tuple[Scene, ...] = (
    (*CUT, "it is fl9-t", "heater 26", *SERIES_OF["fl9-t"], "motor pe 50M", "it is fl7-u", "heater 26"),
    ("shock", "it is class II", *CUT, WHOLE, ON, "it is fl7-u", ON, "isolated"),
    ("tripped", *CUT, *GOOD, "it is fl9-t", ON, *CUT_9, "motor pe 50M", ON),
    ("tripped", *CUT, EARTH, *BACK, "it is fl9-t", ON),
    ("it is fl9-t", *CUT_9, "steam pe 0.02M", "it is fl7-u", ON, WHOLE, ON),
    (*CUT, "cord pe 0.2", "stricter limits", ON, EARTH, ON),
    (*CUT, "stricter limits", "cord insulation 0.6M", "cord pe 0.2", ON, "it is fl7-u", *GOOD, ON),
    ("smell", *CUT, "place noted", "cord pe 0.2", WHOLE, ON, "stricter limits", "outlet 231"),
    ("serial A", "shock in error", ON, *CUT, *GOOD, *OUTLET, "heater pe 50M", ON),
    ("serial B", *CUT, "cord look good", *CORES, *GOOD, "board relay OL", ON, *SAFE),
    ("serial C", *CUT, "lock unlocked OL", EARTH, "interlock holds", "run", *SAFE),
    ("serial C", "it is fl9-t", *CUT_9, ON),
)
SIGNED: tuple[Scene, ...] = (
    (*CUT, *NEW_HEATER, *FIRST, ON, *CURRENTS, "run", *LAST, *SAFE),
    (*CUT, *NEW_HEATER, *FIRST, ON, "run", *CURRENTS, "isolated", *LAST, "opened", "shut", *SAFE, "seen", *SAFE),
    (*CUT, "opened", *NEW_HEATER, *FIRST, "shut", ON, *CURRENTS, "run", *LAST, "seen", *SAFE),
    ("shock", *CUT, *OUTLET, *FIRST, ON, "run", *CUT, *BEFORE, *LAST, *SAFE),
    ("shock", *CUT, *OUTLET, *FIRST, ON, *CURRENTS, "isolated", "run before", *LAST, *SAFE),
    (*CUT, *NEW_HEATER, *FIRST, ON, "isolated", "tags off", "tags back", *BEFORE, "run before", *SAFE),
    (*CUT, "tags off", "tags back", *FIRST, ON, "run", *SAFE, "isolated", "heater earth 0.08", *SAFE),
    (*CUT, "opened", *SAFE, "shut", *SAFE, "seen", *SAFE),
    ("live begun", *SAFE, *CUT, *SAFE, "tags off", *SAFE),
    (*CUT, "heater replaced", 20, "undo", ON, *SAFE),
    (*CUT, "heater replaced", 130, "undo", ON, *SAFE),
    (*CUT, "tags off", 130, "undo", *FIRST, ON, "run", *SAFE),
    (*CUT, "lock replaced", ON, WHOLE, *FIRST, ON, *CURRENTS, "run", *LAST, *SAFE),
    ("smell", *CUT, "place noted", *FIRST, ON, "outlet amps_drain 9.4", "run", *SAFE),
    ("water", *CUT, "dried", *FIRST, ON, *CURRENTS, "run", *LAST, *SAFE),
    ("it is class II", *CUT, "heater replaced", "heater pe 50M", *FIRST, ON, "touch", "run", *LAST, *SAFE),
    ("shock", *CUT, *OUTLET, *FIRST, ON, "run", "it is class II", *CUT, WHOLE, "touch before", *LAST, *SAFE),
    ("plug fixed", "smell", *CUT, "place noted", *FIRST, ON, "current", "run", *CUT, *LAST, *SAFE),
    ("it is fl9-t", "smell", *CUT_9, "place noted", *FIRST, "motor pe 50M", ON, *CURRENTS, "run", *LAST, *SAFE),
)
CLOSED: Scene = ("outlet amps_drain 9.4", "run")
OPEN_AGAIN: Scene = ("outlet amps_drain 0.8", 61, "outlet amps_drain 0.8", 61, "outlet amps_drain 0.8")
LATE: Scene = (*SERIES_OF["fl9-t"][:4], *SERIES_OF["fl9-t"][5:], "heater 26", DIRECT, SOURCE, "heater 26")
# Scenes of rules that few others lead to: each of them as often as five others.
SELDOM: tuple[Scene, ...] = (
    ("it is fl9-t", "isolated", *LATE),
    ("switched off", *SERIES, WHOLE, "heater 26", 400, "attended", 250, "switched off", "!heater 26"),
    ("isolated", f"!{EARTH}", *OUTLET, "shock", 3, "!cord pe 0.2", ON),
    ("isolated", *OUTLET, "shock", f"!{EARTH}", ON, *CUT, WHOLE, *OUTLET, ON),
    ("dry", "live begun", "isolated", *SERIES, *LEVELS, "run"),
    ("breaker", *CUT, *GOOD, "cord across 640k", ON),
    ("tripped", *CUT, *GOOD, ON, "tripped", *CUT, *GOOD, ON, *NEW_HEATER, *GOOD, ON),
    ("tripped", *CUT, EARTH, *BACK, ON, "tripped"),
    ("tripped", *CUT, EARTH, *BACK, "it is fl9-t", ON),
    ("smell", *CUT, "place noted", *FIRST, ON, *CLOSED, *OPEN_AGAIN, *CURRENTS, *LAST, *SAFE),
    (*CUT, *NEW_HEATER, *FIRST, ON, *CURRENTS, *CLOSED, *OPEN_AGAIN, *LAST, *SAFE),
    ("shock", "it is class II", *CUT, WHOLE, ON, "it is fl7-u", ON),
    ("it is class II", "shock", *CUT, "cord insulation 0.6M", ON, WHOLE, ON),
    (ON, "codes now", *CUT, "codes now"),
    (*CUT, "cord replaced", WHOLE, ON, *CORES, ON, EARTH, ON),
    (*CUT, "cord pe >20", EARTH, "withdraw", ON),
    (*CUT, "cord pe 0.2", "stricter limits", ON, EARTH, ON),
    (*CUT, "cord insulation 0.6M", "stricter limits", ON, WHOLE, ON),
    (*CUT, EARTH, 500, "withdraw@phone", 200, "heater 26"),
    (*CUT, "tags off", "tags back", *FIRST, ON, "run", *SAFE, "isolated", "heater earth 0.08", *SAFE),
    (*CUT, *BACK, "opened", "shut", "shut over", ON),
    (*CUT, "cord l 2.4", 30, "slip", *CORES, *GOOD, ON),
    ("shock", *CUT, *OUTLET, *FIRST, ON, "run", *CUT, *BEFORE, *LAST, *SAFE),
    ("shock", *CUT, *OUTLET, *FIRST, ON, *CURRENTS, "isolated", "run before", *LAST, *SAFE),
    (*CUT, "cord insulation 0.02M", "arrester", "lead off", WHOLE, "lead back", "filter earth 0.08", MILD, ON),
    (*CUT, "motor tacho_volts 0.8", ON, "motor tacho_volts 0.8"),
    ("bypass found", "live begun", *CUT, "bypass out", "lock unlocked OL", "interlock holds", "run"),
    ("shock", "found powered", "heater 26", ON, *HAND),
    ("water", *CUT, "dried", WHOLE, ON, "withdraw", "outlet amps_drain 0.8"),
    ("it is fl9-t", *CUT_9, "steam pe 0.02M", "it is fl7-u", ON, WHOLE, ON),
)
# The rules that a single wrong turn hides.
RAREST: tuple[Scene, ...] = (
    ("shock", *CUT, *OUTLET, *FIRST, ON, *CLOSED, *CURRENTS, *CUT, *OPEN_AGAIN, *LAST, *SAFE),
    (*CUT, "cord l 2.4", 30, "slip", *CORES, *GOOD, ON),
    (*CUT, "tags off", "tags back", *FIRST, ON, "run", *SAFE, *CUT, *SAFE),
    ("isolated", "dead filter 20", *SERIES, 61, *SERIES, "heater 26"),
    ("run trips", *CUT, *GOOD, "cord across 640k", ON, "run trips", *CUT, *GOOD, "cord across 640k", ON),
    (*CUT, "cord insulation 0.02M", WHOLE, "withdraw", ON),
    ("smell", *CUT, "place noted", EARTH, WHOLE, ON, "withdraw", "board relay_on 231"),
    ("it is fl9-t", "isolated", *LATE),
    ("breaker", *CUT, *GOOD, "cord across 640k", ON),
    (ON, "opened", "board relay_on 231", "shut", "board relay_on 231"),
    ("shock", "shock in error", *CUT, *GOOD, "shock in error", ON),
    ("serial A", "shock in error", *CUT, "cord pe >20", "earth in error"),
    ("dry", *CUT, *LEVELS, "run"),
    ("bypass found", *CUT, "bypass out", "lock unlocked OL", "interlock holds", "run"),
    ("shock", *CUT, *OUTLET, *FIRST, ON, "run", *CUT, *BEFORE, *LAST, *SAFE),
    (*CUT, "opened", *SAFE, "shut", *SAFE, "seen", *SAFE),
    (*CUT, *NEW_HEATER, *FIRST, "opened", "seen", ON, *SAFE, "shut", ON, *CURRENTS, "run", *LAST, *SAFE),
    ("tripped", *CUT, *GOOD, ON, "tripped", *CUT, *GOOD, ON, *NEW_HEATER, ON),
    (*CUT, *NEW_HEATER, *FIRST, ON, *CURRENTS, *CLOSED, *OPEN_AGAIN, *LAST, *SAFE),
    (*CUT, "tags off", "tags back", *FIRST, "heater earth 0.08", ON, *CLOSED, *OPEN_AGAIN, *SAFE),
    ("it is class II", "shock", *CUT, WHOLE, ON),
    (*CUT, "tags off", "tags back", *FIRST, ON, "run", *SAFE),
    (*CUT, "cord insulation 0.02M", "arrester", "lead off", WHOLE, "lead back", "filter earth 0.08", MILD, ON),
)
SCENES: tuple[Scene, ...] = (*TOLD, *MEASURED, *PEOPLE, *TERMS, *SIGNED, *(SELDOM * 5), *(RAREST * 6))
PLAIN = [name for name in (*ACTS, *LATER) if name not in {"ended unsafe", "ended safe", "reopened"}]
DISTURBED, FROM_FILE = 0.06, 0.02


def told(chance: random.Random) -> History:
    """Return one random history: one to three scenes, disturbed, and what comes to mind between them."""
    history = History()
    for _ in range(chance.choice((1, 2, 3, 3))):
        swapped = chance.random() < 0.1
        for act in chance.choice(SCENES):
            if history.parted:
                return history
            if chance.random() < DISTURBED:
                disturb(history, chance)
            elif isinstance(act, int):
                history.wait(act)
            else:
                play(history, act, chance, swapped=swapped)
    return history


def play(history: History, act: str, chance: random.Random, *, swapped: bool = False) -> None:
    """Let one act of a scene happen."""
    name, _, device = act.removeprefix("!").partition("@")
    if swapped:
        device = "" if device else "phone"
    is_ending = name.startswith("ended")
    from_file = chance.random() < FROM_FILE and not is_ending
    many = len(history.said)
    history.tell(name, override=act.startswith("!"), device=device, from_file=from_file)
    if is_ending and len(history.said) > many:
        history.tell("reopened", device=device)


def disturb(history: History, chance: random.Random) -> None:
    """Leave an act out, and let something else happen, time pass, or the clock be set back."""
    device, roll = chance.choice(["", "", "phone"]), chance.random()
    if roll < 0.3:
        history.tell(chance.choice(PLAIN), device=device, from_file=chance.random() < 0.2)
    elif roll < 0.6:
        text = chance.choice([*READINGS, *LEAKS])
        history.tell(text, override=chance.random() < 0.3, device=device, from_file=chance.random() < 0.2)
    elif roll < 0.65:
        history.tell(chance.choice(FRAMES))
    elif roll < 0.68:
        history.wait(-200)
        history.tell("floor dry", device=device)
    elif roll < 0.72:
        history.creep()
    elif roll < 0.87:
        history.wait(chance.randint(1, 700))
