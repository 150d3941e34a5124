"""What a measured line opens: an earth that does not hold, a leak, a bad core, a contact that is closed, an outlet."""

from __future__ import annotations

from collections.abc import Mapping
from functools import lru_cache

from ohmcensus.core.judgement.passes import Pass, named_test, part_of
from ohmcensus.core.limits.terms import Terms
from ohmcensus.core.machine.feeds import fed_part
from ohmcensus.core.machine.net import Crossing, nets_of
from ohmcensus.core.machine.netlist import elements_of
from ohmcensus.core.machine.uncalled import STUCK_SHARE, UNCALLED, load_ohm
from ohmcensus.core.meter import Function
from ohmcensus.core.parts.kind import Role
from ohmcensus.core.quantity import Interval, show_value
from ohmcensus.core.safety.danger import Found, title_of
from ohmcensus.core.safety.evidence import Evidence
from ohmcensus.core.safety.words import DangerId
from ohmcensus.core.sheet import Sheet
from ohmcensus.core.symptom import Device

_OHMS = frozenset({Function.OHM, Function.CONTINUITY, Function.INSULATION})
_CORES = frozenset({"cord.l", "cord.n"})
_CORD_LINES = _CORES | {"cord.cores", "cord.l_joint", "cord.n_joint"}
# Line to neutral at a good outlet is at least this share of the rated voltage, line to earth of that (SAFETY).
FULL = 0.8
# A current over the loads of its step by half a heater means that a heater runs beside them (SAFETY).
HALF = 0.5
AMPS = "amps_"
# Across more than this a meter of high impedance shows volts that nothing feeds (SAFETY).
GHOSTS_FROM_OHM, LOW_IMPEDANCE_OHM = 100e3, 500e3
WELDED = "door contact closed with the door unlocked: welded, or bridged"
NO_EARTH, REVERSED = "the outlet has no earth", "line and neutral are reversed at the outlet"


def measured(row: Evidence, terms: Terms) -> Found | None:
    """Return the danger that a line opens where it surely breaks its limit, None where it does not."""
    kind, words, headline = _opens(row, terms)
    if kind is None:
        return None
    part = _part_of(row, terms)
    device = Device.FUSE if kind is DangerId.TRIP else Device.UNKNOWN
    return Found(
        kind,
        row.line,
        words,
        row.order,
        row.at,
        terms,
        is_measured=True,
        record=row.id,
        part=part,
        device=device,
        headline=headline,
    )


def _part_of(row: Evidence, terms: Terms) -> str | None:
    """Return the part whose line it is; a leak test of several is no part's."""
    if row.connected:
        return next(iter(row.connected)) if len(row.connected) == 1 else None
    return part_of(row.line, terms)


def _opens(row: Evidence, terms: Terms) -> tuple[DangerId | None, str, str]:
    """Return which danger a line opens, with what was found, and what it is called where not as the danger."""
    over = _over_its_loads(row, terms)
    if over:
        return DangerId.CONTACT, over, ""
    if is_fed_uncalled(row, terms):
        step = f" in {row.reading.step}" if row.reading is not None and row.reading.step else ""
        return DangerId.CONTACT, f"{title_of(row.line, terms)}{step} reads {row.shows}: nothing calls it", ""
    if row.result(terms) is not Pass.BAD and not _is_open_at_worst(row, terms):
        return None, "", ""
    limit = row.limit(terms)
    words = f"{title_of(row.line, terms)} reads {row.shows}" + (f", should read {limit}" if limit else "")
    kind = _kind_of(row, terms)
    return kind, words, WELDED if kind is DangerId.BYPASS else ""


def _is_open_at_worst(row: Evidence, terms: Terms) -> bool:
    """Tell whether the worst end of a core that was bent while it was read surely breaks its limit."""
    test = named_test(row.line, terms)
    if row.line not in _CORES or row.reading is None or test is None or not row.reading.indication.has_moved:
        return False
    meter, function = row.reading.meter, row.reading.function
    ends = (meter.interval_of(end, function) for end in row.reading.indication.ends)
    return max(end.lo for end in ends) > test.window.interval.hi


def _kind_of(row: Evidence, terms: Terms) -> DangerId | None:
    """Return which danger a line opens when it is bad."""
    if row.reading is None or row.reading.function is Function.LEAKAGE:
        return DangerId.INSULATION
    if row.line in _CORD_LINES:
        return DangerId.CORD
    crossing = nets_of(terms.sheet).crossing(row.reading.between)
    if row.reading.function in _OHMS and crossing is not Crossing.OTHER:
        return DangerId.EARTH if crossing is Crossing.EARTH else DangerId.INSULATION
    return _of_contact(row, terms)


def _of_contact(row: Evidence, terms: Terms) -> DangerId | None:
    """Return the danger of a contact that is closed at rest, or of a fuse that is open."""
    part_id, _, name = row.line.partition(".")
    part, test = terms.sheet.part(part_id), named_test(row.line, terms)
    if part is None or test is None:
        return None
    is_low = row.interval.hi < test.window.interval.lo
    lock = part.part_kind.interlock
    if lock is not None and name == lock.at_rest:
        return DangerId.BYPASS if is_low else None
    if is_low and is_contact_line(row.line):
        return DangerId.CONTACT
    is_fuse = name == "fuse" or part.traits.role is Role.FUSE
    return DangerId.TRIP if is_fuse and row.interval.lo > test.window.interval.hi else None


def is_contact_line(line: str) -> bool:
    """Tell whether a line reads a contact that has to be open at rest."""
    name = line.partition(".")[2]
    return name == "relay" or name.endswith("_rest")


def _over_its_loads(row: Evidence, terms: Terms) -> str:
    """Say what a step draws, where that is half a heater more than its own loads; empty where it is not."""
    test = named_test(row.line, terms)
    if row.reading is None or test is None or not test.name.startswith(AMPS):
        return ""
    own = test.window.nominal or 0.0
    if not row.interval.lo > own + HALF * smallest_heater_a(terms.sheet):
        return ""
    return f"{test.title} reads {row.shows}, its loads take {show_value(own, test.window.unit)}"


@lru_cache(maxsize=64)
def smallest_heater_a(sheet: Sheet) -> float:
    """Return what the smallest heating load takes that is switched by itself, in amperes; infinite without a heater.

    I = P/U. Of loads that no contact of their own switches each counts as one that has.
    """
    watts = {part.id: float(getattr(part.ratings, "watts", 0.0)) for part in sheet.parts if part.traits.is_heating}
    own = {
        fed_part(sheet, part.id, element.name)
        for part in sheet.parts
        for element in elements_of(sheet, part.id)
        if element.contact
    }
    switched = [value for name, value in watts.items() if name in own] or list(watts.values())
    return min((value / sheet.volts for value in switched if value), default=float("inf"))


def is_fed_uncalled(row: Evidence, terms: Terms) -> bool:
    """Tell whether a load that is not called surely has over half of the supply at its tags.

    Across a load of under 100 kΩ any meter shows what is there; across more only one of at most 500 kΩ does.
    """
    if row.reading is None or not row.line.endswith(f".{UNCALLED}"):
        return False
    is_sure = load_ohm(terms.sheet, row.line.partition(".")[0]) < GHOSTS_FROM_OHM
    is_sure |= row.reading.meter.input_impedance_ohm <= LOW_IMPEDANCE_OHM
    return is_sure and row.interval.lo > STUCK_SHARE * terms.sheet.volts


def outlet_found(rows: Mapping[str, Interval], terms: Terms, *, is_reversible: bool) -> str:
    """Say what two or three voltages surely show of an outlet; empty where they show nothing bad.

    Parameters
    ----------
    rows
        What was read, by "ln", "le", "ne"; volts.
    terms
        Sheet, class and limits.
    is_reversible
        Whether the plug goes in either way round: then line to earth alone says nothing.
    """
    line = rows.get("ln")
    if line is None or line.lo < FULL * terms.sheet.volts:
        return ""
    full = FULL * line.lo
    is_low = {name: row.hi < full for name, row in rows.items() if name != "ln"}
    if is_reversible:
        return NO_EARTH if len(is_low) == len(("le", "ne")) and all(is_low.values()) else ""
    is_reversed = "ne" in rows and rows["ne"].lo > FULL * line.hi
    return REVERSED if is_reversed else NO_EARTH if is_low.get("le") else ""


def is_outlet_pending(rows: Mapping[str, Interval], terms: Terms, *, is_reversible: bool) -> bool:
    """Tell whether line to earth reads low at an outlet that may be turned: neutral to earth says which it is."""
    line, low = rows.get("ln"), rows.get("le")
    if not is_reversible or line is None or low is None or "ne" in rows:
        return False
    return line.lo >= FULL * terms.sheet.volts and low.hi < FULL * line.lo
