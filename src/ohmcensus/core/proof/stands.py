"""How the machine has to stand for what is to be shown, and whether it does."""

from __future__ import annotations

from enum import StrEnum

from ohmcensus.core.event import CutOff, Way
from ohmcensus.core.proof.criteria import Criterion, ShownBy
from ohmcensus.core.safety import Safety, SafetyState

DRUM = "drum"
POWERED = frozenset({SafetyState.LIVE, SafetyState.UNDER_VOLTAGE})
_UNDER_POWER = frozenset({ShownBy.CURRENT, ShownBy.GFCI, ShownBy.RUN, ShownBy.HEAT})


class Stand(StrEnum):
    """How a machine stands for a proof."""

    ANY = "any"
    CUT_OFF = "cut_off"
    PROVED_DEAD = "proved_dead"
    DEAD = "dead"
    POWERED = "powered"

    @property
    def words(self) -> str:
        """The state in words, empty where any will do."""
        return _WORDS[self]


_WORDS = {
    Stand.ANY: "",
    Stand.CUT_OFF: "unplugged",
    Stand.PROVED_DEAD: "proved dead, or its plug in your hand",
    Stand.DEAD: "proved dead",
    Stand.POWERED: "plugged in, panels shut",
}


def needed(criterion: Criterion) -> Stand:
    """Return how the machine has to stand: readings proved dead, the drum unplugged, runs under power."""
    if criterion.kind in _UNDER_POWER:
        return Stand.POWERED
    if criterion.kind is ShownBy.READING:
        return Stand.PROVED_DEAD
    return Stand.CUT_OFF if criterion.id == DRUM else Stand.ANY


def needed_by(way: Way) -> Stand:
    """Return how the machine has to stand for a method: the alternative one drives a voltage of its own."""
    return Stand.DEAD if way is Way.ALTERNATIVE else Stand.POWERED


def stands(stand: Stand, safety: Safety) -> bool:
    """Tell whether the machine stands so now."""
    match stand:
        case Stand.CUT_OFF:
            return safety.isolated
        case Stand.PROVED_DEAD:
            return safety.state is SafetyState.DEAD or safety.cut is CutOff.PLUG_IN_HAND
        case Stand.DEAD:
            return safety.state is SafetyState.DEAD
        case Stand.POWERED:
            return safety.state in POWERED and safety.is_shut
        case Stand.ANY:
            return True
