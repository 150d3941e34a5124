"""Ways in which parts fail."""

from __future__ import annotations

from enum import StrEnum


class FaultMode(StrEnum):
    """Ways in which a part fails electrically."""

    OPEN = "open"
    SHORT = "short"
    SHORTED_TURNS = "shorted_turns"
    LEAK = "leak"
    DRIFT = "drift"
    WELDED = "welded"
    STUCK_OPEN = "stuck_open"
    BAD_JOINT = "bad_joint"
    EARTH_OPEN = "earth_open"

    @property
    def words(self) -> str:
        """The mode as a person says it."""
        return _MODE_WORDS[self]


_MODE_WORDS = {
    FaultMode.OPEN: "an open circuit",
    FaultMode.SHORT: "a short",
    FaultMode.SHORTED_TURNS: "a few shorted turns",
    FaultMode.LEAK: "a leak to earth",
    FaultMode.DRIFT: "a drifted value",
    FaultMode.WELDED: "a welded contact",
    FaultMode.STUCK_OPEN: "a contact that will not close",
    FaultMode.BAD_JOINT: "a bad joint",
    FaultMode.EARTH_OPEN: "a broken earth",
}
