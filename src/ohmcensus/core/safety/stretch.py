"""The last time under voltage: what is written down of it after the plug was pulled counts as of then."""

from __future__ import annotations

from dataclasses import replace

from ohmcensus.core.safety.forbidding import forbidden_by
from ohmcensus.core.safety.walk import Stretch, Walk
from ohmcensus.core.safety.words import DangerId, Forbidden


def stretched(walk: Walk) -> Walk:
    """Return the walk with its last time under voltage kept up to date."""
    last = walk.stretch
    is_on = last is not None and last.ended is None
    if not walk.is_under_power:
        return replace(walk, stretch=replace(last, ended=walk.order)) if last is not None and is_on else walk
    now = last if last is not None and is_on else Stretch(walk.order)
    forbidden = now.forbidden.union(*(forbidden_by(row, walk) for row in walk.found))
    has_contact = now.has_contact or any(row.id is DangerId.CONTACT for row in walk.found)
    after = replace(now, forbidden=forbidden, has_contact=has_contact)
    return walk if after == last else replace(walk, stretch=after)


def order_before(walk: Walk, *, is_run: bool = False) -> int | None:
    """Return as of which record something counts that was seen under power before the cut-off; None where it does not.

    Parameters
    ----------
    walk
        Where the job stands.
    is_run
        Whether it is a run: a danger that forbids the cycle, or a contact that is closed, leaves it without worth.

    Notes
    -----
    The log must hold the stretch under voltage, with no change, plug, earth or cover off or back since it began, and
    nothing that stood in it may forbid what is claimed.
    """
    last, marks = walk.stretch, walk.marks
    if walk.cut is None or last is None or last.ended is None:
        return None
    if max(marks.whole, marks.cover, marks.ends) >= last.begun:
        return None
    if Forbidden.POWER in last.forbidden or (is_run and (Forbidden.CYCLE in last.forbidden or last.has_contact)):
        return None
    return last.ended
