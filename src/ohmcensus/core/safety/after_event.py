"""What an event changes: the state, what is off, what voids a proof, the dangers that it tells of."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace
from typing import Any

from ohmcensus.core.event import (
    TRIPS,
    BypassRemoved,
    Changed,
    Checked,
    CircuitNoted,
    CodesRead,
    CutOff,
    CycleBegun,
    CycleTicked,
    EarthLifted,
    EarthRefitted,
    Ended,
    EntryTried,
    Event,
    FoundPowered,
    HandsOff,
    Hazard,
    HazardFound,
    InsulationNotAllowed,
    Intervention,
    Isolated,
    LiveBegun,
    LiveEnded,
    NotedInError,
    Opened,
    OutletNamed,
    PlaceNoted,
    PluggedIn,
    ProofMade,
    Reclosed,
    Reopened,
    RunDoubted,
    RunMade,
    RunWatched,
    RunWithdrawn,
    Shut,
    StripBack,
    StripStep,
    Tripped,
    When,
)
from ohmcensus.core.judgement.passes import earth_line_of
from ohmcensus.core.limits.terms import Terms
from ohmcensus.core.machine.net import nets_of
from ohmcensus.core.meter import Function
from ohmcensus.core.safety.after_reading import forbidden_live, opened, with_evidence
from ohmcensus.core.safety.danger import OF_HAZARD, Found, of_trip, seen
from ohmcensus.core.safety.evidence import of_leak_test, of_proof
from ohmcensus.core.safety.lifting import is_power_forbidden, voided
from ohmcensus.core.safety.needs import part_title
from ohmcensus.core.safety.series import Series
from ohmcensus.core.safety.walk import Walk, moment
from ohmcensus.core.safety.words import DangerId
from ohmcensus.core.symptom import Device, Moment

# What makes another part of a part: what it read before says nothing of it now (SAFETY).
CHANGES = frozenset({Intervention.REPLACED, Intervention.MENDED})
_OUTLET = "outlet."


def after_event(walk: Walk, event: Event) -> Walk:
    """Return the walk after one event."""
    handle = _HANDLERS.get(type(event.body))
    return walk if handle is None else handle(walk, event, event.body)


def joins_outlet(plug: str, terms: Terms) -> bool:
    """Tell whether a plug of the sheet is the one in the outlet."""
    return plug in terms.sheet.plugs and any(pin.startswith(_OUTLET) for pin in terms.sheet.plug_points(plug))


def mains_plugs(walk: Walk) -> frozenset[str]:
    """Return the plugs that are off and of which a part carries mains, the one in the outlet left out."""
    sheet, live = walk.terms.sheet, {point.partition(".")[0] for point in nets_of(walk.terms.sheet).mains}
    return frozenset(
        name
        for name in walk.plugs_off
        if name in sheet.plugs and not joins_outlet(name, walk.terms) and live & {*sheet.plugs[name].parts}
    )


def _isolated(walk: Walk, event: Event, body: Isolated) -> Walk:
    keeps_short = walk.may_be_short and walk.cut is not None and not walk.is_over
    return replace(
        walk,
        powered="",
        live=None,
        cut=body.how,
        cut_at=moment(event.at),
        cut_order=event.order,
        series=Series(is_short=keeps_short),
        proved=None,
        may_be_short=keeps_short,
        prover=event.device,
        prover_who=event.who,
        attended=moment(event.at),
        hand_at=moment(event.at),
        hand_meter="",
        is_hand_proved=False,
        is_hand_charged=False,
        lapsed=walk.lapsed if walk.lapsed and not walk.powered and walk.live is None else "",
    )


def _power(why: str) -> Callable[[Walk, Event[Any], Any], Walk]:
    def handle(walk: Walk, _event: Event, _body: Any) -> Walk:
        return walk if walk.is_live else walk.powered_by(why)

    return handle


def _watched(walk: Walk, event: Event[RunWatched], body: RunWatched) -> Walk:
    has_tripped = body.outcome == TRIPS
    is_now = body.was is not When.BEFORE
    if is_now and (not walk.is_live or has_tripped):
        walk = walk.powered_by("a run was watched")
    if is_now and not body.guarded and not any(row.id is DangerId.CONTACT for row in walk.found):
        walk = replace(walk, watched=event)
    if body.guarded:
        walk = walk.marked("guarded")
    if not has_tripped:
        return walk
    return _tripped_now(walk, event, Tripped(device=Device.UNKNOWN, moment=Moment.UNKNOWN), in_a_run=is_now)


def _found_powered(walk: Walk, _event: Event, body: FoundPowered) -> Walk:
    was_forbidden = is_power_forbidden(walk)
    words = body.words or "found under voltage"
    walk = walk.powered_by(words)
    return forbidden_live(walk, words) if was_forbidden else walk


def _live_begun(walk: Walk, event: Event[LiveBegun], _body: LiveBegun) -> Walk:
    return replace(walk.powered_by("live mode"), powered="", live=event, lapsed="")


def _live_ended(walk: Walk, _event: Event, _body: LiveEnded) -> Walk:
    return walk.powered_by("live mode was left") if walk.is_live else walk


def _uncovered(walk: Walk, event: Event) -> Walk:
    """Return the walk after a cover came off: live mode is over, and so is the plug in the hand."""
    walk = replace(walk, marks=replace(walk.marks, cover=event.order))
    if walk.is_live:
        return walk.powered_by("a cover came off in live mode")
    if walk.cut is CutOff.PLUG_IN_HAND:
        return walk.lapsed_by("a cover came off, plug in hand", keeps_cut=False)
    return walk


def _opened(walk: Walk, event: Event, body: Opened) -> Walk:
    return _uncovered(replace(walk, covers=walk.covers | {body.panel}), event)


def _shut(walk: Walk, event: Event, body: Shut) -> Walk:
    return replace(walk, covers=walk.covers - {body.panel}, marks=replace(walk.marks, cover=event.order))


def _strip_step(walk: Walk, event: Event, body: StripStep) -> Walk:
    walk = replace(walk, steps={**walk.steps, event.id: body})
    if body.plugs:
        walk = _plugs_moved(walk, event.order, body.plugs)
    if body.panel:
        return _uncovered(replace(walk, covers=walk.covers | {body.panel}), event)
    return walk.powered_by("something came off in live mode") if walk.is_live else walk


def _strip_back(walk: Walk, event: Event, body: StripBack) -> Walk:
    step = walk.steps.get(body.step)
    if step is None:
        return walk
    left = tuple(plug for plug in step.plugs if plug not in body.plugs)
    others = {name: row for name, row in walk.steps.items() if name != body.step}
    still = {**others, body.step: step.model_copy(update={"plugs": left, "panel": ""})} if left else others
    walk = replace(walk, steps=still)
    if body.plugs:
        walk = _plugs_moved(walk, event.order, body.plugs)
    if step.panel and not any(row.panel == step.panel for row in others.values()):
        covers = walk.covers - {step.panel}
        walk = replace(walk, covers=covers, marks=replace(walk.marks, cover=event.order))
    is_mains = any(joins_outlet(plug, walk.terms) for plug in body.plugs)
    return walk.powered_by("plugged in again") if is_mains and not walk.is_live else walk


def _plugs_moved(walk: Walk, order: int, plugs: tuple[str, ...]) -> Walk:
    """Return the walk after plugs went off or back: what their parts had shown is void."""
    known, own = walk.terms.sheet.plugs, dict(walk.marks.own)
    for plug in plugs:
        for part in known[plug].parts if plug in known else ():
            own[part] = order
    return replace(walk, marks=replace(walk.marks, own=own, plug=order))


def _tripped(walk: Walk, event: Event, body: Tripped) -> Walk:
    if body.machine == "out":
        return walk
    return _tripped_now(walk.powered_by("it tripped with the machine in"), event, body, in_a_run=False)


def _tripped_now(walk: Walk, event: Event, body: Tripped, *, in_a_run: bool) -> Walk:
    found = of_trip(body, event.order, event.at, walk.terms)
    if in_a_run:
        found = replace(found, words="in a watched run")
    lifted = [row for row, _ in walk.lifted if row.id is DangerId.TRIP]
    is_same = any((row.device, row.moment) == (found.device, found.moment) for row in lifted)
    return opened(replace(walk, trip=event.order), replace(found, is_again=is_same))


def _reclosed(walk: Walk, event: Event, body: Reclosed) -> Walk:
    walk = replace(walk, reclosed=event.order)
    return walk.powered_by("the device was closed with the machine in") if is_in(body, walk) else walk


def is_in(body: Reclosed, walk: Walk) -> bool:
    """Tell whether a device is closed with the machine in the outlet; out where nothing is said of one cut off."""
    return body.machine == "in" or (body.machine is None and walk.cut is None)


def _hazard(walk: Walk, event: Event, body: HazardFound) -> Walk:
    line = f"{body.hazard.value} {event.order}" if body.hazard is Hazard.BYPASS else "found"
    found = Found(OF_HAZARD[body.hazard], line, body.words, event.order, event.at, walk.terms)
    return opened(replace(walk, trip=event.order) if found.id is DangerId.TRIP else walk, found)


def _checked(walk: Walk, event: Event, body: Checked) -> Walk:
    found = seen(body, event.order, event.at, walk.terms)
    walk = walk.marked(f"seen {body.check}")
    return walk if found is None else opened(walk, found)


def _earth_lifted(walk: Walk, event: Event, body: EarthLifted) -> Walk:
    walk = replace(
        walk, earths={**walk.earths, body.part: (event.order, None)}, marks=_earth_moved(walk, event, body.part)
    )
    words = f"the earth of the {part_title(body.part, walk.terms)} {'was found off' if body.found else 'is off'}"
    line = earth_line_of(body.part)
    found = Found(DangerId.EARTH, line, words, event.order, event.at, walk.terms, part=body.part)
    walk = opened(walk, found)
    return walk.powered_by("an earth came off in live mode") if walk.is_live else walk


def _earth_refitted(walk: Walk, event: Event, body: EarthRefitted) -> Walk:
    off, _ = walk.earths.get(body.part, (event.order, None))
    return replace(
        walk, earths={**walk.earths, body.part: (off, event.order)}, marks=_earth_moved(walk, event, body.part)
    )


def _earth_moved(walk: Walk, event: Event, part: str) -> Any:
    own, earths = {**walk.marks.own, part: event.order}, {**walk.marks.earths, part: event.order}
    return replace(walk.marks, own=own, earths=earths, earth=event.order)


def _listened(walk: Walk, _event: Event, body: CodesRead | CycleTicked) -> Walk:
    if body.was is When.BEFORE or walk.is_live:
        return walk
    return walk if walk.powered else walk.powered_by("its codes were read")


def _leak_test(walk: Walk, event: Event, body: RunMade) -> Walk:
    is_live_run = body.function is Function.LEAKAGE
    was_powered, was_forbidden = bool(walk.powered) or walk.is_live, is_power_forbidden(walk)
    if body.has_tripped:
        walk = walk.powered_by("it tripped in a leak test")
        return _tripped_now(walk, event, Tripped(), in_a_run=False)
    if is_live_run and not was_powered:
        walk = walk.powered_by("a leak test under power")
        walk = forbidden_live(walk, "a leak test under power") if was_forbidden else walk
    row = of_leak_test(event, body, walk.terms)
    return walk if row is None else with_evidence(walk, row, is_proper=was_powered or not is_live_run)


def _doubted(walk: Walk, _event: Event, body: RunDoubted) -> Walk:
    return voided(walk, body.run) if body.is_doubtful else walk


def _withdrawn(walk: Walk, _event: Event, body: RunWithdrawn) -> Walk:
    return voided(walk, body.run)


def _proof(walk: Walk, event: Event[ProofMade], body: ProofMade) -> Walk:
    if body.was is When.BEFORE:
        return walk
    walk = replace(walk, made={**walk.made, body.criterion: event})
    row = of_proof(event, body)
    return walk if row is None else with_evidence(walk, row, is_proper=True)


def _changed(walk: Walk, event: Event, body: Changed) -> Walk:
    if walk.is_live:
        walk = walk.powered_by("a part was worked on in live mode")
    if body.intervention not in CHANGES:
        return walk.marked("worked on")
    marks = walk.marks
    own, changed = {**marks.own, body.part: event.order}, {**marks.changed, body.part: event.order}
    return replace(walk, marks=replace(marks, own=own, changed=changed, change=event.order))


def _hands_off(walk: Walk, _event: Event, _body: HandsOff) -> Walk:
    return replace(walk, is_hands_off=True)


def _place(walk: Walk, _event: Event, body: PlaceNoted) -> Walk:
    return walk.marked(f"place {body.hazard}")


def _in_error(walk: Walk, event: Event, body: NotedInError) -> Walk:
    kept = tuple(row for row in walk.found if row.id.value != body.danger or row.is_measured)
    gone = tuple(row for row in walk.found if row not in kept)
    why = f"{body.because} ({event.who or 'no name given'})"
    return replace(walk, found=kept, closed=(*walk.closed, *((row, why) for row in gone)))


def _outlet(walk: Walk, _event: Event, _body: OutletNamed) -> Walk:
    latest = {line: row for line, row in walk.latest.items() if not line.startswith(_OUTLET)}
    good = {line: row for line, row in walk.good.items() if not line.startswith(_OUTLET)}
    return replace(walk, latest=latest, good=good)


def _ended(walk: Walk, _event: Event, _body: Ended) -> Walk:
    return replace(walk.lapsed_by("", keeps_cut=walk.cut is not None), powered="", live=None, may_be_short=False)


def _reopened(walk: Walk, _event: Event, _body: Reopened) -> Walk:
    return replace(walk.lapsed_by("", keeps_cut=False), powered="", live=None)


def _bypass_out(walk: Walk, _event: Event, _body: BypassRemoved) -> Walk:
    return walk.marked("bypass out")


def _not_allowed(walk: Walk, _event: Event, _body: InsulationNotAllowed) -> Walk:
    return walk.marked("insulation barred")


def _circuit(walk: Walk, _event: Event, body: CircuitNoted) -> Walk:
    return replace(walk, circuit=body)


_HANDLERS: dict[type, Callable[[Walk, Event[Any], Any], Walk]] = {
    Isolated: _isolated,
    PluggedIn: _power("plugged in"),
    EntryTried: _power("its service mode was tried"),
    CycleBegun: _power("its own test was started"),
    RunWatched: _watched,
    FoundPowered: _found_powered,
    LiveBegun: _live_begun,
    LiveEnded: _live_ended,
    Opened: _opened,
    Shut: _shut,
    StripStep: _strip_step,
    StripBack: _strip_back,
    Tripped: _tripped,
    Reclosed: _reclosed,
    HazardFound: _hazard,
    Checked: _checked,
    EarthLifted: _earth_lifted,
    EarthRefitted: _earth_refitted,
    CodesRead: _listened,
    CycleTicked: _listened,
    RunMade: _leak_test,
    RunDoubted: _doubted,
    RunWithdrawn: _withdrawn,
    ProofMade: _proof,
    Changed: _changed,
    HandsOff: _hands_off,
    PlaceNoted: _place,
    NotedInError: _in_error,
    OutletNamed: _outlet,
    Ended: _ended,
    Reopened: _reopened,
    BypassRemoved: _bypass_out,
    InsulationNotAllowed: _not_allowed,
    CircuitNoted: _circuit,
}
