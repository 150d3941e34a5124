"""The rhythm that opens a service mode: clicks this way and that, each in its time, all in a window.

Times are seconds on one steady clock whose zero is the first click, so that setting the clock of the
day does nothing to an attempt.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from enum import StrEnum
from typing import Annotated, Literal, Self

from pydantic import BaseModel, ConfigDict, Field, StringConstraints, model_validator

from ohmcensus.core.errors import InputError
from ohmcensus.core.text.trimmed import Sentence

Seconds = Annotated[float, Field(ge=0, le=3600, allow_inf_nan=False)]
MOST_CLICKS = 60

Direction = Literal["right", "left", "press"]
DIRECTION_WORDS: dict[Direction, str] = {"right": "to the right", "left": "to the left", "press": "press"}


class _Frozen(BaseModel):
    model_config = ConfigDict(frozen=True, extra="forbid")


class SequenceStep(_Frozen):
    """So many clicks one way.

    Attributes
    ----------
    hold_s
        How long the last press of the step is held down; 0 for a click.
    """

    direction: Direction
    count: int = Field(default=1, ge=1, le=30, strict=True)
    hold_s: Seconds = 0.0


class EntrySequence(_Frozen):
    """How a mode is entered and left.

    Attributes
    ----------
    before
        What to do first, e.g. turning the knob fully one way to clear it.
    settle_s
        Wait after plugging in, until the board's own capacitors have charged.
    steps
        The clicks.
    window_s
        All clicks within this time of the first.
    gap_s
        Each click within this time of the one before.
    fastest_gap_s
        Quicker than this and the board misses a click.
    success
        What shows that it worked.
    leave, leave_hold_s
        How to leave, and how long that is held; leaving may erase the codes.
    times_out_min
        The mode ends by itself after so many minutes, None where it does not.
    """

    id: Annotated[str, StringConstraints(pattern=r"^[a-z][a-z0-9_]{0,29}$")]
    title: Sentence
    before: str = Field(default="", max_length=300)
    settle_s: Seconds
    steps: tuple[SequenceStep, ...] = Field(min_length=1, max_length=12)
    window_s: float = Field(gt=0, le=120, allow_inf_nan=False)
    gap_s: float = Field(gt=0, le=30, allow_inf_nan=False)
    fastest_gap_s: Seconds
    success: Sentence
    leave: str = Field(default="", max_length=300)
    leave_hold_s: Seconds
    erases_on_leaving: bool
    times_out_min: float | None = Field(default=None, gt=0, le=120)

    @model_validator(mode="after")
    def _can_be_done(self) -> Self:
        if self.fastest_gap_s >= self.gap_s:
            msg = "fastest_gap_s is not below gap_s: no click would fit between them"
            raise ValueError(msg)
        needed = self.fastest_gap_s * (len(self.clicks) - 1)
        if needed > self.window_s:
            msg = f"{len(self.clicks)} clicks need {needed:g} s, the window is {self.window_s:g} s: widen it"
            raise ValueError(msg)
        return self

    @property
    def clicks(self) -> tuple[Direction, ...]:
        """Every click in order."""
        return tuple(step.direction for step in self.steps for _ in range(step.count))

    @property
    def beat_s(self) -> float:
        """Seconds between beats: four fifths of the slowest that counts, or midway where that is too fast."""
        slowest = min(self.gap_s, self.window_s / max(1, len(self.clicks) - 1))
        return max(0.8 * slowest, (self.fastest_gap_s + slowest) / 2)


class Click(_Frozen):
    """One click: which way, and when."""

    direction: Direction
    at_s: float = Field(ge=0, le=36_000, allow_inf_nan=False, strict=True)


class Hint(StrEnum):
    """What to do differently, or that all is well."""

    START = "start"
    RIGHT = "right"
    FASTER = "faster"
    SLOWER = "slower"
    OTHER_WAY = "other_way"
    TOO_MANY = "too_many"
    DONE = "done"


@dataclass(frozen=True, slots=True)
class Attempt:
    """How an attempt stands.

    Parameters
    ----------
    hint
        Outcome so far.
    counted, of
        Clicks that counted, and how many there are.
    next_direction
        Which way the next click goes, None at the end.
    time_left_s
        What is left of the window after the last click; negative once it is over.
    sentence
        All that in words.
    """

    hint: Hint
    counted: int
    of: int
    next_direction: Direction | None
    time_left_s: float
    sentence: str

    @property
    def is_over(self) -> bool:
        """Whether the attempt has ended, well or badly."""
        return self.hint not in {Hint.START, Hint.RIGHT}


def follow(sequence: EntrySequence, clicks: Sequence[Click]) -> Attempt:
    """Follow an attempt click by click; the first click that breaks the rhythm ends it.

    Parameters
    ----------
    sequence
        What is to be done.
    clicks
        What was done, in order.

    Raises
    ------
    InputError
        If the clicks are not in order of time, or endless.
    """
    if len(clicks) > MOST_CLICKS:
        raise InputError(what=f"{len(clicks)} clicks in one attempt", remedy="begin a new attempt", field="clicks")
    wanted = sequence.clicks
    start = clicks[0].at_s if clicks else 0.0
    for number, click in enumerate(clicks):
        if number >= len(wanted):
            return _ended(sequence, Hint.TOO_MANY, number, f"more than {len(wanted)} clicks: stop at {len(wanted)}")
        since = click.at_s - clicks[number - 1].at_s if number else math.nan
        if since < 0:
            what = f"click {number + 1} comes before click {number}"
            raise InputError(what=what, remedy="begin a new attempt", field="clicks")
        fault = _fault(sequence, click, wanted[number], number, since, click.at_s - start)
        if fault is not None:
            return fault
    left = sequence.window_s - (clicks[-1].at_s - start) if clicks else sequence.window_s
    if len(clicks) == len(wanted):
        done = f"All {len(wanted)} clicks in time. {sequence.success}"
        return Attempt(Hint.DONE, len(clicks), len(wanted), None, left, done)
    following = wanted[len(clicks)]
    word = DIRECTION_WORDS[following]
    sentence = f"Click {len(clicks) + 1} of {len(wanted)}: {word}"
    return Attempt(Hint.RIGHT if clicks else Hint.START, len(clicks), len(wanted), following, left, sentence)


def _fault(
    sequence: EntrySequence, click: Click, wanted: Direction, number: int, since_s: float, total_s: float
) -> Attempt | None:
    """Return how an attempt ended at this click, None where it goes on."""
    if click.direction != wanted:
        return _ended(sequence, Hint.OTHER_WAY, number, f"click {number + 1} goes {DIRECTION_WORDS[wanted]}")
    if since_s > sequence.gap_s:
        late = f"click {number + 1} came after {since_s:.1f} s, at most {sequence.gap_s:g} s: faster"
        return _ended(sequence, Hint.FASTER, number, late)
    if total_s > sequence.window_s:
        late = f"click {number + 1} came {total_s:.1f} s after the first, at most {sequence.window_s:g} s: faster"
        return _ended(sequence, Hint.FASTER, number, late)
    if since_s < sequence.fastest_gap_s:
        soon = f"click {number + 1} came after {since_s:.2f} s, the board misses it: slower"
        return _ended(sequence, Hint.SLOWER, number, soon)
    return None


def _ended(sequence: EntrySequence, hint: Hint, counted: int, why: str) -> Attempt:
    """Return an attempt that did not work."""
    sentence = f"{why[0].upper()}{why[1:]}. Begin again."
    return Attempt(hint, counted, len(sequence.clicks), None, 0.0, sentence)
