"""What lifts a danger, and what opens it anew: its lines read good after it, and what had read good is gone."""

from __future__ import annotations

from dataclasses import replace

from ohmcensus.core.safety.danger import OUTLET_LINE, Found
from ohmcensus.core.safety.evidence import is_settled_by
from ohmcensus.core.safety.lifted_by import answering_lines, arrester_missing, held_line, needs
from ohmcensus.core.safety.needs import is_whole_line_of_arrester
from ohmcensus.core.safety.opening import opened
from ohmcensus.core.safety.walk import Lifted, Walk
from ohmcensus.core.safety.words import DangerId

_MEASURED_LINES = frozenset({DangerId.EARTH, DangerId.INSULATION, DangerId.CONTACT})


def relifted(walk: Walk) -> Walk:
    """Return the walk with the dangers taken off whose needs are met, and those anew that came and went."""
    if not walk.found:
        return walk
    kept, lifted = list[Found](), list(walk.lifted)
    for row in walk.found:
        if needs(row, walk):
            kept.append(replace(row, is_intermittent=False) if row.is_intermittent else row)
        elif _is_settled(row, walk):
            lifted.append(lifted_now(row, walk))
        else:
            kept.append(row if row.is_intermittent else replace(row, is_intermittent=True))
    if tuple(kept) == walk.found:
        return walk
    after = replace(walk, found=tuple(kept), lifted=tuple(lifted))
    # What one danger asks may hang on whether another one stands.
    return relifted(after) if len(kept) < len(walk.found) else after


def lifted_now(found: Found, walk: Walk) -> Lifted:
    """Return a danger as it is lifted by what is known now."""
    by = frozenset(row.id for line in walk.rows for row in walk.goods(line) if row.order > found.since)
    watched = frozenset({walk.watched.id}) if walk.watched is not None else frozenset[str]()
    return Lifted(found, by | watched, replace(walk, lifted=()))


def without_record(walk: Walk, record: str) -> Walk:
    """Return the walk without what a record had shown."""
    rows = {
        line: tuple(row for row in answers if row.id != record) if any(row.id == record for row in answers) else answers
        for line, answers in walk.rows.items()
    }
    made = {name: event for name, event in walk.made.items() if event.id != record}
    return replace(walk, rows=rows, made=made)


def voided(walk: Walk, record: str) -> Walk:
    """Return the walk without what a record had shown: it was corrected, taken back or is doubted.

    What it had opened stands; what it had lifted is open again where nothing else lifts it, with all that opening does.
    """
    after = without_record(walk, record)
    held = tuple(row for row in after.lifted if record not in row.by)
    back = tuple(row.found for row in after.lifted if record in row.by)
    after = replace(after, lifted=held)
    came = tuple(row for row in after.found if row.is_intermittent and needs(row, after))
    for found in (*came, *back):
        after = reopened(after, replace(found, is_intermittent=False))
    return after


def reopened(walk: Walk, found: Found) -> Walk:
    """Return the walk with a danger that was lifted, where its needs are not met any more; else lifted as it was."""
    if needs(found, walk):
        return opened(walk, found)
    if _is_settled(found, walk):
        return replace(walk, lifted=(*walk.lifted, lifted_now(found, walk)))
    return replace(walk, found=(*walk.found, replace(found, is_intermittent=True)))


def is_lifted_on(lifted: Lifted, walk: Walk) -> bool:
    """Tell whether a danger would have been lifted on the terms of now by what lifted it then."""
    return not needs(lifted.found, replace(lifted.at, frame=walk.frame))


def _is_settled(found: Found, walk: Walk) -> bool:
    """Tell whether a line that read bad and good again is done with, or comes and goes."""
    if found.id not in _MEASURED_LINES or not found.is_measured or found.is_corrected or found.line == OUTLET_LINE:
        return True
    line = held_line(found, walk)
    if found.id is DangerId.INSULATION and is_whole_line_of_arrester(line, walk) and not arrester_missing(found, walk):
        return True
    marks = walk.marks
    changed = marks.last_mended if found.part is None else marks.mended.get(found.part, 0)
    if found.part is not None and found.id is DangerId.EARTH:
        changed = max(changed, marks.earths.get(found.part, 0))
    goods = [[row for row in walk.goods(each) if row.order > found.since] for each in answering_lines(found, walk)]
    return changed > found.since or any(map(is_settled_by, goods))
