"""Suspects and questions as they are shown."""

from __future__ import annotations

from pydantic import BaseModel, ConfigDict

from ohmcensus.core.course.following import Next, NextKind, question_title
from ohmcensus.core.diagnosis.conclusion import Standing
from ohmcensus.core.diagnosis.foreseen import Expected, WhatIf, expects, what_ifs
from ohmcensus.core.diagnosis.outcomes import Outcomes
from ohmcensus.core.diagnosis.posterior import RULED_OUT, Diagnosis
from ohmcensus.core.diagnosis.question import Asks, Objective, Question
from ohmcensus.core.diagnosis.search import Search
from ohmcensus.core.diagnosis.second import against, spoken_of
from ohmcensus.core.diagnosis.setting_up import safety_before, setting_up
from ohmcensus.core.diagnosis.words import chance_words, why_words
from ohmcensus.core.job.case import Case
from ohmcensus.core.layout.ohm_ruler import END_OHM, position
from ohmcensus.core.machine.asked import asked_words, run_words
from ohmcensus.core.machine.stamped import rating_unit, stated_figure
from ohmcensus.core.machine.tests import machine_tests
from ohmcensus.core.meter import Function
from ohmcensus.core.quantity import Unit, show_value
from ohmcensus.core.safety import SafetyState
from ohmcensus.core.sheet import Sheet
from ohmcensus.services.at_hand.choice import Choice, choices
from ohmcensus.services.at_hand.described import Described
from ohmcensus.services.job.view import JobView

# Evidence under a fifth of a power of ten is not worth a word; so many suspects are listed.
LEAST_WEIGHT = 0.2


MOST_SUSPECTS = 8


class EvidenceView(BaseModel):
    """What one observation weighs for a suspect: powers of ten, over nought for it."""

    id: str
    title: str
    weight: float


class SuspectView(BaseModel):
    """A suspect.

    Attributes
    ----------
    chance
        That the part is involved.
    words
        The chance as it is said.
    speaks_for, speaks_against
        Observations, the heaviest first.
    ruled_out_by
        The observation that weighs most against a part that is ruled out.
    repair, minutes, price
        The usual repair.
    """

    part: str
    title: str
    chance: float
    words: str
    speaks_for: list[EvidenceView]
    speaks_against: list[EvidenceView]
    ruled_out_by: str
    repair: str
    minutes: float
    price: float | None


class GhostPin(BaseModel):
    """What a test is expected to read under one suspect; ``position`` on the ohm ruler where it belongs there."""

    part: str
    title: str
    reads: str
    position: float | None


class PlateView(BaseModel):
    """What is to be read on a plate or a stamp.

    Attributes
    ----------
    part, rating
        As the event *stamped* names them.
    unit, factor
        How it is printed, and what a printed number is in the unit of the rating: µF and 1e-6.
    stated
        What the sheet of the type says, empty where it says nothing.
    """

    part: str
    rating: str
    unit: str
    factor: float
    stated: str


class QuestionView(BaseModel):
    """A test to make next.

    Attributes
    ----------
    test
        Line of the sheet, check by eye, the run, or the plate of a part.
    kind
        What sort of answer it has.
    title, why
        What to do and what it settles, in words.
    minutes
        With covers and plugs.
    before
        What has to be done first, in order: safety, covers, plugs.
    is_safe_first
        Whether the first of it is done in Safe.
    bits
        What it is expected to settle.
    expects
        What it would read under the leading suspects.
    outcomes
        Answers to choose from where it is not read from a meter: name and words.
    what_ifs
        Who would lead after each of the plain answers.
    also
        Tests at the same place, made in the same go: their minutes are counted.
    plate
        What is to be read where it is a plate or a stamp.
    """

    test: str
    kind: Asks
    title: str
    why: str
    minutes: float
    before: list[str]
    is_safe_first: bool
    bits: float
    expects: list[GhostPin]
    outcomes: list[Choice]
    what_ifs: list[WhatIf]
    also: list[Choice]
    plate: PlateView | None = None


class ActView(BaseModel):
    """What to do next where no test is asked: which part, what is done, how long it takes, and in which room."""

    kind: NextKind
    part: str
    title: str
    words: str
    minutes: float
    room: str


class SuspectsView(Described):
    """The suspects column.

    Attributes
    ----------
    standing, sentence
        How far the diagnosis is, and what to do about it.
    named
        Parts that are named as the fault.
    act
        What to do next where it is no question: a repair, the maker's figures; None where there is a question.
    nothing
        Chance that nothing is found.
    unknown_bits
        What is still unknown of the repair.
    alike
        Leading suspects that no test left tells apart, a sentence each.
    would_change
        Answers to the next questions that would put another suspect first.
    ask
        Tests to make, the best first.
    cured
        Whether what was changed has cured it, empty while no run has passed.
    preparing
        What is being worked out yet, empty once the suspects are those of the job: ask again soon.
    """

    model_config = ConfigDict(arbitrary_types_allowed=True)

    job: JobView
    standing: Standing
    sentence: str
    named: list[Choice]
    act: ActView | None
    suspects: list[SuspectView]
    nothing: float
    unknown_bits: float
    alike: list[str]
    would_change: list[str]
    ask: list[QuestionView]
    cured: str
    objective: Objective
    objectives: list[Choice]
    preparing: str = ""


def act_view(row: Next, sheet: Sheet) -> ActView:
    """Return what to do next where it is no question."""
    part = sheet.part(row.part)
    title = part.title if part is not None else ""
    return ActView(kind=row.kind, part=row.part, title=title, words=row.words, minutes=row.minutes, room=row.room)


def would_change(known: Diagnosis, ask_next: list[QuestionView]) -> list[str]:
    """Say which answers to the next questions would put another suspect first."""
    leader = known.table.sheet.part(known.leader)
    first = leader.id if leader else ""
    return [
        f"{row.title}: {what_if.reads}, then {what_if.leads}"
        for row in ask_next
        for what_if in row.what_ifs
        if what_if.leader != first
    ]


def suspect_views(found: Search, sheet: Sheet) -> list[SuspectView]:
    """Return the suspects, the likeliest first."""
    order = sorted(range(len(found.known.table.parts)), key=lambda at: -found.of_part[at])
    return [_suspect(found, sheet, at) for at in order[:MOST_SUSPECTS]]


def _suspect(found: Search, sheet: Sheet, at: int) -> SuspectView:
    part = sheet.part(found.known.table.parts[at])
    assert part is not None  # noqa: S101 - suspects are parts of the sheet
    known = found.known if part.id == found.first else found.believed
    weights = known.weight[:, at].tolist() if known.observations else []
    evidence = [
        EvidenceView(id=row.id, title=row.title, weight=round(weight, 2))
        for row, weight in zip(known.observations, weights, strict=True)
        if abs(weight) >= LEAST_WEIGHT
    ]
    speaks_against = sorted((row for row in evidence if row.weight < 0), key=lambda row: row.weight)
    chance = float(found.of_part[at])
    # Whose own line stands outside is never ruled out, whatever the rest says.
    if part.id in spoken_of(against(known)):
        chance = max(chance, RULED_OUT)
    return SuspectView(
        part=part.id,
        title=part.title,
        chance=chance,
        words=chance_words(chance),
        speaks_for=sorted((row for row in evidence if row.weight > 0), key=lambda row: -row.weight),
        speaks_against=speaks_against,
        ruled_out_by=speaks_against[0].title if speaks_against and chance < RULED_OUT else "",
        repair=part.part_kind.repair,
        minutes=part.part_kind.repair_minutes,
        price=part.price,
    )


def question_view(row: Question, known: Diagnosis, case: Case, state: SafetyState) -> QuestionView:
    """Return a question, with what comes before it and what each answer would do."""
    if row.kind is Asks.PLATE:
        return _plate_view(row, known, case)
    outcomes = known.table.tests[row.test]
    test = next((test for test in machine_tests(case.sheet, None) if test.id == row.test), None)
    safety_first = safety_before(case, row.test, state)
    return QuestionView(
        test=row.test,
        kind=row.kind,
        title=question_title(row, case.sheet),
        why=why_words(row, known),
        minutes=row.minutes + row.reach_minutes,
        before=[*safety_first, *setting_up(case, row.test)],
        is_safe_first=bool(safety_first),
        bits=row.bits,
        expects=[_ghost(row, outcomes) for row in expects(known, outcomes)] if outcomes.is_measured else [],
        outcomes=_answers(row, case.sheet),
        what_ifs=what_ifs(known, outcomes, test),
        also=[Choice(id=name, words=asked_words(name, case.sheet)) for name in row.also],
    )


def _ghost(row: Expected, outcomes: Outcomes) -> GhostPin:
    is_ohm = outcomes.function in {Function.OHM, Function.CONTINUITY, Function.INSULATION}
    place = position(min(row.value, END_OHM)) if is_ohm else None
    return GhostPin(part=row.part, title=row.title, reads=row.reads, position=place)


def _answers(row: Question, sheet: Sheet) -> list[Choice]:
    if row.kind is Asks.RUN:
        return choices(run_words(sheet))
    return [Choice(id=name, words=name) for name in ("good", "bad")] if row.kind is Asks.LOOK else []


def _plate_view(row: Question, known: Diagnosis, case: Case) -> QuestionView:
    """Return the question for a plate or a stamp."""
    unit = rating_unit(case.sheet, row.part, row.rating)
    stated = stated_figure(case.sheet, row.part, row.rating)
    factor, symbol = (1e-6, "µF") if unit is Unit.FARAD else (1.0, unit.symbol)
    return QuestionView(
        test=row.test,
        kind=row.kind,
        title=question_title(row, case.sheet),
        why=why_words(row, known),
        minutes=row.minutes + row.reach_minutes,
        before=[],
        is_safe_first=False,
        bits=row.bits,
        expects=[],
        outcomes=[],
        what_ifs=[],
        also=[],
        plate=PlateView(
            part=row.part,
            rating=row.rating,
            unit=symbol,
            factor=factor,
            stated=show_value(stated, unit) if stated else "",
        ),
    )
