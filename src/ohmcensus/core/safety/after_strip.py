"""What an event changes that tells of covers, plugs, fasteners and earths: off, and back."""

from __future__ import annotations

from dataclasses import replace
from functools import lru_cache

from ohmcensus.core.event import CutOff, EarthLifted, EarthRefitted, Event, Opened, Over, Shut, StripBack, StripStep
from ohmcensus.core.judgement.passes import earth_line_of
from ohmcensus.core.machine.net import nets_of
from ohmcensus.core.machine.plugs import cord_end_plugs, is_bid_off, joins_outlet
from ohmcensus.core.safety.danger import Found
from ohmcensus.core.safety.needs import part_title
from ohmcensus.core.safety.opening import opened
from ohmcensus.core.safety.walk import Marks, Walk
from ohmcensus.core.safety.whole import arrester_parts, ends_are_supply
from ohmcensus.core.safety.words import DangerId
from ohmcensus.core.sheet import Sheet


def cover_off(walk: Walk, event: Event, body: Opened) -> Walk:
    """Return the walk after a cover came off."""
    return _uncovered(replace(walk, covers=walk.covers | {body.panel}), event, body.panel)


def cover_on(walk: Walk, event: Event, body: Shut) -> Walk:
    """Return the walk after a cover is on again."""
    walk = _with_over(walk, body.over)
    return replace(walk, covers=walk.covers - {body.panel}, marks=_cover_moved(walk, event.order, body.panel))


def strip_step(walk: Walk, event: Event, body: StripStep) -> Walk:
    """Return the walk after something came off in the strip-down."""
    walk = replace(walk, steps={**walk.steps, event.id: body}, marks=step_marks(walk, event.order, body))
    if body.panel:
        return _uncovered(replace(walk, covers=walk.covers | {body.panel}), event, body.panel)
    return _under_power(walk, event, body.words)


def strip_back(walk: Walk, event: Event, body: StripBack) -> Walk:
    """Return the walk after something is back; what stays off of it stays noted."""
    step = walk.steps.get(body.step)
    if step is None:
        return walk
    left = tuple(plug for plug in step.plugs if plug not in body.plugs)
    others = {name: row for name, row in walk.steps.items() if name != body.step}
    kept = {**others, body.step: step.model_copy(update={"plugs": left, "panel": ""})} if left else others
    walk = _with_over(replace(walk, marks=back_marks(walk, event.order, body)), body.over)
    known = walk.terms.sheet.plugs
    parts = {part for plug in body.plugs if plug in known for part in known[plug].parts}
    walk = replace(walk, steps=kept, over=walk.over - parts)
    if step.panel and not any(row.panel == step.panel for row in others.values()):
        walk = replace(walk, covers=walk.covers - {step.panel})
        walk = replace(walk, marks=_cover_moved(walk, event.order, step.panel))
    is_mains = any(joins_outlet(plug, walk.terms.sheet) for plug in body.plugs)
    if is_mains and not walk.is_live:
        return walk.powered_by("plugged in again")
    return walk.powered_by("something was put back in live mode") if walk.is_live else walk


def step_marks(walk: Walk, order: int, body: StripStep) -> Marks:
    """Return the marks after a step: what its plugs, its fixings and its earths had shown is void."""
    marks = _plugs_moved(walk, order, body.plugs)
    if body.part:
        marks = replace(marks, own={**marks.own, body.part: order})
    return _earths_of_step(marks, order, body, walk.terms.sheet) if body.holds_earth else marks


def back_marks(walk: Walk, order: int, body: StripBack) -> Marks:
    """Return the marks after something of a step is back."""
    step = walk.steps.get(body.step)
    if step is None:
        return walk.marks
    marks = _plugs_moved(walk, order, body.plugs)
    if step.part:
        marks = replace(marks, own={**marks.own, step.part: order})
    return _earths_of_step(marks, order, step, walk.terms.sheet) if step.holds_earth else marks


def _plugs_moved(walk: Walk, order: int, plugs: tuple[str, ...]) -> Marks:
    """Return the marks after plugs went off or back.

    One that comes off before 500 V, and the ends of a cord that are off for these very tests, void no insulation.
    """
    sheet, marks = walk.terms.sheet, walk.marks
    known = [plug for plug in plugs if plug in sheet.plugs]
    if not known:
        return marks
    own = {**marks.own, **{part: order for plug in known for part in sheet.plugs[plug].parts}}
    ends = cord_end_plugs(sheet)
    are_supply = ends_are_supply(replace(walk, steps={**walk.steps, "": StripStep(words="cord", plugs=tuple(known))}))
    voids = [plug for plug in known if not is_bid_off(plug, sheet) and not (plug in ends and are_supply)]
    return replace(
        marks,
        own=own,
        plug=order,
        lead=order if voids else marks.lead,
        ends=order if ends & {*known} else marks.ends,
    )


def _earths_of_step(marks: Marks, order: int, step: StripStep, sheet: Sheet) -> Marks:
    parts = earths_of_step(step, sheet)
    moved = dict.fromkeys(parts, order)
    return replace(marks, own={**marks.own, **moved}, earths={**marks.earths, **moved}, earth=order)


def earths_of_step(step: StripStep, sheet: Sheet) -> tuple[str, ...]:
    """Return the parts whose earth a step may take off: its own, those of its plugs, those behind its cover."""
    earthed = [part for part in sheet.parts if part.is_earthed]
    named = {step.part, *(part for plug in step.plugs if plug in sheet.plugs for part in sheet.plugs[plug].parts)}
    own = tuple(part.id for part in earthed if part.id in named)
    behind = tuple(part.id for part in earthed if step.panel and part.behind == step.panel)
    return own or behind or tuple(part.id for part in earthed)


def holds_earth(step: StripStep, sheet: Sheet) -> bool:
    """Tell whether a fastener of a step holds an earth: as was said, else as the sheet has it, never by its words."""
    return step.holds_earth if step.holds_earth is not None else usual_earth(sheet, step.part, step.panel, step.plugs)


@lru_cache(maxsize=512)
def usual_earth(sheet: Sheet, part: str, panel: str, plugs: tuple[str, ...]) -> bool:
    """Tell whether what comes off holds an earth by the sheet: an earthed part, a strap of a cover, a pin."""
    known = sheet.part(part) if part else None
    if known is not None and known.is_earthed:
        return True
    cover = sheet.panels.get(panel)
    if cover is not None and cover.carries_earth:
        return True
    earth = nets_of(sheet).earth
    return any(
        sheet.plug_points(plug) & earth
        for plug in plugs
        if plug in sheet.plugs and not any(pin.startswith("outlet.") for pin in sheet.plug_points(plug))
    )


def earth_lifted(walk: Walk, event: Event, body: EarthLifted) -> Walk:
    """Return the walk with an earth off; the lead of a surge arrester is taken off for 500 V and opens nothing."""
    walk = replace(
        walk, earths={**walk.earths, body.part: (event.order, None)}, marks=earth_marks(walk, event.order, body.part)
    )
    if body.part not in arrester_parts(walk) or body.found:
        words = f"the earth of the {part_title(body.part, walk.terms)} {'was found off' if body.found else 'is off'}"
        line = earth_line_of(body.part)
        found = Found(DangerId.EARTH, line, words, event.order, event.at, walk.terms, part=body.part)
        walk = opened(walk, found)
    return walk.powered_by("an earth came off in live mode") if walk.is_live else walk


def earth_refitted(walk: Walk, event: Event, body: EarthRefitted) -> Walk:
    """Return the walk with an earth back; what it shows is read after it."""
    off, _ = walk.earths.get(body.part, (event.order, None))
    return replace(
        walk, earths={**walk.earths, body.part: (off, event.order)}, marks=earth_marks(walk, event.order, body.part)
    )


def earth_marks(walk: Walk, order: int, part: str) -> Marks:
    """Return the marks after the earth of a part went off or back."""
    own, earths = {**walk.marks.own, part: order}, {**walk.marks.earths, part: order}
    return replace(walk.marks, own=own, earths=earths, earth=order)


def _uncovered(walk: Walk, event: Event, panel: str) -> Walk:
    """Return the walk after a cover came off: live mode is over, and so is the plug in the hand."""
    walk = replace(walk, marks=_cover_moved(walk, event.order, panel))
    cover = walk.terms.sheet.panels.get(panel)
    walk = _under_power(walk, event, cover.off_words if cover is not None else panel)
    if walk.cut is CutOff.PLUG_IN_HAND:
        return walk.lapsed_by("a cover came off, plug in hand", keeps_cut=False)
    return walk


def _under_power(walk: Walk, event: Event, what: str) -> Walk:
    """Return the walk after something came off: under voltage that is told out loud, and ends live mode."""
    if not walk.is_under_power:
        return walk
    walk = walk.shouted(event.at, f"{what}, under voltage: pull the plug")
    return walk.powered_by("something came off in live mode") if walk.is_live else walk


def _cover_moved(walk: Walk, order: int, panel: str) -> Marks:
    cover = walk.terms.sheet.panels.get(panel)
    has_strap = cover is not None and cover.carries_earth
    return replace(walk.marks, cover=order, strap=order if has_strap else walk.marks.strap)


def _with_over(walk: Walk, over: Over | None) -> Walk:
    return walk if over is None or not over.insulated else replace(walk, over=walk.over | {over.part})
