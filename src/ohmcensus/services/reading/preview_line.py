"""What a typed line is understood to say, before anything is stored."""

from __future__ import annotations

from dataclasses import dataclass, replace
from datetime import datetime
from typing import Annotated

from pydantic import BaseModel, ConfigDict, Field

from ohmcensus.core.errors import InputError, OhmcensusError, SafetyRefusalError
from ohmcensus.core.event import CutOff
from ohmcensus.core.job.case import Case, Reading
from ohmcensus.core.judgement import Judgement, Use, Verdict, choose_use, judge, limited
from ohmcensus.core.layout.ohm_ruler import position
from ohmcensus.core.machine import Line, read_line
from ohmcensus.core.machine.quick_line import completions
from ohmcensus.core.meter import Function
from ohmcensus.core.quantity import Indication, Unit, show_indication, show_value
from ohmcensus.core.safety import SafetyState, admitted
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
    meter: str | None = None
    function: Function | None = None
    override: Annotated[str, Trimmed(300)] = ""
    device: DeviceId = ""


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
    may_override
        Whether only the missing proof of dead is in the way, which a reason overrides.
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
    may_override: bool = False
    completions: list[str] = []


@dataclass(frozen=True, slots=True)
class Understood:
    """A line that can be stored."""

    line: Line
    use: Use
    judgement: Judgement
    is_overridden: bool


def understand(job: JobAtHand, typed: TypedLine, now: datetime) -> Understood:
    """Understand and judge a line; refuse what safety forbids.

    Raises
    ------
    OhmcensusError
        With what is wrong and what to do.
    """
    case = job.case
    line = read_line(typed.text, case.sheet, case.celsius)
    line, function = _instrument(job, line, typed)
    use = choose_use(line.reading, line.test, meters_for(job, typed.meter), function=function)
    admission = admitted(_provisional(line, use, typed, case), job.safety(now))
    test = limited(line.test, case.terms) if line.test else None
    return Understood(line=line, use=use, judgement=judge(use, test), is_overridden=admission.is_overridden)


def _instrument(job: JobAtHand, line: Line, typed: TypedLine) -> tuple[Line, Function]:
    """Return what was done between the points: the test's own, or what the unit of the reading tells.

    Volts between two points that a test of ohms names are volts all the same, and no answer to that test.
    """
    direct, reading = _direct(line.reading)
    is_pair = typed.text.strip().casefold().startswith("between")
    told = _UNIT_LETTERS.get(reading.strip().casefold()[-1:]) if is_pair or line.test is None else None
    if line.test is not None and (told is None or told.unit is line.test.function.unit):
        return line, line.test.function
    line = replace(line, test=None, reading=reading)
    if direct or typed.function is not None:
        return line, Function.VOLTS_DC if direct else typed.function or Function.OHM
    return line, _function_between(job, line, typed.meter)


def _direct(reading: str) -> tuple[bool, str]:
    """Tell whether a reading names direct current, and return it without the word: "40V dc" is 40 V."""
    words = reading.strip()
    for ending in ("dc", "DC", "ac", "AC"):
        if words.endswith(ending):
            return ending.casefold() == "dc", words.removesuffix(ending).strip()
    return False, reading


def _provisional(line: Line, use: Use, typed: TypedLine, case: Case) -> Reading:
    """Return the reading that a line would be, for whoever decides whether it is admitted."""
    return Reading(
        id="",
        between=line.between,
        test=line.test.id if line.test else None,
        function=use.function,
        meter=use.meter,
        indication=use.indication,
        text=typed.text,
        celsius=case.celsius if line.celsius is None else line.celsius,
        loose=line.loose,
        inhand=line.inhand,
        override=typed.override,
    )


def preview_line(context: Context, job_id: str, typed: TypedLine) -> LinePreview:
    """Return what a line says; what is wrong with it is part of the answer."""
    with context.store.read() as session:
        job = take(context, session, job_id)
    case = job.case
    offered = completions(typed.text, case.sheet, case.celsius)
    try:
        line = read_line(typed.text, case.sheet, case.celsius)
    except OhmcensusError as error:
        return LinePreview(problem=str(error), completions=offered)
    named = LinePreview(
        line=line.test.id if line.test else " ".join(line.between), heading=heading_of(line), completions=offered
    )
    try:
        understood = understand(job, typed, context.clock())
    except OhmcensusError as error:
        may_override = isinstance(error, SafetyRefusalError) and may_be_overridden(job, context)
        return named.model_copy(update={"problem": str(error), "may_override": may_override})
    return named.model_copy(update=_judged(understood))


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


def error_text(use: Use, judgement: Judgement) -> str:
    """Return the limit of error in print: "± 0.53 Ω", empty for one-sided readings."""
    lo, hi = judgement.interval.finite_lo, judgement.interval.finite_hi
    if lo is None or hi is None or use.indication.value is None:
        return ""
    return f"± {show_value(hi - use.indication.value, use.indication.unit, figures=2)}"


def _judged(understood: Understood) -> dict[str, object]:
    """Return the fields of a preview that the judgement fills."""
    use, judgement = understood.use, understood.judgement
    return {
        "reads": show_indication(use.indication),
        "error_text": error_text(use, judgement),
        "verdict": judgement.verdict,
        "sentence": judgement.sentence,
        "meter": use.meter.title,
        "position": _position(use.indication, use.meter.full_scale(use.function)),
    }


def _position(indication: Indication, full_scale: float) -> float | None:
    """Return the place on the ohm ruler, None where it does not belong there."""
    if indication.unit is not Unit.OHM:
        return None
    return position(full_scale if indication.value is None else indication.value)


_UNIT_LETTERS = {"v": Function.VOLTS_AC, "a": Function.AMPERE, "f": Function.CAPACITANCE}


def _function_between(job: JobAtHand, line: Line, meter_id: str | None) -> Function:
    """Return what is measured between two points: between two earths with a low-ohm range, where one is at hand."""
    function = _function_of(line.reading)
    is_earth = all(point.rpartition(".")[2] in EARTHS for point in line.between)
    if function is Function.OHM and is_earth and any(row.measures(_LOW_OHM) for row in meters_for(job, meter_id)):
        return _LOW_OHM
    return function


EARTHS = frozenset({"pe", "plug_pe", "end_pe", "chassis"})
_LOW_OHM = Function.CONTINUITY


def _function_of(reading: str) -> Function:
    """Return the function that a typed unit points at, ohms where it names none."""
    if not reading:
        raise InputError(what="no reading typed", remedy="type what the meter shows, e.g. 25.9 or OL", field="line")
    last = reading.strip().casefold()[-1]
    if reading.casefold().endswith("hz"):
        return Function.HERTZ
    return _UNIT_LETTERS.get(last, Function.OHM)
