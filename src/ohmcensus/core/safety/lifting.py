"""What lifts a danger: the lines that must read good after it, and whether they did."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import replace

from ohmcensus.core.event import Hazard
from ohmcensus.core.judgement.passes import (
    EARTH_LINE,
    WHOLE_LINE,
    insulation_lines_of,
    named_test,
)
from ohmcensus.core.judgement.whole import LoadHeldOpen, held_open, least_across_ohm
from ohmcensus.core.machine.asked import looks
from ohmcensus.core.meter import Function
from ohmcensus.core.parts.kind import Role
from ohmcensus.core.quantity import Unit, show_value
from ohmcensus.core.safety.danger import OUTLET_LINE, Found, title_of
from ohmcensus.core.safety.evidence import Evidence, is_leak_test
from ohmcensus.core.safety.needs import (
    Need,
    earth_needs,
    insulation_needs,
    interlock_lines,
    is_good,
    is_part_off,
    need_of,
    outlet_needs,
    part_title,
)
from ohmcensus.core.safety.walk import Walk
from ohmcensus.core.safety.words import FORBIDS, Act, DangerId
from ohmcensus.core.symptom import Device

# Kinds whose lines tell the level of the water.
ACROSS_LINE = "cord.across"
ROWS_THAT_SETTLE = 3
_LEAKS_ONLY = frozenset({Device.RCD, Device.GFCI})
AFCI_LOOKS = ("look_cord", "look_commutator", "look_chafe")
_MEASURED_LINES = frozenset({DangerId.EARTH, DangerId.INSULATION, DangerId.CONTACT})


def needs(found: Found, walk: Walk) -> tuple[Need, ...]:
    """Return what is still missing before a danger is lifted, in the order in which it is done."""
    return tuple(_NEEDS[found.id](found, walk))


def relifted(walk: Walk) -> Walk:
    """Return the walk with the dangers taken off whose needs are met."""
    if not walk.found:
        return walk
    kept, lifted = [], list(walk.lifted)
    for row in walk.found:
        if needs(row, walk):
            kept.append(row)
        elif _is_settled(row, walk):
            lifted.append((row, _lifters(row, walk)))
        else:
            kept.append(replace(row, is_intermittent=True))
    return replace(walk, found=tuple(kept), lifted=tuple(lifted)) if tuple(kept) != walk.found else walk


def voided(walk: Walk, record: str) -> Walk:
    """Return the walk without what a record had shown: it was corrected, taken back or is doubted.

    What it had opened stands; what it had lifted comes back.
    """
    good = {line: row for line, row in walk.good.items() if row.id != record}
    back = tuple(row for row, by in walk.lifted if record in by)
    lifted = tuple((row, by) for row, by in walk.lifted if record not in by)
    made = {name: event for name, event in walk.made.items() if event.id != record}
    return replace(walk, good=good, lifted=lifted, found=(*walk.found, *back), made=made)


def is_power_forbidden(walk: Walk, only: Found | None = None) -> bool:
    """Tell whether a danger that stands forbids power; with ``only``, whether that one does."""
    rows = walk.found if only is None else (only,)
    return any(Act.POWER in forbidden_by(row, walk) for row in rows)


def forbidden_by(found: Found, walk: Walk) -> tuple[Act, ...]:
    """Return what a danger forbids now."""
    if found.is_intermittent:
        return (Act.SIGN_OFF,)
    acts = FORBIDS[found.id]
    if found.id is DangerId.INSULATION and (is_part_off(found, walk) or _is_current_settled(found, walk)):
        return tuple(act for act in acts if act is not Act.POWER)
    return acts


def _is_settled(found: Found, walk: Walk) -> bool:
    """Tell whether a line that read bad and good again is done with, or comes and goes."""
    if found.id not in _MEASURED_LINES or not found.is_measured or found.is_corrected or found.line == OUTLET_LINE:
        return True
    marks = walk.marks
    changed = (
        marks.change if found.part is None else max(marks.changed.get(found.part, 0), marks.earths.get(found.part, 0))
    )
    return changed > found.since or walk.row.get(found.line, 0) >= ROWS_THAT_SETTLE


def _lifters(found: Found, walk: Walk) -> frozenset[str]:
    """Return the records that lifted a danger: whatever of its lines read good after it."""
    return frozenset(row.id for row in walk.good.values() if row.order > found.since)


def _is_current_settled(found: Found, walk: Walk) -> bool:
    """Tell whether power may come back after a current over its limit: earth and insulation read good after it."""
    if not is_of_current(found.line):
        return False
    missing = (*earth_needs(found.since, walk, found.terms), *insulation_needs(found.since, walk, found.terms))
    return not missing


def is_of_current(line: str) -> bool:
    """Tell whether a line is a current to earth, of a test, a leak test or the proof."""
    return line.endswith((" mA", "leakage", "leakage_turned")) or line.startswith("proof.")


def _of_shock(found: Found, walk: Walk) -> Iterator[Need]:
    yield from earth_needs(found.since, walk, found.terms)
    yield from insulation_needs(found.since, walk, found.terms)
    if not walk.terms.is_class_ii:
        yield from outlet_needs(found.since, walk)


def _of_trip(found: Found, walk: Walk) -> Iterator[Need]:
    if found.is_again and not _is_as_it_went(found, walk):
        yield Need("the same trip came back: change what is at fault, or read the lines hot or wet, as it went")
    yield from earth_needs(found.since, walk, found.terms)
    yield from insulation_needs(found.since, walk, found.terms, without=found.device in _LEAKS_ONLY)
    if found.device in _LEAKS_ONLY:
        return
    yield from _short_needs(found, walk)
    if found.device is Device.AFCI:
        yield from _look_needs(found, walk)


def _is_as_it_went(found: Found, walk: Walk) -> bool:
    """Tell whether something was changed since, or the insulation was read warm."""
    whole = walk.good.get(WHOLE_LINE)
    is_hot = whole is not None and whole.order > found.since and _is_warm(whole)
    return walk.marks.change > found.since or is_hot


WARM_C = 40.0


def _is_warm(row: Evidence) -> bool:
    return row.reading is not None and row.reading.celsius >= WARM_C


def _short_needs(found: Found, walk: Walk) -> Iterator[Need]:
    """Yield line to neutral at the plug, and each load that a relay holds open, where they were not read."""
    least = least_across_ohm(walk.terms.sheet, found.moment)
    row = walk.good.get(ACROSS_LINE) or walk.latest.get(ACROSS_LINE)
    is_shown = row is not None and row.order > found.since and _is_over(row, least)
    if not is_shown:
        over = show_value(least, Unit.OHM, figures=2)
        yield Need(
            f"no short from line to neutral at the plug, door shut, switched on: over {over}",
            "cord across ",
        )
    for load in held_open(walk.terms.sheet, found.moment):
        if not _is_load_read(load, found.since, walk):
            yield Need(
                f"{load.title}, which a relay holds open: over {show_value(load.least_ohm, Unit.OHM, figures=2)}",
                load.typed,
            )


def _is_over(row: Evidence, least: float) -> bool:
    is_ohms = row.reading is not None and row.reading.function in {Function.OHM, Function.CONTINUITY}
    is_machine = row.reading is not None and not row.reading.override and row.reading.supersedes is None
    return is_ohms and is_machine and row.interval.lo >= least


def _is_load_read(load: LoadHeldOpen, since: int, walk: Walk) -> bool:
    for lines in load.lines:
        rows = [walk.latest.get(line) for line in lines]
        if all(row is not None and row.order > since and row.interval.lo >= load.least_of(row.line) for row in rows):
            return True
    return False


def _look_needs(found: Found, walk: Walk) -> Iterator[Need]:
    """Yield what is looked at after an arc: cord, brushes, tags."""
    for name, (_, check) in looks(walk.terms.sheet).items():
        is_wanted = name.partition(".")[2] in AFCI_LOOKS
        seen = max(walk.when(f"seen {name}"), walk.when("seen cord") if name.endswith("look_cord") else -1)
        if is_wanted and seen <= found.since:
            yield Need(f"look at it: {check.title.lower()}")


def _of_smell(found: Found, walk: Walk) -> Iterator[Need]:
    if walk.when(f"place {Hazard.BURNT_SMELL}") <= found.since:
        yield Need("note the place that smells")
    yield from earth_needs(found.since, walk, found.terms)
    yield from insulation_needs(found.since, walk, found.terms)


def _of_water(found: Found, walk: Walk) -> Iterator[Need]:
    if walk.when(f"place {Hazard.WATER_INSIDE}") <= found.since:
        yield Need("dry it, and note where the water came from")
    yield from insulation_needs(found.since, walk, found.terms)


def _of_earth(found: Found, walk: Walk) -> Iterator[Need]:
    if found.line == OUTLET_LINE:
        yield from outlet_needs(found.since, walk)
        return
    part = found.part
    if not found.is_measured and part is not None:
        off, back = walk.earths.get(part, (found.since, None))
        if back is None:
            yield Need(f"put the earth back on the {part_title(part, walk.terms)}")
        since = off if back is None else back
    else:
        since = found.since
    if not is_good(found.line, since, walk, found.terms):
        yield need_of(found.line, walk.terms)


def _of_insulation(found: Found, walk: Walk) -> Iterator[Need]:
    if is_good(found.line, found.since, walk, found.terms):
        return
    part = found.part
    if part is not None and walk.marks.changed.get(part, 0) > found.since:
        own, changed = insulation_lines_of(part, walk.terms), walk.marks.changed[part]
        if any(is_good(line, changed, walk, found.terms) for line in own):
            return
        if own:
            yield need_of(own[0], walk.terms)
            return
    if found.line.startswith("proof."):
        yield Need(f"measure the {title_of(found.line, walk.terms)} again in Prove")
    elif is_leak_test(found.line):
        yield Need(f"the same {title_of(found.line, walk.terms)} again, inside its limit")
    else:
        yield need_of(found.line, walk.terms)


def _of_cord(found: Found, walk: Walk) -> Iterator[Need]:
    changed = walk.marks.changed.get("cord", 0)
    if changed <= found.since:
        yield Need("mend or replace the cord, and note it")
    for line in ("cord.l", "cord.n", EARTH_LINE, WHOLE_LINE):
        is_asked = line != EARTH_LINE or not walk.terms.is_class_ii
        if (
            is_asked
            and named_test(line, walk.terms)
            and not is_good(line, max(found.since, changed), walk, found.terms)
        ):
            yield need_of(line, walk.terms)


def _of_bypass(found: Found, walk: Walk) -> Iterator[Need]:
    out, changed = walk.when("bypass out"), walk.marks.changed.get(found.part or "", 0)
    since = found.since
    if not found.is_measured:
        since = max(out, changed)
        if since <= found.since:
            yield Need("take the bypass out or change the part, and note it")
            since = found.since
    for line in interlock_lines(walk.terms, found.part):
        if not is_good(line, since, walk, found.terms):
            yield need_of(line, walk.terms)


def _of_contact(found: Found, walk: Walk) -> Iterator[Need]:
    row = walk.good.get(found.line)
    is_amps = found.line.partition(".")[2].startswith("amps_")
    if is_amps and row is not None and row.order > found.since:
        return
    if not is_good(found.line, found.since, walk, found.terms):
        yield need_of(found.line, walk.terms)


def _of_dry(found: Found, walk: Walk) -> Iterator[Need]:
    lines = [
        f"{part.id}.{spec.name}"
        for part in walk.terms.sheet.with_role(Role.LEVEL)
        for spec in part.tests()
        if spec.function is not Function.INSULATION and spec.name != "earth"
    ]
    for line in lines:
        if not is_good(line, found.since, walk, found.terms):
            yield need_of(line, walk.terms)


def _of_charge(found: Found, walk: Walk) -> Iterator[Need]:
    changed = walk.marks.changed.get(found.part or "", 0)
    if changed <= found.since:
        yield Need(f"mend or replace the {part_title(found.part or '', walk.terms)}, and note it")
    if not is_good(found.line, max(found.since, changed), walk, found.terms):
        yield need_of(found.line, walk.terms)


def _of_live(found: Found, walk: Walk) -> Iterator[Need]:
    if walk.cut is None or walk.cut_order <= found.since:
        yield Need("cut it off: pull the plug, or lock it off")
    elif max(walk.when("dead"), walk.when("hand")) <= found.since:
        yield Need("prove it dead", "source ")


_NEEDS = {
    DangerId.SHOCK: _of_shock,
    DangerId.TRIP: _of_trip,
    DangerId.BURNT_SMELL: _of_smell,
    DangerId.WATER_INSIDE: _of_water,
    DangerId.EARTH: _of_earth,
    DangerId.INSULATION: _of_insulation,
    DangerId.CORD: _of_cord,
    DangerId.BYPASS: _of_bypass,
    DangerId.CONTACT: _of_contact,
    DangerId.DRY: _of_dry,
    DangerId.CHARGE: _of_charge,
    DangerId.LIVE_THOUGH_FORBIDDEN: _of_live,
}
