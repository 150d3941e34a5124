"""What a typed line is understood to say, before anything is stored."""

from __future__ import annotations

from contextlib import suppress
from datetime import datetime
from enum import StrEnum
from typing import Annotated

from pydantic import BaseModel, ConfigDict, Field

from ohmcensus.core.errors import OhmcensusError, SafetyRefusalError
from ohmcensus.core.event import CutOff
from ohmcensus.core.job.reading import Reading
from ohmcensus.core.judgement import Judgement, Verdict
from ohmcensus.core.layout.ohm_ruler import position
from ohmcensus.core.machine import Line, read_line
from ohmcensus.core.machine.quick_line import completions, with_line
from ohmcensus.core.meter import Function
from ohmcensus.core.quantity import Indication, Unit, show_indication, show_value
from ohmcensus.core.safety import SafetyState
from ohmcensus.core.safety.typed_line import Taken, taken
from ohmcensus.core.text.trimmed import Trimmed
from ohmcensus.services.at_hand.context import Context
from ohmcensus.services.at_hand.job import JobAtHand, take
from ohmcensus.services.at_hand.meters import DeviceId, meters_for


class TypedLine(BaseModel):
    """A line as typed, with what was chosen beside it.

    Attributes
    ----------
    text
        The line.
    line
        Name of the line in question: a reading without a part belongs to it.
    meter
        Id of the meter in hand; None lets the reading tell.
    function
        What the meter did, for two points that no test names; None is ohms.
    override
        Why it is read although the machine is not proved dead.
    device
        The device that writes it: a random id that it keeps.
    """

    model_config = ConfigDict(extra="forbid")

    text: Annotated[str, Field(max_length=20_000)]
    line: Annotated[str, Field(max_length=200)] = ""
    meter: str | None = None
    function: Function | None = None
    override: Annotated[str, Trimmed(300)] = ""
    device: DeviceId = ""

    @property
    def whole(self) -> str:
        """The line with the part that it is about."""
        return with_line(self.text, self.line)


class RefusalAnswer(StrEnum):
    """What may be answered to a refusal for safety."""

    UNPLUG = "unplug"
    PROVE = "prove"
    LOOSE = "loose"
    OVERRIDE = "override"


class LinePreview(BaseModel):
    """What a line was understood to say.

    Attributes
    ----------
    line
        Key of the line that it would fill, None where it names none yet.
    heading
        "Heater · element", empty where nothing was understood.
    reads, error_text
        The reading and its limit of error in print, empty where none was typed yet.
    verdict, sentence, meter
        Judgement, in words, and the meter it was judged by.
    position
        Where the pin would stand on the ohm ruler, None for other units.
    problem
        What is wrong with the line, empty where it can be stored.
    answers
        What may be answered where safety refuses it: unplug it, prove it dead, say that the part is in the hand, log it
        with a reason.
    completions
        Lines that the typed beginning may become.
    """

    line: str | None = None
    heading: str = ""
    reads: str = ""
    error_text: str = ""
    verdict: Verdict | None = None
    sentence: str = ""
    meter: str = ""
    position: float | None = None
    problem: str = ""
    answers: list[RefusalAnswer] = []
    completions: list[str] = []


def understood(job: JobAtHand, typed: TypedLine, now: datetime) -> Taken:
    """Return the reading that a typed line is on a job; refuse what cannot be stored, see ``taken``."""
    meters = meters_for(job, typed.meter)
    return taken(
        typed.whole,
        job.case,
        meters,
        job.safety(now),
        function=typed.function,
        override=typed.override,
        device=typed.device,
    )


def preview_line(context: Context, job_id: str, typed: TypedLine) -> LinePreview:
    """Return what a line says; what is wrong with it is part of the answer."""
    with context.store.read() as session:
        job = take(context, session, job_id)
    case = job.case
    offered = completions(typed.whole, case.sheet)
    try:
        line = read_line(typed.whole, case.sheet)
    except OhmcensusError as error:
        return LinePreview(problem=str(error), completions=offered)
    named = LinePreview(
        line=line.test.id if line.test else " ".join(line.between), heading=heading_of(line), completions=offered
    )
    try:
        said = understood(job, typed, context.clock())
    except OhmcensusError as error:
        answers = _answers(job, typed, context) if isinstance(error, SafetyRefusalError) else []
        return named.model_copy(update={"problem": str(error), "answers": answers})
    return named.model_copy(update=_judged(said))


def _answers(job: JobAtHand, typed: TypedLine, context: Context) -> list[RefusalAnswer]:
    """Return what this state of safety allows as an answer: under voltage nothing but to unplug it."""
    now = context.clock()
    if job.safety(now).state in {SafetyState.UNDER_VOLTAGE, SafetyState.LIVE}:
        return [RefusalAnswer.UNPLUG]
    found = [RefusalAnswer.PROVE]
    with suppress(OhmcensusError):
        understood(job, typed.model_copy(update={"text": f"{typed.text} loose"}), now)
        found.append(RefusalAnswer.LOOSE)
    if may_be_overridden(job, context):
        found.append(RefusalAnswer.OVERRIDE)
    return found


def may_be_overridden(job: JobAtHand, context: Context) -> bool:
    """Tell whether a reason would let a reading through now: cut off, not proved dead, nothing found over a limit."""
    safety = job.safety(context.clock())
    walk, is_cut = safety.walk, safety.isolated and safety.cut is not CutOff.PLUG_IN_HAND
    return safety.state is SafetyState.NOT_PROVED and is_cut and not walk.is_over and not walk.charged


def heading_of(line: Line) -> str:
    """Return what a line is about: "Heater · element", or both points."""
    if line.test is None:
        return " to ".join(line.between)
    alone = ", loose" if line.loose else ", plug in hand" if line.inhand else ", alone" if line.alone else ""
    return f"{line.test.part_title} · {line.test.title}{alone}"


def error_text(reading: Reading, judgement: Judgement) -> str:
    """Return the limit of error in print: "± 0.53 Ω", empty for one-sided readings."""
    lo, hi, shows = judgement.interval.finite_lo, judgement.interval.finite_hi, reading.indication
    if lo is None or hi is None or shows.value is None:
        return ""
    return f"± {show_value(hi - shows.value, shows.unit, figures=2)}"


def _judged(said: Taken) -> dict[str, object]:
    """Return the fields of a preview that the judgement fills."""
    reading, judgement = said.reading, said.judgement
    return {
        "reads": show_indication(reading.indication),
        "error_text": error_text(reading, judgement),
        "verdict": judgement.verdict,
        "sentence": judgement.sentence,
        "meter": reading.meter.title,
        "position": _position(reading.indication, reading.meter.full_scale(reading.function)),
    }


def _position(indication: Indication, full_scale: float) -> float | None:
    """Return the place on the ohm ruler, None where it does not belong there."""
    if indication.unit is not Unit.OHM:
        return None
    return position(full_scale if indication.value is None else indication.value)
