"""Following an automatic test: which steps happened, and what the first that did not points at."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from enum import StrEnum
from typing import Self

from pydantic import BaseModel, ConfigDict, Field, model_validator

from ohmcensus.core.text.trimmed import Phrase, Slug


class Outcome(StrEnum):
    """What a step of a test did."""

    PASSED = "passed"
    FAILED = "failed"
    ABSENT = "absent"

    @property
    def words(self) -> str:
        """The outcome in words."""
        return {"passed": "passed", "failed": "failed", "absent": "did not happen"}[self.value]


class CycleStep(BaseModel):
    """One step.

    Attributes
    ----------
    seconds
        Usual shortest and longest duration.
    parts
        Parts that must work for the step to pass; the likeliest to fail it first.
    step_code
        Number of the step where it can be called by hand, None where it cannot.
    """

    model_config = ConfigDict(frozen=True, extra="forbid")

    id: Slug
    title: Phrase
    seconds: tuple[float, float]
    parts: tuple[Slug, ...] = ()
    step_code: int | None = Field(default=None, ge=0, le=10_000)

    @model_validator(mode="after")
    def _seconds_in_order(self) -> Self:
        if not 0 <= self.seconds[0] <= self.seconds[1] <= 7200:  # noqa: PLR2004 - two hours
            msg = f"seconds {self.seconds} are not a shortest and a longest: put the shorter first"
            raise ValueError(msg)
        return self


class Cycle(BaseModel):
    """An automatic test: its steps in order, and the scheme whose lamps show a step's number."""

    model_config = ConfigDict(frozen=True, extra="forbid")

    id: Slug
    title: Phrase
    scheme: Slug | None = None
    steps: tuple[CycleStep, ...] = Field(min_length=1, max_length=40)


@dataclass(frozen=True, slots=True)
class TrackedCycle:
    """A test as far as it was followed.

    Parameters
    ----------
    outcomes
        Outcome by step id, in the order of the cycle; unticked steps are left out.
    next_step
        First step without an outcome behind the last that has one, None at the end.
    failed
        First step that failed or did not happen, None while there is none.
    points_at
        Parts that the first failed step needs and that no passed step has shown to work.
    shown_to_work
        Parts that passed steps have shown to work, in the order of the cycle.
    """

    outcomes: Mapping[str, Outcome]
    next_step: CycleStep | None
    failed: CycleStep | None
    points_at: tuple[str, ...]
    shown_to_work: tuple[str, ...]


def track(cycle: Cycle, ticks: Mapping[str, Outcome]) -> TrackedCycle:
    """Follow a test.

    Parameters
    ----------
    cycle
        The test.
    ticks
        Latest outcome by step id; ids that the cycle does not have are left out.

    Notes
    -----
    A step that passed shows that its parts worked at that moment, cold or wet as they were: evidence
    for them, no clearance (core/diagnosis weighs it). Steps behind the first failed one say nothing of
    it: a drum that did not lock does not turn either.
    """
    outcomes = {step.id: ticks[step.id] for step in cycle.steps if step.id in ticks}
    failed = next((step for step in cycle.steps if outcomes.get(step.id) in {Outcome.FAILED, Outcome.ABSENT}), None)
    worked = dict.fromkeys(
        part for step in cycle.steps if outcomes.get(step.id) is Outcome.PASSED for part in step.parts
    )
    points_at = tuple(part for part in failed.parts if part not in worked) if failed else ()
    last = max((i for i, step in enumerate(cycle.steps) if step.id in outcomes), default=-1)
    following = next((step for step in cycle.steps[last + 1 :] if step.id not in outcomes), None)
    return TrackedCycle(outcomes, following, failed, points_at or (failed.parts if failed else ()), tuple(worked))
