"""Which dangers stand, from which cause, and what they forbid."""

from __future__ import annotations

from tests.second import lifts
from tests.second.answers import (
    changed_at,
    figure,
    goods,
    has_arrester,
    is_good,
    is_out,
    is_shown_both_ways,
    is_slip,
    last_change,
    marks,
    own_since,
    read,
)
from tests.second.log import Log, decided, gone, is_apart, places, remembered
from tests.second.machine import (
    LINES,
    PART,
    TERMS,
    Terms,
    is_kept,
    is_known,
    terms,
)
from tests.second.opens import Cause, opened_at

POWER_IDS = frozenset({"shock", "trip", "burnt_smell", "water_inside", "earth", "insulation", "cord"})
MEASURED_LINES = (
    "cord.pe",
    "heater.earth",
    "whole",
    "rest",
    "heater.pe",
    "steam.pe",
    "board.relay",
    "outlet.amps_drain",
)


@remembered
def causes(log: Log) -> tuple[Cause, ...]:
    """Return every cause that ever opened: of each the newest that was not noted in error."""
    found: dict[tuple[str, str, bool], Cause] = {}
    for place in range(len(log)):
        for each in opened_at(log[: place + 1]):
            key = key_of(each)
            if key not in found or not is_error(log, each):
                found[key] = each
    return tuple(found.values())


@remembered
def status(log: Log, cause: Cause) -> str:
    """Return *open*, *goes* (it read good since, with no change), *off* (the part is off) or *lifted*."""
    if is_error(log, cause):
        return "lifted"
    if cause.id in {"earth", "insulation", "contact"} and cause.by in MEASURED_LINES and not cause.is_former:
        return status_of_line(log, cause, terms_of(log, cause))
    was = "open"
    by: tuple[int, ...] = ()
    then = [terms(log[: cause.place + 1])]
    for end in range(cause.place + 2, len(log) + 1):
        until = log[:end]
        if was == "open" and lifts.is_met(until, cause, (*then, terms(until))):
            was, by = "lifted", lifted_by(until, cause)
        elif was == "lifted" and is_undone(until, cause, tuple(then), by):
            was = "open"
            then.append(terms(until))
            decided("once lifted: what lifted it went, it opens anew")
    is_off = was == "open" and cause.id == "insulation" and is_off_under(log, cause)
    return "off" if is_off else was


def lifted_by(log: Log, cause: Cause) -> tuple[int, ...]:
    """Return the length of the log at which a danger was lifted, and the places of what was read good by then."""
    return (
        len(log),
        *(at for line in {"rest", *(line for line, _ in LINES.values())} for at in goods(log, line, cause.place)),
    )


def is_undone(log: Log, cause: Cause, then: tuple[Terms, ...], by: tuple[int, ...]) -> bool:
    """Tell whether the newest record takes away what a danger was lifted by: a reading, or terms that asked less."""
    said = log[-1]
    is_change = said.back is not None and log[said.back].what.endswith("replaced")
    if said.back is not None and (said.back in by[1:] or is_change):
        return not lifts.is_met(log, cause, (*then, terms(log)))
    if said.what in TERMS:
        return not lifts.is_met(log[: by[0]], cause, (*then, terms(log)))
    return False


@remembered
def terms_of(log: Log, cause: Cause) -> tuple[Terms, ...]:
    """Return the terms that held as a line read bad, and each time that stricter ones opened it anew."""
    if len(log) <= cause.place + 1:
        return (terms(log),)
    then, said = terms_of(log[:-1], cause), log[-1]
    is_lifted = said.what in TERMS and status_of_line(log[:-1], cause, then) == "lifted"
    is_anew = is_lifted and status_of_line(log, cause, then) != "lifted"
    return (*then, terms(log)) if is_anew else then


def status_of_line(log: Log, cause: Cause, then: tuple[Terms, ...]) -> str:
    """Return the status of a line that read bad."""
    line = cause.by if is_known(cause.by, terms(log)) else "whole"
    if line != cause.by:
        decided("23 a line that the sheet has not goes by the whole line")
    good = goods(log, line, cause.place, then=then, sheet=then[0].sheet)
    if line == "rest":
        whole = goods(log, "whole", cause.place, then=then)
        good = whole if not good or is_apart([log[place].at for place in whole], 3) else good
    part = PART.get(cause.by)
    changed = changed_at(log, part) if part else last_change(log)
    if line == "cord.pe":
        changed = changed_at(log, "cord")
    if line == "board.relay":
        changed = -1
    is_changed = changed > bad_at(log, cause)
    if part and is_changed and line == "heater.pe" and goods(log, line, changed, then=then):
        return "lifted"
    if not good and is_taken_back(log, line, cause.place):
        decided("3 the good reading taken back: nothing good stands")
    if not good:
        return "off" if cause.id == "insulation" and is_off_under(log, cause) else "open"
    if line == "whole" and has_arrester(log) and is_shown_both_ways(log, good):
        return "lifted"
    if is_slip(log, cause.place) and decided("19 a slip is lifted by the next good one"):
        return "lifted"
    is_settled = is_changed or is_apart([log[place].at for place in good], 3)
    return "lifted" if is_settled or not decided("comes and goes") else "goes"


def bad_at(log: Log, cause: Cause) -> int:
    """Return the place of the reading that is bad: stricter terms may have made it so later, past a change."""
    rows = [place for place in read(log[: cause.place + 1], cause.by) if place not in gone(log[: cause.place + 1])]
    return max(rows, default=cause.place)


def is_taken_back(log: Log, line: str, since: int) -> bool:
    """Tell whether something good that was read on a line after a place was taken back."""
    return any(place in gone(log) and is_kept(figure(log, place), terms(log)) for place in read(log, line, since))


def is_off_under(log: Log, cause: Cause) -> bool:
    """Tell whether the heater is off since it leaks, and a later leak test of all the rest was good."""
    if not is_out(log, "tags off", "tags back") or cause.by not in {"heater.pe", "whole"}:
        return False
    return is_good(log, "rest", cause.place) and decided("insulation: the part off, the rest good: power without it")


def is_error(log: Log, cause: Cause) -> bool:
    """Tell whether a danger was noted in error after it opened."""
    if not was_said(cause):
        return False
    names = [place for place in places(log, {f"{cause.id} in error"}, cause.place) if not log[place].is_refused]
    closed = any(status(log[:place], cause) != "lifted" or is_told_again(log[:place], cause) for place in names)
    return closed and decided("noted in error: what was told is closed")


@remembered
def is_told_again(log: Log, cause: Cause) -> bool:
    """Tell whether it was told anew while it stood, and that stands: it is one danger, with all its tellings."""
    for end in range(cause.place + 2, len(log) + 1):
        again = [each for each in opened_at(log[:end]) if (each.id, each.by, each.is_former) == key_of(cause)]
        stood = bool(again) and status(log[: end - 1], cause) != "lifted"
        if stood and any(status(log, each) != "lifted" for each in again):
            return True
    return False


def key_of(cause: Cause) -> tuple[str, str, bool]:
    """Return what makes two causes the same one, told twice."""
    return (cause.id, cause.by, cause.is_former)


def was_said(cause: Cause) -> bool:
    """Tell whether a cause was told, tapped or looked at on this job."""
    return (not cause.is_former and cause.by in {"told", "trip", "look", "heater earth off"}) or cause.by.startswith(
        "found"
    )


@remembered
def standing(log: Log) -> tuple[Cause, ...]:
    """Return the causes that stand."""
    return tuple(cause for cause in causes(log) if status(log, cause) != "lifted")


def forbids_power(log: Log, cause: Cause) -> bool:
    """Tell whether a cause forbids power now."""
    return cause.id in POWER_IDS and status(log, cause) == "open"


@remembered
def has_hard(log: Log) -> bool:
    """Tell whether a danger of the machine itself forbids power."""
    return any(forbids_power(log, cause) for cause in causes(log))


def hard(log: Log) -> frozenset[tuple[str, str, int]]:
    """Return the causes that forbid power."""
    return frozenset((cause.id, cause.by, cause.place) for cause in causes(log) if forbids_power(log, cause))


@remembered
def changed_unread(log: Log) -> str:
    """Return the part that was changed, or had its earth off, and whose lines were not read since; empty for none."""
    held = terms(log)
    if marks(log, {"cord replaced"}):
        since = own_since(log, "cord")
        lines = ("cord.l", "cord.n", "whole") if held.is_two else ("cord.l", "cord.n", "cord.pe", "whole")
        if not all(is_good(log, line, since) for line in lines):
            return "cord"
    if marks(log, {"heater replaced", "earth off", "earth back"}):
        since = own_since(log, "heater")
        is_earth = held.is_two or is_good(log, "heater.earth", since)
        if not is_earth or not any(is_good(log, line, since) for line in ("heater.pe", "whole")):
            return "heater"
    if marks(log, {"lead off", "lead back"}):
        since = max(marks(log, {"lead off", "lead back"}))
        if not held.is_two and not is_good(log, "filter.earth", since):
            return "filter"
    if marks(log, {"lock replaced"}) and not is_good(log, "whole", own_since(log, "lock")):
        return "lock"
    return ""
