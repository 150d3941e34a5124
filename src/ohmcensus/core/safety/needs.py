"""What has to read good again: of a part, of the earth and the insulation of the machine, of the outlet."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

from ohmcensus.core.judgement.passes import (
    EARTH_LINE,
    WHOLE_LINE,
    Pass,
    earth_line_of,
    insulation_lines_of,
    named_test,
)
from ohmcensus.core.judgement.whole import hidden_from_plug
from ohmcensus.core.limits.terms import Terms
from ohmcensus.core.machine.net import nets_of
from ohmcensus.core.safety.danger import Found, title_of
from ohmcensus.core.safety.evidence import Evidence
from ohmcensus.core.safety.walk import Walk
from ohmcensus.core.safety.words import DangerId
from ohmcensus.core.trip.of_case import leaky_parts
from ohmcensus.core.trip.problem import Method

# Line to earth at a good outlet, as a share of line to neutral; neutral to earth at most so much (SAFETY).
LINE_TO_EARTH, NEUTRAL_TO_EARTH_V = 0.8, 5.0
# Frame or hull of a boat and the earth of its outlet, on a supply whose neutral is not earthed (SAFETY).
HULL_OHM = 1.0
HULL_LINE = "chassis outlet.pe"


@dataclass(frozen=True, slots=True)
class Need:
    """One thing that is still missing: in words, and what to type for it (empty where it is no reading)."""

    words: str
    typed: str = ""


def is_good(line: str, since: int, walk: Walk, then: Terms | None = None) -> bool:
    """Tell whether a line read good after a record, on the terms of then and of now.

    Parameters
    ----------
    line
        Which line.
    since
        Revision after which it must have been read.
    walk
        The log as read so far.
    then
        Terms at the moment of the danger: the stricter of then and now holds.
    """
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
    if without and is_good_without(walk):
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


def is_part_off(found: Found, walk: Walk) -> bool:
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


def is_good_without(walk: Walk) -> bool:
    """Tell whether the insulation holds but for a part that is off."""
    rows = [row for row in walk.found if row.id is DangerId.INSULATION]
    return bool(rows) and all(is_part_off(row, walk) for row in rows)


def interlock_lines(terms: Terms, part: str | None) -> tuple[str, ...]:
    """Return the lines that show an interlock to open and to shut; of every interlock where none is named."""
    rows = [(row.id, row.part_kind.interlock) for row in terms.sheet.parts if row.part_kind.interlock]
    named = [row for row in rows if row[0] == part] or rows
    return tuple(f"{name}.{test}" for name, lock in named for test in (lock.at_rest, lock.held))


def part_title(part: str, terms: Terms) -> str:
    """Return a part in print."""
    found = terms.sheet.part(part)
    return found.title.lower() if found else part


def outlet_needs(since: int, walk: Walk) -> Iterator[Need]:
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
