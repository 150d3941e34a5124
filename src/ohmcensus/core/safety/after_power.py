"""What an event changes that tells of power: cut off, plugged in, run, tripped, and who has the hands in."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace
from datetime import timedelta
from typing import Any

from ohmcensus.core.event import (
    TRIPS,
    CodesRead,
    CutOff,
    CycleTicked,
    Event,
    FoundPowered,
    InterlockTried,
    Isolated,
    LiveBegun,
    LiveEnded,
    Reclosed,
    RunWatched,
    Tried,
    Tripped,
    When,
)
from ohmcensus.core.parts.kind import Role
from ohmcensus.core.safety.danger import TRIED_LINE, Found, of_trip
from ohmcensus.core.safety.forbidding import is_power_forbidden
from ohmcensus.core.safety.hands import begun_by, hands_off, powered_from
from ohmcensus.core.safety.opening import forbidden_live, opened
from ohmcensus.core.safety.series import Series
from ohmcensus.core.safety.stretch import order_before
from ohmcensus.core.safety.walk import Walk
from ohmcensus.core.safety.whole import mains_plugs
from ohmcensus.core.safety.words import DangerId
from ohmcensus.core.symptom import Device, Moment

Handler = Callable[[Walk, Event[Any], Any], Walk]


def isolated(walk: Walk, event: Event, body: Isolated) -> Walk:
    """Return the walk cut off: told by the prover in the same way a proof stands, else it begins anew."""
    is_same = walk.cut is body.how and event.device in walk.provers
    if walk.proved is not None and is_same:
        return walk
    keeps_short = (walk.may_be_short or walk.proved is not None) and walk.cut is not None and not walk.is_over
    off_since = walk.off_since
    if body.how is CutOff.SWITCHED_OFF and off_since is None:
        off_since = walk.now
    begun = begun_by(walk, event.device, event.who)
    return replace(
        begun,
        powered="",
        live=None,
        live_until=None,
        cut=body.how,
        cut_at=walk.now,
        cut_order=event.order,
        cut_by=event.device,
        cut_seen=walk.now,
        has_gap=False,
        off_since=off_since,
        series=Series(is_short=keeps_short),
        proved=None,
        may_be_short=keeps_short,
        attended=walk.now,
        hand_at=walk.now,
        hand_meter="",
        is_hand_proved=False,
        is_hand_charged=False,
        lapsed=walk.lapsed if walk.lapsed and not walk.is_under_power else "",
    )


def power(why: str) -> Handler:
    """Return the handler of an event after which the machine stands under voltage."""

    def handle(walk: Walk, event: Event[Any], _body: Any) -> Walk:
        walk = powered_from(walk, event.device)
        return walk if walk.is_live else walk.powered_by(why)

    return handle


def watched(walk: Walk, event: Event[RunWatched], body: RunWatched) -> Walk:
    """Return the walk after a run: it shows function unless a contact was closed, or it was the guarded one."""
    has_tripped = body.outcome == TRIPS
    is_now = body.was is not When.BEFORE
    if is_now:
        walk = powered_from(walk, event.device)
        walk = walk.powered_by("a run was watched") if not walk.is_live or has_tripped else walk
    order = event.order if is_now else order_before(walk, is_run=True)
    has_contact = is_now and any(row.id is DangerId.CONTACT for row in walk.found)
    if has_contact:
        walk = walk.marked("run with contact")
    if order is not None and not body.guarded and not has_contact and not mains_plugs(walk):
        walk = replace(walk, watched=replace(event, order=order))
    if body.guarded:
        walk = walk.marked("guarded")
    if not has_tripped:
        return walk
    return tripped_now(walk, event, Tripped(device=Device.UNKNOWN, moment=Moment.UNKNOWN), in_a_run=is_now)


def interlock_tried(walk: Walk, event: Event, body: InterlockTried) -> Walk:
    """Return the walk after the interlock was tried: it held, or it is bypassed as measured."""
    is_now = body.was is not When.BEFORE
    if is_now:
        walk = powered_from(walk, event.device)
        walk = walk if walk.is_live else walk.powered_by("its interlock was tried")
    if body.outcome is Tried.STARTS:
        return _started_open(walk, event, body)
    order = event.order if is_now else order_before(walk)
    return walk if order is None else replace(walk, outs={**walk.outs, "interlock holds": order})


def _started_open(walk: Walk, event: Event, body: InterlockTried) -> Walk:
    part = next((row.id for row in walk.terms.sheet.with_role(Role.INTERLOCK)), None)
    words = f"it started with the {body.open} open"
    found = Found(DangerId.BYPASS, TRIED_LINE, words, event.order, event.at, walk.terms, is_measured=True, part=part)
    return opened(walk, found)


def found_powered(walk: Walk, _event: Event, body: FoundPowered) -> Walk:
    """Return the walk of a machine that stood under voltage all the same."""
    was_forbidden = is_power_forbidden(walk)
    words = body.words or "found under voltage"
    walk = walk.powered_by(words)
    return forbidden_live(walk, words) if was_forbidden else walk


def live_begun(walk: Walk, event: Event[LiveBegun], body: LiveBegun) -> Walk:
    """Return the walk in live mode, until its time is over."""
    until = walk.now + timedelta(minutes=body.minutes)
    walk = powered_from(walk, event.device).powered_by("live mode")
    return replace(walk, powered="", live=event, live_until=until, lapsed="")


def live_ended(walk: Walk, _event: Event, _body: LiveEnded) -> Walk:
    """Return the walk after live mode was left: it stands under voltage."""
    return walk.powered_by("live mode was left") if walk.is_live else walk


def tripped(walk: Walk, event: Event, body: Tripped) -> Walk:
    """Return the walk after a protective device went; with the machine out it says nothing of it."""
    if body.machine == "out":
        return walk
    return tripped_now(walk.powered_by("it tripped with the machine in"), event, body, in_a_run=False)


def tripped_now(walk: Walk, event: Event, body: Tripped, *, in_a_run: bool) -> Walk:
    """Return the walk with a trip; the same one after it was lifted asks for more."""
    found = of_trip(body, event.order, event.at, walk.terms)
    if in_a_run:
        found = replace(found, words="in a watched run")
    was = [row.found for row in walk.lifted if row.found.id is DangerId.TRIP]
    # One that stands and came back already asks no less as it goes once more.
    was += [row for row in walk.found if row.id is DangerId.TRIP and row.is_again]
    is_same = any((row.device, row.moment) == (found.device, found.moment) for row in was)
    return opened(replace(walk, trip=event.order), replace(found, is_again=is_same))


def reclosed(walk: Walk, event: Event, body: Reclosed) -> Walk:
    """Return the walk after the device was closed again; with the machine in that is power."""
    walk = replace(walk, reclosed=event.order)
    if not is_in(body, walk):
        return walk
    return powered_from(walk, event.device).powered_by("the device was closed with the machine in")


def is_in(body: Reclosed, walk: Walk) -> bool:
    """Tell whether a device is closed with the machine in the outlet; out where nothing is said of one cut off."""
    return body.machine == "in" or (body.machine is None and walk.cut is None)


def listened(walk: Walk, event: Event, body: CodesRead | CycleTicked) -> Walk:
    """Return the walk after its codes were read: under power now, unless that was before."""
    if body.was is When.BEFORE:
        return walk
    walk = powered_from(walk, event.device)
    return walk if walk.is_under_power else walk.powered_by("its codes were read")


def hands_out(walk: Walk, event: Event, _body: Any) -> Walk:
    """Return the walk after the hands of a prover are off."""
    return hands_off(walk, event.device)


def told_of_power(why: str) -> Handler:
    """Return what a record tells of power that would have been refused here: it stood under voltage, and no more."""

    def handle(walk: Walk, event: Event[Any], body: Any) -> Walk:
        if getattr(body, "was", None) is When.BEFORE or (isinstance(body, Reclosed) and not is_in(body, walk)):
            return walk
        was_forbidden = is_power_forbidden(walk)
        walk = walk.powered_by(why)
        walk = forbidden_live(walk, why) if was_forbidden else walk
        if isinstance(body, RunWatched) and body.outcome == TRIPS:
            return tripped_now(walk, event, Tripped(), in_a_run=True)
        if isinstance(body, InterlockTried) and body.outcome is Tried.STARTS:
            return _started_open(walk, event, body)
        return walk

    return handle
