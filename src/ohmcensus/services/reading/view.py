"""The trace: every line of the sheet with its readings."""

from __future__ import annotations

from datetime import datetime

from pydantic import BaseModel, ConfigDict

from ohmcensus.core.event import Changed, CheckOutcome
from ohmcensus.core.job.case import Case
from ohmcensus.core.job.reading import plain_reading
from ohmcensus.core.job.voided import Voided, reading_voided
from ohmcensus.core.judgement import CensusLine, Verdict
from ohmcensus.core.judgement.census_sheet import Answer, moved_by, next_line
from ohmcensus.core.judgement.compare import compared_lines
from ohmcensus.core.judgement.judge import window_with_basis
from ohmcensus.core.judgement.meaning import at_work
from ohmcensus.core.judgement.overview import MeasuredPart, looked_parts, measured_parts
from ohmcensus.core.judgement.parts_out import without
from ohmcensus.core.layout import OhmRuler, ShortRuler, ohm_ruler, short_ruler
from ohmcensus.core.layout.ohm_ruler import line_key
from ohmcensus.core.machine import MachineTest, is_proof
from ohmcensus.core.machine.asked import is_interlock_contact
from ohmcensus.core.machine.seen import reaches
from ohmcensus.core.meter import Function
from ohmcensus.core.quantity import Unit, show_indication
from ohmcensus.core.sheet import Sheet
from ohmcensus.services.at_hand.described import Described
from ohmcensus.services.at_hand.job import JobAtHand
from ohmcensus.services.at_hand.meters import bag_of
from ohmcensus.services.job.view import JobView, job_view


class ReadingView(BaseModel):
    """One row of a line's history."""

    id: str
    reads: str
    text: str
    meter: str
    celsius: float
    is_celsius_stated: bool
    condition: str
    alone: bool
    loose: bool
    override: str
    at: str
    who: str
    stands: bool
    withdrawn: bool


class LineView(BaseModel):
    """One line of the census sheet.

    Attributes
    ----------
    key
        Name of the line: "heater.pe", or both points.
    part, part_title, title
        The part and the test, or both points as the title.
    function, unit, state, minutes, behind, advice
        How the test is made.
    between
        Both points in words.
    healthy, comes_and_goes
        Whether insulation reads as a healthy part's, None where it cannot tell; whether readings contradict each other.
    should, basis
        Window in print, and with its ground.
    with_plug_on
        What it reads while its plug is still on, empty where that is the same.
    blind_to
        What a reading inside the window does not exclude, in words.
    reaches
        Parts that current comes to when the test is made as it is meant, its own first.
    verdict
        None while the line was not asked.
    reads, error_text, remark, sentence, reading_id
        The standing reading, judged.
    rejudged
        What was told when it was logged, where the sheet or its limits have made it another since.
    voided, voided_at
        By which change its reading counts no more, and when that was; empty where it counts.
    at_work
        What a resistive load that reads so would take, empty for everything else.
    rest
        What was read of the rest while parts were off, and what that is; empty where the whole was read since.
    note
        The note that stands, empty where none does.
    history
        Every reading ever written on the line, newest first.
    ruler
        Short ruler of the line, None where it has no window.
    asks_door
        Whether to ask how door or lid stands before its figure is taken.
    """

    key: str
    part: str
    part_title: str
    title: str
    function: Function
    unit: Unit
    state: str
    minutes: float
    behind: str
    advice: str
    between: list[str]
    should: str
    basis: str
    with_plug_on: str
    blind_to: list[str]
    reaches: list[str]
    verdict: Verdict | None
    healthy: bool | None
    comes_and_goes: bool
    reads: str
    remark: str
    sentence: str
    rejudged: str
    voided: str
    voided_at: str
    at_work: str
    rest: str
    reading_id: str | None
    typed: str
    note: str
    history: list[ReadingView]
    ruler: ShortRuler | None
    asks_door: bool


class ComparisonView(BaseModel):
    """A line drawn from readings of others: phases, like valves, two brushes, run against start."""

    part: str
    title: str
    reads: str
    should: str
    verdict: Verdict
    remark: str


class PartView(BaseModel):
    """A part as one line.

    Attributes
    ----------
    id, title
        Its id and name.
    lines
        Names of its lines.
    worst
        Name of the line that says most of it, None while nothing was asked.
    outside
        How many of its lines stand outside.
    """

    id: str
    title: str
    lines: list[str]
    worst: str | None
    outside: int


class LookedView(BaseModel):
    """A part that no meter tells about, and how it was found, None while nobody looked."""

    id: str
    title: str
    outcome: CheckOutcome | None


class MeterChoice(BaseModel):
    """A meter at hand."""

    id: str
    title: str


class TraceView(Described):
    """A job as the trace screen shows it.

    Attributes
    ----------
    lines
        All lines in order.
    parts, looked
        Every part that has lines, in their order; and those that are only looked at.
    comparisons
        Everything that is drawn from readings of several lines, all of it.
    """

    model_config = ConfigDict(arbitrary_types_allowed=True)

    job: JobView
    celsius: float
    lines: list[LineView]
    parts: list[PartView]
    looked: list[LookedView]
    comparisons: list[ComparisonView]
    ruler: OhmRuler
    next_line: str | None
    last_reading: str | None
    meters: list[MeterChoice]
    points: list[str]


def trace_view(job: JobAtHand, now: datetime) -> TraceView:
    """Return the trace of a job at hand.

    Parameters
    ----------
    job
        The job.
    now
        The moment, which the state of safety depends on.
    """
    keys = [line_key(line) for line in job.lines]
    standing = job.case.standing
    last = next((reading for reading in reversed(standing) if not is_proof(reading.test)), None)
    following = next_line(job.lines, last.test if last else None)
    histories = _histories(job.case, {reading.id for reading in standing})
    measured = measured_parts(job.lines)
    return TraceView(
        job=job_view(job, now),
        celsius=job.case.celsius,
        lines=[
            _line_view(line, job.case, job.notes.get(key, ""), histories.get(key, []))
            for key, line in zip(keys, job.lines, strict=True)
        ],
        parts=[_part_view(row) for row in measured],
        looked=[
            LookedView(id=row.part, title=row.title, outcome=row.outcome) for row in looked_parts(job.case, measured)
        ],
        comparisons=[
            ComparisonView(
                part=row.part,
                title=row.title,
                reads=row.reads,
                should=row.should,
                verdict=row.verdict,
                remark=row.remark,
            )
            for row in compared_lines(job.case.sheet, job.lines)
        ],
        ruler=ohm_ruler(job.case, job.lines),
        next_line=line_key(following) if following else None,
        last_reading=last.id if last else None,
        meters=[MeterChoice(id=meter.id, title=meter.title) for meter in bag_of(job)],
        points=list(job.case.sheet.points),
    )


def _part_view(part: MeasuredPart) -> PartView:
    """Return one part in print."""
    return PartView(
        id=part.part,
        title=part.title,
        lines=[line_key(line) for line in part.lines],
        worst=line_key(part.worst) if part.worst else None,
        outside=part.outside,
    )


def _line_view(line: CensusLine, case: Case, note: str, history: list[ReadingView]) -> LineView:
    """Return one line in print."""
    sheet = case.sheet
    voided = _voided(line, case)
    key, test, answer = line_key(line), line.test, line.answer
    rest = _rest_words(line, case)
    function = test.function if test else line.answers[-1].reading.function
    window = answer.judgement.window if answer else test.window if test else None
    return LineView(
        key=key,
        part=test.part if test else "",
        part_title=test.part_title if test else "Two points",
        title=test.title if test else " to ".join(line.between),
        function=function,
        unit=function.unit,
        state=test.stands if test else "",
        minutes=test.minutes if test else 0.0,
        behind=_behind(test, sheet),
        advice=test.advice if test else "",
        between=[sheet.points.get(point, point) for point in line.between],
        should=window.shown if window else "",
        basis=window_with_basis(window) if window else "no test on this sheet names these two points",
        with_plug_on=test.with_plug_on.shown if test and test.with_plug_on else "",
        blind_to=_blind_words(line),
        reaches=_reached(test, sheet),
        verdict=line.verdict,
        healthy=answer.judgement.healthy if answer else None,
        comes_and_goes=line.comes_and_goes,
        reads=line.reads,
        remark="read before a change" if voided else line.remark or ("read in part" if rest else ""),
        sentence=line.sentence,
        rejudged=_rejudged(answer),
        voided=voided.words if voided else "",
        voided_at=voided.at if voided else "",
        at_work=_at_work(test, answer),
        rest=rest,
        reading_id=answer.reading.id if answer else None,
        typed=answer.reading.text if answer else "",
        note=note,
        history=history,
        ruler=_ruler(line, answer),
        asks_door=test is not None and is_interlock_contact(sheet, test.part, test.name),
    )


def _behind(test: MachineTest | None, sheet: Sheet) -> str:
    """Return the cover that is off for a test, in words; empty where it is made with all of them on."""
    panel = sheet.panels.get(test.behind) if test and test.behind else None
    return panel.off_words if panel else ""


def _rejudged(answer: Answer | None) -> str:
    """Say what the standing reading was judged at first, where it is judged otherwise now."""
    if answer is None or answer.reading.told in {"", answer.judgement.verdict.value}:
        return ""
    then, now = (word.replace("_", " ") for word in (answer.reading.told, answer.judgement.verdict.value))
    return f"Told as {then} when it was logged. The sheet or its limits have changed since: {now} now."


def _voided(line: CensusLine, case: Case) -> Voided | None:
    """Return the change by which what a line reads is of the machine as it was; None where it stands."""
    if line.test is None or line.answer is None or not case.of(Changed):
        return None
    return reading_voided(case, moved_by(line.test, case), line.answer.reading.order)


def _rest_words(line: CensusLine, case: Case) -> str:
    """Say what was read of the rest while parts were off, empty where nothing was, or the whole was read since."""
    last = line.of_rest[-1] if line.of_rest else None
    if last is None or (line.answer is not None and line.answer.reading.order > last.reading.order):
        return ""
    off = without(last.reading, case)
    titles = ", ".join(part.title.lower() for part in case.sheet.parts if part.id in off)
    reads = show_indication(last.reading.indication)
    return f"{reads} without: {titles}. That is a leak test of the rest; the whole is read once all is back."


def _at_work(test: MachineTest | None, answer: Answer | None) -> str:
    """Return what the load would take on its supply."""
    if answer is None or test is None or test.load_volts is None:
        return ""
    return at_work(answer.reading.indication, answer.judgement.interval, test.load_volts)


def _reached(test: MachineTest | None, sheet: Sheet) -> list[str]:
    """Return the titles of the parts that a test reaches."""
    if test is None:
        return []
    ids = reaches(sheet, test.part, test.name)
    titles = {part.id: part.title for part in sheet.parts}
    return [titles[part] for part in sorted(ids, key=lambda part: part != test.part)]


def _blind_words(line: CensusLine) -> list[str]:
    """Return what the line does not exclude, by the instrument that was used where one was."""
    modes = line.answer.judgement.blind_to if line.answer else line.test.blind_to if line.test else ()
    return [mode.words for mode in modes]


def _histories(case: Case, standing: set[str]) -> dict[str, list[ReadingView]]:
    """Return every row of each line, newest first."""
    found: dict[str, list[ReadingView]] = {}
    for row in reversed(case.readings):
        key = row.line
        said = {name: value for name, value in plain_reading(row).items() if name in ReadingView.model_fields}
        view = ReadingView(
            **said, reads=show_indication(row.indication), meter=row.meter.title, stands=row.id in standing
        )
        found.setdefault(key, []).append(view)
    return found


def _ruler(line: CensusLine, answer: Answer | None) -> ShortRuler | None:
    """Return the line's short ruler."""
    if line.test is None:
        return None
    window = (answer.judgement.window if answer else None) or line.test.window
    reading = answer.judgement.interval if answer else None
    return short_ruler(window, reading, answer.reading.indication.value if answer else None)
