"""The states, row by row: under voltage and live by what was told, dead by striking the points out on a list."""

from __future__ import annotations

from datetime import datetime, timedelta
from itertools import pairwise

from tests.second.dangers import hard
from tests.second.log import TEN, Log, decided, gap, is_set_back, latest, places, remembered, when
from tests.second.machine import BIG, GOOD_POINTS, POINTS, SOURCE, SUPPLY, TERMS, terms
from tests.second.opens import FORMER

ASKS_DIRECT = frozenset({"dead drive"})
LIVE, MINUTE = timedelta(minutes=2), timedelta(minutes=1)
CUTS = {"isolated": "unplugged", "locked off": "locked", "switched off": "off", "plug in hand": "hand"}
POWER = frozenset({"plugged in", "live begun", "live begun, lid shut", "run", "run trips", "reclosed in", "codes now"})
POWER |= {"interlock holds", "interlock starts"}
IN_VOLTAGE = POWER | {"tripped", "breaker", "found powered"}
# Readings that show power where none should be.
SHOWS_POWER = frozenset({"board relay_on 231", "dead ln 40", "outlet amps_drain 0.8", "outlet amps_drain 9.4"})
# What is refused in live work, and ends it where a file tells of it all the same.
WORKS = frozenset({"tags off", "earth off", "heater replaced", "cord replaced", "lock replaced", "board cleaned"})
ENDS = frozenset({"ended unsafe", "ended safe"})
# What nobody has to be at the machine for (SAFETY: attended is every other record of the prover's device).
NOT_THERE = frozenset(
    {
        "tripped",
        "tripped out",
        "breaker",
        "hands off",
        "found powered",
        "live ended",
        "outlet named",
        "note",
        "doubt",
        "barred",
    }
    | {"place noted", "dried", "shock in error", "trip in error", "reclosed out", "codes before", "run before"}
    | POWER
    | ENDS
    | {"reopened", "plug fixed", *TERMS, *FORMER}
)


@remembered
def coarse(log: Log, now: datetime) -> str:
    """Return N, U or L: the table of events, row by row."""
    column, begun = "N", -1
    for place, said in enumerate(log):
        at = when(log[: place + 1], place)
        if column == "L" and (at - when(log[: place + 1], begun) >= LIVE or is_set_back(log[: place + 1], begun)):
            column = "U"
            decided("live: its time, to the minute")
        column = _after(log[: place + 1], column)
        begun = place if said.what.startswith("live begun") and column == "L" else begun
    is_over = column == "L" and latest(log, now) - when(log, begun) >= LIVE
    return "U" if is_over else column


def _after(log: Log, column: str) -> str:  # noqa: PLR0911 - a row each
    """Return the column after the newest record."""
    said, what = log[-1], log[-1].what
    if said.is_refused:
        is_power = what in IN_VOLTAGE or (what in SHOWS_POWER and said.back is None)
        is_power |= column == "L" and (what in WORKS or bool(hard(log) - hard(log[:-1])))
        return "U" if is_power and decided("17 an import tells of power") else column
    if what in CUTS or what in ENDS or what == "reopened":
        return "N"
    if what.startswith("live begun"):
        return "L"
    if what == "live ended":
        return "U"
    if what == "run trips" or what in {"tripped", "breaker", "found powered"}:
        return "U"
    if what in IN_VOLTAGE:
        return "L" if column == "L" else "U"
    if what in SHOWS_POWER and said.back is None:
        return "U" if column == "N" else column
    if column == "L" and what in {"opened", "earth off", "earth found off", "tags off", "tags back", "board cleaned"}:
        return "U"
    is_opened = column == "L" and bool(hard(log) - hard(log[:-1]))
    return "U" if is_opened and decided("a danger that forbids power ends live") else column


def breaks(log: Log, place: int) -> bool:
    """Tell whether a record means power."""
    return _after(log[: place + 1], "N") in {"U", "L"}


@remembered
def powered_at(log: Log) -> int:
    """Return the place of the last record that means power, or that nobody knows how it stands; -1 for none."""
    return max((place for place in range(len(log)) if breaks(log, place) or log[place].what == "reopened"), default=-1)


@remembered
def cut_off(log: Log, now: datetime) -> int:
    """Return the place of the cut-off that holds, -1 where it is not cut off."""
    cuts = [place for place in places(log, CUTS, powered_at(log)) if not log[place].is_refused]
    if not cuts:
        return -1
    cut = cuts[-1]
    while len(cuts) > 1 and state(log[:cut], log[cut].at) == "D":
        before = cuts[-2]
        if log[before].what != log[cut].what or log[cut].device not in provers(log[:cut]):
            break
        cuts.pop()
        cut = before
    return cut if is_cut_still(log, cut, now) else -1


def is_cut_still(log: Log, cut: int, now: datetime) -> bool:
    """Tell whether a cut-off holds: by presence alone for ten minutes, by a plug in hand with the covers on."""
    what, moment = log[cut].what, latest(log, now)
    if what in {"switched off", "plug in hand"} and is_set_back(log, cut):
        return False
    if what == "switched off":
        first = next(place for place in places(log, {"switched off"}, powered_at(log)) if not log[place].is_refused)
        is_within = moment - when(log, first) <= TEN
        return is_within or not decided("10 switched off holds ten minutes in all")
    if what == "plug in hand":
        if places(log, {"opened"}, cut) and decided("plug in hand: ended by a cover"):
            return False
        read = [at for at in range(cut + 1, len(log)) if is_reading(log, at) and log[at].device in provers(log)]
        seen = [cut, *read]
        return moment - when(log, seen[-1]) <= TEN and all(gap(log, *pair) <= TEN for pair in pairwise(seen))
    return True


def is_reading(log: Log, place: int) -> bool:
    """Tell whether a record is a figure."""
    what = log[place].what
    return what.split(" ")[0] in {
        "source",
        "dead",
        "cord",
        "heater",
        "motor",
        "lock",
        "board",
        "outlet",
        "level",
    } and not (what.endswith(("replaced", "cleaned", "look bad", "look good", "named")))


@remembered
def is_dead(log: Log, now: datetime) -> bool:
    """Tell whether, since the last cut-off and the last absence of over ten minutes, the series is whole."""
    cut = cut_off(log, now)
    if cut < 0 or log[cut].what == "plug in hand":
        return False
    begun = since_absence(log, cut)
    if latest(log, now) - when(log, attending(log, cut)[-1]) > TEN or is_charged(log):
        return False
    return is_whole(log, begun, cut)


def charges(log: Log) -> list[int]:
    """Return where a charge was found on a machine that was not under voltage."""
    return [place for place in places(log, {"dead filter 20"}) if coarse(log[:place], log[place].at) == "N"]


def is_charged(log: Log) -> bool:
    """Tell whether a charge was found and not read at most 10 V a minute or more later."""
    found = max(charges(log), default=-1)
    if found < 0:
        return False
    is_gone = any(gap(log, found, place) >= MINUTE for place in places(log, {"dead filter 0.3"}, found))
    return not is_gone and decided("a charge over 10 V: not proved")


def since_absence(log: Log, cut: int) -> int:
    """Return from where on a series counts: the cut-off, the end of the last absence, the clock that was set back."""
    here = attending(log, cut)
    found = [later for earlier, later in pairwise(here) if gap(log, earlier, later) > TEN]
    found += [place for place in range(cut + 1, len(log)) if is_set_back(log[: place + 1], place - 1)]
    found += places(log, ENDS, cut)
    return max(found, default=cut)


def attending(log: Log, cut: int) -> list[int]:
    """Return where somebody was at the machine, from the cut-off on."""
    hands = hands_in(log[:cut], log[cut].at)
    later = [place for place in range(cut + 1, len(log)) if attends(log, place)]
    return [cut, *(place for place in later if log[place].device in hands | provers(log[: place + 1]))]


def attends(log: Log, place: int) -> bool:
    """Tell whether a record shows that somebody is at the machine."""
    back = log[place].back
    if back is not None and log[place].device != log[back].device:
        decided("12 a withdrawal attends for whoever sends it")
    return log[place].what not in NOT_THERE and not log[place].is_refused


@remembered
def wanted_points(log: Log, cut: int) -> frozenset[str]:
    """Return the points of a series: the short one where it was dead, lapsed, stayed cut off, and nothing was over."""
    sheet = terms(log).sheet
    everything = frozenset(POINTS[sheet])
    before = cut_off(log[:cut], log[cut].at) if cut else -1
    if before < 0:
        return everything
    over = max((place for place in charges(log[:cut]) if place >= before), default=-1)
    if over >= 0 and not any(is_dead_as(log[: end + 1], sheet) for end in range(over + 1, cut)):
        return everything
    was_dead = any(is_dead_as(log[: end + 1], sheet) for end in range(before, cut) if not is_asked_more(log, end))
    was_short = wanted_points(log[:cut], before) != frozenset(POINTS[terms(log[:cut]).sheet])
    has_lapsed = not is_dead(log[:cut], log[cut].at)
    is_short = (not has_lapsed or was_dead or was_short) and not is_asked_more(log, cut)
    if has_lapsed and is_failed(log[:cut]) and decided("short series: none after a source that did not show"):
        is_short = False
    return frozenset((*SUPPLY, *BIG[sheet])) if is_short and decided("a short series after a lapse") else everything


def is_struck(struck: dict[str, bool], wanted: frozenset[str]) -> bool:
    """Tell whether every point that is wanted was read, and every one that was read is good."""
    return struck.keys() >= wanted and all(struck.values())


def is_direct(wanted: frozenset[str], *, has_direct: bool) -> bool:
    """Tell whether a source of direct voltage was shown where a point asks one."""
    return has_direct or not wanted & ASKS_DIRECT or not decided("a charge asks a source of direct voltage")


def is_failed(log: Log) -> bool:
    """Tell whether it was a source that did not show its voltage that ended the last proof."""
    ended = [at for at in range(len(log)) if is_dead(log[:at], log[at].at) and not is_dead(log[: at + 1], log[at].at)]
    dead = max((at for at in range(len(log)) if is_dead(log[: at + 1], log[at].at)), default=-1)
    return bool(ended) and ended[-1] > dead and log[ended[-1]].what == "source 9"


def is_asked_more(log: Log, since: int) -> bool:
    """Tell whether another sheet came into force after a place that asks a point more."""
    held = {*POINTS[terms(log[: since + 1]).sheet]}
    return any({*POINTS[TERMS[log[place].what].sheet]} - held for place in places(log, TERMS, since))


def is_dead_as(log: Log, sheet: str) -> bool:
    """Tell whether it was dead by the points of a sheet."""
    return terms(log).sheet == sheet and is_dead(log, log[-1].at)


def is_whole(log: Log, begun: int, cut: int) -> bool:
    """Strike the points out on a list as a person would: source, every point, source; another sheet asks its own."""
    has_source, has_direct, is_proved = False, False, False
    struck: dict[str, bool] = {}
    for place in range(begun, len(log)):
        text, wanted = log[place].what, wanted_points(log[: place + 1], cut)
        if text in TERMS:
            is_kept = all(struck.get(name, False) for name in wanted)
            if is_proved and not is_kept:
                decided("6 another sheet asks a point that was not read")
            is_proved = is_proved and is_kept
        elif text.startswith("source dc"):
            has_direct = True
        elif text.startswith("source"):
            if text == SOURCE and has_source and struck:
                is_closed = is_struck(struck, wanted) and not is_charged(log[: place + 1])
                is_proved = is_proved or (is_closed and is_direct(wanted, has_direct=has_direct))
            else:
                has_source, is_proved = text == SOURCE, False
                struck = {} if text != SOURCE else struck
        elif text.startswith("dead") and has_source:
            name = " ".join(text.split()[:2])
            is_left = name == "dead filter" and is_charged(log[: place + 1])
            struck[name] = text == f"{name} {GOOD_POINTS[name]}" and not is_left
            is_proved = is_proved and struck[name]
    return is_proved


@remembered
def state(log: Log, now: datetime) -> str:
    """Return D, N, U or L at a moment."""
    column = coarse(log, now)
    found = "D" if column == "N" and is_dead(log, now) else column
    decided(f"state {found}")
    return found


@remembered
def is_hand_proved(log: Log, now: datetime) -> bool:
    """Tell whether the plug in the hand showed the source, then nothing line to neutral."""
    cut = cut_off(log, now)
    if cut < 0 or log[cut].what != "plug in hand" or is_charged(log):
        return False
    sources = places(log, {"source 231"}, cut)
    since = max([*charges(log), *sources[:1]], default=-1)
    pairs = places(log, {"dead ln 0.2"}, since) if sources else []
    return any(not is_charged(log[: place + 1]) for place in pairs)


@remembered
def provers(log: Log) -> frozenset[str]:
    """Return the devices whose proof it is: who cut it off last or showed a source since, and who had the hands in."""
    found: frozenset[str] = frozenset()
    for place in range(powered_at(log) + 1, len(log)):
        if not begins(log, place):
            continue
        found = hands_in(log[:place], log[place].at) | {log[place].device}
    return found


def is_told_again(log: Log) -> bool:
    """Tell whether the newest record cuts off in the same way, by the prover, what is dead: nothing changes."""
    said, cut = log[-1], cut_off(log[:-1], log[-1].at)
    is_same = cut >= 0 and log[cut].what == said.what and said.device in provers(log[:-1])
    return is_same and state(log[:-1], said.at) == "D"


def begins(log: Log, place: int) -> bool:
    """Tell whether a record begins a proof: a cut-off, or a source that is shown while it is not proved."""
    said = log[place]
    if said.is_refused:
        return False
    cut = cut_off(log[:place], said.at) if said.what == "source 231" else -1
    is_source = cut >= 0 and log[cut].what != "plug in hand"
    is_cut = said.what in CUTS and not is_told_again(log[: place + 1])
    return is_cut or (is_source and state(log[:place], said.at) != "D")


def last_cut(log: Log) -> int:
    """Return the place of the newest cut-off since the last power, -1 for none."""
    cuts = [place for place in places(log, CUTS, powered_at(log)) if not log[place].is_refused]
    return max(cuts, default=-1)


@remembered
def hands_in(log: Log, now: datetime, but: str | None = None) -> frozenset[str]:
    """Return the devices whose hands may be in the machine: they proved it, and said or did nothing else since."""
    return frozenset(device for device in {said.device for said in log} if device != but and is_in(log, device, now))


@remembered
def is_in(log: Log, device: str, now: datetime) -> bool:
    """Tell whether a device proved it since it put power on or said hands off, and was there ever since."""
    is_here, seen = False, datetime.min.replace(tzinfo=now.tzinfo)
    for place, said in enumerate(log):
        until = log[: place + 1]
        at = when(until, place)
        seen = min(seen, at) if is_set_back(until, place - 1) else seen
        is_here = is_here and at - seen <= TEN
        if said.device != device or said.is_refused:
            continue
        if said.what in POWER or said.what == "hands off":
            is_here = False
        elif is_here and attends(log, place):
            seen = at
        elif is_proof_of(until, device) or is_back(until, device):
            is_here, seen = True, at
    return is_here and latest(log, now) - seen <= TEN


def is_back(log: Log, device: str) -> bool:
    """Tell whether a prover who was gone does something at the proved machine; being there alone is not enough."""
    is_at_work = attends(log, len(log) - 1) and log[-1].what != "attended"
    return is_at_work and device in provers(log) and is_proved_at(log)


def is_proved_at(log: Log) -> bool:
    """Tell whether the machine stands proved, dead or by the plug in the hand."""
    return state(log, log[-1].at) == "D" or is_hand_proved(log, log[-1].at)


def is_proof_of(log: Log, device: str) -> bool:
    """Tell whether the newest record is a device's, and the machine is proved by it."""
    said = log[-1]
    closes = said.what == "source 231" and state(log, said.at) == "D"
    is_mine = said.device == device
    if is_mine and said.what == "dead ln 0.2" and is_hand_proved(log, said.at):
        return True
    return is_mine and device in provers(log) and closes
