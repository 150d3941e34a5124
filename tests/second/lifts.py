"""What lifts a danger, row by row of the table."""

from __future__ import annotations

from tests.second import dangers
from tests.second.answers import (
    changed_at,
    counts,
    goods,
    is_good,
    is_proper,
    is_slip,
    last_change,
    line_at,
    read,
)
from tests.second.log import Log, decided, places
from tests.second.machine import (
    HIDDEN,
    LEVELS,
    Terms,
    terms,
)
from tests.second.opens import TRIPS, Cause, is_outlet_good


def is_whole_good(log: Log, since: int, then: tuple[Terms, ...], *, without: bool = False) -> bool:
    """Tell whether the insulation reads good: the whole, and by itself what the plug does not see."""
    if without and is_all_off(log, since, then) and decided("trip: the part that leaks is off"):
        return True
    hidden = HIDDEN[then[-1].sheet]
    if hidden and not all(is_good(log, line, since, then) for line in hidden):
        return not decided("insulation: what the plug does not see is read by itself")
    return is_good(log, "whole", since, then)


def is_all_off(log: Log, since: int, then: tuple[Terms, ...]) -> bool:
    """Tell whether insulation dangers stand, every one of a part that is off, and the rest reads good since."""
    leaks = (cause for cause in dangers.causes(log) if cause.id == "insulation")
    rows = [cause for cause in leaks if dangers.status(log, cause) != "lifted"]
    is_same = bool(goods(log, "rest", since, then=then, sheet=then[-1].sheet))
    return bool(rows) and is_same and all(dangers.is_off_under(log, cause) for cause in rows)


def is_earth_good(log: Log, since: int, then: tuple[Terms, ...]) -> bool:
    """Tell whether the earth of the whole reads good; class II, then and now, has none."""
    if all(each.is_two for each in then):
        return decided("class II: neither earth nor the outlet is asked")
    return is_good(log, "cord.pe", since, then)


def is_met(log: Log, cause: Cause, then: tuple[Terms, ...]) -> bool:
    """Tell whether what lifts a danger is there, row by row of the table."""
    return _ROWS[cause.id](log, cause, then)


def shock(log: Log, cause: Cause, then: tuple[Terms, ...]) -> bool:
    since = cause.place
    is_two = all(each.is_two for each in then)
    is_outlet = is_two or is_outlet_good(log, since)
    return is_earth_good(log, since, then) and is_whole_good(log, since, then) and is_outlet


def trip(log: Log, cause: Cause, then: tuple[Terms, ...]) -> bool:
    since = cause.place
    is_leak = log[since].what == "tripped"
    is_read = is_earth_good(log, since, then) and is_whole_good(log, since, then, without=is_leak)
    is_read = is_read and (is_leak or is_no_short(log, since))
    if not is_read or not is_again(log, cause):
        return is_read
    return last_change(log) > since or not decided("trip: the same again asks more")


def is_no_short(log: Log, since: int) -> bool:
    """Tell whether line to neutral at the plug, the machine whole, read no short last."""
    rows = [place for line in ("across", "across the rest") for place in read(log, line)]
    newest = max(rows, default=-1)
    is_whole = newest > since and line_at(log, newest) == "across" and is_proper(log, newest)
    return is_whole and log[newest].what == "cord across 640k" and decided("trip: no short")


def is_again(log: Log, cause: Cause) -> bool:
    """Tell whether the same device had gone before, and that had been lifted by then."""
    before = log[: cause.place]
    earlier = [each for each in dangers.causes(before) if each.id == "trip"]
    ever = [
        place
        for place in places(before, TRIPS)
        if TRIPS[before[place].what] == TRIPS[log[cause.place].what] and was_lifted(before, place)
    ]
    return bool(earlier) and bool(ever)


def was_lifted(log: Log, place: int) -> bool:
    """Tell whether a trip at a place had been lifted before the next one came, or by the end."""
    later = places(log, TRIPS, place)
    until = log[: later[0]] if later else log
    cause = Cause("trip", "trip", place)
    return dangers.status(until, cause) == "lifted" and not dangers.is_error(until, cause)


def smell(log: Log, cause: Cause, then: tuple[Terms, ...]) -> bool:
    is_noted = bool(places(log, {"place noted"}, cause.place))
    return is_noted and is_earth_good(log, cause.place, then) and is_whole_good(log, cause.place, then)


def water(log: Log, cause: Cause, then: tuple[Terms, ...]) -> bool:
    return bool(places(log, {"dried"}, cause.place)) and is_whole_good(log, cause.place, then)


def earth(log: Log, cause: Cause, then: tuple[Terms, ...]) -> bool:
    if cause.by == "outlet":
        return is_outlet_good(log, cause.place)
    if cause.by == "heater earth off":
        back = [place for place in places(log, {"earth back"}, cause.place) if counts(log, place)]
        return bool(back) and is_good(log, "heater.earth", back[-1], then)
    return is_good(log, "cord.pe", cause.place, then)


def insulation(log: Log, cause: Cause, then: tuple[Terms, ...]) -> bool:
    """Of an earlier job: the same line, or its part replaced and read."""
    changed = changed_at(log, "heater")
    if changed > cause.place:
        return is_good(log, cause.by, changed, then) or is_good(log, cause.by, cause.place, then)
    return is_good(log, cause.by, cause.place, then)


def cord(log: Log, cause: Cause, then: tuple[Terms, ...]) -> bool:
    if cause.by == "cord.l" and is_slip(log, cause.place) and is_good(log, "cord.l", cause.place, then):
        return decided("19 a slip is lifted by the next good one")
    changed = changed_at(log, "cord")
    looks = [place for place in places(log, {"cord look good"}, cause.place) if not log[place].is_refused]
    is_seen = cause.is_former and bool(looks)
    if changed <= cause.place and not is_seen:
        return False
    since = max(changed, cause.place)
    lines = ("cord.l", "cord.n", "whole") if then[-1].is_two else ("cord.l", "cord.n", "cord.pe", "whole")
    return all(is_good(log, line, since, then) for line in lines)


def bypass(log: Log, cause: Cause, then: tuple[Terms, ...]) -> bool:
    is_measured = cause.by in {"lock.unlocked", "tried"}
    if is_measured and is_slip(log, cause.place) and is_good(log, "lock.unlocked", cause.place, then):
        return decided("19 a slip is lifted by the next good one")
    from tests.second.forbidden import is_proper_run  # noqa: PLC0415 - the states are told by what is imported here
    from tests.second.sign import as_of  # noqa: PLC0415 - the states are told by what is imported here

    since = out_since(log, cause)
    if since < 0 or not is_good(log, "lock.unlocked", since, then):
        return False
    tried = [place for place in places(log, {"interlock holds"}, since) if not log[place].is_refused]
    if not tried:
        return False
    runs = places(log, {"run"}, tried[-1])
    before = places(log, {"run before"}, tried[-1])
    was = any(as_of(log, place, is_run=True) > tried[-1] for place in before)
    return was or any(is_proper_run(log, place) for place in runs)


def out_since(log: Log, cause: Cause) -> int:
    """Return from where on an interlock's lines count: where one was found it is taken out first; -1 before that."""
    if cause.by in {"lock.unlocked", "tried"} or cause.is_former:
        return cause.place
    out = [place for place in places(log, {"bypass out"}, cause.place) if not log[place].is_refused]
    return max([*out, changed_at(log, "lock")], default=-1) if out or changed_at(log, "lock") > cause.place else -1


def is_tried(log: Log, cause: Cause) -> bool:
    """Tell whether an interlock was tried and held since its contact reads open: cycle and run are free again."""
    since = out_since(log, cause)
    if since < 0 or not is_good(log, "lock.unlocked", since, (terms(log[: cause.place + 1]),)):
        return False
    tried = [place for place in places(log, {"interlock holds"}, since) if not log[place].is_refused]
    return bool(tried) and decided("bypass: tried, it may run")


def contact(log: Log, cause: Cause, then: tuple[Terms, ...]) -> bool:
    return is_good(log, cause.by, cause.place, then)


def dry(log: Log, cause: Cause, then: tuple[Terms, ...]) -> bool:
    """Every level line; those of the other machine are read in none of these histories."""
    return then[-1].sheet == "fl7-u" and all(is_good(log, line, cause.place, then) for line in LEVELS)


def charge(log: Log, cause: Cause, then: tuple[Terms, ...]) -> bool:
    """Of an earlier job: the points of this sheet read at most 10 V."""
    wanted = {"dead filter 0.3"} | ({"dead drive 0.3"} if then[-1].sheet == "fl9-t" else set())
    return all(any(is_discharged(log, at) for at in places(log, {text}, cause.place)) for text in wanted)


def is_discharged(log: Log, place: int) -> bool:
    """Tell whether a point that reads at most 10 V does so a minute or more after it was found charged."""
    from tests.second.state import is_charged  # noqa: PLC0415 - the states are told by what is imported here

    return not log[place].what.startswith("dead filter") or not is_charged(log[: place + 1])


_ROWS = {
    "shock": shock,
    "trip": trip,
    "burnt_smell": smell,
    "water_inside": water,
    "earth": earth,
    "insulation": insulation,
    "cord": cord,
    "bypass": bypass,
    "contact": contact,
    "dry": dry,
    "charge": charge,
}
