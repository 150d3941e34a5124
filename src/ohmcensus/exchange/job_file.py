"""A whole job as one JSON document, "ohmcensus-job/1"."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated, Any, Literal

from pydantic import AfterValidator, BaseModel, ConfigDict, Field

from ohmcensus.core.event import Body
from ohmcensus.core.intake import Complaint, DataPlate
from ohmcensus.core.job.reading import plain_reading
from ohmcensus.core.judgement import CensusLine
from ohmcensus.core.judgement.census_sheet import Answer
from ohmcensus.core.layout.ohm_ruler import line_key
from ohmcensus.core.meter import Meter
from ohmcensus.core.quantity.window import Window
from ohmcensus.core.shelf import WantedPart
from ohmcensus.exchange.frame_body import FrameBody

FORMAT: Literal["ohmcensus-job/1"] = "ohmcensus-job/1"


def _zoned(text: str) -> str:
    """Refuse a moment without its time zone: it could not be put into the order of the others."""
    if text and datetime.fromisoformat(text).tzinfo is None:
        msg = "a moment lacks its time zone"
        raise ValueError(msg)
    return text


Moment = Annotated[str, AfterValidator(_zoned)]
Order = Annotated[int, Field(ge=0, le=2**53)]


class WindowEntry(BaseModel):
    """What the line should read; an unbounded end is null."""

    lo: float | None
    hi: float | None
    nominal: float | None
    unit: str
    basis: str


class ReadingEntry(BaseModel):
    """One standing reading with its judgement; SI units."""

    id: str
    test: str | None
    between: tuple[str, str]
    function: str
    meter: str
    text: str
    value: float | None
    unit: str
    bound: str
    interval: tuple[float | None, float | None]
    celsius: float
    is_celsius_stated: bool = True
    condition: str = ""
    until: float | str | None = None
    alone: bool
    at: Moment
    who: str
    verdict: str
    window: WindowEntry | None
    sentence: str


class RowEntry(BaseModel):
    """One row as it was written, standing or not: the history behind the readings.

    Attributes
    ----------
    told, sentence
        Verdict and judgement of the day.
    """

    id: str
    test: str | None
    text: str
    at: Moment
    who: str
    supersedes: str | None
    withdrawn: bool
    loose: bool = False
    override: str = ""
    order: Order = 0
    between: tuple[str, str] | None = None
    function: str = ""
    meter: str = ""
    value: float | None = None
    unit: str = ""
    bound: str = ""
    last_place: float = 0.0
    celsius: float = 0.0
    is_celsius_stated: bool = True
    condition: str = ""
    until: float | str | None = None
    alone: bool = False
    told: str = ""
    sentence: str = ""
    inhand: bool = False
    device: str = ""
    was: str = ""
    door: str = ""
    step: str = ""
    refused: str = ""


class NoteEntry(BaseModel):
    """A note on a line as it was written, standing or not."""

    id: str
    order: Order
    line: str
    text: str
    at: Moment
    who: str


class PhotoEntry(BaseModel):
    """A photo; in an archive its picture lies under ``photos/`` by the hash of its content."""

    id: str
    order: Order
    role: str
    event: str
    content: str
    width: Order
    height: Order
    at: Moment
    who: str


class WantedEntry(BaseModel):
    """A part that the job wants."""

    id: str
    wanted: WantedPart


class LineEntry(BaseModel):
    """One line of the census sheet, asked or not."""

    line: str
    part: str
    title: str
    should: WindowEntry | None
    verdict: str
    note: str


class CheckEntry(BaseModel):
    """A check by eye or hand, with its latest outcome."""

    check: str
    outcome: str
    words: str


class EventEntry(BaseModel):
    """One event; ``order`` is its place among readings and events, ``refused`` says why it lifts and proves nothing."""

    id: str
    order: Order
    at: Moment
    who: str
    body: Body
    device: str = ""
    refused: str = ""


class FrameEntry(BaseModel):
    """What held from a revision on: sheet, complaint, plate, limits."""

    order: Order
    frame: FrameBody


class SafetyEntry(BaseModel):
    """State of safety when the file was written."""

    state: str
    at: Moment
    reason: str


class SignedEntry(BaseModel):
    """A job sheet as it was signed at a revision: ``body`` is JSON of all that it says."""

    revision: Order
    body: str
    at: Moment
    who: str
    is_reconstructed: bool = False


class JobFile(BaseModel):
    """A job in the open format; keys that a reader does not know are kept.

    ``runs`` and ``changes`` belong to the format and are empty: both are events. ``own_sheet`` is the machine
    sheet where it is none of the built-in ones.
    """

    model_config = ConfigDict(extra="allow")

    format: Literal["ohmcensus-job/1"] = FORMAT
    id: str
    revision: Order
    place: str
    machine: str
    serial: str
    complaint: str
    sheet: str
    opened_at: Moment
    changed_at: Moment
    ambient_celsius: float
    safety: SafetyEntry
    symptoms: list[str] = []
    intake: Complaint = Complaint()
    plate: DataPlate = DataPlate()
    checks: list[CheckEntry] = []
    events: list[EventEntry] = []
    readings: list[ReadingEntry]
    runs: list[str] = []
    changes: list[str] = []
    lines: list[LineEntry]
    history: list[RowEntry]
    meters: dict[str, Meter]
    machine_id: str = ""
    customer: str = ""
    intake_revision: Order = 1
    notes: list[NoteEntry] = []
    photos: list[PhotoEntry] = []
    wanted: list[WantedEntry] = []
    frames: list[FrameEntry] = []
    own_sheet: dict[str, Any] | None = None
    signed: list[SignedEntry] = []


def reading_entry(answer: Answer, meter: str) -> ReadingEntry:
    """Return one standing reading as an entry; its meter by the name that the file has for it."""
    row, judgement = answer.reading, answer.judgement
    return ReadingEntry(
        **{name: value for name, value in plain_reading(row).items() if name in ReadingEntry.model_fields},
        meter=meter,
        interval=(judgement.interval.finite_lo, judgement.interval.finite_hi),
        verdict=judgement.verdict.value,
        window=window_entry(judgement.window),
        sentence=judgement.sentence,
    )


def window_entry(window: Window | None) -> WindowEntry | None:
    """Return a window as an entry."""
    if window is None:
        return None
    span = window.interval
    return WindowEntry(
        lo=span.finite_lo, hi=span.finite_hi, nominal=window.nominal, unit=window.unit.value, basis=window.basis
    )


def line_entry(line: CensusLine, note: str) -> LineEntry:
    """Return one line as an entry."""
    test = line.test
    return LineEntry(
        line=line_key(line),
        part=test.part_title if test else "",
        title=test.title if test else " to ".join(line.between),
        should=window_entry(test.window if test else None),
        verdict=line.verdict.value if line.verdict else "not_asked",
        note=note,
    )
