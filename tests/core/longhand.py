"""SAFETY's tables written out a second time, the long way: no walk, no marks, the whole log looked at for each answer.

It knows one machine (fl7-u), two devices and the few acts below; what it says of them, and which of them it refuses and
by which row, is said without any of the core's rules.
"""

from __future__ import annotations

from collections.abc import Callable, Iterable
from collections.abc import Set as AbstractSet
from dataclasses import dataclass, replace
from datetime import datetime, timedelta
from functools import wraps
from itertools import pairwise
from typing import TypeVar, cast

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
    """One record that was accepted: what, when, by which device; the reason that alone let it through.

    ``takes_back`` is the moment of the reading that it withdraws; ``is_gone`` tells of one that is withdrawn by now.
    """

    what: str
    at: datetime
    device: str = ""
    reason: str = ""
    takes_back: datetime | None = None
    is_gone: bool = False

    @property
    def is_overridden(self) -> bool:
        return bool(self.reason)


Answer = TypeVar("Answer")
_KNOWN: dict[tuple[object, ...], object] = {}


def remembered(ask: Callable[..., Answer]) -> Callable[..., Answer]:
    """Ask once of each log: what is asked of all its beginnings is asked of them again and again."""

    @wraps(ask)
    def answer(log: list[Said], *more: object) -> Answer:
        key = (ask, tuple(log), more)
        if key not in _KNOWN:
            if len(_KNOWN) > 20_000:
                _KNOWN.clear()
            _KNOWN[key] = ask(log, *more)
        return cast("Answer", _KNOWN[key])

    return answer


def fresh(log: list[Said]) -> list[Said]:
    """Return a log with what is withdrawn at its end marked as gone, and nothing else."""
    gone = {said.takes_back for said in log if said.takes_back is not None}
    return [replace(said, is_gone=said.at in gone) for said in log]


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


@remembered
def is_dead(log: list[Said], now: datetime) -> bool:
    """Tell whether, since the last cut-off and the last absence of over ten minutes, the series is whole."""
    cut = cut_off(log)
    if cut is None or any(breaks(said) for said in log[cut:]):
        return False
    begun = cut
    here = provers(log) | hands_in(log[:cut], log[cut].at)
    attending = [
        cut,
        *(place for place in range(cut + 1, len(log)) if attends(log[place]) and log[place].device in here),
    ]
    for earlier, later in pairwise(attending):
        if log[later].at - log[earlier].at > TEN:
            begun = later
    if now - log[attending[-1]].at > TEN:
        return False
    return is_series([said.what for said in log[begun:]], wanted_points(log, cut))


@remembered
def wanted_points(log: list[Said], cut: int) -> set[str]:
    """Return the points of a series: without the capacitor where it was dead, lapsed, and stayed cut off."""
    before = cut_off(log[:cut])
    if before is None or any(breaks(said) for said in log[before:cut]):
        return set(POINTS)
    was_dead = any(is_dead(log[: end + 1], log[end].at) for end in range(before, cut))
    was_short = wanted_points(log, before) != set(POINTS)
    has_lapsed = not is_dead(log[:cut], log[cut].at)
    return set(SUPPLY) if has_lapsed and (was_dead or was_short) else set(POINTS)


@remembered
def cut_off(log: list[Said]) -> int | None:
    """Return the place of the cut-off that holds: told again of a machine that is dead it changes nothing."""
    cut = last(log, {"isolated"})
    while cut is not None and state(log[:cut], log[cut].at) == "D":
        before = last(log[:cut], {"isolated"})
        if before is None or log[before].device != log[cut].device:
            break
        cut = before
    return cut


def attends(said: Said) -> bool:
    """Tell whether a record shows that somebody is at the machine."""
    return said.what not in {"tripped", "tripped out", "hands_off", "found_powered", "live_ended", *POWER}


@remembered
def provers(log: list[Said]) -> set[str]:
    """Return the devices that cut it off since the last power, or began a series with a known source."""
    begun = len(log) - len(since_power(log))
    return {log[place].device for place in range(begun, len(log)) if begins(log, place)}


def begins(log: list[Said], place: int) -> bool:
    """Tell whether a record begins a proof: a cut-off, or a source that is shown while it is not proved."""
    said = log[place]
    is_source = said.what == "source 231" and last_cut(log[:place]) is not None
    return said.what == "isolated" or (is_source and state(log[:place], said.at) != "D")


def hands_in(log: list[Said], now: datetime, but: str | None = None) -> set[str]:
    """Return the devices whose hands may be in the machine: they proved it, and said or did nothing else since."""
    return {device for device in {said.device for said in log} if device != but and is_in(log, device, now)}


@remembered
def is_in(log: list[Said], device: str, now: datetime) -> bool:
    """Tell whether a device proved the machine dead since it put power on or said hands off, and was there since."""
    since = last_by(log, POWER, device) + 1
    proofs = [end for end in range(since, len(log)) if is_proof_of(log[: end + 1], device)]
    if not proofs:
        return False
    seen = [proofs[-1], *(p for p in range(proofs[-1], len(log)) if log[p].device == device and attends(log[p]))]
    moments = [*(log[place].at for place in seen), now]
    is_there = all(later - earlier <= TEN for earlier, later in pairwise(moments))
    off = last_by(log, {"hands_off"}, device)
    again = (p for p in seen if p > off and log[p].what != "attended" and state(log[: p + 1], log[p].at) == "D")
    is_back = any(device in provers(log[: place + 1]) for place in again)
    return is_there and (off < proofs[-1] or is_back)


def is_proof_of(log: list[Said], device: str) -> bool:
    """Tell whether the newest record is a device's, and the machine is proved dead by it."""
    said = log[-1]
    return said.device == device and device in provers(log) and said.what == "source 231" and state(log, said.at) == "D"


def since_power(log: list[Said]) -> list[Said]:
    """Return what was written since the last record that means power."""
    powered = next((place for place in range(len(log) - 1, -1, -1) if breaks(log[place])), -1)
    return log[powered + 1 :]


def last_by(log: list[Said], names: AbstractSet[str], device: str) -> int:
    """Return the place of a device's last record of some names, -1 where it has none."""
    return next((p for p in range(len(log) - 1, -1, -1) if log[p].what in names and log[p].device == device), -1)


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
    return has_hard(log) or is_live_though_forbidden(log)


@remembered
def has_hard(log: list[Said]) -> bool:
    """Tell whether a danger of the machine itself forbids power."""
    told = any(stands_until(log, name) for name in ("shock", "trip"))
    return told or any(measured(log, line) == "bad" for line in ("earth", "insulation"))


def is_heater_read(log: list[Said]) -> bool:
    """Tell whether a replaced heater showed its earth, and its own or the whole insulation, since."""
    log = fresh(log)
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
            if good and (said.is_overridden or said.is_gone):
                continue
            found[line] = good
    return found


@remembered
def stands_until(log: list[Said], name: str) -> bool:
    """Tell whether a danger that was told stands: no moment since at which all its lines had read good after it."""
    told = {"shock": {"shock"}, "trip": {"tripped"}}[name]
    log = fresh(log)
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
    log = fresh(log)
    good = [place for place in places if place > bad[-1] and not (log[place].is_overridden or log[place].is_gone)]
    is_changed = line == "insulation" and any(said.what == "replaced" for said in log[bad[-1] :])
    if not good:
        return "bad"
    return "none" if is_changed or apart([log[place].at for place in good]) >= 3 else "goes"


def apart(moments: list[datetime]) -> int:
    """Return how many of some moments are each a minute or more after the one before that counted."""
    counted: list[datetime] = []
    for at in moments:
        if not counted or at - counted[-1] >= timedelta(minutes=1):
            counted.append(at)
    return len(counted)


@remembered
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
        if said.what == "withdraw" and was_powered and has_hard(log[: place + 1]) and not has_hard(before):
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


POWER = frozenset({"plugged_in", "live_begun", "run"})
OHMS = frozenset({"heater 26", "cord pe 0.08", "cord pe >20", "heater earth 0.08"})
INSULATION = frozenset({"cord insulation 50M", "cord insulation 0.02M", "heater pe 50M"})


def refuses(log: list[Said], said: Said) -> str:  # noqa: PLR0911 - a row each
    """Return the row by which a record is refused, empty where it is taken."""
    if said.what in POWER:
        return refuses_power(log, said)
    if said.what in OHMS | INSULATION:
        return refuses_dead(log, said)
    if said.what in {"attended", "hands_off"}:
        return "" if is_prover(log, said) else f"{said.what}: from a device that is not the prover's"
    column = state(log, said.at)
    match said.what:
        case "live_ended":
            return "" if column == "L" else "live_ended: not live"
        case "shut":
            return "" if is_open(log) else "shut: not off"
        case "replaced":
            return "changed: under voltage" if column in "UL" else ""
        case "board relay_on 231":
            if is_live_though_forbidden(log):
                return "live_though_forbidden: every reading"
            return "powered reading: a cover off outside live" if column == "U" and is_open(log) else ""
    return ""


def is_prover(log: list[Said], said: Said) -> bool:
    """Tell whether a device proved the machine, or was the last to begin a proof and put no power on since."""
    begun = [place for place in range(len(log)) if begins(log, place)]
    is_last = bool(begun) and log[begun[-1]].device == said.device and last_by(log, POWER, said.device) < begun[-1]
    return is_last or is_in(log, said.device, said.at)


def refuses_power(log: list[Said], said: Said) -> str:
    """Return why power is refused."""
    column = state(log, said.at)
    if said.what == "plugged_in" and column == "L":
        return "plugged_in: live already"
    if hands_in(log, said.at, said.device):
        return "two people: another's hands are in"
    if forbids_power(log):
        return "power: a danger forbids it"
    if not is_heater_read(log):
        return "power: a changed part is not read"
    if is_open(log) and said.what != "live_begun" and column != "L":
        return "power: a cover is off"
    return ""


def refuses_dead(log: list[Said], said: Said) -> str:  # noqa: PLR0911 - a row each
    """Return why a reading of a dead circuit is refused; a reason helps where all that SAFETY asks of one is there."""
    if is_live_though_forbidden(log):
        return "live_though_forbidden: every reading"
    column = state(log, said.at)
    if column == "D":
        return ""
    if column in "UL":
        return "ohms under voltage"
    if said.what in INSULATION:
        return "insulation: no reason helps"
    cut = last_cut(log)
    if cut is None:
        return "override: not cut off"
    if is_over_since(log):
        return "override: a point was over its limit"
    if log[cut].device != said.device:
        return "override: another device cut it off"
    mine = [cut, *(p for p in range(cut, len(log)) if log[p].device == said.device and attends(log[p]))]
    moments = [*(log[p].at for p in mine), said.at]
    if any(later - earlier > TEN for earlier, later in pairwise(moments)):
        return "override: away for ten minutes"
    if not said.reason:
        return "ohms: not proved dead"
    return "override: that reason again" if any(row.reason == said.reason for row in log) else ""


def last_cut(log: list[Said]) -> int | None:
    """Return the place of the newest cut-off since the last power."""
    cut = last(log, {"isolated"})
    return None if cut is None or any(breaks(said) for said in log[cut:]) else cut


def is_over_since(log: list[Said]) -> bool:
    """Tell whether a point was read over its limit since the last whole series."""
    over = last(log, {"dead ln 40"})
    return over is not None and not any(
        state(log[:end], log[end - 1].at) == "D" for end in range(over + 2, len(log) + 1)
    )


def is_open(log: list[Said]) -> bool:
    """Tell whether the cover is noted off."""
    cover = last(log, {"opened", "shut"})
    return cover is not None and log[cover].what == "opened"
