"""What stood under voltage although that was forbidden, and which run shows function."""

from __future__ import annotations

from tests.second.answers import is_out
from tests.second.dangers import hard, has_hard, standing
from tests.second.log import Log, decided, gone, remembered
from tests.second.state import POWER, SHOWS_POWER, coarse, is_dead, is_hand_proved, last_cut


@remembered
def is_live_though_forbidden(log: Log) -> bool:
    """Tell whether it stood under voltage while a danger forbade it, and was not cut off and proved since."""
    opened = -1
    for place, said in enumerate(log):
        before, after = log[:place], log[: place + 1]
        was_powered = coarse(before, said.at) != "N"
        is_found = said.what == "found powered" or (said.what in SHOWS_POWER and said.back is None and not was_powered)
        is_found |= said.is_refused and said.what in POWER
        is_forbidden = has_hard(before) or opened >= 0
        opens = (is_found and is_forbidden) or (was_powered and is_opening(before, after))
        if opens and decided("live_though_forbidden opens"):
            opened = place
        if opened >= 0 and is_cleared(after, opened):
            opened = -1
    return opened >= 0


def is_proper_run(log: Log, place: int) -> bool:
    """Tell whether a run shows function: no contact known to be closed, no plug of a mains part off."""
    said = log[place]
    if said.is_refused or place in gone(log):
        return False
    before = log[:place]
    has_contact = any(cause.id == "contact" for cause in standing(before))
    if has_contact and decided("contact: a run counts as no function"):
        return False
    return not is_out(before, "tags off", "tags back")


def is_opening(before: Log, after: Log) -> bool:
    """Tell whether the newest record opened a danger that forbids power; a trip by a trip or a run is not such."""
    new = hard(after) - hard(before)
    return any(name != "trip" or place != len(after) - 1 for name, _, place in new)


def is_cleared(log: Log, opened: int) -> bool:
    """Tell whether it was cut off after a place, and proved dead or by the plug in the hand."""
    now = log[-1].at
    return last_cut(log) > opened and (is_dead(log, now) or is_hand_proved(log, now))
