"""What lifts a danger: the lines that must read good after it, and whether they did."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, replace

from ohmcensus.core.event import Hazard
from ohmcensus.core.judgement.passes import (
    EARTH_LINE,
    WHOLE_LINE,
    Pass,
    earth_line_of,
    insulation_lines_of,
    named_test,
)
from ohmcensus.core.judgement.whole import LoadHeldOpen, held_open, hidden_from_plug, least_across_ohm
from ohmcensus.core.machine.asked import looks
from ohmcensus.core.machine.net import nets_of
from ohmcensus.core.meter import Function
from ohmcensus.core.quantity import Unit, show_value
from ohmcensus.core.safety.danger import INTERLOCKS, OUTLET_LINE, Found, title_of
from ohmcensus.core.safety.evidence import Evidence
from ohmcensus.core.safety.walk import Walk
from ohmcensus.core.safety.words import FORBIDS, Act, DangerId
from ohmcensus.core.symptom import Device
from ohmcensus.core.terms import Terms
from ohmcensus.core.trip.of_case import leaky_parts
from ohmcensus.core.trip.problem import Method

# Kinds whose lines tell the level of the water.
LEVEL_KINDS = frozenset({"pressure_switch", "level_sensor"})
ACROSS_LINE = "cord.across"
# Line to earth at a good outlet, as a share of line to neutral; neutral to earth at most so much (SAFETY).
LINE_TO_EARTH, NEUTRAL_TO_EARTH_V = 0.8, 5.0
ROWS_THAT_SETTLE = 3
# Frame or hull of a boat and the earth of its outlet, on a supply whose neutral is not earthed (SAFETY).
HULL_OHM = 1.0
HULL_LINE = "chassis outlet.pe"
_LEAKS_ONLY = frozenset({Device.RCD, Device.GFCI})
AFCI_LOOKS = ("look_cord", "look_commutator", "look_chafe")
_MEASURED_LINES = frozenset({DangerId.EARTH, DangerId.INSULATION, DangerId.CONTACT})


@dataclass(frozen=True, slots=True)
class Need:
    """One thing that is still missing: in words, and what to type for it (empty where it is no reading)."""

    words: str
    typed: str = ""


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
    if found.id is DangerId.INSULATION and (_is_part_off(found, walk) or _is_current_settled(found, walk)):
        return tuple(act for act in acts if act is not Act.POWER)
    return acts


def is_good(line: str, since: int, walk: Walk, then: Terms | None = None) -> bool:
    """Tell whether a line read good after a record, on the terms of then and of now."""
    row = walk.good.get(line)
    if row is None or row.order <= since or row.result(walk.terms) is not Pass.GOOD:
        return False
    return then is None or then is walk.terms or row.result(then) is Pass.GOOD


def earth_needs(since: int, walk: Walk, then: Terms | None = None) -> Iterator[Need]:
    """Yield the earth of the whole machine, where it was not shown after a record; class II has none."""
    if not walk.terms.is_class_ii and not is_good(EARTH_LINE, since, walk, then):
        yield need_of(EARTH_LINE, walk.terms)


def insulation_needs(since: int, walk: Walk, then: Terms | None = None, *, without: bool = False) -> Iterator[Need]:
    """Yield the insulation of the whole machine and of each part that the plug does not see.

    Parameters
    ----------
    since
        Order of the record after which it must have been shown.
    walk, then
        Where the job stands; the terms of then.
    without
        Whether a leak test without the part that is off will do in the place of the whole.
    """
    if without and _is_good_without(walk):
        return
    if not is_good(WHOLE_LINE, since, walk, then):
        yield need_of(WHOLE_LINE, walk.terms)
    for part in hidden_from_plug(walk.terms):
        lines = insulation_lines_of(part, walk.terms)
        if lines and not any(is_good(line, since, walk, then) for line in lines):
            yield need_of(lines[0], walk.terms)


def own_needs(part: str, walk: Walk) -> Iterator[Need]:
    """Yield a changed part's own earth, and its own or the whole insulation, where they were not read after it."""
    terms, since = walk.terms, walk.marks.own.get(part, 0)
    sheet_part = terms.sheet.part(part)
    if sheet_part is None:
        return
    if sheet_part.is_earthed and not terms.is_class_ii and not is_good(earth_line_of(part), since, walk):
        yield need_of(earth_line_of(part), terms)
    own = insulation_lines_of(part, terms)
    is_hidden = part in hidden_from_plug(terms)
    is_shown = any(is_good(line, since, walk) for line in own) or (not is_hidden and is_good(WHOLE_LINE, since, walk))
    if (own or _is_mains(part, terms)) and not is_shown:
        yield need_of(own[0] if own and is_hidden else WHOLE_LINE, terms)


def need_of(line: str, terms: Terms) -> Need:
    """Return a line as something that is missing, with what is typed for it."""
    test = named_test(line, terms)
    if test is None:
        return Need(f"{title_of(line, terms)} must read good", f"between {line} ")
    return Need(f"{title_of(line, terms)}: {test.window.shown}", f"{test.part} {test.name} ")


def _is_mains(part: str, terms: Terms) -> bool:
    from_plug = part_points(part, terms)
    return bool(from_plug)


def part_points(part: str, terms: Terms) -> frozenset[str]:
    """Return the points of a part that mains comes to."""
    return frozenset(point for point in nets_of(terms.sheet).mains if point.partition(".")[0] == part)


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


def _is_part_off(found: Found, walk: Walk) -> bool:
    """Tell whether the part that failed is off and a later leak test of all the rest was good.

    Where the whole machine failed, the part is whichever is off.
    """
    off = parts_off(walk)
    if not off or (found.part is not None and found.part not in off):
        return False
    leaky = {row.id for row in leaky_parts(walk.terms.sheet, Method.INSULATION)}
    return any(
        row.order > found.since
        and leaky - row.connected <= off
        and found.part not in row.connected
        and row.connected < leaky
        and row.result(walk.terms) is Pass.GOOD
        for row in walk.good.values()
        if row.connected
    )


def parts_off(walk: Walk) -> frozenset[str]:
    """Return the parts of which a plug is noted off."""
    plugs = walk.terms.sheet.plugs
    return frozenset(part for name in walk.plugs_off if name in plugs for part in plugs[name].parts)


def _is_good_without(walk: Walk) -> bool:
    """Tell whether the insulation holds but for a part that is off."""
    rows = [row for row in walk.found if row.id is DangerId.INSULATION]
    return bool(rows) and all(_is_part_off(row, walk) for row in rows)


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
        yield from _outlet_needs(found.since, walk)


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
        yield from _outlet_needs(found.since, walk)
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
    elif found.line.startswith("leak test"):
        yield Need(f"the same {found.line.removesuffix(' mA')} again, inside its limit")
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


def interlock_lines(terms: Terms, part: str | None) -> tuple[str, ...]:
    """Return the lines that show an interlock to open and to shut; of every interlock where none is named."""
    rows = [row for row in terms.sheet.parts if row.kind in INTERLOCKS]
    named = [row for row in rows if row.id == part] or rows
    return tuple(f"{row.id}.{name}" for row in named for name in INTERLOCKS[row.kind])


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
        for part in walk.terms.sheet.parts
        if part.kind in LEVEL_KINDS
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


def part_title(part: str, terms: Terms) -> str:
    """Return a part in print."""
    found = terms.sheet.part(part)
    return found.title.lower() if found else part


def _outlet_needs(since: int, walk: Walk) -> Iterator[Need]:
    """Yield the three voltages of the outlet; its earth to the hull where they decide nothing."""
    if not is_neutral_earthed(walk):
        row = walk.latest.get(HULL_LINE)
        if row is None or row.order <= since or row.interval.hi > HULL_OHM:
            yield Need(f"earth of the outlet to frame or hull: at most {HULL_OHM:g} Ω", "between outlet.pe chassis ")
        return
    rows = {name: walk.latest.get(f"outlet.{name}") for name in ("ln", "le", "ne")}
    late = {name: row for name, row in rows.items() if row is not None and row.order > since}
    if len(late) == len(rows) and is_outlet_good(late, walk.terms):
        return
    yield Need("outlet, line to neutral, line to earth, neutral to earth: all three good", "outlet ln ")


def is_outlet_good(rows: dict[str, Evidence], terms: Terms) -> bool:
    """Tell whether three voltages are those of a good outlet; either way round where the plug can be turned."""
    full = LINE_TO_EARTH * rows["ln"].interval.hi
    ways = [(rows["le"], rows["ne"])] + ([(rows["ne"], rows["le"])] if terms.sheet.is_plug_reversible else [])
    has_line = rows["ln"].interval.lo >= LINE_TO_EARTH * terms.sheet.volts
    return has_line and any(far.interval.lo >= full and near.interval.hi <= NEUTRAL_TO_EARTH_V for far, near in ways)


def is_neutral_earthed(walk: Walk) -> bool:
    """Tell whether the outlet's neutral is earthed, by what is noted of the circuit."""
    noted = walk.circuit
    return noted is None or noted.supply.is_neutral_earthed


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
