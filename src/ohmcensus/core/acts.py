"""What may be done where a rule refuses: the ways on, as every refusal for safety carries them."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from enum import StrEnum
from typing import Any


class ActId(StrEnum):
    """The ways on; the names stay as they are."""

    PROVE_DEAD = "prove_dead"
    PLUG_IN_HAND = "plug_in_hand"
    ON_THE_BENCH = "on_the_bench"
    GIVE_REASON = "give_reason"
    PULL_PLUG = "pull_plug"
    SAY_ISOLATED = "say_isolated"
    WAS_BEFORE = "was_before"
    WAS_NOW = "was_now"
    FOUND_LIVE = "found_live"
    SHUT_COVER = "shut_cover"
    REFIT = "refit"
    OVER_IT = "over_it"
    MEASURE = "measure"
    DISCHARGE = "discharge"
    READ_OUTLET = "read_outlet"
    TRY_INTERLOCK = "try_interlock"
    SAY_DOOR = "say_door"
    SAY_GFCI = "say_gfci"
    NOTE_PLACE = "note_place"
    HANDS_OFF_THERE = "hands_off_there"
    SEEN_ABSENT = "seen_absent"
    WAIT = "wait"
    LABEL_UNSAFE = "label_unsafe"


class How(StrEnum):
    """How an act is done: by going somewhere, by sending an event, by sending the refused request again with more."""

    GO = "go"
    SEND = "send"
    AGAIN = "again"


@dataclass(frozen=True, slots=True)
class Act:
    """One way on.

    Parameters
    ----------
    id, label
        Which, and what stands on its button: what is done there, or what whoever presses it states.
    how
        Going somewhere, sending an event, or sending the refused request again.
    room, at
        Where to go: the room, and the id of the place on its page.
    event
        Body of the event that is sent.
    is_again
        Whether the refused request follows the event by itself.
    more
        Fields that are merged into the refused request.
    asks
        The field that a person fills first, empty where none is.
    """

    id: ActId
    label: str
    how: How
    room: str = ""
    at: str = ""
    event: Mapping[str, Any] = field(default_factory=dict)
    is_again: bool = False
    more: Mapping[str, Any] = field(default_factory=dict)
    asks: str = ""

    def __hash__(self) -> int:
        """Hash by what is plain; equality looks at all of it."""
        return hash((self.id, self.label, self.how, self.room, self.at, self.asks))


def go(act: ActId, label: str, room: str, at: str = "") -> Act:
    """Return an act that leads to a place on a page."""
    return Act(act, label, How.GO, room=room, at=at)


def send(act: ActId, label: str, event: Mapping[str, Any], *, is_again: bool = True) -> Act:
    """Return an act that writes an event down, and tries the refused request once more."""
    return Act(act, label, How.SEND, event=event, is_again=is_again)


def again(act: ActId, label: str, more: Mapping[str, Any], *, asks: str = "") -> Act:
    """Return an act that sends the refused request again with more in it."""
    return Act(act, label, How.AGAIN, more=more, asks=asks)
