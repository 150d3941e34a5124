"""What is done to a part, by what was found on it: what cannot be cleaned is replaced; and what is read after it."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass

from ohmcensus.core.event import Changed, Checked, CheckOutcome, Event, Intervention, Skipped
from ohmcensus.core.event.change import usual_intervention
from ohmcensus.core.job.case import Case
from ohmcensus.core.judgement import CensusLine
from ohmcensus.core.judgement.census_sheet import moved_by
from ohmcensus.core.machine.asked import held_by_voltage
from ohmcensus.core.machine.plugs import WHOLE_LINES
from ohmcensus.core.machine.tests import MachineTest
from ohmcensus.core.meter import Function

_FIGURES = frozenset({Function.OHM, Function.CAPACITANCE})
# How a piece is told that was there before and is fitted again: it reads as it did.
AS_IT_WAS = "original"


@dataclass(frozen=True, slots=True)
class Mending:
    """What is done to a part.

    Parameters
    ----------
    fits
        What fits what was found; more than one where a person has to say which.
    repair
        The same in words: "replace the pump".
    """

    fits: tuple[Intervention, ...]
    repair: str


def mending(case: Case, lines: Sequence[CensusLine], part: str) -> Mending:
    """Return what is done to a part by what was found on the piece that is there.

    A line that reads outside is an electrical fault: dirt and water are cleaned away, an open winding is not.
    """
    known = case.sheet.known_part(part)
    repair = known.part_kind.repair
    usual = usual_intervention(repair)
    since = max((event.order for event in case.of(Changed) if event.body.part == part), default=-1)
    is_bad = any(
        row.judgement.verdict.is_outside and row.reading.order > since
        for line in lines
        if line.test is not None and _asks(line.test, case, part)
        for row in line.answers
    )
    if is_bad and usual in {Intervention.CLEANED, Intervention.ADJUSTED}:
        return Mending((Intervention.REPLACED, Intervention.MENDED), f"replace the {known.title.lower()}")
    if is_bad and usual is Intervention.RESEATED:
        return Mending((usual, Intervention.REPLACED), repair)
    is_seen = any(
        event.body.check.partition(".")[0] == part and event.body.outcome is CheckOutcome.BAD and event.order > since
        for event in case.of(Checked)
    )
    if usual is Intervention.CLEANED and not is_seen and known.part_kind.fault_modes:
        return Mending((usual, Intervention.REPLACED), repair)
    return Mending((usual,), repair)


def asked_of_piece(case: Case, lines: Sequence[CensusLine], event: Event[Changed]) -> Iterator[CensusLine]:
    """Yield the lines that are read of a part once it was changed: what had read outside; else a new piece's usual one.

    A former piece that is fitted again reads as it did: none.
    """
    body = event.body
    if body.fitted.casefold() == AS_IT_WAS:
        return
    former = max((row.order for row in case.of(Changed) if _is_earlier(row, event)), default=-1)
    held = held_by_voltage(case.sheet)
    own = [row for row in lines if row.test is not None and is_own(row.test, body.part) and row.test.id not in held]
    bad = [
        line
        for line in own
        if any(row.judgement.verdict.is_outside and former < row.reading.order < event.order for row in line.answers)
    ]
    usual = [line for line in own if line.test is not None and line.test.function in _FIGURES]
    yield from bad or (usual[:1] if body.intervention is Intervention.REPLACED else [])


def is_read_good(line: CensusLine, event: Event[Changed]) -> bool:
    """Tell whether a line was read after a change, and its last reading is not outside."""
    answers = [row for row in line.answers if row.reading.order > event.order]
    return bool(answers) and not answers[-1].judgement.verdict.is_outside


def is_left_out(test: MachineTest, case: Case, event: Event[Changed]) -> bool:
    """Tell whether it was said after a change that a line could not be measured."""
    return any(row.body.test == test.id and row.order > event.order for row in case.of(Skipped))


def is_own(test: MachineTest, part: str) -> bool:
    """Tell whether a test is made at a part's own points on a dead machine, wherever the part lies."""
    at_part = all(point.partition(".")[0] == part for point in test.between)
    return test.part == part and at_part and test.function.needs_dead_circuit


def unread_words(case: Case, lines: Sequence[CensusLine]) -> tuple[str, ...]:
    """Say which lines of changed parts were not read good since, and why, a sentence each."""
    last = {event.body.part: event for event in case.of(Changed)}
    found = []
    for event in last.values():
        for line in asked_of_piece(case, lines, event):
            if line.test is None or is_read_good(line, event):
                continue
            title = f"{line.test.part_title}, {line.test.title}"
            skipped = [row for row in case.of(Skipped) if row.body.test == line.test.id and row.order > event.order]
            why = f"could not be measured: {skipped[-1].body.why.words}" if skipped else "was not measured since"
            is_bad = any(row.reading.order > event.order for row in line.answers)
            found.append(f"{title} reads {line.reads}: outside." if is_bad else f"{title} {why}.")
    return tuple(found)


def _asks(test: MachineTest, case: Case, part: str) -> bool:
    """Tell whether a test asks a part: at its own tags or through its lead; the machine as a whole does not."""
    is_led = test.id not in WHOLE_LINES and test.function in _FIGURES and part in moved_by(test, case)
    return test.part == part or is_led


def _is_earlier(row: Event[Changed], event: Event[Changed]) -> bool:
    return row.body.part == event.body.part and row.order < event.order
