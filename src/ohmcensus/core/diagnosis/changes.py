"""Whether a change cured the fault, or one of several may have."""

from __future__ import annotations

from dataclasses import dataclass

from ohmcensus.core.event import Changed, Event, Intervention, RunWatched
from ohmcensus.core.job.case import Case
from ohmcensus.core.machine.asked import THROUGH


@dataclass(frozen=True, slots=True)
class Cure:
    """What stands between the last run that failed and the first that passed.

    Parameters
    ----------
    changes
        Changes made in between, in order; any of them, or none, may have cured it.
    is_conclusive
        Exactly one change, and the failure was seen before it.
    swap_back
        The part whose former piece, fitted again, would settle it in the least time; empty where nothing can be
        put back, or nothing need be.
    """

    changes: tuple[Changed, ...]
    is_conclusive: bool
    swap_back: str


def cure(case: Case) -> Cure | None:
    """Return what may have cured the fault; None while no run has passed since it failed.

    Notes
    -----
    The complaint is a failure that nobody has watched: a first run that passes after one change may be chance.
    """
    runs = case.of(RunWatched)
    if not runs or not _passed(runs[-1]):
        return None
    failed = max((event.order for event in runs if not _passed(event)), default=0)
    passed = min(event.order for event in runs if event.order > failed)
    changes = tuple(event.body for event in case.of(Changed) if failed < event.order < passed)
    is_conclusive = len(changes) == 1 and failed > 0
    return Cure(changes, is_conclusive, "" if is_conclusive else _swap_back(case, changes))


def _passed(event: Event[RunWatched]) -> bool:
    return event.body.outcome == THROUGH


def _swap_back(case: Case, changes: tuple[Changed, ...]) -> str:
    swapped = {body.part for body in changes if body.intervention is Intervention.REPLACED}
    parts = [part for part in case.sheet.parts if part.id in swapped]
    return min(parts, key=lambda part: part.part_kind.repair_minutes).id if parts else ""
