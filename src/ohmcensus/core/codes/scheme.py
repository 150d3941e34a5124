"""How lamps show a code: a row of weights, two frames told apart by a marker, or counted blinks.

A *pattern* is what is seen, a *code* what it says. Both are short texts, so that they travel and are
stored alike:

===========  =========================  ==========
scheme       pattern                    code
===========  =========================  ==========
lamp row     ``01011001``               ``89``
two frames   ``0110/1001``              ``6/9``
blink count  ``3-2``                    ``3-2``
===========  =========================  ==========

In two frames the first four lamps are those seen while the marker is on. No lamp lit in either frame,
the marker flashing alone, says that nothing is stored.
"""

from __future__ import annotations

from collections.abc import Sequence
from itertools import pairwise
from typing import Annotated, Literal, Self

from pydantic import BaseModel, ConfigDict, Field, StringConstraints, model_validator

from ohmcensus.core.errors import InputError
from ohmcensus.core.text.trimmed import Phrase

SchemeId = Annotated[str, StringConstraints(pattern=r"^[a-z][a-z0-9_]{0,29}$")]
Weight = Annotated[int, Field(ge=1, le=2**31, strict=True)]

NOTHING_STORED = "none"
MOST_BLINKS = 20
MOST_LAMPS = 24


class _Scheme(BaseModel):
    model_config = ConfigDict(frozen=True, extra="forbid")

    id: SchemeId
    title: Phrase
    look: str = Field(default="", max_length=300, description="Where the lamps are and how a code looks.")


class LampRow(_Scheme):
    """Each lamp has a weight; the code is the sum of the weights of the lamps that are lit.

    Attributes
    ----------
    weights
        From left to right.
    lamps
        What is written beside the lamps; empty or one for each.
    """

    kind: Literal["lamp_row"] = "lamp_row"
    weights: tuple[Weight, ...] = Field(min_length=1, max_length=MOST_LAMPS)
    lamps: tuple[Phrase, ...] = ()

    @model_validator(mode="after")
    def _lamps_fit(self) -> Self:
        _refuse_unlike(self.weights, self.lamps)
        return self

    def decode(self, pattern: str) -> str:
        """Return the code of a pattern of 0 and 1, left to right.

        Raises
        ------
        InputError
            If the pattern has other signs or another length than the row.
        """
        return str(_sum(pattern, self.weights))

    def encode(self, code: str) -> str:
        """Return the lamps that must be lit for a code.

        Raises
        ------
        InputError
            If no set of lamps adds up to it.
        """
        return _lit(_number(code), self.weights)


class TwoFrames(_Scheme):
    """Two alternating pictures of a few lamps; a marker lamp tells one from the other.

    Attributes
    ----------
    marker
        What the marker lamp is called.
    """

    kind: Literal["two_frames"] = "two_frames"
    marker: Phrase
    weights: tuple[Weight, ...] = Field(min_length=1, max_length=8)
    lamps: tuple[Phrase, ...] = ()

    @model_validator(mode="after")
    def _lamps_fit(self) -> Self:
        _refuse_unlike(self.weights, self.lamps)
        return self

    def decode(self, pattern: str) -> str:
        """Return the code of two frames, "0110/1001" to "6/9"; nothing lit at all is *none*.

        Raises
        ------
        InputError
            If there are not two frames of as many lamps as the scheme has.
        """
        halves = _two(pattern, "two frames, e.g. 0110/1001")
        first, second = (_sum(half, self.weights) for half in halves)
        return f"{first}/{second}" if first or second else NOTHING_STORED

    def encode(self, code: str) -> str:
        """Return both frames of a code.

        Raises
        ------
        InputError
            If a half cannot be shown.
        """
        if code.strip() == NOTHING_STORED:
            dark = "0" * len(self.weights)
            return f"{dark}/{dark}"
        return "/".join(_lit(_number(half), self.weights) for half in _two(code, "two halves, e.g. 6/9"))


class BlinkCount(_Scheme):
    """So many flashes, a pause, so many more.

    Attributes
    ----------
    groups
        How many counts make one code.
    """

    kind: Literal["blink_count"] = "blink_count"
    groups: int = Field(default=2, ge=1, le=4, strict=True)

    def decode(self, pattern: str) -> str:
        """Return the code of counted blinks, "3-2".

        Raises
        ------
        InputError
            If there are more or fewer counts than the scheme has, or one cannot be counted.
        """
        counts = pattern.strip().split("-")
        if len(counts) != self.groups:
            raise InputError(
                what=f"'{pattern[:40]}' has {len(counts)} counts, this scheme has {self.groups}",
                remedy=f"type them with dashes, e.g. {'-'.join('3214'[: self.groups])}",
                field="pattern",
            )
        numbers = [_number(count) for count in counts]
        if not all(1 <= number <= MOST_BLINKS for number in numbers):
            what = f"'{pattern[:40]}' is not a count of blinks"
            raise InputError(what=what, remedy=f"each group has 1 to {MOST_BLINKS}", field="pattern")
        return "-".join(str(number) for number in numbers)

    def encode(self, code: str) -> str:
        """Return the blinks of a code: the counts themselves."""
        return self.decode(code)


Scheme = Annotated[LampRow | TwoFrames | BlinkCount, Field(discriminator="kind")]


def _refuse_unlike(weights: Sequence[int], lamps: Sequence[str]) -> None:
    if lamps and len(lamps) != len(weights):
        msg = f"{len(lamps)} lamps are named but {len(weights)} have a weight: name each lamp or none"
        raise ValueError(msg)


def _sum(pattern: str, weights: Sequence[int]) -> int:
    """Add up the weights of the lamps that are lit."""
    lit = "".join(pattern.split())
    if set(lit) - {"0", "1"} or len(lit) != len(weights):
        remedy = f"give {len(weights)} lamps from left to right, 1 for lit and 0 for dark"
        raise InputError(what=f"'{pattern[:40]}' is not a pattern of this scheme", remedy=remedy, field="pattern")
    return sum(weight for sign, weight in zip(lit, weights, strict=True) if sign == "1")


def _lit(code: int, weights: Sequence[int]) -> str:
    """Return the lamps whose weights add up to a code, the heavy ones first where there is a choice."""
    order = sorted(range(len(weights)), key=lambda i: -weights[i])
    chosen = _subset(code, [weights[i] for i in order])
    if chosen is None:
        shown = ", ".join(map(str, weights))
        what = f"code {code} cannot be shown by lamps of {shown}"
        raise InputError(what=what, remedy=f"the highest is {sum(weights)}", field="code")
    on = {order[i] for i in chosen}
    return "".join("1" if i in on else "0" for i in range(len(weights)))


def _subset(target: int, weights: Sequence[int]) -> tuple[int, ...] | None:
    """Return positions whose weights, falling, add up to the target; None where none do."""
    if all(heavy >= sum(weights[i + 1 :]) for i, (heavy, _) in enumerate(pairwise((*weights, 0)))):
        return _greedy(target, weights)
    reached: dict[int, tuple[int, ...]] = {0: ()}
    for i, weight in enumerate(weights):
        for total, used in list(reached.items()):
            if total + weight <= target:
                reached.setdefault(total + weight, (*used, i))
        if target in reached:
            return reached[target]
    return reached.get(target)


def _greedy(target: int, weights: Sequence[int]) -> tuple[int, ...] | None:
    """Take the heaviest that still fits: right where each weighs at least all lighter ones together."""
    chosen = []
    for i, weight in enumerate(weights):
        if weight <= target:
            chosen.append(i)
            target -= weight
    return tuple(chosen) if target == 0 else None


def _number(text: str) -> int:
    """Return a whole number as typed."""
    typed = text.strip()
    if not (typed.isascii() and typed.isdigit() and len(typed) <= 10):  # noqa: PLR2004 - far above any code
        raise InputError(what=f"'{text[:40]}' is not a code", remedy="type a whole number", field="code")
    return int(typed)


def _two(text: str, example: str) -> tuple[str, str]:
    """Split a text at its one slash."""
    first, slash, second = text.partition("/")
    if not slash or "/" in second:
        what = f"'{text[:40]}' has not two halves"
        raise InputError(what=what, remedy=f"type {example}", field="pattern")
    return first, second
