"""What a change wants before anything else: the new piece is read, the power is allowed, then the machine is run."""

from __future__ import annotations

from collections.abc import Sequence

from ohmcensus.core.diagnosis.question import Question, Reach, part_of
from ohmcensus.core.event import Changed, Event, Intervention, RunWatched
from ohmcensus.core.job.case import Case
from ohmcensus.core.judgement import CensusLine
from ohmcensus.core.machine.asked import RUN
from ohmcensus.core.meter import Function

NEW_PIECE = "New part fitted: measure it before power."
NOT_RUN = "Changed and not run yet."
BEFORE_POWER = "Changed and not run yet: no power before what is missing was measured."
_FIGURES = frozenset({Function.OHM, Function.CAPACITANCE})


def unread_piece(case: Case, lines: Sequence[CensusLine], reach: Reach) -> Question | None:
    """Return the reading of the piece that was fitted last; None where it was read, or nothing was fitted.

    Parameters
    ----------
    case, lines
        Everything observed, and its census lines, judged.
    reach
        Where the machine stands.
    """
    change = _open_change(case)
    if change is None or change.body.intervention is not Intervention.REPLACED:
        return None
    own = [line for line in lines if line.test is not None and line.test.part == change.body.part]
    if any(row.reading.order > change.order for line in own for row in line.answers):
        return None
    # What was found outside on the former piece first; else the first that is read by ohms.
    former = [line.test for line in own if line.test and any(row.judgement.verdict.is_outside for row in line.answers)]
    usual = [line.test for line in own if line.test and line.test.function in _FIGURES]
    test = next((row for row in (*former, *usual) if row.id not in reach.barred), None)
    return _because(NEW_PIECE, test.id, case, reach) if test is not None else None


def missing_run(case: Case, reach: Reach) -> Question | None:
    """Return the run that shows what the last change did, or the reading without which there is no power for it."""
    if _open_change(case) is None:
        return None
    if reach.has_power:
        return _because(NOT_RUN, RUN, case, reach)
    first = next((name for name in reach.before_power if name not in reach.barred), "")
    return _because(BEFORE_POWER, first, case, reach) if first else None


def _open_change(case: Case) -> Event[Changed] | None:
    """Return the last change where no run was watched after it."""
    change, run = case.last(Changed), case.last(RunWatched)
    return None if change is None or (run is not None and run.order > change.order) else change


def _because(words: str, test: str, case: Case, reach: Reach) -> Question:
    minutes, plugs, cover = reach.effort_of(test, case.sheet)
    return Question(test, part_of(test), minutes, plugs + cover, 0.0, 0.0, because=words)
