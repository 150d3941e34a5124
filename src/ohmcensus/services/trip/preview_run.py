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
    """What it says in a sentence, and its reading, empty while none was typed; or what is wrong, in one sentence."""

    words: str = ""
    text: str = ""
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
        return RunPreview(problem=str(error))
    return RunPreview(words=said.words, text=said.text)
