"""What a plug of a machine is to whoever tests it at its supply: the outlet's, the cord's ends, one off for 500 V."""

from __future__ import annotations

from functools import lru_cache

from ohmcensus.core.machine.net import nets_of
from ohmcensus.core.sheet import Sheet

_OUTLET = "outlet."
_CORD_ENDS = ("cord.end_l", "cord.end_n", "cord.end_pe")
# Lines that ask the whole machine from its plug.
WHOLE_LINES = frozenset({"cord.insulation", "cord.n_pe", "cord.across"})


def joins_outlet(plug: str, sheet: Sheet) -> bool:
    """Tell whether a plug of the sheet is the one in the outlet."""
    return plug in sheet.plugs and any(pin.startswith(_OUTLET) for pin in sheet.plug_points(plug))


@lru_cache(maxsize=64)
def cord_end_plugs(sheet: Sheet) -> frozenset[str]:
    """Return the plugs of a sheet that are the ends of the cord inside the machine."""
    return frozenset(name for name in sheet.plugs if sheet.plug_points(name) & {*_CORD_ENDS})


@lru_cache(maxsize=256)
def is_bid_off(plug: str, sheet: Sheet) -> bool:
    """Tell whether a plug comes off before 500 V are put on: what hangs on it keeps its own line."""
    known = sheet.plugs.get(plug)
    return known is not None and any(sheet.known_part(part).traits.off_before_500_v for part in known.parts)


@lru_cache(maxsize=64)
def mains_parts(sheet: Sheet) -> frozenset[str]:
    """Return the parts that mains can come to."""
    return frozenset(point.partition(".")[0] for point in nets_of(sheet).mains)
