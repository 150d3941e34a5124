"""SAFETY's tables written out a second time, the long way: no walk, no marks, the whole log looked at for each answer.

It knows one machine (fl7-u) and the few acts below; what it says of them is said without any of the core's rules.
"""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from datetime import datetime, timedelta
from itertools import pairwise

TEN = timedelta(minutes=10)
LIVE = timedelta(minutes=2)
SERIES = ("source 231", "dead ln 0.2", "dead le 0.1", "dead ne 0.1", "dead filter 0.3", "source 231")
SUPPLY = ("dead ln", "dead le", "dead ne")
_READ = {"ln": "0.2", "le": "0.1", "ne": "0.1", "filter": "0.3"}
POINTS = {f"dead {name}": f"dead {name} {reads}" for name, reads in _READ.items()}
# What each act does to a machine that is not proved, under voltage, live: the column of the state it comes to.
NEXT: dict[str, dict[str, str]] = {
    "isolated": {"N": "N", "U": "N", "L": "N"},
    "plugged_in": {"N": "U", "U": "U"},
    "live_begun": {"N": "L", "U": "L", "L": "L"},
    "live_ended": {"L": "U"},
    "opened": {"N": "N", "U": "U", "L": "U"},
    "shut": {"N": "N", "U": "U", "L": "L"},
    "attended": {"N": "N", "U": "U", "L": "L"},
    "tripped": {"N": "U", "U": "U", "L": "U"},
    "tripped out": {"N": "N", "U": "U", "L": "L"},
    "shock": {"N": "N", "U": "U", "L": "U"},
    "replaced": {"N": "N"},
    "run": {"N": "U", "U": "U", "L": "L"},
    "found_powered": {"N": "U", "U": "U", "L": "U"},
}
# Readings that show power where none should be.
SHOWS_POWER = frozenset({"board relay_on 231", "dead ln 40"})
LINES = {
    "cord pe 0.08": ("earth", True),
    "cord pe >20": ("earth", False),
    "cord insulation 50M": ("insulation", True),
    "cord insulation 0.02M": ("insulation", False),
    "heater earth 0.08": ("own earth", True),
    "heater pe 50M": ("own insulation", True),
    "outlet 231": ("ln", True),
    "outlet le 231": ("le", True),
    "outlet ne 0.4": ("ne", True),
}
NEEDS = {"shock": ("earth", "insulation", "ln", "le", "ne"), "trip": ("earth", "insulation")}
OWN = ("own earth", "own insulation")


@dataclass(frozen=True)
class Said:
    """One record that was accepted: what, and when; whether a reason alone let it through."""

    what: str
    at: datetime
    is_overridden: bool = False


def state(log: list[Said], now: datetime) -> str:
    """Return D, N, U or L at a moment."""
    column = coarse(log, now)
    return "D" if column == "N" and is_dead(log, now) else column


def coarse(log: list[Said], now: datetime) -> str:
    """Return N, U or L: the table, row by row."""
    column, live_until = "N", None
    for said in log:
        if column == "L" and live_until is not None and said.at >= live_until:
            column = "U"
        if said.what in SHOWS_POWER and column == "N":
            column = "U"
        if said.what == "live_begun":
            live_until = said.at + LIVE
        column = NEXT.get(said.what, {}).get(column, column)
    return "U" if column == "L" and live_until is not None and now >= live_until else column


def is_dead(log: list[Said], now: datetime) -> bool:
    """Tell whether, since the last cut-off and the last absence of over ten minutes, the series is whole."""
    cut = last(log, {"isolated"})
    if cut is None or any(breaks(said) for said in log[cut:]):
        return False
    begun = cut
    attending = [place for place in range(cut, len(log)) if log[place].what != "tripped out"]
    for earlier, later in pairwise(attending):
        if log[later].at - log[earlier].at > TEN:
            begun = later
    if now - log[attending[-1]].at > TEN:
        return False
    return is_series([said.what for said in log[begun:]], wanted_points(log, cut))


def wanted_points(log: list[Said], cut: int) -> set[str]:
    """Return the points of a series: without the capacitor where it was dead, lapsed, and stayed cut off."""
    before = last(log[:cut], {"isolated"})
    if before is None or any(breaks(said) for said in log[before:cut]):
        return set(POINTS)
    was_dead = any(is_dead(log[: end + 1], log[end].at) for end in range(before, cut))
    was_short = wanted_points(log, before) != set(POINTS)
    has_lapsed = not is_dead(log[:cut], log[cut].at)
    return set(SUPPLY) if has_lapsed and (was_dead or was_short) else set(POINTS)


def breaks(said: Said) -> bool:
    """Tell whether a record means power."""
    if said.what in SHOWS_POWER:
        return True
    return NEXT.get(said.what, {"N": "N"}).get("N", "N") in {"U", "L"}


def is_series(texts: Iterable[str], wanted: set[str]) -> bool:
    """Strike the points out on a list as a person would: source, every point, source."""
    has_source, struck, proved = False, dict[str, bool](), False
    for text in texts:
        if text.startswith("source"):
            good = text == "source 231"
            if good and has_source and struck:
                proved = proved or (struck.keys() >= wanted and all(struck[name] for name in wanted))
            else:
                has_source, proved = good, False
                struck = {} if not good else struck
        elif text.startswith("dead") and has_source:
            name = " ".join(text.split()[:2])
            struck[name] = POINTS[name] == text
            proved = proved and struck[name]
    return proved


def dangers(log: list[Said]) -> set[str]:
    """Return the ids of the dangers that stand."""
    found = {name for name in ("shock", "trip") if stands_until(log, name)}
    found |= {name for name in ("earth", "insulation") if measured(log, name) != "none"}
    return found | ({"live_though_forbidden"} if is_live_though_forbidden(log) else set())


def forbids_power(log: list[Said]) -> bool:
    """Tell whether a danger forbids power; what comes and goes does not."""
    hard = any(stands_until(log, name) for name in ("shock", "trip"))
    return hard or any(measured(log, n) == "bad" for n in ("earth", "insulation")) or is_live_though_forbidden(log)


def may_power(log: list[Said], now: datetime) -> bool:
    """Tell whether it may be plugged in: no danger, the new heater read, the cover on, not live already."""
    cover = last(log, {"opened", "shut"})
    is_shut = cover is None or log[cut_of(cover)].what == "shut"
    return not forbids_power(log) and is_heater_read(log) and is_shut and state(log, now) != "L"


def cut_of(place: int | None) -> int:
    """Return a place that is known to be there."""
    assert place is not None
    return place


def is_heater_read(log: list[Said]) -> bool:
    """Tell whether a replaced heater showed its earth, and its own or the whole insulation, since."""
    changed = last(log, {"replaced"})
    if changed is None:
        return True
    newest = lines_after(log[changed + 1 :], log[: changed + 1])
    return newest.get("own earth", False) and (newest.get("own insulation", False) or newest.get("insulation", False))


def lines_after(log: list[Said], _before: list[Said]) -> dict[str, bool]:
    """Return for each line that was read whether its newest reading is good."""
    found: dict[str, bool] = {}
    for said in log:
        if said.what in LINES:
            line, good = LINES[said.what]
            if good and said.is_overridden:
                continue
            found[line] = good
    return found


def stands_until(log: list[Said], name: str) -> bool:
    """Tell whether a danger that was told stands: no moment since at which all its lines had read good after it."""
    told = {"shock": {"shock"}, "trip": {"tripped"}}[name]
    since = last(log, told)
    if since is None:
        return False
    for end in range(since + 1, len(log) + 1):
        newest = lines_after(log[since + 1 : end], log[: since + 1])
        if all(newest.get(line, False) for line in NEEDS[name]) and not is_same_again(log, since, name, end):
            return False
    return True


def is_same_again(log: list[Said], since: int, name: str, end: int) -> bool:
    """Tell whether the same trip had come back after it was lifted, and nothing was changed since."""
    if name != "trip":
        return False
    earlier = [place for place in range(since) if log[place].what == "tripped"]
    was_lifted = any(is_lifted_before(log, place, since) for place in earlier)
    return was_lifted and not any(said.what == "replaced" for said in log[since:end])


def is_lifted_before(log: list[Said], since: int, until: int) -> bool:
    """Tell whether a trip had been lifted before another record."""
    nearest = [place for place in range(since + 1, until + 1) if log[place].what == "tripped"]
    stop = min([*nearest, until])
    return not stands_until(log[:stop], "trip")


def measured(log: list[Said], line: str) -> str:
    """Return of a line that read bad once: *bad*, *goes* (good since, without a change), or *none*."""
    places = [place for place, said in enumerate(log) if said.what in LINES and LINES[said.what][0] == line]
    bad = [place for place in places if not LINES[log[place].what][1]]
    if not bad:
        return "none"
    good = [place for place in places if place > bad[-1] and not log[place].is_overridden]
    is_changed = line == "insulation" and any(said.what == "replaced" for said in log[bad[-1] :])
    if not good:
        return "bad"
    return "none" if is_changed or len(good) >= 3 else "goes"


def is_live_though_forbidden(log: list[Said]) -> bool:
    """Tell whether the machine stood under voltage while a danger forbade it, and was not cut off and proved since."""
    opened = None
    for place, said in enumerate(log):
        before = log[:place]
        was_powered = coarse(before, said.at) != "N"
        is_found = said.what == "found_powered" or (said.what in SHOWS_POWER and not was_powered)
        if is_found and forbids_but_itself(before):
            opened = place
        if said.what == "shock" and was_powered:
            opened = place
        if opened is not None and is_cleared(log[opened : place + 1]):
            opened = None
    return opened is not None


def forbids_but_itself(log: list[Said]) -> bool:
    """Tell whether a danger forbids power, the one of power itself looked at too."""
    return forbids_power(log)


def is_cleared(log: list[Said]) -> bool:
    """Tell whether it was cut off and proved dead since."""
    cut = last(log, {"isolated"})
    return cut is not None and is_dead(log, log[-1].at)


def last(log: list[Said], names: set[str]) -> int | None:
    """Return the place of the last record of some names."""
    return next((place for place in range(len(log) - 1, -1, -1) if log[place].what in names), None)
