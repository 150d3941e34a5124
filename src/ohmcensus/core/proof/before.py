"""What a machine did before the first change, beside what it does now: the fault's own run and readings."""

from __future__ import annotations

from ohmcensus.core.event import Changed, RunMade, RunWatched
from ohmcensus.core.job.case import Case
from ohmcensus.core.machine.asked import THROUGH, run_words
from ohmcensus.core.meter import Function
from ohmcensus.core.proof import Proof, ShownBy
from ohmcensus.core.quantity import show_indication


def before_words(case: Case, row: Proof) -> str:
    """Return what was seen of a criterion before anything was changed, empty where nothing was."""
    changed = case.first_change if case.of(Changed) else 0
    match row.criterion.kind:
        case ShownBy.RUN:
            return _failing_run(case, changed)
        case ShownBy.READING:
            return _same_test(case, row.criterion.test, changed) or (
                _isolation_run(case, Function.INSULATION, changed) if row.criterion.id == "insulation" else ""
            )
        case ShownBy.CURRENT:
            return _isolation_run(case, Function.LEAKAGE, changed)
    return ""


def _failing_run(case: Case, changed: float) -> str:
    said = run_words(case.sheet)
    runs = [
        event.body.outcome for event in case.of(RunWatched) if event.order < changed and event.body.outcome != THROUGH
    ]
    return said.get(runs[-1], runs[-1]) if runs else ""


def _same_test(case: Case, test: str, changed: float) -> str:
    rows = [row for row in case.standing if row.test == test and row.order < changed]
    return show_indication(rows[-1].indication) if rows else ""


def _isolation_run(case: Case, function: Function, changed: float) -> str:
    """Return the first run of the isolation: the whole machine with its fault."""
    runs = [event.body for event in case.of(RunMade) if event.order < changed and event.body.method == function.value]
    return f"{runs[0].text}, before parts were pulled" if runs else ""
