"""What figures say of their lines: which count, which only fail, which were read past something that is off."""

from __future__ import annotations

from tests.second.log import SLIP, Log, decided, gone, places, remembered
from tests.second.machine import LINES, Terms, is_kept, is_known, terms

LEAK_TESTS = {
    "leak test all 50M": "cord insulation 50M",
    "leak test all 0.02M": "cord insulation 0.02M",
    "leak test rest 50M": "cord insulation 50M",
    "leak test rest 0.02M": "cord insulation 0.02M",
}


def is_out(log: Log, off: str, back: str) -> bool:
    """Tell whether something went off and did not come back; what was taken back at once was never made."""
    rows = [place for place in places(log, {off, back}) if counts(log, place)]
    return bool(rows) and log[rows[-1]].what == off


def is_earth_off(log: Log) -> bool:
    """Tell whether the heater's earth is off, taken or found."""
    rows = [place for place in places(log, {"earth off", "earth found off", "earth back"}) if counts(log, place)]
    return bool(rows) and log[rows[-1]].what != "earth back"


def counts(log: Log, place: int) -> bool:
    """Tell whether a record stands: neither taken back by now, nor one from a file that would put something right."""
    said = log[place]
    return place not in gone(log) and not (
        said.is_refused and said.what in {"tags back", "earth back", "lead back", "shut"}
    )


def is_struck(log: Log, place: int) -> bool:
    """Tell whether a change or step was taken back too late, or elsewhere: what it voided stays void."""
    back = next((said for said in log if said.back == place), None)
    if back is None:
        return False
    is_slip = back.at - log[place].at <= SLIP and back.device == log[place].device
    return not is_slip and decided("taken back after two minutes: its lines stay asked")


def marks(log: Log, names: set[str], since: int = -1) -> list[int]:
    """Return the places of what voids: what counts, and what was struck too late."""
    return [place for place in places(log, names, since) if counts(log, place) or is_struck(log, place)]


def line_at(log: Log, place: int) -> str:
    """Return the line that a figure answers: with the heater's tags or its earth off the whole is only the rest."""
    text = log[place].what
    if text in LEAK_TESTS:
        return "rest" if "rest" in text else "whole"
    line = LINES[text][0]
    is_off = is_out(log[:place], "tags off", "tags back")
    is_partial = (line == "whole" and (is_off or is_earth_off(log[:place]))) or (line == "across" and is_off)
    if is_partial and decided("a part off makes a whole reading partial"):
        return "rest" if line == "whole" else "across the rest"
    return line


def figure(log: Log, place: int) -> str:
    """Return what a record shows, in the words of the sheet's lines."""
    return LEAK_TESTS.get(log[place].what, log[place].what)


@remembered
def answers(log: Log) -> tuple[tuple[str, int], ...]:
    """Return line and place of every figure, oldest first."""
    return tuple((line_at(log, place), place) for place in places(log, {*LINES, *LEAK_TESTS}))


def read(log: Log, line: str, since: int = -1) -> list[int]:
    """Return the places after one at which a line was read."""
    return [place for name, place in answers(log) if name == line and place > since]


def is_proper(log: Log, place: int) -> bool:
    """Tell whether a figure may lift: stands, with no reason given for it, no correction, not refused elsewhere."""
    said = log[place]
    if said.reason:
        return not decided("a reading with a reason lifts nothing")
    if said.is_refused:
        return not decided("17 what an import would not have been let write lifts nothing")
    if said.what.startswith(("outlet amps", "board relay_on")) and is_found(log, place):
        return not decided("a powered reading on a machine thought dead is found, evidence of no part")
    if said.back is not None:
        return not decided("a correction lifts nothing: the next good one does")
    return place not in gone(log)


def is_found(log: Log, place: int) -> bool:
    """Tell whether a powered reading was made on a machine that was thought to have no power."""
    from tests.second.state import coarse  # noqa: PLC0415 - the states are told by what is imported here

    return coarse(log[:place], log[place].at) == "N"


def goods(log: Log, line: str, since: int, *, then: tuple[Terms, ...] = (), sheet: str = "") -> list[int]:
    """Return the places after one of the good answers in a row to a line, on the terms of now and of then.

    The rest of a machine is that of one sheet: the one that holds, or another one that is named.
    """
    held = [each for each in (terms(log), *then) if is_known(line, each)]
    wanted = sheet or terms(log).sheet
    found: list[int] = []
    for place in read(log, line, since):
        text = figure(log, place)
        if not is_kept(text, terms(log[:place])):
            found = []
        elif line == "rest" and wanted != terms(log[:place]).sheet:
            decided("23 the rest of one machine is not the rest of another")
        elif held and all(is_kept(text, each) for each in held) and is_proper(log, place):
            found.append(place)
    return found


def is_good(log: Log, line: str, since: int, then: tuple[Terms, ...] = ()) -> bool:
    """Tell whether a line reads good since a record."""
    return bool(goods(log, line, since, then=then))


def is_slip(log: Log, place: int) -> bool:
    """Tell whether a bad figure was corrected within two minutes."""
    back = next((said for said in log[place:] if said.back == place and not said.is_refused), None)
    return back is not None and back.what in LINES and back.at - log[place].at <= SLIP


MILD = "cord insulation >299M at 250 V"


def has_arrester(log: Log) -> bool:
    """Tell whether it is known that a surge arrester goes to earth."""
    return bool(places(log, {"arrester"}))


def is_lead_off(log: Log) -> bool:
    """Tell whether the earth lead of the arrester is off."""
    rows = [place for place in places(log, {"lead off", "lead back"}) if counts(log, place)]
    return bool(rows) and log[rows[-1]].what == "lead off"


def is_shown_both_ways(log: Log, good: list[int]) -> bool:
    """Tell whether the whole read good at 500 V with the arrester's lead off, and at 250 V with it back."""
    is_off = any(is_lead_off(log[:place]) for place in good if log[place].what != MILD)
    return is_off and any(log[place].what == MILD for place in good) and decided("22 an arrester: lead off, lead back")


def changed_at(log: Log, part: str) -> int:
    """Return the place of a part's last change that stands, -1 where there is none: one taken back mends nothing."""
    return max((place for place in places(log, {f"{part} replaced"}) if counts(log, place)), default=-1)


def last_change(log: Log) -> int:
    """Return the place of the last change of any part that stands, -1 where there is none."""
    return max(changed_at(log, part) for part in ("heater", "cord", "lock"))


def own_since(log: Log, part: str) -> int:
    """Return from where on a part's own lines count: its change, its earth or its plugs off or back."""
    names = {f"{part} replaced"} | (
        {"earth off", "earth found off", "earth back", "tags off", "tags back"} if part == "heater" else set()
    )
    return max(marks(log, names), default=-1)


def last_of_line(log: Log, line: str) -> int:
    """Return the place of the newest answer to a line, -1 where there is none."""
    return max(read(log, line), default=-1)
