"""Opening a danger: what stands from then on, and what it makes of a machine under voltage."""

from __future__ import annotations

from dataclasses import replace

from ohmcensus.core.safety.danger import TRIP_LINE, Found
from ohmcensus.core.safety.forbidding import is_power_forbidden
from ohmcensus.core.safety.walk import Walk
from ohmcensus.core.safety.words import DangerId

_STOOD = frozenset({DangerId.SHOCK, DangerId.TRIP, DangerId.BURNT_SMELL, DangerId.WATER_INSIDE})


def opened(walk: Walk, found: Found) -> Walk:
    """Return the walk with a danger: one entry a cause, the newest; power on a machine that must have none is told.

    What an earlier job left behind on a line stands beside what was found on it here.
    """
    cause = (found.id, found.line, found.is_former)
    kept = tuple(row for row in walk.found if (row.id, row.line, row.is_former) != cause)
    newer = next((row for row in walk.found if row not in kept and row.since > found.since), None)
    if newer is not None:
        # An older one that opens anew never takes the place of what was found since, and stands.
        stands = replace(newer, anew=(*newer.anew, *found.then))
        return replace(walk, found=(*kept, stands))
    is_powered = walk.is_under_power
    walk = replace(walk, found=(*kept, found))
    if found.id in _STOOD:
        walk = replace(walk, marks=replace(walk.marks, hazard=max(walk.marks.hazard, found.since, 1)))
    if not is_powered or not is_power_forbidden(walk, found):
        return walk
    walk = walk.powered_by(f"{found.title}, in live mode") if walk.is_live else walk
    is_by_itself = found.line == TRIP_LINE and found.since == walk.order
    return walk if is_by_itself else forbidden_live(walk, found.title)


def forbidden_anew(before: Walk, walk: Walk) -> Walk:
    """Return the walk after a record by which a leak that was left off forbids power again: under voltage that is told.

    The leak test of all the rest was taken back, or is none on the sheet that holds now.
    """
    if before.frame is None or not walk.is_under_power:
        return walk
    free = {(row.line, row.since) for row in before.found if _is_leak(row) and not is_power_forbidden(before, row)}
    again = [row for row in walk.found if (row.line, row.since) in free and is_power_forbidden(walk, row)]
    if not again:
        return walk
    walk = walk.powered_by(f"{again[0].title}, in live mode") if walk.is_live else walk
    return forbidden_live(walk, again[0].title)


def _is_leak(row: Found) -> bool:
    return row.id is DangerId.INSULATION and not row.is_intermittent


def forbidden_live(walk: Walk, words: str) -> Walk:
    """Return the walk of a machine that stands under voltage although a danger forbids power."""
    found = Found(DangerId.LIVE_THOUGH_FORBIDDEN, "power", words, walk.order, "", walk.terms)
    kept = tuple(row for row in walk.found if row.id is not DangerId.LIVE_THOUGH_FORBIDDEN)
    return replace(walk, found=(*kept, found))
