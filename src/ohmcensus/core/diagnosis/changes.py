"""Whether a change cured the fault, or one of several may have; and which former pieces never go back in."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

from ohmcensus.core.diagnosis.mending import is_own, is_read_good
from ohmcensus.core.event import Changed, Event, Intervention, RunWatched
from ohmcensus.core.job.case import Case
from ohmcensus.core.judgement import census_lines
from ohmcensus.core.judgement.census_sheet import Answer
from ohmcensus.core.machine import MachineTest
from ohmcensus.core.machine.asked import THROUGH, held_by_voltage
from ohmcensus.core.meter import Function
from ohmcensus.core.parts.kind import Role
from ohmcensus.core.quantity import show_indication

# What of a piece that reads outside makes it a danger to fit again.
_OF_SAFETY = frozenset({Function.INSULATION, Function.LEAKAGE})


@dataclass(frozen=True, slots=True)
class Cure:
    """What stands between the last run that failed and the first that passed.

    Parameters
    ----------
    changes
        Changes made in between, in order; any of them, or none, may have cured it.
    is_conclusive
        Exactly one change, and the failure was seen before it, or the piece that came out has failed by itself.
    swap_back
        The part whose former piece, fitted again, would settle it in the least time; empty where nothing can be
        put back, or nothing need be.
    on_the_bench
        The part whose former piece has failed or may be a danger, and settles it on the bench; empty where none is.
    failed
        What the former piece of the one change read, in words; empty where it was not found outside.
    earlier
        Changes before the last failed run whose former piece was found outside twice.
    unread
        Lines that the former piece read outside and that nobody read good since, in words.
    """

    changes: tuple[Changed, ...]
    is_conclusive: bool
    swap_back: str
    on_the_bench: str = ""
    failed: str = ""
    earlier: tuple[Changed, ...] = ()
    unread: tuple[str, ...] = ()

    @property
    def settled(self) -> tuple[Changed, ...]:
        """Changes that mended something."""
        return (*self.earlier, *self.changes)


def cure(case: Case) -> Cure | None:
    """Return what may have cured the fault; None while no run has passed since it failed.

    Notes
    -----
    The complaint is a failure that nobody has watched: a first run that passes after one change may be chance. Whoever
    changed the part may have seen it fail; and a piece that failed its own limit needs no second witness.
    """
    runs = case.of(RunWatched)
    if not runs or not _passed(runs[-1]):
        return None
    failed = max((event.order for event in runs if not _passed(event)), default=0)
    passed = min(event.order for event in runs if event.order > failed)
    made = case.of(Changed)
    between = [event for event in made if failed < event.order < passed]
    earlier = tuple(event.body for event in made if event.order < failed and _outside(case, event))
    changes = tuple(event.body for event in between)
    reads = _outside(case, between[0]) if len(between) == 1 else ""
    saw = bool(between) and between[0].body.saw_fail
    unread = tuple(_unread(case, between[0])) if len(changes) == 1 else ()
    if len(changes) == 1 and (failed > 0 or saw or reads) and not unread:
        return Cure(changes, is_conclusive=True, swap_back="", failed=reads, earlier=earlier)
    if unread:
        return Cure(changes, is_conclusive=False, swap_back="", earlier=earlier, unread=unread)
    never = {event.body.part for event in between if is_danger_to_refit(case, event)}
    swapped = [body.part for body in changes if body.intervention is Intervention.REPLACED]
    bench = next((part for part in swapped if part in never), "")
    back = _least(case, set(swapped) - never)
    bench = "" if back else bench
    return Cure(changes, is_conclusive=False, swap_back=back, on_the_bench=bench, earlier=earlier)


def is_danger_to_refit(case: Case, event: Event[Changed]) -> bool:
    """Tell whether the piece that came out is never fitted again: it leaked, or it is an interlock that failed."""
    part = case.sheet.part(event.body.part)
    is_interlock = part is not None and part.traits.role is Role.INTERLOCK
    return any(
        bool(outside) and (is_interlock or test.function in _OF_SAFETY) for test, outside in _found_outside(case, event)
    )


def former_since(case: Case, part: str) -> float:
    """Return the order of the last change by which another piece came in; earlier readings are of the former one."""
    swaps = (event for event in case.of(Changed) if event.body.part == part)
    return max((event.order for event in swaps if event.body.intervention is Intervention.REPLACED), default=-1.0)


def _found_outside(case: Case, event: Event[Changed]) -> Iterator[tuple[MachineTest, list[Answer]]]:
    """Yield what the piece that came out had read outside, test by test; what an earlier piece read is not its."""
    before = (row.order for row in case.of(Changed) if row.body.part == event.body.part and row.order < event.order)
    since = max(before, default=-1)
    for line in census_lines(case.before(event.order)):
        if line.test is not None and line.test.part == event.body.part:
            answers = [row for row in line.answers if row.reading.order > since]
            yield line.test, [row for row in answers if row.judgement.verdict.is_outside]


def _outside(case: Case, event: Event[Changed]) -> str:
    """Return what the piece that came out had read outside twice, in words; empty where it had not."""
    for test, outside in _found_outside(case, event):
        if len(outside) > 1:
            return f"{test.title} {show_indication(outside[-1].reading.indication)}"
    return ""


def _unread(case: Case, event: Event[Changed]) -> Iterator[str]:
    """Yield what the piece that came out had read outside and what is there now has not read good."""
    lines = {line.test.id: line for line in census_lines(case) if line.test is not None}
    held = held_by_voltage(case.sheet)
    found = [test for test, outside in _found_outside(case, event) if outside and test.id not in held]
    for test in found:
        if is_own(test, event.body.part) and not is_read_good(lines[test.id], event):
            yield test.title


def _passed(event: Event[RunWatched]) -> bool:
    return event.body.outcome == THROUGH


def _least(case: Case, swapped: set[str]) -> str:
    parts = [part for part in case.sheet.parts if part.id in swapped]
    return min(parts, key=lambda part: part.part_kind.repair_minutes).id if parts else ""
