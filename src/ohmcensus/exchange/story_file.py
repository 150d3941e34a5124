"""A story: what happened on a job, step by step, for training, support and checks from outside."""

from __future__ import annotations

from datetime import datetime
from typing import Any, Literal

from pydantic import BaseModel, ConfigDict, Field, ValidationError

from ohmcensus.core.errors import InputError
from ohmcensus.core.intake import Complaint

FORMAT: Literal["ohmcensus-story/1"] = "ohmcensus-story/1"
MOST_STEPS = 10_000
# Events that name another record, and the field that holds it: the place of its step in a story.
NAMES_RECORD = {"strip_back": "step", "run_doubted": "run", "run_withdrawn": "run", "record_withdrawn": "record"}


class SaidBeside(BaseModel):
    """What is said beside a reading: how door or lid stood, and in which step of the programme."""

    model_config = ConfigDict(extra="forbid")

    door: Literal["open", "shut", "locked"] | None = None
    step: str | None = None


class Former(BaseModel):
    """How the last job on the same serial number ended: the dangers that stood when it was labelled unsafe."""

    ended_unsafe: list[str] = []


class Step(BaseModel):
    """One step; just one of the acts, or a wait.

    Attributes
    ----------
    read, override, meter
        A line as typed, why it is read although the machine is not proved dead, and the meter in hand.
    leak_test
        A leak test as typed.
    do
        Body of an event of the API.
    withdraw, correct
        The step, counted from 0, whose reading is taken back, or corrected by ``read``.
    intake
        The complaint, all anew.
    limits
        Id of the profile that holds from here on.
    sheet, plate, serial
        Another sheet, what the plate says, the serial number on it.
    doubt
        The step, counted from 0, whose leak test is doubted.
    carry
        The job is exported here and imported into another store, in which the story goes on.
    was, says
        Beside ``read``: whether it was now or before the cut-off; how the door stood, and in which step.
    wait_minutes, minutes, at
        Minutes in which nothing happens; minutes that the step takes; the moment of the step.
    device, who
        The device that writes, and the person.
    """

    model_config = ConfigDict(extra="forbid")

    read: str | None = None
    override: str = ""
    meter: str | None = None
    leak_test: str | None = None
    do: dict[str, Any] | None = None
    withdraw: int | None = None
    correct: int | None = None
    intake: dict[str, Any] | None = None
    limits: str | None = None
    sheet: str | None = None
    plate: dict[str, Any] | None = None
    serial: str | None = None
    doubt: int | None = None
    carry: Literal[True] | None = None
    was: Literal["now", "before"] | None = None
    says: SaidBeside | None = None
    wait_minutes: float | None = Field(default=None, ge=0, allow_inf_nan=False)
    minutes: float | None = Field(default=None, allow_inf_nan=False)
    at: datetime | None = None
    device: str = ""
    who: str = ""


class Story(BaseModel):
    """A story in the open format; keys that a reader does not know are kept.

    ``before`` are whole stories on the same machine that come first, in order.
    """

    model_config = ConfigDict(extra="allow")

    format: Literal["ohmcensus-story/1"] = FORMAT
    sheet: str
    limits: str | None = None
    complaint: Complaint = Complaint()
    former: Former = Former()
    before: list[Story] = Field(default=[], max_length=20)
    at: datetime
    steps: list[Step] = Field(max_length=MOST_STEPS)


def read_story(text: str) -> Story:
    """Return the story that a text tells.

    Raises
    ------
    InputError
        If it is none, was written by a newer version, or is too long.
    """
    try:
        story = Story.model_validate_json(text)
    except ValidationError as error:
        raise _no_story(error) from None
    moments = [each.at for each in (story, *story.before)]
    moments += [step.at for each in (story, *story.before) for step in each.steps if step.at is not None]
    if any(at.tzinfo is None for at in moments):
        what = "a moment of the story names no time zone"
        raise InputError(what=what, remedy="write it as 2026-01-05T08:00:00Z", field="at")
    return story


def _no_story(error: ValidationError) -> InputError:
    first = error.errors()[0]
    stated = str(first.get("input", "")) if first["loc"] == ("format",) else ""
    if stated.startswith(FORMAT.rpartition("/")[0] + "/"):
        what = f"this story is of a newer kind ({stated[:40]}, this one knows {FORMAT})"
        return InputError(what=what, remedy="update Ohmcensus", field="file")
    if first["type"] == "too_long":
        what = f"the story has more than {MOST_STEPS} steps"
        return InputError(what=what, remedy="tell it in parts", field="steps")
    where = ".".join(str(step) for step in first["loc"]) or "the file"
    remedy = "write it as docs/formats/README.md says"
    return InputError(what=f"this is not a story ({where}: {first['msg']})", remedy=remedy, field="file")
