"""What is refused, by which row: the table of readings and the column *refused* of the table of events."""

from __future__ import annotations

from itertools import pairwise

from tests.second.answers import figure, is_earth_off, is_good, is_lead_off, is_out, read
from tests.second.dangers import (
    causes,
    changed_unread,
    hard,
    has_hard,
    is_off_under,
    standing,
    status,
    was_said,
)
from tests.second.forbidden import is_live_though_forbidden
from tests.second.lifts import is_earth_good, is_tried, is_whole_good, out_since
from tests.second.log import TEN, Log, Said, decided, gap, last, latest, places, when
from tests.second.machine import BIG, is_kept, terms
from tests.second.opens import Cause, is_outlet_pending
from tests.second.sign import refuses_safe
from tests.second.state import (
    POWER,
    attends,
    cut_off,
    hands_in,
    is_charged,
    is_hand_proved,
    is_in,
    powered_at,
    provers,
    state,
)

ACROSS = frozenset({"cord across 640k", "cord across 0.3"})
OHMS = ACROSS | frozenset(
    {
        "heater 26",
        "filter earth 0.08",
        "cord pe 0.08",
        "cord pe 0.2",
        "cord pe >20",
        "heater earth 0.08",
        "cord l 0.2",
        "cord l 2.4",
    }
    | {"cord n 0.3", "lock unlocked OL", "lock unlocked 0.3", "board relay OL", "board relay 0.2"}
    | {"level empty 0.2", "level rest OL", "level full 0.2", "level left OL"}
)
WHOLE_500 = frozenset(
    {"cord insulation >299M at 250 V", "cord insulation 50M", "cord insulation 0.6M", "cord insulation 0.02M"}
)
INSULATION = WHOLE_500 | {"heater pe 50M", "heater pe 0.02M", "motor pe 50M", "steam pe 50M", "steam pe 0.02M"}
LEAK_TESTS = frozenset({"leak test all 50M", "leak test all 0.02M", "leak test rest 50M", "leak test rest 0.02M"})
PLUGS_TESTS = WHOLE_500 | {"cord pe 0.08", "cord pe 0.2", "cord pe >20"} | ACROSS
POWERED = frozenset({"board relay_on 231", "outlet amps_drain 0.8", "outlet amps_drain 9.4"})
WORK = frozenset({"heater replaced", "cord replaced", "lock replaced", "board cleaned"})


def refuses(log: Log, said: Said) -> str:  # noqa: PLR0911 - a row each
    """Return the row by which a record is refused, empty where it is taken."""
    what = said.what
    if what in OHMS | INSULATION:
        return refuses_dead(log, said)
    if what in LEAK_TESTS:
        return refuses_leak_test(log, said)
    if what in POWERED:
        return refuses_powered(log, said)
    if what in {"attended", "hands off"}:
        return "" if is_prover(log, said) else "2 still here and hands off: from the prover's device"
    if what == "codes now" and cut_off(log, said.at) < 0:
        return ""
    if what in POWER:
        return refuses_power(log, said)
    if what == "ended safe":
        return refuses_safe(log, said)
    rule = _ROWS.get(what)
    return rule(log, said) if rule else ""


def is_prover(log: Log, said: Said) -> bool:
    """Tell whether the proof is a device's, or its hands are in."""
    return said.device in provers(log) or is_in(log, said.device, said.at)


def refuses_power(log: Log, said: Said) -> str:  # noqa: PLR0911, C901 - a row each
    """Return why power is refused."""
    what, column = said.what, state(log, said.at)
    if column == "L" and what in {"plugged in", "reclosed in", "interlock holds", "interlock starts"}:
        return f"{what}: in live mode"
    if hands_in(log, said.at, said.device):
        return "two people: another's hands are in"
    if is_earth_off(log) or is_lead_off(log):
        return "power: an earth is off"
    if is_live_though_forbidden(log):
        return "power: live_though_forbidden"
    if forbids(log, said):
        return "power: a danger forbids it"
    if part := changed_unread(log):
        return f"before power: the {part} was changed and is not read"
    if is_outlet_pending(log):
        return "16 power: read neutral to earth too"
    if column != "L" and not what.startswith("live begun") and (off := what_is_off(log)):
        return f"power: {off} is off"
    if what in {"run", "run trips"}:
        row = first(log, {"bypass", "dry"})
        return f"run: {row}" if row else ""
    if what in {"interlock holds", "interlock starts"}:
        return refuses_trial(log)
    if what.startswith("live begun"):
        return refuses_unsaid(log, said)
    return refuses_reclose(log) if what == "reclosed in" else ""


def what_is_off(log: Log) -> str:
    """Return what is off and forbids power outside live mode, empty where nothing is."""
    if is_out(log, "opened", "shut") and not is_shut_over(log):
        return "a cover"
    return "a plug of a mains part" if is_out(log, "tags off", "tags back") and not is_spared(log) else ""


def forbids(log: Log, said: Said) -> bool:
    """Tell whether a danger forbids power; a re-close with the machine in waits for the earth alone."""
    if said.what != "reclosed in":
        return has_hard(log)
    rows = [cause for cause in causes(log) if (cause.id, cause.by, cause.place) in hard(log)]
    trips = [cause for cause in rows if cause.id == "trip"]
    is_free = all(is_earth_good(log, cause.place, (terms(log[: cause.place + 1]), terms(log))) for cause in trips)
    if trips and is_free and decided("trip: closed again with the machine in, earth good"):
        rows = [cause for cause in rows if cause.id != "trip"]
    return bool(rows)


def first(log: Log, ids: set[str]) -> str:
    """Return a danger that forbids cycle and run; a bypass that was tried does not."""
    rows = [cause for cause in standing(log) if cause.id in ids]
    return next((cause.id for cause in rows if cause.id == "dry" or not is_tried(log, cause)), "")


def refuses_trial(log: Log) -> str:
    if first(log, {"dry"}):
        return "interlock: dry"
    for cause in standing(log):
        if cause.id == "bypass" and not is_tried(log, cause) and not reads_open(log, cause):
            return "interlock: open does not read open"
    return ""


def reads_open(log: Log, cause: Cause) -> bool:
    """Tell whether an interlock reads open since it was put right."""
    since = out_since(log, cause)
    return since >= 0 and is_good(log, "lock.unlocked", since, (terms(log[: cause.place + 1]), terms(log)))


def refuses_unsaid(log: Log, said: Said) -> str:
    if first(log, {"dry"}):
        return "live: heater wires off is not said"
    return "live: lid shut is not said" if first(log, {"bypass"}) and "lid shut" not in said.what else ""


def refuses_reclose(log: Log, _said: Said | None = None) -> str:
    trips = places(log, {"tripped", "breaker", "run trips"})
    if not trips:
        return "reclosed: nothing tripped"
    again = [place for place in places(log, {"reclosed in", "reclosed out"}, trips[-1]) if not log[place].is_refused]
    return "reclosed: a second time" if again else ""


def is_spared(log: Log) -> bool:
    """Tell whether the heater is off since it leaks, all the rest shown good."""
    return any(
        cause.id == "insulation" and is_off_under(log, cause) and status(log, cause) != "lifted"
        for cause in causes(log)
    )


def is_shut_over(log: Log) -> bool:
    """Tell whether the cover was shut over the part that is off."""
    shut = [place for place in places(log, {"shut", "shut over"}) if not log[place].is_refused]
    return max(shut, default=-1) > last(log, "opened")


def refuses_dead(log: Log, said: Said) -> str:  # noqa: PLR0911 - a row each
    """Return why a reading of a dead circuit is refused; a reason helps where all that SAFETY asks of one is there."""
    if is_live_though_forbidden(log):
        return "live_though_forbidden: every reading"
    column, cut = state(log, said.at), cut_off(log, said.at)
    if column in "UL":
        return "ohms under voltage"
    if column == "D":
        return refuses_joined(log, said, cut)
    if cut >= 0 and log[cut].what == "plug in hand" and not is_charged(log):
        if said.what not in PLUGS_TESTS:
            return "plug in hand: nothing inside"
        if is_out(log, "opened", "shut") and not is_shut_over(log):
            return "plug in hand: covers on"
        if not is_hand_proved(log, said.at):
            return "plug in hand: source and line to neutral first"
        decided("plug in hand: a test at its pins")
        return ""
    return refuses_override(log, said, cut)


def refuses_joined(log: Log, said: Said, cut: int) -> str:
    """Refuse 500 V at a supply that may be joined to the mains in one pole."""
    is_joined = log[cut].what == "switched off" or last(log, "plug fixed") >= 0
    return (
        "11 one pole or a fixed cord: the cord is off its terminals first"
        if is_joined and said.what in INSULATION | ACROSS
        else ""
    )


def refuses_override(log: Log, said: Said, cut: int) -> str:  # noqa: PLR0911 - a row each
    if said.what in INSULATION:
        return "9 insulation: no reason helps"
    if is_charged(log):
        return "charged: no reason helps"
    if cut < 0:
        return "override: not cut off"
    if is_over_since(log):
        return "override: a point was over its limit"
    if log[cut].device != said.device:
        return "9 override: another device cut it off"
    mine = [cut, *(p for p in range(cut, len(log)) if log[p].device == said.device and attends(log, p))]
    is_away = latest(log, said.at) - when(log, mine[-1]) > TEN
    if is_away or any(gap(log, *pair) > TEN for pair in pairwise(mine)):
        return "9 override: away for ten minutes"
    if not is_discharged(log):
        return "9 override: a charge was not read"
    if not said.reason:
        return "ohms: not proved dead"
    if any(row.reason == said.reason for row in log):
        return "9 override: that reason again"
    return refuses_joined(log, said, cut)


def is_discharged(log: Log) -> bool:
    """Tell whether every charge over 0.35 J was read at most 10 V since the last power."""
    return all(last(log, f"{name} 0.3") > powered_at(log) for name in BIG[terms(log).sheet])


def is_over_since(log: Log) -> bool:
    """Tell whether a point was read over its limit since the last whole series."""
    over = last(log, "dead ln 40", "dead filter 20")
    return over >= 0 and not any(state(log[:end], log[end - 1].at) == "D" for end in range(over + 2, len(log) + 1))


def refuses_leak_test(log: Log, said: Said) -> str:
    if is_live_though_forbidden(log):
        return "live_though_forbidden: every reading"
    column = state(log, said.at)
    if column != "D":
        return "leak test: not proved dead"
    cut = cut_off(log, said.at)
    is_joined = log[cut].what == "switched off" or last(log, "plug fixed") >= 0
    return "11 one pole or a fixed cord: the cord is off its terminals first" if is_joined else ""


def refuses_powered(log: Log, said: Said) -> str:
    """Refuse a reading that only a powered machine gives, on the open machine outside live mode."""
    if is_live_though_forbidden(log):
        return "live_though_forbidden: every reading"
    is_open = is_out(log, "opened", "shut") and not is_shut_over(log)
    return "powered reading: a cover off outside live" if state(log, said.at) == "U" and is_open else ""


def refuses_switched(log: Log, said: Said) -> str:
    first_off = [p for p in places(log, {"switched off"}, powered_at(log)) if not log[p].is_refused]
    is_over = bool(first_off) and when(log, len(log) - 1) - when(log, first_off[0]) > TEN
    is_over |= bool(first_off) and said.at - when(log, first_off[0]) > TEN
    return "10 switched off again after its ten minutes" if is_over else ""


def refuses_work(log: Log, said: Said) -> str:
    return "13 changed, cleaned: under voltage" if state(log, said.at) in "UL" else ""


def refuses_shut(log: Log, said: Said) -> str:
    if not is_out(log, "opened", "shut") or is_shut_over(log):
        return "shut: not off"
    if not is_out(log, "tags off", "tags back"):
        return ""
    is_tied = said.what == "shut over" or bool(tied(log))
    if is_tied and is_spared(log):
        decided("18 the cover shut over a part that is off")
        return ""
    return "18 shut: a part is off beneath it"


def tied(log: Log) -> list[int]:
    """Return where it was said that the wires of what is off are insulated and tied away."""
    return [place for place in places(log, {"shut over"}, last(log, "tags off")) if not log[place].is_refused]


def refuses_tags_back(log: Log, said: Said) -> str:
    if not is_out(log, "tags off", "tags back"):
        return "strip_back: not off"
    is_powered = state(log, said.at) in "UL"
    return "13 strip_back under voltage: a part that leaks" if is_powered and is_spared(log) else ""


def refuses_earth_off(log: Log, said: Said) -> str:
    return "earth_lifted: not proved dead" if state(log, said.at) != "D" else ""


def refuses_earth_back(log: Log, said: Said) -> str:
    if not is_earth_off(log):
        return "earth_refitted: not off"
    return "earth_refitted: under voltage" if state(log, said.at) in "UL" else ""


def refuses_lead_back(log: Log, said: Said) -> str:
    if not is_lead_off(log):
        return "earth_refitted: not off"
    return "earth_refitted: under voltage" if state(log, said.at) in "UL" else ""


def refuses_own_volts(log: Log, said: Said) -> str:
    """Refuse a test of the unplugged machine that makes its own volts, where there are others."""
    if is_live_though_forbidden(log):
        return "live_though_forbidden: every reading"
    return "its own volts: under voltage" if state(log, said.at) in "UL" else ""


def refuses_bypass_out(log: Log, said: Said) -> str:
    if not any(cause.id == "bypass" for cause in standing(log)):
        return "bypass_removed: none found"
    return "bypass_removed: under voltage" if state(log, said.at) in "UL" else ""


def refuses_barring(log: Log, _said: Said) -> str:
    has_failed = any(cause.id == "insulation" for cause in standing(log))
    rows = read(log, "whole")
    has_failed |= bool(rows) and not is_kept(figure(log, rows[-1]), terms(log))
    return "insulation_not_allowed: tested and failed" if has_failed else ""


def refuses_error(log: Log, said: Said) -> str:
    name = said.what.removesuffix(" in error")
    rows = [cause for cause in standing(log) if cause.id == name]
    if not rows:
        return "noted_in_error: no such danger"
    told = [cause for cause in rows if was_said(cause)]
    if not told:
        return "15 noted_in_error: measured, or a former job's"
    then = [(cause, (terms(log[: cause.place + 1]), terms(log))) for cause in told]
    is_read = all(
        is_earth_good(log, cause.place, held) and is_whole_good(log, cause.place, held) for cause, held in then
    )
    return "15 noted_in_error: a shock before its lines" if name == "shock" and not is_read else ""


def refuses_live_end(log: Log, said: Said) -> str:
    return "" if state(log, said.at) == "L" else "live_ended: not live"


def refuses_unsafe(log: Log, said: Said) -> str:
    return "" if cut_off(log, said.at) >= 0 else "ended unsafe: cut off first"


_ROWS = {
    "switched off": refuses_switched,
    "heater replaced": refuses_work,
    "cord replaced": refuses_work,
    "lock replaced": refuses_work,
    "board cleaned": refuses_work,
    "shut": refuses_shut,
    "shut over": refuses_shut,
    "tags back": refuses_tags_back,
    "earth off": refuses_earth_off,
    "lead off": refuses_earth_off,
    "lead back": refuses_lead_back,
    "motor tacho_volts 0.8": refuses_own_volts,
    "earth back": refuses_earth_back,
    "bypass out": refuses_bypass_out,
    "barred": refuses_barring,
    "shock in error": refuses_error,
    "trip in error": refuses_error,
    "earth in error": refuses_error,
    "live ended": refuses_live_end,
    "reclosed out": refuses_reclose,
    "ended unsafe": refuses_unsafe,
}
