"""What has to read good again: of a part, of the earth and the insulation of the machine, of the outlet."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

from ohmcensus.core.acts import Act, ActId, go
from ohmcensus.core.judgement.passes import (
    EARTH_LINE,
    WHOLE_LINE,
    Pass,
    earth_line_of,
    insulation_lines_of,
    is_mild,
    named_test,
)
from ohmcensus.core.judgement.whole import hidden_from_plug
from ohmcensus.core.limits.terms import Terms
from ohmcensus.core.machine.net import nets_of
from ohmcensus.core.meter import Function
from ohmcensus.core.parts.kind import Role
from ohmcensus.core.safety.danger import Found, title_of
from ohmcensus.core.safety.evidence import PROOF_LINE, Evidence, is_leak_test
from ohmcensus.core.safety.measured import is_outlet_pending
from ohmcensus.core.safety.walk import Walk
from ohmcensus.core.safety.whole import arrester_parts, has_arrester, is_plug_turned_freely, parts_off
from ohmcensus.core.safety.words import DangerId
from ohmcensus.core.trip.of_case import leaky_parts
from ohmcensus.core.trip.problem import Method

# Line to earth at a good outlet, as a share of line to neutral; neutral to earth at most so much (SAFETY).
LINE_TO_EARTH, NEUTRAL_TO_EARTH_V = 0.8, 5.0
# Frame or hull of a boat and the earth of its outlet, on a supply whose neutral is not earthed (SAFETY).
HULL_OHM = 1.0
HULL_LINE = "chassis outlet.pe"
CORD_LINES = ("cord.l", "cord.n", EARTH_LINE)


@dataclass(frozen=True, slots=True)
class Need:
    """One thing that is still missing.

    Parameters
    ----------
    words
        What to do, as one says it to somebody.
    act
        The way there.
    typed
        What is typed for it, empty where it is no reading.
    look
        The look that is answered for it, empty where it is none.
    """

    words: str
    act: Act
    typed: str = ""
    look: str = ""


def is_good(line: str, since: int, walk: Walk, then: tuple[Terms, ...] = ()) -> bool:
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
        Terms that held as the danger opened, and as it opened anew: the stricter of then and now holds. A sheet that
        has not the line says nothing of it.
    """
    known = [each for each in dict.fromkeys((walk.terms, *then)) if is_known(line, each)]
    for row in walk.goods(line):
        if row.order > since and known and all(row.result(each) is Pass.GOOD for each in known):
            return True
    return False


def is_known(line: str, terms: Terms) -> bool:
    """Tell whether a line is on the sheet: a test, two of its points, a leak test or a current of the proof."""
    if named_test(line, terms) is not None or is_leak_test(line) or line.startswith(PROOF_LINE):
        return True
    points = line.split(" ")
    known = {*terms.sheet.points, "chassis"}
    return len(points) == len(("one", "other")) and known.issuperset(points)


def earth_needs(since: int, walk: Walk, then: tuple[Terms, ...] = ()) -> Iterator[Need]:
    """Yield the earth of the whole machine, where it was not shown after a record; class II has none, then and now."""
    if not is_class_ii(walk, then) and not is_good(EARTH_LINE, since, walk, then):
        yield need_of(EARTH_LINE, walk.terms)


def is_class_ii(walk: Walk, then: tuple[Terms, ...]) -> bool:
    """Tell whether the machine has no earth, on the terms of then and of now."""
    return all(each.is_class_ii for each in (walk.terms, *then))


def insulation_needs(since: int, walk: Walk, then: tuple[Terms, ...] = (), *, without: bool = False) -> Iterator[Need]:
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
    if without and is_good_without(since, walk):
        return
    if not is_good(WHOLE_LINE, since, walk, then):
        yield need_of(WHOLE_LINE, walk.terms)
    for part in hidden_from_plug(walk.terms):
        lines = insulation_lines_of(part, walk.terms)
        if lines and not any(is_good(line, since, walk, then) for line in lines):
            yield need_of(lines[0], walk.terms)


def arrester_needs(since: int, walk: Walk, then: tuple[Terms, ...] = ()) -> Iterator[Need]:
    """Yield the two readings that lift a failure of the whole machine where a surge arrester goes to earth.

    500 V with its earth lead off, and 250 V with it back.
    """
    rows = [row for row in walk.goods(WHOLE_LINE) if row.order > since]
    fine = [row for row in rows if all(row.result(each) is Pass.GOOD for each in (walk.terms, *then))]
    title, act = title_of(WHOLE_LINE, walk.terms), _to_line(WHOLE_LINE, walk.terms)
    if not any(row.is_lead_off for row in fine):
        yield Need(f"measure {title} at 500 V with the earth lead of the arrester off", act, "cord insulation ")
    if not any(row.reading is not None and is_mild(row.reading) for row in fine):
        yield Need(f"measure {title} at 250 V with the earth lead of the arrester back", act, "cord insulation ")


def is_whole_line_of_arrester(line: str, walk: Walk) -> bool:
    """Tell whether a line is the whole machine's, of one on which a surge arrester goes to earth."""
    return line == WHOLE_LINE and has_arrester(walk)


def changed_needs(walk: Walk) -> Iterator[tuple[str, Need]]:
    """Yield what is asked before power of changed parts and of the cord's ends, each with what was done."""
    for part in dict.fromkeys((*walk.marks.changed, *walk.marks.earths)):
        for need in own_needs(part, walk):
            what = "was changed" if part in walk.marks.changed else "had its earth off"
            yield f"the {part_title(part, walk.terms)} {what} and is not read since", need
    if walk.marks.ends:
        for need in cord_needs(walk.marks.ends, walk):
            yield "the ends of the cord were off and are not read since", need


def own_needs(part: str, walk: Walk) -> Iterator[Need]:
    """Yield a changed part's own earth, and its own or the whole insulation, where they were not read after it.

    What carries the protective conductor, a cord, a plug or a terminal block, asks its three cores and the whole.
    """
    terms, since = walk.terms, walk.marks.own.get(part, 0)
    sheet_part = terms.sheet.part(part)
    if sheet_part is None:
        return
    if is_of_cord(part, terms):
        yield from cord_needs(since, walk)
        if not is_good(WHOLE_LINE, since, walk):
            yield need_of(WHOLE_LINE, terms)
        return
    if sheet_part.is_earthed and not terms.is_class_ii and not is_good(earth_line_of(part), since, walk):
        yield need_of(earth_line_of(part), terms)
    if part in arrester_parts(walk) and part not in walk.marks.changed:
        # Its lead comes off for the insulation test itself, and going back it voids none.
        return
    own = insulation_lines_of(part, terms)
    is_hidden = part in hidden_from_plug(terms)
    is_shown = any(is_good(line, since, walk) for line in own) or (not is_hidden and is_good(WHOLE_LINE, since, walk))
    if (own or _is_mains(part, terms)) and not is_shown:
        yield need_of(own[0] if own and is_hidden else WHOLE_LINE, terms)


def is_of_cord(part: str, terms: Terms) -> bool:
    """Tell whether a part carries the protective conductor into the machine: cord, plug, terminal block."""
    known = terms.sheet.part(part)
    return known is not None and known.traits.role in {Role.CORD, Role.FUSE} and _is_before_filter(part, terms)


def _is_before_filter(part: str, terms: Terms) -> bool:
    """Tell whether a fuse sits in the plug: a board's fuse does not carry the cord."""
    known = terms.sheet.part(part)
    return known is not None and (known.traits.role is Role.CORD or known.kind == "plug_fuse")


def cord_needs(since: int, walk: Walk, then: tuple[Terms, ...] = ()) -> Iterator[Need]:
    """Yield the three cores of the cord, where they were not read after a record."""
    for line in CORD_LINES:
        is_asked = line != EARTH_LINE or not walk.terms.is_class_ii
        if is_asked and named_test(line, walk.terms) and not is_good(line, since, walk, then):
            yield need_of(line, walk.terms)


def need_of(line: str, terms: Terms) -> Need:
    """Return a line as something that is missing: what to measure, with what, and what it should read."""
    test = named_test(line, terms)
    act = _to_line(line, terms)
    if test is None:
        return Need(f"measure {title_of(line, terms)} again, until it reads good", act, f"between {line} ")
    by = {
        Function.INSULATION: " at 500 V",
        Function.CONTINUITY: " by a tester that drives 0.2 A" if test.weaker and test.weaker.proves_nothing else "",
    }.get(test.function, "")
    return Need(f"measure {title_of(line, terms)}{by}: {test.window.shown}", act, f"{test.part} {test.name} ")


def _to_line(line: str, terms: Terms) -> Act:
    test = named_test(line, terms)
    title = f"{test.part_title}: {test.title}" if test else title_of(line, terms)
    return go(ActId.MEASURE, f"Measure: {title}", "trace", line if test else "")


def _is_mains(part: str, terms: Terms) -> bool:
    return bool(part_points(part, terms))


def part_points(part: str, terms: Terms) -> frozenset[str]:
    """Return the points of a part that mains comes to."""
    return frozenset(point for point in nets_of(terms.sheet).mains if point.partition(".")[0] == part)


def is_part_off(found: Found, walk: Walk) -> bool:
    """Tell whether the part that failed is off and a later leak test of all the rest was good.

    Where the whole machine failed, the part is whichever is off.
    """
    return is_rest_good(found, found.since, walk)


def is_rest_good(found: Found, since: int, walk: Walk) -> bool:
    """Tell whether the part that failed is off, and a leak test of all the rest was good after a record."""
    off = parts_off(walk) & _asked_by(found.line) if is_leak_test(found.line) else parts_off(walk)
    if not off or (found.part is not None and found.part not in off):
        return False
    leaky = {row.id for row in leaky_parts(walk.terms.sheet, Method.INSULATION)}
    return any(
        row.order > since
        and leaky - row.connected <= off
        and found.part not in row.connected
        and row.connected < leaky
        and row.result(walk.terms) is Pass.GOOD
        for line in walk.rows
        for row in walk.goods(line)
        if row.connected
    )


def _asked_by(leak_test: str) -> frozenset[str]:
    """Return the parts that were connected in a leak test, by its line."""
    return frozenset(leak_test.split(" ")[2:])


def off_under_insulation(walk: Walk) -> frozenset[str]:
    """Return the parts that are off since they leak, with all the rest shown good: there is power without them."""
    rows = [row for row in walk.found if row.id is DangerId.INSULATION and is_part_off(row, walk)]
    off = parts_off(walk)
    named = {row.part for row in rows if row.part is not None}
    return frozenset(off if any(row.part is None for row in rows) else named & off)


def is_good_without(since: int, walk: Walk) -> bool:
    """Tell whether the insulation holds but for a part that is off, read after a record."""
    rows = [row for row in walk.found if row.id is DangerId.INSULATION]
    return bool(rows) and all(is_rest_good(row, max(since, row.since), walk) for row in rows)


def part_title(part: str, terms: Terms) -> str:
    """Return a part in print."""
    found = terms.sheet.part(part)
    return found.title.lower() if found else part


def outlet_rows(walk: Walk) -> dict[str, Evidence]:
    """Return the last voltage of each pair of the outlet, read since another outlet was named."""
    since = walk.when("outlet named")
    rows = {name: walk.latest(f"outlet.{name}") for name in ("ln", "le", "ne")}
    return {name: row for name, row in rows.items() if row is not None and row.order > since}


def outlet_needs(since: int, walk: Walk) -> Iterator[Need]:
    """Yield the three voltages of the outlet; its earth to the hull where they decide nothing."""
    act = go(ActId.READ_OUTLET, "Read the outlet", "intake", "outlet")
    if not is_neutral_earthed(walk):
        row = walk.latest(HULL_LINE)
        if row is None or row.order <= since or row.interval.hi > HULL_OHM:
            words = f"measure from the outlet's earth to frame or hull: at most {HULL_OHM:g} Ω"
            yield Need(words, act, "between outlet.pe chassis ")
        return
    late = {name: row for name, row in outlet_rows(walk).items() if row.order > since}
    if len(late) == len(("ln", "le", "ne")) and is_outlet_good(late, walk):
        return
    first = next((name for name in ("ln", "le", "ne") if name not in late), "ln")
    words = "read the outlet with the machine's plug out: line to neutral, line to earth, neutral to earth, all good"
    yield Need(words, act, f"outlet {first} ")


def outlet_pending(walk: Walk) -> Need | None:
    """Return what is missing where line to earth reads low at an outlet that may be turned; None where nothing is."""
    rows = {name: row.interval for name, row in outlet_rows(walk).items()}
    is_free = is_plug_turned_freely(walk) and is_neutral_earthed(walk)
    if not is_outlet_pending(rows, walk.terms, is_reversible=is_free):
        return None
    return Need("read neutral to earth too", go(ActId.READ_OUTLET, "Read the outlet", "intake", "outlet"), "outlet ne ")


def is_outlet_good(rows: dict[str, Evidence], walk: Walk) -> bool:
    """Tell whether three voltages are those of a good outlet; either way round where the plug can be turned."""
    full = LINE_TO_EARTH * rows["ln"].interval.hi
    ways = [(rows["le"], rows["ne"])] + ([(rows["ne"], rows["le"])] if is_plug_turned_freely(walk) else [])
    has_line = rows["ln"].interval.lo >= LINE_TO_EARTH * walk.terms.sheet.volts
    return has_line and any(far.interval.lo >= full and near.interval.hi <= NEUTRAL_TO_EARTH_V for far, near in ways)


def is_neutral_earthed(walk: Walk) -> bool:
    """Tell whether the outlet's neutral is earthed, by what is noted of the circuit."""
    noted = walk.circuit
    return noted is None or noted.supply.is_neutral_earthed
