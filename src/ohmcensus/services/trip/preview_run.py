"""What a run typed in one line is understood to say, before anything is stored."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import BaseModel, ConfigDict, Field

from ohmcensus.core.errors import OhmcensusError
from ohmcensus.core.trip.of_case import suspects
from ohmcensus.core.trip.problem import Method
from ohmcensus.core.trip.run_line import read_run_line
from ohmcensus.services.at_hand.context import Context
from ohmcensus.services.at_hand.job import take


class TypedRun(BaseModel):
    """A line as typed, and by which instrument where it does not say."""

    model_config = ConfigDict(extra="forbid")

    line: Annotated[str, Field(max_length=2000)]
    method: Literal["insulation", "leakage"] = "insulation"


class RunPreview(BaseModel):
    """What it says: the run in a sentence and as sets; or what is wrong with it, in one sentence."""

    words: str
    method: Literal["insulation", "leakage"]
    connected: list[str]
    maybe: list[str]
    text: str
    polarity: Literal["normal", "reversed"] | None
    problem: str


def preview_run(context: Context, job_id: str, typed: TypedRun) -> RunPreview:
    """Return what a line says; what is wrong with it is part of the answer.

    Raises
    ------
    NotFoundError
        If there is no such job.
    """
    with context.store.read() as session:
        case = take(context, session, job_id).case
    # The wider list first: which parts are asked follows from the unit that is typed.
    parts = suspects(case, Method.LEAKAGE)
    try:
        said = read_run_line(typed.line, parts, Method(typed.method))
    except OhmcensusError as error:
        return RunPreview(
            words="", method=typed.method, connected=[], maybe=[], text="", polarity=None, problem=str(error)
        )
    asked = {part.id: part.title for part in suspects(case, said.method)}
    connected = [part for part in said.connected if part in asked]
    off = [title for part, title in asked.items() if part not in {*connected, *said.maybe}]
    inside = [asked[part] for part in connected]
    is_live = said.method is Method.LEAKAGE
    return RunPreview(
        words=f"{'Live leakage' if is_live else 'Insulation'}, {_set(inside, off)}: {said.text or 'no reading yet'}",
        method="leakage" if is_live else "insulation",
        connected=connected,
        maybe=[part for part in said.maybe if part in asked],
        text=said.text,
        polarity=said.polarity.value if is_live else None,
        problem="",
    )


def _set(inside: list[str], off: list[str]) -> str:
    """Say the shorter of what is connected and what is not."""
    if not off:
        return "the whole machine"
    return f"without {', '.join(off)}" if len(off) <= len(inside) else f"only {', '.join(inside)}"
