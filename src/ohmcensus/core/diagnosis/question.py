"""A question: what may be asked next, from where the machine stands, and what it is chosen for."""

from __future__ import annotations

import math
from collections.abc import Mapping
from dataclasses import dataclass, field
from enum import StrEnum

from ohmcensus.core.diagnosis.effort import SAME_PLACE_MINUTES, Place, efforts
from ohmcensus.core.machine.asked import LIVE_PENALTY_MINUTES, LOOK, RUN
from ohmcensus.core.sheet import Sheet

# What a minute costs against spares, in the currency of the firm (ours, a setting).
MINUTE_COST = 1.0
# Less than this and a test settles nothing.
LEAST_BITS = 0.01
# What the chance of its part weighs for whoever asks the likeliest part first.
LIKELIEST_WEIGHT = 10.0


class Objective(StrEnum):
    """What the next question is chosen for."""

    SOONEST = "soonest"
    CHEAPEST = "cheapest"
    LEAST_DISMANTLING = "least_dismantling"
    LIKELIEST_FIRST = "likeliest_first"

    @property
    def words(self) -> str:
        """The objective in words."""
        return _OBJECTIVE_WORDS[self]


_OBJECTIVE_WORDS = {
    Objective.SOONEST: "soonest certain",
    Objective.CHEAPEST: "cheapest expected repair",
    Objective.LEAST_DISMANTLING: "least dismantling",
    Objective.LIKELIEST_FIRST: "likeliest first",
}


@dataclass(frozen=True)
class Reach:
    """Where the machine stands now, and what cannot be asked.

    Parameters
    ----------
    open_panels
        Covers that are off.
    cover_minutes
        What covers take to come off, where that is not the sheet's own figure.
    left_out
        Tests that are not asked as new: made, or barred.
    barred
        Tests that cannot be made: left out by whoever works there, out of reach, without a meter.
    stamped
        Parts of which plate or stamp was read.
    place
        Where the last test was made, with its plug off and the meter in hand; None where nobody stands anywhere.
    live_penalty
        Minutes that a live test behind a cover counts on top.
    has_power
        Whether the machine may be powered at all.
    before_power
        Tests that must pass before there may be power, in order, where there may be none.
    to_live, to_dead
        Minutes from the machine's state of safety to power, and to proved dead; a share of them counts, as of covers.
    minute_cost
        What a minute of work costs, against spares.
    """

    open_panels: frozenset[str] = frozenset()
    cover_minutes: Mapping[str, float] = field(default_factory=dict, hash=False)
    left_out: frozenset[str] = frozenset()
    barred: frozenset[str] = frozenset()
    stamped: frozenset[str] = frozenset()
    place: Place | None = None
    live_penalty: float = LIVE_PENALTY_MINUTES
    has_power: bool = True
    before_power: tuple[str, ...] = ()
    to_live: float = 0.0
    to_dead: float = 0.0
    minute_cost: float = MINUTE_COST

    def minutes_to(self, sheet: Sheet, panel: str | None) -> float:
        """Return the minutes until a cover is off, nought where it is."""
        if panel is None or panel in self.open_panels or panel not in sheet.panels:
            return 0.0
        return self.cover_minutes.get(panel, sheet.panels[panel].minutes)

    def effort_of(self, test: str, sheet: Sheet) -> tuple[float, float, float]:
        """Return the minutes of a test itself, of its plugs, and of covers and safety before it."""
        own = efforts(sheet)[test]
        cover = self.minutes_to(sheet, own.panel) + (self.to_live if own.is_live else self.to_dead)
        if own.place is not None and own.place == self.place:
            return min(own.minutes, SAME_PLACE_MINUTES), 0.0, cover
        return own.minutes, own.plug_minutes, cover


class Asks(StrEnum):
    """What is done to answer a question."""

    TEST = "test"
    LOOK = "look"
    RUN = "run"
    PLATE = "plate"


@dataclass(frozen=True, slots=True)
class Question:
    """A test that may be made next.

    Parameters
    ----------
    test
        Its id.
    part
        Whose.
    minutes, reach_minutes
        For the test, and for covers and plugs before it.
    bits
        What it is expected to settle of the repair.
    score
        By the objective, the greatest first; infinite where a guard asks for it before a part is named.
    is_repeat
        Whether it was asked before, and a second reading is worth more than another test.
    rating
        What is to be read on a plate or a stamp; empty where it is none.
    also
        Tests that are made in the same go, their minutes counted.
    because
        Why it is asked where nothing was weighed for it, in a sentence: a change wants it.
    """

    test: str
    part: str
    minutes: float
    reach_minutes: float
    bits: float
    score: float
    is_repeat: bool = False
    rating: str = ""
    also: tuple[str, ...] = ()
    because: str = ""

    @property
    def is_guarded(self) -> bool:
        """Whether a guard asks for it before anything is named."""
        return math.isinf(self.score)

    @property
    def kind(self) -> Asks:
        """What is done to answer it."""
        if self.rating:
            return Asks.PLATE
        return Asks.RUN if self.test == RUN else Asks.LOOK if is_look(self.test) else Asks.TEST


def is_look(test: str) -> bool:
    """Tell whether a question is one for eye or hand."""
    return test.partition(".")[2].startswith(LOOK)


def part_of(test: str) -> str:
    """Return the part of a question: the first half of its id."""
    return test.partition(".")[0]
