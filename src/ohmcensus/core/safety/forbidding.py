"""What the dangers that stand forbid now."""

from __future__ import annotations

from ohmcensus.core.safety.danger import Found
from ohmcensus.core.safety.lifted_by import is_of_current, is_tried_only
from ohmcensus.core.safety.needs import earth_needs, insulation_needs, is_part_off
from ohmcensus.core.safety.walk import Walk
from ohmcensus.core.safety.words import FORBIDS, DangerId, Forbidden


def is_power_forbidden(walk: Walk, only: Found | None = None) -> bool:
    """Tell whether a danger that stands forbids power; with ``only``, whether that one does."""
    rows = walk.found if only is None else (only,)
    return any(Forbidden.POWER in forbidden_by(row, walk) for row in rows)


def forbidden_by(found: Found, walk: Walk) -> tuple[Forbidden, ...]:
    """Return what a danger forbids now."""
    if found.is_intermittent or is_tried_only(found, walk):
        return (Forbidden.SIGN_OFF,)
    acts = FORBIDS[found.id]
    if found.id is DangerId.INSULATION and (is_part_off(found, walk) or _is_current_settled(found, walk)):
        return tuple(act for act in acts if act is not Forbidden.POWER)
    return acts


def _is_current_settled(found: Found, walk: Walk) -> bool:
    """Tell whether power may come back after a current over its limit: earth and insulation read good after it."""
    if not is_of_current(found.line):
        return False
    missing = (*earth_needs(found.since, walk, found.then), *insulation_needs(found.since, walk, found.then))
    return not missing
