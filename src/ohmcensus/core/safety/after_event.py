"""What an event changes: the state, what is off, what voids a proof, the dangers that it tells of."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace
from typing import Any

from ohmcensus.core.event import (
    BypassRemoved,
    Changed,
    Checked,
    CheckOutcome,
    CircuitNoted,
    CodesRead,
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
    InterlockTried,
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
    Stamped,
    StripBack,
    StripStep,
    Tripped,
    Way,
    When,
)
from ohmcensus.core.judgement.passes import WHOLE_LINE
from ohmcensus.core.meter import Function
from ohmcensus.core.safety import after_power, after_strip
from ohmcensus.core.safety.after_reading import after_outlet, with_evidence
from ohmcensus.core.safety.danger import OF_HAZARD, OUTLET_LINE, Found, seen
from ohmcensus.core.safety.evidence import Evidence, of_leak_test, of_proof
from ohmcensus.core.safety.forbidding import is_power_forbidden
from ohmcensus.core.safety.lifting import voided
from ohmcensus.core.safety.opening import forbidden_live, opened
from ohmcensus.core.safety.stretch import order_before
from ohmcensus.core.safety.walk import Marks, Walk
from ohmcensus.core.safety.whole import ARRESTER, is_arrester_off
from ohmcensus.core.safety.words import DangerId

# What makes another part of a part: what it read before says nothing of it now (SAFETY).
CHANGES = frozenset({Intervention.REPLACED, Intervention.MENDED})


def after_event(walk: Walk, event: Event) -> Walk:
    """Return the walk after one event."""
    handle = _TOLD.get(type(event.body)) if event.refused else _HANDLERS.get(type(event.body))
    return walk if handle is None else handle(walk, event, event.body)


def struck(walk: Walk, event: Event) -> Walk:
    """Return the walk after a change or step that was taken back too late: its lines stay asked."""
    match event.body:
        case Changed():
            return replace(walk, marks=_change_marks(walk, event.order, event.body))
        case StripStep():
            return replace(walk, marks=after_strip.step_marks(walk, event.order, event.body))
        case StripBack():
            return replace(walk, marks=after_strip.back_marks(walk, event.order, event.body))
    return walk


def _hazard(walk: Walk, event: Event, body: HazardFound) -> Walk:
    line = f"{body.hazard.value} {event.order}" if body.hazard is Hazard.BYPASS else "found"
    found = Found(OF_HAZARD[body.hazard], line, body.words, event.order, event.at, walk.terms)
    return opened(replace(walk, trip=event.order) if found.id is DangerId.TRIP else walk, found)


def _checked(walk: Walk, event: Event, body: Checked) -> Walk:
    found = seen(body, event.order, event.at, walk.terms)
    walk = walk.marked(f"seen {body.check}")
    if body.outcome is CheckOutcome.GOOD and not event.refused:
        walk = walk.marked(f"good {body.check}")
    return walk if found is None else opened(walk, found)


def _leak_test(walk: Walk, event: Event, body: RunMade) -> Walk:
    is_live_run = body.function is Function.LEAKAGE
    was_powered, was_forbidden = walk.is_under_power, is_power_forbidden(walk)
    if body.has_tripped:
        walk = walk.powered_by("it tripped in a leak test")
        return after_power.tripped_now(walk, event, Tripped(), in_a_run=False)
    if is_live_run and not was_powered:
        walk = walk.powered_by("a leak test under power")
        walk = forbidden_live(walk, "a leak test under power") if was_forbidden else walk
    row = of_leak_test(event, body, walk.terms)
    if row is None:
        return walk
    row = replace(row, is_shut=not walk.covers, is_lead_off=row.line == WHOLE_LINE and is_arrester_off(walk))
    return with_evidence(walk, row, is_proper=(was_powered or not is_live_run) and not event.refused)


def _doubted(walk: Walk, _event: Event, body: RunDoubted) -> Walk:
    return voided(walk, body.run) if body.is_doubtful else walk


def _withdrawn(walk: Walk, _event: Event, body: RunWithdrawn) -> Walk:
    return voided(walk, body.run)


def _proof(walk: Walk, event: Event[ProofMade], body: ProofMade) -> Walk:
    is_before = body.was is When.BEFORE
    order = order_before(walk) if is_before else event.order
    row = of_proof(event, body)
    if body.was is When.NOW and body.way is not Way.ALTERNATIVE and not walk.is_under_power and row is not None:
        walk = walk.powered_by("a current was measured")
    if order is None or event.refused:
        return walk if row is None else with_evidence(walk, row, is_proper=False)
    walk = replace(walk, made={**walk.made, body.criterion: replace(event, order=order)})
    return walk if row is None else with_evidence(walk, _as_of(row, order, walk), is_proper=True)


def _as_of(row: Evidence, order: int, walk: Walk) -> Evidence:
    return replace(row, order=order, is_shut=not walk.covers)


def _changed(walk: Walk, event: Event, body: Changed) -> Walk:
    if walk.is_live:
        walk = walk.powered_by("a part was worked on in live mode")
    if body.intervention not in CHANGES:
        return walk.marked("worked on")
    marks = _change_marks(walk, event.order, body)
    return replace(walk, marks=replace(marks, mended={**marks.mended, body.part: event.order}))


def _change_marks(walk: Walk, order: int, body: Changed) -> Marks:
    marks = walk.marks
    if body.intervention not in CHANGES:
        return marks
    return replace(
        marks, own={**marks.own, body.part: order}, changed={**marks.changed, body.part: order}, change=order
    )


def _place(walk: Walk, _event: Event, body: PlaceNoted) -> Walk:
    return walk.marked(f"place {body.hazard}")


def _in_error(walk: Walk, event: Event, body: NotedInError) -> Walk:
    gone = tuple(row for row in walk.found if row.id.value == body.danger and was_said(row))
    why = f"{body.because} ({event.who or 'no name given'})"
    kept = tuple(row for row in walk.found if row not in gone)
    return replace(walk, found=kept, closed=(*walk.closed, *((row, why) for row in gone)))


def was_said(found: Found) -> bool:
    """Tell whether a danger was told, tapped or looked at on this job: measured, followed or left behind it was not."""
    return not found.is_measured and not found.is_former and found.id is not DangerId.LIVE_THOUGH_FORBIDDEN


def _outlet(walk: Walk, _event: Event, _body: OutletNamed) -> Walk:
    return walk.marked("outlet named")


def _ended(walk: Walk, _event: Event, _body: Ended) -> Walk:
    walk = walk.lapsed_by("", keeps_cut=walk.cut is not None)
    return replace(walk, powered="", live=None, live_until=None, may_be_short=False)


def _reopened(walk: Walk, _event: Event, _body: Reopened) -> Walk:
    walk = walk.lapsed_by("", keeps_cut=False)
    # Nobody knows how it stood meanwhile: what was discharged may be charged again.
    return replace(
        walk, powered="", live=None, live_until=None, provers=frozenset(walk.hands), discharged=frozenset[str]()
    )


def _bypass_out(walk: Walk, _event: Event, _body: BypassRemoved) -> Walk:
    return walk.marked("bypass out")


def _not_allowed(walk: Walk, _event: Event, _body: InsulationNotAllowed) -> Walk:
    return walk.marked("insulation barred")


def _circuit(walk: Walk, event: Event, body: CircuitNoted) -> Walk:
    """Return the walk with the circuit noted: a plug that goes one way tells more of voltages that were read."""
    walk = replace(walk, circuit=body)
    is_known = any(row.line == OUTLET_LINE for row in walk.found)
    return walk if is_known else after_outlet(walk, event.order, event.at, event.id)


def _stamped(walk: Walk, _event: Event, body: Stamped) -> Walk:
    return walk.marked(f"{ARRESTER} {body.part}") if body.rating == ARRESTER and body.value else walk


_Handler = Callable[[Walk, Event[Any], Any], Walk]
_HANDLERS: dict[type, _Handler] = {
    Isolated: after_power.isolated,
    PluggedIn: after_power.power("plugged in"),
    EntryTried: after_power.power("its service mode was tried"),
    CycleBegun: after_power.power("its own test was started"),
    RunWatched: after_power.watched,
    InterlockTried: after_power.interlock_tried,
    FoundPowered: after_power.found_powered,
    LiveBegun: after_power.live_begun,
    LiveEnded: after_power.live_ended,
    Opened: after_strip.cover_off,
    Shut: after_strip.cover_on,
    StripStep: after_strip.strip_step,
    StripBack: after_strip.strip_back,
    EarthLifted: after_strip.earth_lifted,
    EarthRefitted: after_strip.earth_refitted,
    Tripped: after_power.tripped,
    Reclosed: after_power.reclosed,
    HazardFound: _hazard,
    Checked: _checked,
    CodesRead: after_power.listened,
    CycleTicked: after_power.listened,
    RunMade: _leak_test,
    RunDoubted: _doubted,
    RunWithdrawn: _withdrawn,
    ProofMade: _proof,
    Changed: _changed,
    HandsOff: after_power.hands_out,
    PlaceNoted: _place,
    NotedInError: _in_error,
    OutletNamed: _outlet,
    Ended: _ended,
    Reopened: _reopened,
    BypassRemoved: _bypass_out,
    InsulationNotAllowed: _not_allowed,
    CircuitNoted: _circuit,
    Stamped: _stamped,
}
# What counts of a record that came in from a file and would have been refused here: what it tells of power, voltage,
# danger, and of what is off; nothing that lifts, proves, cuts off, puts right or ends.
_TOLD: dict[type, _Handler] = {
    kind: _HANDLERS[kind]
    for kind in (
        FoundPowered,
        LiveEnded,
        Opened,
        StripStep,
        EarthLifted,
        Tripped,
        HazardFound,
        Checked,
        RunMade,
        RunDoubted,
        RunWithdrawn,
        ProofMade,
        Changed,
    )
}
_TOLD |= {
    kind: after_power.told_of_power(why)
    for kind, why in (
        (PluggedIn, "plugged in"),
        (EntryTried, "its service mode was tried"),
        (CycleBegun, "its own test was started"),
        (CodesRead, "its codes were read"),
        (CycleTicked, "its own test was ticked"),
        (RunWatched, "a run was watched"),
        (LiveBegun, "live mode"),
        (Reclosed, "the device was closed again"),
        (InterlockTried, "its interlock was tried"),
    )
}
