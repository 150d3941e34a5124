"""What a typed line is understood to say, before anything is stored."""

from __future__ import annotations

from collections.abc import Mapping
from datetime import datetime
from typing import Annotated, Any, Literal

from pydantic import BaseModel, ConfigDict, Field, StrictBool, StringConstraints

from ohmcensus.core.errors import OhmcensusError
from ohmcensus.core.event import When
from ohmcensus.core.job.case import Case
from ohmcensus.core.job.reading import Reading
from ohmcensus.core.judgement import Judgement, Verdict
from ohmcensus.core.layout.ohm_ruler import position
from ohmcensus.core.machine import Line, read_line
from ohmcensus.core.machine.asked import is_interlock_contact
from ohmcensus.core.machine.quick_line import completions, with_line
from ohmcensus.core.meter import Function
from ohmcensus.core.quantity import Indication, Unit, show_indication, show_value
from ohmcensus.core.safety.admission import BEFORE, NOW
from ohmcensus.core.safety.typed_line import Taken, taken
from ohmcensus.core.text.trimmed import Trimmed
from ohmcensus.services.at_hand.context import Context
from ohmcensus.services.at_hand.job import JobAtHand, take
from ohmcensus.services.at_hand.meters import DeviceId, meters_for
from ohmcensus.services.at_hand.ways_on import WayOnView, act_view, offered


class SaidBeside(BaseModel):
    """What is said beside a line: how door or lid stood, and in which step; None where nobody asked."""

    model_config = ConfigDict(extra="forbid", frozen=True)

    door: Literal["open", "shut", "locked"] | None = None
    step: Annotated[str, StringConstraints(pattern=r"^[a-z][a-z0-9_]{0,29}$")] | None = None


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
    loose
        Whether the part lies loose, in the hand or on the bench.
    was
        Of what only a powered machine gives: whether it was now, or before the machine was cut off.
    says
        How the door stood, and in which step.
    device
        The device that writes it: a random id that it keeps.
    """

    model_config = ConfigDict(extra="forbid")

    text: Annotated[str, Field(max_length=20_000)]
    line: Annotated[str, Field(max_length=200)] = ""
    meter: str | None = None
    function: Function | None = None
    override: Annotated[str, Trimmed(300)] = ""
    loose: StrictBool = False
    was: When | None = None
    says: SaidBeside = SaidBeside()
    device: DeviceId = ""

    @property
    def whole(self) -> str:
        """The line with the part that it is about."""
        return with_line(self.text, self.line)


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
    acts
        The ways on where safety refuses it; whether it was before, where it would put a cut-off machine under voltage.
    asks_door
        Whether to ask how the door stood before the figure is taken: an interlock says nothing without it.
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
    acts: list[WayOnView] = []
    asks_door: bool = False
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
        loose=typed.loose,
        was=typed.was.value if typed.was is not None else "",
        says={name: value for name, value in typed.says.model_dump().items() if value},
    )


def preview_line(context: Context, job_id: str, typed: TypedLine) -> LinePreview:
    """Return what a line says; what is wrong with it is part of the answer."""
    with context.store.read() as session:
        job = take(context, session, job_id)
    case = job.case
    completed = completions(typed.whole, case.sheet)
    try:
        line = read_line(typed.whole, case.sheet)
    except OhmcensusError as error:
        return LinePreview(problem=str(error), completions=completed)
    named = LinePreview(
        line=line.test.id if line.test else " ".join(line.between),
        heading=heading_of(line),
        completions=completed,
        asks_door=_asks_door(line, typed, case),
    )
    now = context.clock()
    try:
        said = understood(job, typed, now)
    except OhmcensusError as error:
        ways = [act_view(act) for act in refused(error, job, typed, now).acts]
        return named.model_copy(update={"problem": str(error), "acts": ways})
    if said.is_found and job.safety(now).isolated:
        ways = [act_view(act) for act in (BEFORE, NOW)]
        named = named.model_copy(update={"acts": ways})
    return named.model_copy(update=_judged(said))


def refused(error: OhmcensusError, job: JobAtHand, typed: TypedLine, now: datetime) -> OhmcensusError:
    """Return the refusal of a typed line with the ways on that go now."""

    def again(more: Mapping[str, Any]) -> object:
        return understood(job, typed.model_copy(update=dict(more)), now)

    return offered(error, job, now, typed.device, again)


def _asks_door(line: Line, typed: TypedLine, case: Case) -> bool:
    """Tell whether a line reads the contact of an interlock, and nothing is said of the door."""
    if line.test is None or line.door or typed.says.door:
        return False
    return is_interlock_contact(case.sheet, line.test.part, line.test.name)


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
