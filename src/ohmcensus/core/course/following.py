"""The one thing to do next: a test, a look, a run, a plate, a leak test, the maker's figures, a repair."""

from __future__ import annotations

import math
from dataclasses import dataclass
from enum import StrEnum

from ohmcensus.core.diagnosis.question import Asks, Question
from ohmcensus.core.diagnosis.words import plate_words
from ohmcensus.core.event.record import Record
from ohmcensus.core.job.case import Case
from ohmcensus.core.job.mains_plug import is_plug_turned_freely
from ohmcensus.core.machine.asked import asked_words, looks
from ohmcensus.core.sheet import Sheet
from ohmcensus.core.trip.advice import AdviceKind, advice
from ohmcensus.core.trip.isolate import isolate
from ohmcensus.core.trip.of_case import convicted, last_run, problem_of, run_records
from ohmcensus.core.trip.planner import TEST_MINUTES
from ohmcensus.core.trip.problem import Method, Problem
from ohmcensus.core.trip.words import advice_words, conflict_words

RUN_WORDS = "Run it through, panels shut, and watch the first step that fails"


class NextKind(StrEnum):
    """What is done next."""

    TEST = "test"
    LOOK = "look"
    RUN = "run"
    PLATE = "plate"
    LEAK_TEST = "leak_test"
    SERVICE = "service"
    REPAIR = "repair"
    SAFE = "safe"
    WAY_BACK = "way_back"
    PROVE = "prove"
    END = "end"


@dataclass(frozen=True, slots=True)
class Next:
    """The one thing to do next.

    Parameters
    ----------
    kind
        What sort of act it is.
    part
        Whose.
    words
        What to do.
    test, also
        What is asked, and what is asked along with it; empty for a leak test, service data and a repair.
    minutes
        With covers, plugs and safety.
    rating
        What is to be read on a plate or a stamp.
    bits
        What it is expected to settle.
    connected
        Parts that stay connected in a leak test.
    stage
        The room where it is done; empty where its kind says it.
    do
        The record that carries it out, None where a figure is asked.
    before
        The test or look for which it is done first, empty where it is for none.
    why
        Why it is next, empty where the search says why.
    """

    kind: NextKind
    part: str
    words: str
    test: str = ""
    also: tuple[str, ...] = ()
    minutes: float = 0.0
    rating: str = ""
    bits: float = 0.0
    connected: tuple[str, ...] = ()
    stage: str = ""
    do: Record | None = None
    before: str = ""
    why: str = ""

    @property
    def room(self) -> str:
        """The room where it is done."""
        return self.stage or _ROOMS.get(self.kind, "trace")


_ROOMS = {
    NextKind.LEAK_TEST: "trip",
    NextKind.REPAIR: "repair",
    NextKind.SAFE: "safe",
    NextKind.WAY_BACK: "repair",
    NextKind.PROVE: "prove",
    NextKind.END: "prove",
}


def asked(row: Question, sheet: Sheet) -> Next:
    """Return the act of a question."""
    return Next(
        NextKind(row.kind.value),
        row.part,
        question_words(row, sheet),
        row.test,
        row.also,
        row.minutes + row.reach_minutes,
        row.rating,
        row.bits,
    )


def question_title(row: Question, sheet: Sheet) -> str:
    """Return what a question asks: "Heater, element"; "Look at Heater, tags: burnt?"."""
    if row.kind is Asks.RUN:
        return RUN_WORDS
    if row.kind is Asks.PLATE:
        return plate_words(sheet, row.part, row.rating)
    if row.kind is Asks.LOOK:
        part, check = looks(sheet)[row.test]
        return f"Look at {part.title}, {check.title}: {check.bad}?"
    return asked_words(row.test, sheet)


def question_words(row: Question, sheet: Sheet) -> str:
    """Say what a question asks for: "Measure: Heater, element"."""
    title = question_title(row, sheet)
    return f"Measure: {title}" if row.kind is Asks.TEST else title


def repair(sheet: Sheet, part: str) -> Next:
    """Return the repair of a part."""
    row = sheet.known_part(part)
    words = f"{row.title}: {row.part_kind.repair}"
    return Next(NextKind.REPAIR, part, words, minutes=row.part_kind.repair_minutes)


def service(sheet: Sheet, part: str) -> Next:
    """Return the search for what the maker says of a part."""
    return Next(NextKind.SERVICE, part, f"{sheet.known_part(part).title}: look up the maker's figures", minutes=1.0)


def leak_test(case: Case) -> Next | None:
    """Return the leak test that an isolation under way wants: a leak was proved, and not yet whose it is."""
    last = last_run(case)
    if last is None:
        return None
    problem = problem_of(case, Method(last.body.method))
    found = isolate(problem)
    if found.conflict:
        part = next(iter(last.body.connected), "")
        return Next(NextKind.LEAK_TEST, part, conflict_words(found)) if part else None
    sure = convicted(case, problem.method, found.guilty, run_records(case, problem.method))
    told = advice(case.sheet, problem, found, turns=is_plug_turned_freely(case), convicted=sure)
    if told.kind not in _BY_LEAK_TEST or not _is_over(problem):
        return None
    connected = found.next.connected if found.next is not None else last.body.connected
    return Next(
        NextKind.LEAK_TEST,
        next(iter(connected), ""),
        f"Leak test. {advice_words(case.sheet, told, found, problem)}",
        minutes=found.next.minutes if found.next is not None else TEST_MINUTES,
        connected=connected,
    )


# What an isolation wants that is done with a tester: a pull, the rest as it stands, the plug turned, the other method.
_BY_LEAK_TEST = frozenset({AdviceKind.TEST, AdviceKind.AS_IT_STANDS, AdviceKind.TURN_PLUG, AdviceKind.INSULATION})


def _is_over(problem: Problem) -> bool:
    """Tell whether any run leaks more than the least limit of what was connected in it."""
    limits = {part.id: part.limit for part in problem.parts}
    return any(
        run.interval.lo > min((limits[name] for name in run.connected), default=math.inf) for run in problem.counted
    )
