"""What of a machine was off when it was read whole: then the reading is of the rest."""

from __future__ import annotations

from ohmcensus.core.event import StripBack, StripStep
from ohmcensus.core.job.case import Case
from ohmcensus.core.job.reading import Reading
from ohmcensus.core.machine.plugs import WHOLE_LINES, cord_end_plugs, is_bid_off, joins_outlet, mains_parts


def parts_out(case: Case, order: float) -> frozenset[str]:
    """Return the parts that mains can come to and that were off at a revision: out, or a plug of theirs pulled.

    As it was noted in the strip-down. The plug in the outlet, one that comes off before 500 V, and the ends of the cord
    take nothing off that is asked from the plug.
    """
    steps: dict[str, tuple[str, tuple[str, ...]]] = {}
    for event in case.of(StripStep, StripBack):
        if event.order >= order:
            break
        body = event.body
        if isinstance(body, StripStep):
            steps[event.id] = (body.part, body.plugs)
        elif body.step in steps:
            left = tuple(plug for plug in steps[body.step][1] if plug not in body.plugs)
            steps[body.step] = ("", left)
    sheet = case.sheet
    stays = cord_end_plugs(sheet)
    pulled = {plug for _, plugs in steps.values() for plug in plugs if plug in sheet.plugs and plug not in stays}
    pulled = {plug for plug in pulled if not joins_outlet(plug, sheet) and not is_bid_off(plug, sheet)}
    off = {part for plug in pulled for part in sheet.plugs[plug].parts}
    off |= {part for part, _ in steps.values() if (known := sheet.part(part)) and not known.traits.off_before_500_v}
    return frozenset(off & mains_parts(sheet))


def without(reading: Reading, case: Case) -> frozenset[str]:
    """Return the parts that a reading of the whole machine did not ask, since they were off; none for other lines."""
    return parts_out(case, reading.order) if reading.test in WHOLE_LINES else frozenset()
