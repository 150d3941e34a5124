"""What a reading of the whole machine asks: all of it, or all but what is off; before its cord or behind it."""

from __future__ import annotations

from functools import lru_cache

from ohmcensus.core.event import CutOff
from ohmcensus.core.job.reading import Reading
from ohmcensus.core.judgement.passes import WHOLE_LINE, is_mild
from ohmcensus.core.limits.terms import Terms
from ohmcensus.core.machine.net import PLUG_L, PLUG_N, PLUG_PE, joined_points, nets_of
from ohmcensus.core.machine.plugs import WHOLE_LINES, cord_end_plugs, is_bid_off, joins_outlet, mains_parts
from ohmcensus.core.meter import Function
from ohmcensus.core.parts.kind import Role
from ohmcensus.core.safety.walk import Walk
from ohmcensus.core.sheet import Sheet
from ohmcensus.core.trip.of_case import leaky_parts
from ohmcensus.core.trip.problem import Method

_CORD_ENDS = ("cord.end_l", "cord.end_n", "cord.end_pe")
FIXED, ARRESTER = "fixed", "arrester"


def mains_plugs(walk: Walk) -> frozenset[str]:
    """Return the plugs that are off and of which a part carries mains, the one in the outlet left out."""
    sheet = walk.terms.sheet
    live = mains_parts(sheet)
    return frozenset(
        name
        for name in walk.plugs_off
        if name in sheet.plugs and not joins_outlet(name, walk.terms.sheet) and live & {*sheet.plugs[name].parts}
    )


def is_cord_fixed(walk: Walk) -> bool:
    """Tell whether the machine hangs on a cord without a plug: the circuit as noted says so, else its type."""
    noted = walk.circuit.plug if walk.circuit is not None else None
    return (noted or walk.terms.sheet.plug) == FIXED


def is_plug_turned_freely(walk: Walk) -> bool:
    """Tell whether the plug goes in either way round, so that line and neutral may have changed places."""
    noted = walk.circuit.plug if walk.circuit is not None else None
    return noted == "reversible" if noted is not None else walk.terms.sheet.is_plug_reversible


def waits_for_ends(walk: Walk) -> bool:
    """Tell whether 500 V and ohms at the supply wait until the cord is off its terminals.

    A switch may leave one pole joined to the mains, and a fixed cord has no plug that shows where it ends.
    """
    is_joined = walk.cut is CutOff.SWITCHED_OFF or (is_cord_fixed(walk) and walk.cut is not None)
    return is_joined and not cord_end_plugs(walk.terms.sheet) & walk.plugs_off


def ends_are_supply(walk: Walk) -> bool:
    """Tell whether the ends of the cord are off for these tests: then the terminals are the supply."""
    is_joined = walk.cut is CutOff.SWITCHED_OFF or is_cord_fixed(walk)
    return is_joined and bool(cord_end_plugs(walk.terms.sheet) & walk.plugs_off)


@lru_cache(maxsize=64)
def supply_points(sheet: Sheet) -> tuple[frozenset[str], frozenset[str], frozenset[str]]:
    """Return the points of the supply's line, neutral and earth: the plug's pins, the cord's ends, what is joined."""
    joined = joined_points(sheet)

    def reached(*starts: str) -> frozenset[str]:
        return frozenset(point for start in starts for point in joined.get(start, {start}))

    line, neutral = reached(PLUG_L, _CORD_ENDS[0], "supply.l"), reached(PLUG_N, _CORD_ENDS[1], "supply.n")
    return line, neutral, reached(PLUG_PE, _CORD_ENDS[2], "supply.pe") | nets_of(sheet).earth


def is_at_supply(reading: Reading, terms: Terms) -> bool:
    """Tell whether a reading lies between the supply's own poles, or from its neutral to earth."""
    line, neutral, earth = supply_points(terms.sheet)
    one, other = reading.between
    pairs = ((line, neutral), (neutral, earth), (line, earth))
    return any((one in a and other in b) or (other in a and one in b) for a, b in pairs)


def has_arrester(walk: Walk) -> bool:
    """Tell whether it is known that a surge arrester goes to earth: by the sheet, or as it was read on the part."""
    return bool(arrester_parts(walk))


def arrester_parts(walk: Walk) -> frozenset[str]:
    """Return the parts on which a surge arrester is known to go to earth."""
    of_sheet = {part.id for part in walk.terms.sheet.parts if getattr(part.ratings, ARRESTER, False)}
    stamped = {name.removeprefix(f"{ARRESTER} ") for name in walk.outs if name.startswith(f"{ARRESTER} ")}
    return frozenset(of_sheet | stamped)


def parts_off(walk: Walk) -> frozenset[str]:
    """Return the parts of which a plug is noted off."""
    plugs = walk.terms.sheet.plugs
    return frozenset(part for name in walk.plugs_off if name in plugs for part in plugs[name].parts)


def without(reading: Reading, line: str, walk: Walk) -> frozenset[str]:
    """Return the parts that a reading of the whole machine does not ask, since something of them is off.

    Not such are an arrester's earth lead, a plug that comes off before 500 V, and the ends of the cord where they were
    taken off for this very test.
    """
    if line not in WHOLE_LINES:
        return frozenset()
    plugs = {name for name in mains_plugs(walk) if not is_bid_off(name, walk.terms.sheet)}
    if ends_are_supply(walk):
        plugs -= cord_end_plugs(walk.terms.sheet)
    elif cord_end_plugs(walk.terms.sheet) & plugs:
        # The cord alone hangs on the plug: it says nothing of anything behind it.
        cord = {part.id for part in walk.terms.sheet.with_role(Role.CORD)}
        return frozenset(part.id for part in leaky_parts(walk.terms.sheet, Method.INSULATION)) - cord
    known = walk.terms.sheet.plugs
    off = {part for name in plugs for part in known[name].parts}
    if reading.function is Function.INSULATION:
        off |= {*walk.earths_off} - arrester_parts(walk)
    return frozenset(off)


def is_by_arrester(reading: Reading, line: str, walk: Walk) -> bool:
    """Tell whether 250 V are enough for the whole machine: a surge arrester goes to earth, and its lead is on."""
    return line == WHOLE_LINE and is_mild(reading) and has_arrester(walk) and not is_arrester_off(walk)


def is_lead_off(reading: Reading, line: str, walk: Walk) -> bool:
    """Tell whether the whole machine was read at 500 V with the earth lead of its surge arrester off."""
    return line == WHOLE_LINE and not is_mild(reading) and is_arrester_off(walk)


def is_arrester_off(walk: Walk) -> bool:
    """Tell whether the earth lead of a surge arrester is off."""
    return bool(arrester_parts(walk) & {*walk.earths_off})
