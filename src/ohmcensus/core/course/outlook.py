"""What a case comes to: how far it is, who is named, what to do next. Worked out once, printed everywhere."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from ohmcensus.core.course.following import Next, NextKind, asked, leak_test, repair, service
from ohmcensus.core.diagnosis.changes import Cure, cure
from ohmcensus.core.diagnosis.conclusion import Standing
from ohmcensus.core.diagnosis.ending_words import standing_words
from ohmcensus.core.diagnosis.of_case import diagnosed
from ohmcensus.core.diagnosis.outcomes import OutcomeTable
from ohmcensus.core.diagnosis.question import Objective, Question, Reach
from ohmcensus.core.diagnosis.search import Search, search
from ohmcensus.core.diagnosis.words import cured_words
from ohmcensus.core.event import Changed, Intervention, RunWatched
from ohmcensus.core.job.case import Case
from ohmcensus.core.judgement import CensusLine
from ohmcensus.core.judgement.census_sheet import Answer
from ohmcensus.core.machine.asked import RUN
from ohmcensus.core.machine.expected import expected
from ohmcensus.core.machine.specs import listed_tests
from ohmcensus.core.meter import Function
from ohmcensus.core.physics.temperature import REFERENCE_CELSIUS
from ohmcensus.core.quantity.window import Source
from ohmcensus.core.sheet import Sheet

# Parts of which one at least so likely is worth looking up, or changing, where no test is left (ours).
WORTH_A_CHANGE = 0.1
_FIGURES = frozenset({Function.OHM, Function.CAPACITANCE})
# What is done by answering a question, and how a search stands that has none left.
_BY_QUESTION = frozenset({NextKind.TEST, NextKind.LOOK, NextKind.RUN, NextKind.PLATE})
_NO_TEST_LEFT = frozenset({Standing.NOTHING_SEPARATES, Standing.NOTHING_FOUND})


@dataclass(frozen=True)
class Outlook:
    """What a case comes to.

    Parameters
    ----------
    search
        Suspects and questions.
    standing
        How far it is.
    named
        Parts that are named as the fault.
    next
        What to do next; None where nothing is.
    sentence
        How far it is and what to do, in words.
    cure
        What the changes and the runs after them show; None while no run has passed.
    questions
        What to ask, the best first.
    """

    search: Search
    standing: Standing
    named: tuple[str, ...]
    next: Next | None
    sentence: str
    cure: Cure | None
    questions: tuple[Question, ...] = ()


def outlook(
    case: Case,
    lines: tuple[CensusLine, ...],
    table: OutcomeTable,
    reach: Reach,
    objective: Objective = Objective.SOONEST,
    *,
    prices: Mapping[str, float] | None = None,
) -> Outlook:
    """Return what a case comes to.

    Parameters
    ----------
    case, lines
        Everything observed, and its census lines, judged.
    table
        What every test reads under every fault, of the same sheet.
    reach
        Where the machine stands.
    objective
        What the next question is chosen for.
    prices
        Price of a part where it is not the sheet's own, by part.
    """
    found = search(diagnosed(case, lines, table), reach, objective, prices=prices)
    cured = cure(case)
    if cured is not None and cured.is_conclusive:
        parts = tuple(dict.fromkeys(row.part for row in cured.settled))
        return Outlook(found, Standing.SETTLED, parts, None, cured_words(case), cured)
    standing = found.standing
    pending = None if case.ended is not None else _pending(case, lines, reach)
    following = None if case.ended is not None else asked(pending, case.sheet) if pending else _next(case, found)
    kind = following.kind if following is not None else None
    if standing is Standing.NOTHING_SEPARATES and kind is NextKind.SERVICE:
        standing = Standing.SERVICE_DATA
    if standing in _NO_TEST_LEFT and kind is NextKind.LEAK_TEST:
        standing = Standing.UNDECIDED
    sentence = standing_words(found, lines, standing, reach)
    rows = (pending,) if pending else found.questions if kind in _BY_QUESTION else ()
    return Outlook(found, standing, found.named, following, sentence, cured, rows)


def _pending(case: Case, lines: Sequence[CensusLine], reach: Reach) -> Question | None:
    """Return what a change still wants before anything else: the new piece is read, then the machine is run."""
    change, run = case.last(Changed), case.last(RunWatched)
    if change is None or (run is not None and run.order > change.order):
        return None
    own = [line for line in lines if line.test is not None and line.test.part == change.body.part]
    if change.body.intervention is Intervention.REPLACED and not _is_read(own, change.order):
        # What was found outside on the former piece first; else the first that is read by ohms.
        former = [line.test for line in own if line.test and any(_is_outside(row) for row in line.answers)]
        usual = [line.test for line in own if line.test and line.test.function in _FIGURES]
        test = next((row for row in (*former, *usual) if row.id not in reach.barred), None)
        if test is not None:
            return _after_change(test.id, change.body.part, case, reach)
    return _after_change(RUN, change.body.part, case, reach) if reach.has_power else None


def _after_change(test: str, part: str, case: Case, reach: Reach) -> Question:
    minutes, plugs, cover = reach.effort_of(test, case.sheet)
    return Question(test, part, minutes, plugs + cover, 0.0, 0.0, is_after_change=True)


def _is_read(lines: Sequence[CensusLine], since: float) -> bool:
    return any(row.reading.order > since for line in lines for row in line.answers)


def _is_outside(row: Answer) -> bool:
    return row.judgement.verdict.is_outside


def named_words(found: Outlook, sheet: Sheet) -> str:
    """Return the titles of the parts that are named, empty where none is."""
    return " and ".join(sheet.known_part(part).title for part in found.named)


def _next(case: Case, found: Search) -> Next | None:
    """Return what to do next: the leak test of an isolation under way; a repair where it is named; a question.

    Where none is left it is the maker's figure, or a repair.
    """
    sheet = found.known.table.sheet
    if isolating := leak_test(case):
        return isolating
    if found.named:
        part = min(found.named, key=lambda name: sheet.known_part(name).part_kind.repair_minutes)
        return repair(sheet, part)
    if found.questions:
        return asked(found.questions[0], sheet)
    if found.standing is Standing.NOTHING_FOUND:
        return None
    order = [part for part, chance in _chances(found) if chance >= WORTH_A_CHANGE]
    unsure = next((part for part in order if _is_by_common_range(found, part)), "")
    if unsure:
        return service(sheet, unsure)
    return repair(sheet, order[0]) if order else None


def _chances(found: Search) -> list[tuple[str, float]]:
    rows = zip(found.known.table.parts, found.of_part.tolist(), strict=True)
    return sorted(rows, key=lambda row: -row[1])


def _is_by_common_range(found: Search, part: str) -> bool:
    """Tell whether a part was measured, and is good only by what parts of its kind read."""
    sheet = found.known.table.sheet
    own = sheet.known_part(part)
    read = {row.id for row in found.known.observations if row.interval is not None and row.is_inside}
    return any(
        f"{part}.{spec.name}" in read
        and spec.function in _FIGURES
        and expected(sheet, own, spec, REFERENCE_CELSIUS).source is Source.COMMON
        and expected(sheet, own, spec, REFERENCE_CELSIUS).interval.finite_hi is not None
        and expected(sheet, own, spec, REFERENCE_CELSIUS).interval.lo > 0
        for spec in listed_tests(sheet, part)
    )
