"""What a case comes to: how far it is, who is named, what to do next. Worked out once, printed everywhere."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from ohmcensus.core.course.after_change import missing_run, unread_piece
from ohmcensus.core.course.following import Next, NextKind, asked, leak_test, repair, service
from ohmcensus.core.diagnosis.changes import Cure, cure
from ohmcensus.core.diagnosis.conclusion import Standing
from ohmcensus.core.diagnosis.ending_words import standing_words
from ohmcensus.core.diagnosis.of_case import diagnosed
from ohmcensus.core.diagnosis.outcomes import OutcomeTable
from ohmcensus.core.diagnosis.question import Objective, Question, Reach
from ohmcensus.core.diagnosis.search import Search, search
from ohmcensus.core.diagnosis.second import against, spoken_of
from ohmcensus.core.diagnosis.words import cured_words
from ohmcensus.core.job.case import Case
from ohmcensus.core.judgement import CensusLine
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
# A search that would go on; of a job that has ended it says no more than that.
_GOES_ON = frozenset({Standing.UNDECIDED, Standing.REPEAT})
NOT_SETTLED = "Not settled when the job ended."
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
    parts = tuple(dict.fromkeys(row.part for row in cured.settled)) if cured is not None else ()
    # A fault that comes and goes lets a run pass: who stands outside as well is not settled by it.
    if cured is not None and cured.is_conclusive and not spoken_of(against(found.known)) - set(parts):
        return Outlook(found, Standing.SETTLED, parts, None, cured_words(case), cured)
    standing = found.standing
    due, isolating = (None, None) if case.ended is not None else _due(case, lines, reach)
    following = asked(due, case.sheet) if due else isolating
    if following is None and case.ended is None:
        following = _next(found)
    kind = following.kind if following is not None else None
    if standing is Standing.NOTHING_SEPARATES and kind is NextKind.SERVICE:
        standing = Standing.SERVICE_DATA
    if standing in _NO_TEST_LEFT and kind is NextKind.LEAK_TEST:
        standing = Standing.UNDECIDED
    is_left = case.ended is not None and standing in _GOES_ON
    sentence = NOT_SETTLED if is_left else standing_words(found, lines, standing, reach)
    if due is not None and standing is Standing.UNDECIDED:
        sentence = due.because
    rows = (due,) if due else found.questions if kind in _BY_QUESTION else ()
    return Outlook(found, standing, found.named, following, sentence, cured, rows)


def _due(case: Case, lines: Sequence[CensusLine], reach: Reach) -> tuple[Question | None, Next | None]:
    """Return what comes before the search goes on: what a change wants, the leak test of an isolation under way."""
    if unread := unread_piece(case, lines, reach):
        return unread, None
    isolating = leak_test(case)
    return (None, isolating) if isolating else (missing_run(case, reach), None)


def named_words(found: Outlook, sheet: Sheet) -> str:
    """Return the titles of the parts that are named, empty where none is."""
    return " and ".join(sheet.known_part(part).title for part in found.named)


def _next(found: Search) -> Next | None:
    """Return what to do next: a repair where it is named; where no test is left the maker's figure or a repair."""
    sheet = found.known.table.sheet
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
