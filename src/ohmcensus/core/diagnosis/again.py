"""What a guard asks for before anything is named, and readings that are worth a second one."""

from __future__ import annotations

import math
from collections.abc import Iterator

from ohmcensus.core.diagnosis.conclusion import Conclusion, Standing, conclude
from ohmcensus.core.diagnosis.effort import COVER_SHARE, HANDLING_MINUTES, PLATE_MINUTES, efforts
from ohmcensus.core.diagnosis.posterior import Diagnosis
from ohmcensus.core.diagnosis.question import LEAST_BITS, LIKELIEST_WEIGHT, Objective, Question, Reach, part_of
from ohmcensus.core.diagnosis.repeat import repeats

ENDED = frozenset({Standing.NAMED, Standing.TWO_NAMED, Standing.NOTHING_FOUND})


def concluded(diagnosis: Diagnosis, reach: Reach) -> Conclusion:
    """Return what may be said of the suspects where the machine stands: no guard asks for what cannot be made."""
    columns = efforts(diagnosis.table.sheet)
    live = frozenset() if reach.has_power else frozenset(name for name, row in columns.items() if row.is_live)
    return conclude(diagnosis, reach.barred | live, reach.stamped)


def guarded(found: Conclusion, reach: Reach) -> Iterator[Question]:
    """Yield what a guard asks for before anything else: a plate, a test of the leader itself, a second reading."""
    sheet = found.known.table.sheet
    if found.standing is Standing.ANOTHER_VARIANT:
        part, _, rating = found.plate.partition(".")
        cover = reach.minutes_to(sheet, sheet.known_part(part).behind)
        yield Question(found.plate, part, PLATE_MINUTES, cover, 0.0, math.inf, rating=rating)
    elif found.again:
        minutes, plugs, cover = reach.effort_of(found.again, sheet)
        is_repeat = not found.is_unmeasured
        reaching = cover if is_repeat else cover + plugs
        yield Question(found.again, part_of(found.again), minutes, reaching, 0.0, math.inf, is_repeat=is_repeat)


def repeated(found: Conclusion, reach: Reach, objective: Objective) -> Iterator[Question]:
    """Yield readings that are worth a second one."""
    diagnosis = found.known
    known, table = efforts(diagnosis.table.sheet), diagnosis.table
    of_part = dict(zip(table.parts, diagnosis.of_part.tolist(), strict=True))
    worth = {} if objective is Objective.CHEAPEST else dict(repeats(diagnosis))
    for test in worth.keys() - reach.barred - {found.again}:
        minutes, plugs, cover = reach.effort_of(test, table.sheet)
        score = worth[test] / (HANDLING_MINUTES + minutes + plugs + COVER_SHARE * cover)
        if objective is Objective.LIKELIEST_FIRST:
            score += LIKELIEST_WEIGHT * of_part.get(part_of(test), 0.0)
        if worth[test] >= LEAST_BITS and (reach.has_power or not known[test].is_live):
            yield Question(test, part_of(test), minutes, cover, worth[test], score, is_repeat=True)
