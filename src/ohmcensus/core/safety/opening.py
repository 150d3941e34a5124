"""Opening a danger: what stands from then on, and what it makes of a machine under voltage."""

from __future__ import annotations

from dataclasses import replace

from ohmcensus.core.safety.danger import Found
from ohmcensus.core.safety.forbidding import is_power_forbidden
from ohmcensus.core.safety.walk import Walk
from ohmcensus.core.safety.words import DangerId

_STOOD = frozenset({DangerId.SHOCK, DangerId.TRIP, DangerId.BURNT_SMELL, DangerId.WATER_INSIDE})


def opened(walk: Walk, found: Found) -> Walk:
    """Return the walk with a danger: one entry a cause, the newest; power on a machine that must have none is told."""
    kept = tuple(row for row in walk.found if (row.id, row.line) != (found.id, found.line))
    is_powered = walk.is_under_power
    walk = replace(walk, found=(*kept, found))
    if found.id in _STOOD:
        walk = replace(walk, marks=replace(walk.marks, hazard=max(walk.marks.hazard, found.since, 1)))
    if not is_powered or not is_power_forbidden(walk, found):
        return walk
    walk = walk.powered_by(f"{found.title}, in live mode") if walk.is_live else walk
    return walk if found.id is DangerId.TRIP and not found.is_measured else forbidden_live(walk, found.title)


def forbidden_live(walk: Walk, words: str) -> Walk:
    """Return the walk of a machine that stands under voltage although a danger forbids power."""
    found = Found(DangerId.LIVE_THOUGH_FORBIDDEN, "power", words, walk.order, "", walk.terms)
    kept = tuple(row for row in walk.found if row.id is not DangerId.LIVE_THOUGH_FORBIDDEN)
    return replace(walk, found=(*kept, found))
