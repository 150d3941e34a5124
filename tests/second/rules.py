"""The rules: each row of SAFETY's tables and each number of what was found, with what is counted for it.

A rule decided something in a history where its branch refused, opened, lifted or kept; it is counted once a history.
What hangs on corrections of the sheet and unsure sheets, on joints, on runs that are pressed, on visits and on the
bench is not of these histories.
"""

from __future__ import annotations

from collections import Counter

STATES = {
    "under voltage": ("ohms under voltage", "state U"),
    "live": ("live: its time", "state L"),
    "not proved": ("ohms: not proved dead", "state N"),
    "dead": ("state D",),
    "dead: another sheet": ("6 ",),
    "dead: a charge": ("a charge over 10 V", "charged:"),
    "dead: a source of direct voltage": ("a charge asks",),
    "dead: a short series": ("a short series",),
    "switched off": ("10 ",),
}
READINGS = {
    "ohms, insulation": ("ohms", "9 insulation", "override", "9 override"),
    "plug in hand": ("plug in hand",),
    "override lifts nothing": ("a reading with a reason",),
    "outlet": ("event outlet",),
    "proof points": ("event proof point",),
    "what only a powered machine gives": ("powered reading", "a powered reading"),
    "what makes its own volts": ("its own volts", "event own volts"),
}
DANGERS = {
    f"{name}: {what}": (f"{name}: {what}",)
    for name in (
        "shock",
        "trip",
        "burnt_smell",
        "water_inside",
        "earth",
        "insulation",
        "cord",
        "bypass",
        "contact",
        "dry",
    )
    for what in ("opens", "lifted")
} | {
    "charge": ("charge: ",),
    "live_though_forbidden": ("live_though_forbidden",),
    "trip: no short": ("trip: no short",),
    "trip: the same again": ("trip: the same again",),
    "trip: a part off": ("trip: the part",),
    "insulation: a part off": ("insulation: the part off",),
    "insulation: hidden from the plug": ("insulation: what the plug",),
    "insulation: partial": ("a part off makes",),
    "bypass: tried": ("bypass: tried", "interlock"),
    "contact: no function": ("contact: a run",),
    "cycle and run forbidden": ("run: ",),
    "live work says": ("live: heater", "live: lid"),
    "class II": ("class II",),
    "limits": ("limits:",),
    "comes and goes": ("comes and goes",),
    "noted in error": ("noted in error", "noted_in_error"),
    "a correction": ("a correction",),
}
EVENTS = {
    "isolated": ("event isolated",),
    "interlock_tried": ("event interlock",),
    "plugged_in, run": ("event power", "power:", "plugged in"),
    "found_powered": ("event found powered",),
    "live_begun, live_ended": ("event live", "live_ended"),
    "opened, shut": ("event cover", "shut:", "18 shut"),
    "tripped": ("event tripped",),
    "reclosed": ("event reclosed", "reclosed", "trip: closed again"),
    "hazard_found": ("event hazard",),
    "bypass_removed, earth_refitted": ("bypass_removed", "earth_refitted", "event put right"),
    "earth_lifted": ("earth_lifted", "event earth off"),
    "checked, step_ticked, circuit_noted": ("event look",),
    "codes_read": ("event codes",),
    "attended, hands_off": ("event here", "2 still here"),
    "withdrawals, corrections": ("event taken back",),
    "leak test": ("event leak test", "leak test"),
    "doubted, barred, placed, stamped": ("event said", "insulation_not_allowed"),
    "strip_step, strip_back": ("event strip", "13 strip_back"),
    "changed": ("event changed", "13 changed"),
    "proof, current": ("event proof",),
    "ended": ("ended", "event ended"),
    "reopened": ("event reopened",),
    "another sheet, limits": ("event terms",),
    "a serial of a former job": ("event serial",),
    "two people": ("two people",),
    "before power": ("before power",),
}
NUMBERS = {
    "1 a new cord": ("before power: the cord", "1 "),
    "2 hands off by another": ("2 still here",),
    "3 a good reading taken back": ("3 ",),
    "4 a contact by its current": ("4 ",),
    "5 a danger comes back under power": ("5 ",),
    "6 another sheet while dead": ("6 ",),
    "7 class, limits, sheet after lifting": ("7 ",),
    "8 a serial of an unsafe job": ("event serial",),
    "9 overrides": ("9 ",),
    "10 switched off": ("10 ",),
    "11 a fixed cord, one pole": ("11 ",),
    "12 a withdrawal attends for its own": ("12 ",),
    "13 work under voltage": ("13 ",),
    "14 the own earth of plugs pulled": ("14 ", "ended safe: 14"),
    "15 a former job's, a shock, in error": ("15 ",),
    "16 outlets, the creeping clock": ("16 ",),
    "17 a file edited by hand": ("17 ",),
    "18 a cover over a part that is off": ("18 ",),
    "19 a slip": ("19 ",),
    "20 seen before, written after": ("20 ",),
    "21 a former danger without a line": ("21 ",),
    "22 an arrester": ("22 ",),
    "23 another sheet, a part's danger": ("23 ",),
    "24 a cover after the proof": ("24 ",),
}
RULES = {**STATES, **READINGS, **DANGERS, **EVENTS, **NUMBERS}
# What each act is called in the table of events.
_EVENT = {
    "isolated": {"isolated", "locked off", "switched off", "plug in hand"},
    "interlock": {"interlock holds", "interlock starts"},
    "power": {"plugged in", "run", "run trips", "run before"},
    "found powered": {"found powered"},
    "live": {"live begun", "live begun, lid shut", "live ended"},
    "cover": {"opened", "shut", "shut over"},
    "tripped": {"tripped", "tripped out", "breaker"},
    "reclosed": {"reclosed in", "reclosed out"},
    "hazard": {"shock", "smell", "water", "dry", "bypass found"},
    "put right": {"bypass out", "earth back", "lead back"},
    "earth off": {"earth off", "earth found off", "lead off"},
    "look": {"cord look bad", "cord look good", "floor dry", "plug fixed"},
    "codes": {"codes now"},
    "here": {"attended", "hands off"},
    "leak test": {"leak test all 50M", "leak test all 0.02M", "leak test rest 50M", "leak test rest 0.02M"},
    "said": {"doubt", "barred", "place noted", "dried", "arrester"},
    "strip": {"tags off", "tags back"},
    "changed": {"heater replaced", "cord replaced", "lock replaced", "board cleaned"},
    "proof": {
        "seen",
        "drum",
        "joints",
        "codes good",
        "current",
        "turned",
        "current before",
        "turned before",
        "touch",
        "touch before",
    },
    "ended": {"ended safe", "ended unsafe"},
    "reopened": {"reopened"},
    "terms": {"it is fl7-u", "it is fl9-t", "it is class II", "stricter limits"},
    "serial": {"serial A", "serial B", "serial C"},
    "own volts": {"motor tacho_volts 0.8"},
}
EVENT_OF = {act: f"event {row}" for row, acts in _EVENT.items() for act in acts}


def event_of(act: str, *, takes_back: bool) -> str:
    """Return the row of the table that an act is of, empty where it is a figure of the machine."""
    if takes_back:
        return "event taken back"
    if act.startswith("outlet ") and "amps" not in act:
        return "event outlet"
    if act.startswith(("dead ", "source ")):
        return "event proof point"
    return EVENT_OF.get(act, "")


def counts_of(histories: list[frozenset[str]]) -> Counter[str]:
    """Return in how many histories each rule decided something."""
    found = Counter(dict.fromkeys(RULES, 0))
    for decided in histories:
        found.update(rule for rule, names in RULES.items() if any(row.startswith(names) for row in decided))
    return found
