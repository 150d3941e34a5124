"""Whether a machine may go out as safe: what is asked, and from where on each line counts."""

from __future__ import annotations

from collections.abc import Callable

from tests.second.answers import goods, is_earth_off, is_good, is_lead_off, is_out, marks, own_since
from tests.second.dangers import causes, changed_unread, forbids_power, standing
from tests.second.forbidden import is_live_though_forbidden, is_proper_run
from tests.second.lifts import is_tried
from tests.second.log import Log, Said, decided, last, places, remembered
from tests.second.machine import HIDDEN, terms
from tests.second.opens import Cause, is_one_way
from tests.second.state import coarse, state

REPLACED = {"heater replaced", "cord replaced", "lock replaced"}
EARTHS = {"earth off", "earth found off", "earth back", "lead off", "lead back"}
MOVED = {"earth off", "earth found off", "earth back"}
STOOD = {"shock", "trip", "burnt_smell", "water_inside"}


def refuses_safe(log: Log, said: Said) -> str:
    """Return what keeps the machine from going out as safe, empty where nothing does."""
    if state(log, said.at) == "L":
        return "ended safe: in live mode"
    if standing(log) or is_live_though_forbidden(log):
        return "ended safe: a danger stands"
    if is_open_at(log):
        return "ended safe: a cover is off"
    if is_out(log, "tags off", "tags back") or is_earth_off(log) or is_lead_off(log):
        return "ended safe: a plug or an earth is off"
    if part := changed_unread(log):
        return f"ended safe: the {part} is not read"
    missing = not_shown(log)
    return f"ended safe: {missing}" if missing else ""


def is_said_of(log: Log) -> bool:
    """Tell whether this page says all that is asked of this machine: not where tests are barred."""
    return not places(log, {"barred"})


@remembered
def not_shown(log: Log) -> str:
    """Return the first line of the proof that is asked and not shown, empty where none is."""
    for line in asked(log):
        if not _SHOWN[line](log):
            return f"{line} is not shown"
    return ""


def asked(log: Log) -> list[str]:
    """Return the lines that are asked: all after a change or a danger to people, less after plugs or covers alone."""
    is_changed = bool(marks(log, REPLACED) or marks(log, EARTHS))
    if is_changed or any(cause.id in STOOD for cause in causes(log)):
        return ["seen", "drum", *earths(log, "own earth"), "insulation", *currents(log), "run", "codes", "joints"]
    if marks(log, {"tags off", "tags back"}):
        return ["seen", *earths(log, "14 own earth of the plugs pulled"), "insulation", "run"]
    return ["seen"] if last_cover(log) >= 0 else []


def earths(log: Log, own: str) -> list[str]:
    """Return the lines of the earth that are asked: none of class II."""
    return [] if terms(log).is_two else ["earth", own]


def currents(log: Log) -> list[str]:
    """Return the currents that are asked: both ways where the plug goes in either way, touch current of class II."""
    if terms(log).is_two:
        return ["touch"]
    return ["current"] if is_one_way(log) else ["current", "turned"]


def since_whole(log: Log) -> int:
    """Return from where on what shows the whole machine counts: change, plug, earth."""
    return max(marks(log, REPLACED | EARTHS | {"tags off", "tags back"}), default=-1)


def since_run(log: Log) -> int:
    """Return from where on a run counts: change or plug."""
    return max(marks(log, REPLACED | {"tags off", "tags back"}), default=-1)


def is_whole_shown(log: Log, line: str) -> bool:
    """Tell whether a line of the whole reads good since, after a change with every cover shut."""
    voids = REPLACED | MOVED | {"tags off", "tags back"}
    since = max(marks(log, voids), default=-1) if line == "whole" else since_whole(log)
    rows = goods(log, line, since)
    if not marks(log, REPLACED):
        return bool(rows)
    shut = [place for place in rows if not is_open_at(log[:place])]
    return bool(shut) or not decided("24 after a change the whole is read with every cover shut")


def last_cover(log: Log) -> int:
    """Return the place at which a cover last came off or went on."""
    return max((place for place in places(log, {"opened", "shut", "shut over"}) if is_moved(log, place)), default=-1)


def is_moved(log: Log, place: int) -> bool:
    """Tell whether a cover moved: one from a file that may not have gone on did not."""
    return log[place].what == "opened" or not log[place].is_refused


def is_open_at(log: Log) -> bool:
    """Tell whether a cover is off."""
    place = last_cover(log)
    return place >= 0 and log[place].what == "opened"


def is_seen(log: Log) -> bool:
    since = max(since_whole(log), last_cover(log))
    is_after = last(log, "seen") > since
    return is_after or not decided("24 a cover after the proof voids seen alone")


def is_current(log: Log, name: str) -> bool:
    since = since_whole(log)
    now = [place for place in places(log, {name}, since) if not log[place].is_refused]
    return bool(now) or any(as_of(log, place) > since for place in places(log, {f"{name} before"}))


def as_of(log: Log, place: int, *, is_run: bool = False) -> int:
    """Return as of which record something of before the cut-off counts, -1 where the log holds no such stretch."""
    until = log[:place]
    columns = [coarse(log[: at + 1], log[at].at) for at in range(len(until))]
    if not columns or columns[-1] != "N" or not set(columns) & {"U", "L"}:
        return -1
    ended = max(at for at, column in enumerate(columns) if column != "N") + 1
    begun = ended - 1
    while begun > 0 and columns[begun - 1] != "N":
        begun -= 1
    is_cut = any(said.what in {"isolated", "locked off", "switched off", "plug in hand"} for said in until[ended:])
    moved = REPLACED | EARTHS | {"tags off", "tags back", "opened", "shut", "shut over"}
    if not is_cut or [at for at in marks(until, moved) if at >= begun]:
        return -1
    for at in range(begun, ended):
        ids = {cause.id for cause in standing(log[: at + 1]) if not is_free(log[: at + 1], cause, is_run=is_run)}
        if ids or (is_live_though_forbidden(log[: at + 1]) and not is_run):
            return -1
    return ended if decided("20 seen under power, written down after it was unplugged") else -1


def is_free(log: Log, cause: Cause, *, is_run: bool) -> bool:
    """Tell whether a danger leaves what is claimed alone."""
    if forbids_power(log, cause):
        return False
    if not is_run:
        return True
    return cause.id not in {"bypass", "dry", "contact"} or (cause.id == "bypass" and is_tried(log, cause))


def is_run_shown(log: Log) -> bool:
    """Tell whether the newest run went through, and counts since the last change or plug."""
    rows = [(place, ran_at(log, place)) for place in places(log, {"run", "run trips", "run before"})]
    newest = next(((place, at) for place, at in reversed(rows) if at >= 0), None)
    return newest is not None and log[newest[0]].what != "run trips" and newest[1] > since_run(log)


def ran_at(log: Log, place: int) -> int:
    """Return as of which record a run shows function, -1 where it shows none."""
    if log[place].what == "run before":
        return as_of(log, place, is_run=True)
    return place if is_proper_run(log, place) else -1


def is_own_earth(log: Log) -> bool:
    since = own_since(log, "heater")
    lead = max(marks(log, {"lead off", "lead back"}), default=-1)
    is_heater = since < 0 or is_good(log, "heater.earth", since)
    return is_heater and (lead < 0 or is_good(log, "filter.earth", lead))


def is_insulation(log: Log) -> bool:
    hidden = HIDDEN[terms(log).sheet]
    since = since_whole(log)
    return is_whole_shown(log, "whole") and all(is_good(log, line, since) for line in hidden)


_SHOWN: dict[str, Callable[[Log], bool]] = {
    "seen": is_seen,
    "drum": lambda log: last(log, "drum") > since_whole(log),
    "earth": lambda log: is_whole_shown(log, "cord.pe"),
    "own earth": is_own_earth,
    "14 own earth of the plugs pulled": is_own_earth,
    "insulation": is_insulation,
    "current": lambda log: is_current(log, "current"),
    "turned": lambda log: is_current(log, "turned"),
    "touch": lambda log: is_current(log, "touch"),
    "run": is_run_shown,
    "codes": lambda log: last(log, "codes good") > since_whole(log),
    "joints": lambda log: last(log, "joints") > since_run(log),
}
