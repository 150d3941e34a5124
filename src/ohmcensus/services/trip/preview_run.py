"""What a leak test typed in one line is understood to say, before anything is stored."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import BaseModel, ConfigDict, Field

from ohmcensus.core.errors import OhmcensusError
from ohmcensus.core.trip.problem import Method
from ohmcensus.core.trip.typed_test import typed_test
from ohmcensus.services.at_hand.context import Context
from ohmcensus.services.at_hand.job import take


class TypedRun(BaseModel):
    """A line as typed, and by which instrument where it does not say."""

    model_config = ConfigDict(extra="forbid")

    line: Annotated[str, Field(max_length=2000)]
    method: Literal["insulation", "leakage"] = "insulation"


class RunPreview(BaseModel):
    """What it says: the test in a sentence and as sets; or what is wrong with it, in one sentence."""

    words: str = ""
    method: Literal["insulation", "leakage"]
    connected: list[str] = []
    maybe: list[str] = []
    text: str = ""
    polarity: Literal["normal", "reversed"] | None = None
    problem: str = ""


def preview_run(context: Context, job_id: str, typed: TypedRun) -> RunPreview:
    """Return what a line says; what is wrong with it is part of the answer.

    Raises
    ------
    NotFoundError
        If there is no such job.
    """
    with context.store.read() as session:
        case = take(context, session, job_id).case
    try:
        said = typed_test(typed.line, case, Method(typed.method))
    except OhmcensusError as error:
        return RunPreview(method=typed.method, problem=str(error))
    return RunPreview(
        words=said.words,
        method=said.method.value,
        connected=list(said.connected),
        maybe=list(said.maybe),
        text=said.text,
        polarity=said.polarity,
    )
