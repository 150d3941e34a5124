"""Codes as they are shown: schemes, sequences, cycles, what was read."""

from __future__ import annotations

from pydantic import BaseModel

from ohmcensus.core.codes import Attempt, Cycle, EntrySequence, Hint, Meaning, Outcome, Scheme, track
from ohmcensus.core.codes.scheme import NOTHING_STORED, BlinkCount, TwoFrames
from ohmcensus.core.codes.sequence import Direction
from ohmcensus.core.errors import InputError, UnknownNameError
from ohmcensus.core.event import CodesRead, CycleBegun, CycleTicked, EntryTried
from ohmcensus.core.job.case import Case
from ohmcensus.core.sheet import Sheet
from ohmcensus.services.job.view import JobView


class SchemeView(BaseModel):
    """A way to show codes.

    Attributes
    ----------
    lamps, weights
        From left to right; empty for counted blinks.
    marker
        Name of the lamp that tells two frames apart, empty where there is none.
    frames, groups
        How many pictures, or counts, make one code.
    meanings
        What codes mean on this machine.
    """

    id: str
    kind: str
    title: str
    look: str
    lamps: list[str]
    weights: list[int]
    marker: str
    frames: int
    groups: int
    meanings: list[Meaning]


class SequenceView(BaseModel):
    """A way into the service mode, with its rhythm."""

    id: str
    title: str
    before: str
    settle_s: float
    clicks: list[Direction]
    beat_s: float
    window_s: float
    success: str
    leave: str
    leave_hold_s: float
    erases_on_leaving: bool
    times_out_min: float | None
    tried: int
    is_in: bool


class CycleStepView(BaseModel):
    """A step of a test, what it shows when called by hand, and what became of it."""

    id: str
    title: str
    shortest_s: float
    longest_s: float
    parts: list[str]
    step_code: int | None
    lit: str
    outcome: Outcome | None


class CycleView(BaseModel):
    """An automatic test as far as it was followed."""

    id: str
    title: str
    begun_at: str
    steps: list[CycleStepView]
    next_step: str | None
    points_at: list[str]
    shown_to_work: list[str]
    sentence: str


class CodeSuspect(BaseModel):
    """A part that a code speaks of, and how strongly."""

    part: str
    title: str
    weight: float


class DecodedCode(BaseModel):
    """A code with its pattern and its meaning, empty where the table does not say."""

    scheme: str
    pattern: str
    code: str
    is_nothing: bool
    words: str
    suspects: list[CodeSuspect]


class StoredCodes(BaseModel):
    """Codes as they were read, in order; none where nothing was stored."""

    at: str
    scheme: str
    codes: list[DecodedCode]
    is_before_test: bool


class CodesView(BaseModel):
    """Listening to a machine."""

    job: JobView
    schemes: list[SchemeView]
    sequences: list[SequenceView]
    cycles: list[CycleView]
    read: list[StoredCodes]
    no_power: str


class AttemptView(BaseModel):
    """How an attempt stands."""

    hint: Hint
    counted: int
    of: int
    next_direction: Direction | None
    time_left_s: float
    sentence: str
    is_over: bool


def decoded(sheet: Sheet, scheme_id: str, code: str) -> DecodedCode:
    """Return a code as its scheme writes it, with the lamps that show it and its meaning."""
    scheme = known_scheme(sheet, scheme_id)
    pattern = scheme.encode(code)
    written = scheme.decode(pattern)
    meaning = sheet.service.meaning(scheme_id, written)
    # In the order of the sheet: who is likeliest with all that is known is said in one place, by the suspects.
    order = [part.id for part in sheet.parts]
    suspects = (
        sorted(meaning.suspects.items(), key=lambda row: order.index(row[0]) if row[0] in order else len(order))
        if meaning
        else []
    )
    return DecodedCode(
        scheme=scheme_id,
        pattern=pattern,
        code=written,
        is_nothing=written == NOTHING_STORED,
        words=meaning.words if meaning else "",
        suspects=[CodeSuspect(part=part, title=_title(sheet, part), weight=w) for part, w in suspects],
    )


def known_scheme(sheet: Sheet, scheme_id: str) -> Scheme:
    """Return a scheme of the machine, or say which there are."""
    found = sheet.service.scheme(scheme_id)
    if found is None:
        known = ", ".join(row.id for row in sheet.service.schemes) or "none"
        what = f"no scheme '{scheme_id[:40]}' on this machine"
        raise UnknownNameError(what=what, remedy=f"known are {known}", field="scheme")
    return found


def scheme_view(sheet: Sheet, scheme_id: str) -> SchemeView:
    """Return a scheme with its lamps and what its codes mean."""
    scheme = known_scheme(sheet, scheme_id)
    lamps: tuple[str, ...] = ()
    weights: tuple[int, ...] = ()
    groups = 0
    if isinstance(scheme, BlinkCount):
        groups = scheme.groups
    else:
        lamps, weights = scheme.lamps, scheme.weights
    is_two = isinstance(scheme, TwoFrames)
    return SchemeView(
        id=scheme.id,
        kind=scheme.kind,
        title=scheme.title,
        look=scheme.look,
        lamps=list(lamps),
        weights=list(weights),
        marker=scheme.marker if isinstance(scheme, TwoFrames) else "",
        frames=2 if is_two else 1 if weights else 0,
        groups=groups,
        meanings=list(sheet.service.meanings.get(scheme.id, ())),
    )


def sequence_view(case: Case, sequence: EntrySequence) -> SequenceView:
    """Return an entry sequence with how it went before on this machine."""
    tried = [e.body for e in case.of(EntryTried) if e.body.sequence == sequence.id]
    shown = sequence.model_dump(
        include={
            "id",
            "title",
            "before",
            "settle_s",
            "window_s",
            "success",
            "leave",
            "leave_hold_s",
            "erases_on_leaving",
            "times_out_min",
        }
    )
    return SequenceView(
        **shown,
        clicks=list(sequence.clicks),
        beat_s=sequence.beat_s,
        tried=len(tried),
        is_in=bool(tried) and tried[-1].is_in,
    )


def cycle_view(case: Case, cycle: Cycle) -> CycleView:
    """Return a test with the ticks of its latest run."""
    sheet = case.sheet
    begun = [e for e in case.of(CycleBegun) if e.body.cycle == cycle.id]
    since = begun[-1].order if begun else 0
    ticks = {
        event.body.step: event.body.outcome
        for event in case.of(CycleTicked)
        if event.body.cycle == cycle.id and event.order > since
    }
    tracked = track(cycle, ticks)
    points_at = [_title(sheet, part) for part in tracked.points_at]
    sentence = ""
    if tracked.failed is not None:
        word = ticks[tracked.failed.id].words
        sentence = f"{tracked.failed.title}: {word}. Look at {', then '.join(points_at) or 'what this step needs'}."
    return CycleView(
        id=cycle.id,
        title=cycle.title,
        begun_at=begun[-1].at if begun else "",
        steps=[
            CycleStepView(
                id=step.id,
                title=step.title,
                shortest_s=step.seconds[0],
                longest_s=step.seconds[1],
                parts=[_title(sheet, part) for part in step.parts],
                step_code=step.step_code,
                lit=_lit(sheet, cycle, step.step_code),
                outcome=tracked.outcomes.get(step.id),
            )
            for step in cycle.steps
        ],
        next_step=tracked.next_step.id if tracked.next_step else None,
        points_at=points_at,
        shown_to_work=[_title(sheet, part) for part in tracked.shown_to_work],
        sentence=sentence,
    )


def _lit(sheet: Sheet, cycle: Cycle, step_code: int | None) -> str:
    """Return the lamps that a step shows when it is called by its number."""
    if cycle.scheme is None or step_code is None:
        return ""
    scheme = known_scheme(sheet, cycle.scheme)
    try:
        return str(scheme.encode(str(step_code)))
    except InputError:
        return ""


def read_codes(case: Case) -> list[StoredCodes]:
    """Return every reading of the codes, the latest first."""
    first_test = min((e.order for e in case.of(CycleBegun)), default=None)
    return [
        StoredCodes(
            at=event.at,
            scheme=event.body.scheme,
            codes=[decoded(case.sheet, event.body.scheme, code) for code in event.body.codes],
            is_before_test=first_test is None or event.order < first_test,
        )
        for event in reversed(case.of(CodesRead))
        if case.sheet.service.scheme(event.body.scheme) is not None
    ]


def _title(sheet: Sheet, part_id: str) -> str:
    part = sheet.part(part_id)
    return part.title if part else part_id


def attempt_view(attempt: Attempt) -> AttemptView:
    """Return how an attempt stands."""
    return AttemptView(
        hint=attempt.hint,
        counted=attempt.counted,
        of=attempt.of,
        next_direction=attempt.next_direction,
        time_left_s=attempt.time_left_s,
        sentence=attempt.sentence,
        is_over=attempt.is_over,
    )
