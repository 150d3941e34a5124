"""What each run added: parts proved by it, contradictions, and runs repeated after a part was changed."""

from __future__ import annotations

from dataclasses import dataclass

from ohmcensus.core.event import Changed, Event
from ohmcensus.core.job.case import Case
from ohmcensus.core.trip.isolate import State, proved_states
from ohmcensus.core.trip.of_case import RunRecord, convicted, problem_of, run_records
from ohmcensus.core.trip.problem import Method, Problem


@dataclass(frozen=True, slots=True)
class RunStep:
    """One run, and what was known after it that was not known before.

    Parameters
    ----------
    record
        The run.
    cleared, guilty
        Parts that it proved.
    reopened
        Parts that were proved before and are open after it: a contradiction, or a change.
    is_conflict
        Whether it contradicts the runs before it.
    """

    record: RunRecord
    cleared: tuple[str, ...]
    guilty: tuple[str, ...]
    reopened: tuple[str, ...]
    is_conflict: bool


@dataclass(frozen=True, slots=True)
class Repeated:
    """The same parts tested before and after one of them was changed; ``after`` None while that is to be done."""

    change: Event
    body: Changed
    before: RunRecord
    after: RunRecord | None


def story_of(case: Case, method: Method) -> tuple[RunStep, ...]:
    """Return what each run of one method proved, oldest first."""
    records = run_records(case, method)
    found, known, proved = [], dict[str, State](), dict[str, State]()
    before: Problem | None = None
    for record in records:
        problem = problem_of(case, method, until=record.event.order, records=records)
        is_same = before is not None and (before.parts, before.is_earth_ok) == (problem.parts, problem.is_earth_ok)
        states, is_conflict = proved_states(problem, proved if is_same else {})
        before, proved = problem, {} if is_conflict else states
        guilty = [part for part, state in states.items() if state is State.GUILTY]
        sure = convicted(case, method, guilty, [row for row in records if row.event.order <= record.event.order])
        states = {part: State.OPEN if part in guilty and part not in sure else row for part, row in states.items()}
        new = {part: state for part, state in states.items() if known.get(part, State.OPEN) is not state}
        found.append(
            RunStep(
                record,
                tuple(part for part, state in new.items() if state is State.CLEARED),
                tuple(part for part, state in new.items() if state is State.GUILTY),
                tuple(part for part, state in new.items() if state is State.OPEN),
                is_conflict=is_conflict,
            )
        )
        known = states
    return tuple(found)


def repeated(case: Case, method: Method) -> tuple[Repeated, ...]:
    """Return for every change of a part the last run with it before, and the same run after."""
    records = run_records(case, method)
    found = []
    for event in case.of(Changed):
        body = event.body
        before = [row for row in records if row.event.order < event.order and body.part in row.body.connected]
        if before:
            last = max(before, key=lambda row: (row.interval.lo, row.event.order))
            same = [row for row in records if row.event.order > event.order and _is_same(row, last)]
            found.append(Repeated(event, body, last, same[0] if same else None))
    return tuple(found)


def _is_same(one: RunRecord, other: RunRecord) -> bool:
    """Tell whether two runs tested the same parts in the same way."""
    return (
        set(one.body.connected) == set(other.body.connected)
        and one.body.polarity == other.body.polarity
        and one.body.states == other.body.states
    )
