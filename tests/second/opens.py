"""What opens a danger: what was told, found off or tried, and the figures that surely break a limit."""

from __future__ import annotations

from dataclasses import dataclass

from tests.second import dangers
from tests.second.answers import (
    LEAK_TESTS,
    figure,
    last_of_line,
    line_at,
    read,
)
from tests.second.log import Log, decided, gone, last, remembered
from tests.second.machine import (
    LINES,
    OPENS,
    TERMS,
    Terms,
    is_kept,
    terms,
)

TOLD = {"shock": "shock", "smell": "burnt_smell", "water": "water_inside", "dry": "dry", "bypass found": "bypass"}
TRIPS = {"tripped": "rcd", "run trips": "unknown", "breaker": "breaker"}
# Serial numbers that an unsafe job left something behind on: which danger, and its line where it is known.
FORMER = {
    "serial A": (("shock", ""), ("insulation", "heater.pe")),
    "serial B": (("contact", "board.relay"), ("cord", "")),
    "serial C": (("charge", ""), ("bypass", ""), ("earth", "")),
}


@dataclass(frozen=True)
class Cause:
    """One cause of a danger: which, by what, and the place at which it opened."""

    id: str
    by: str
    place: int
    is_former: bool = False


@remembered
def opened_at(log: Log) -> tuple[Cause, ...]:
    """Return what the newest record opens."""
    place, said = len(log) - 1, log[-1]
    found: list[Cause] = []
    if said.what in TOLD:
        by = f"found {place}" if said.what == "bypass found" else "told"
        found.append(Cause(TOLD[said.what], by, place))
    elif said.what in TRIPS:
        found.append(Cause("trip", "trip", place))
    elif said.what == "cord look bad":
        found.append(Cause("cord", "look", place))
    elif said.what in {"earth off", "earth found off"}:
        found.append(Cause("earth", "heater earth off", place))
    elif said.what == "interlock starts":
        found.append(Cause("bypass", "tried", place))
    elif said.what in FORMER:
        found += [Cause(name, line or "former", place, is_former=True) for name, line in FORMER[said.what]]
    return (*found, *(Cause(name, line, place) for name, line in bad_at(log)))


def bad_at(log: Log) -> list[tuple[str, str]]:
    """Return the dangers that the newest record opens by figures: read bad, or broken by terms that came into force."""
    said, held = log[-1], terms(log)
    if said.what in TERMS:
        before = terms(log[:-1])
        return [
            (name, line)
            for line, name in (*OPENS.items(), ("rest", "insulation"))
            if is_broken_by(log, line, before, held)
        ]
    place = len(log) - 1
    if said.what == "plug fixed":
        stands = any(cause.by == "outlet" for cause in dangers.standing(log[:-1]))
        return [("earth", "outlet")] if not stands and is_outlet_without_earth(log) else []
    if said.what not in LINES and said.what not in LEAK_TESTS:
        return []
    line = line_at(log, place)
    if line.startswith("outlet.") and line != "outlet.amps_drain":
        return [("earth", "outlet")] if is_outlet_without_earth(log) else []
    opens = "insulation" if line == "rest" else OPENS.get(line, "")
    if line == "outlet.amps_drain" and not is_kept(figure(log, place), held):
        decided("4 a contact by the current of its step")
    return [(opens, line)] if opens and not is_kept(figure(log, place), held) else []


def is_broken_by(log: Log, line: str, before: Terms, held: Terms) -> bool:
    """Tell whether the newest answer to a line that stands kept what held before and breaks what holds now."""
    place = max((place for place in read(log, line) if place not in gone(log)), default=-1)
    if place < 0:
        return False
    text = figure(log, place)
    is_broken = is_kept(text, before) and not is_kept(text, held)
    return is_broken and decided("limits: the stricter of then and now")


def is_outlet_without_earth(log: Log) -> bool:
    """Tell whether both readings to earth are low: a plug that goes in either way needs both."""
    rows = {line: last_of_line(log, line) for line in ("outlet.ln", "outlet.le", "outlet.ne")}
    if rows["outlet.ln"] < 0:
        return False
    is_low = {name: place >= 0 and is_low_at(log, place) for name, place in rows.items()}
    if is_one_way(log):
        is_turned = rows["outlet.ne"] >= 0 and not is_low["outlet.ne"]
        return (is_turned or is_low["outlet.le"]) and decided(
            "8 an outlet that goes one way, reversed or without earth"
        )
    return is_low["outlet.le"] and is_low["outlet.ne"] and decided("9 an outlet without earth")


def is_one_way(log: Log) -> bool:
    """Tell whether the plug goes in one way only, as the circuit was noted."""
    return last(log, "plug fixed") >= 0


def is_low_at(log: Log, place: int) -> bool:
    """Tell whether a voltage of the outlet is near nought."""
    return log[place].what in {"outlet le 2", "outlet ne 0.4"}


def is_outlet_pending(log: Log) -> bool:
    """Tell whether line to earth reads low and neutral to earth was not read: nothing can be said yet."""
    if is_one_way(log):
        return False
    line, low = last_of_line(log, "outlet.ln"), last_of_line(log, "outlet.le")
    is_half = line >= 0 and low >= 0 and log[low].what == "outlet le 2" and last_of_line(log, "outlet.ne") < 0
    return is_half and decided("16 read neutral to earth too")


def is_outlet_good(log: Log, since: int) -> bool:
    """Tell whether all three were read since a record and are those of a good outlet, either way round."""
    rows = [last_of_line(log, line) for line in ("outlet.ln", "outlet.le", "outlet.ne")]
    if min(rows) <= since:
        return False
    pair = (log[rows[1]].what, log[rows[2]].what)
    is_turned = pair == ("outlet le 2", "outlet ne 231") and not is_one_way(log)
    return pair == ("outlet le 231", "outlet ne 0.4") or is_turned
