"""The state of safety: worked out from what was logged, never ticked.

A machine is *dead* from the moment at which the last of these was logged, in this order, by one meter:
cut off with the plug in sight; a known source shows; every pair of supply terminals and every stored
charge reads inside its limit; the known source shows again. It stops being dead when it is plugged in,
worked live, asked for its service mode or its own test, trips, or is left unattended for ten minutes.
``LIVE`` ends by itself (docs/guide.md, "Making safe").
"""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, field, replace
from datetime import datetime, timedelta
from enum import StrEnum

from ohmcensus.core.case import Case, Reading
from ohmcensus.core.event import (
    TRIPS,
    CycleBegun,
    EntryTried,
    Event,
    Isolated,
    LiveBegun,
    LiveEnded,
    Opened,
    PluggedIn,
    Reclosed,
    RunMade,
    RunWatched,
    StripStep,
    Tripped,
)
from ohmcensus.core.machine import dead_tests

UNATTENDED = timedelta(minutes=10)
# A clock that was set back by more than this makes every moment doubtful (our choice).
CLOCK_SLACK = timedelta(seconds=90)
SOURCE = "source.known"


class SafetyState(StrEnum):
    """What is established about voltage on the machine."""

    NOT_PROVED = "not_proved"
    DEAD = "dead"
    LIVE = "live"


@dataclass(frozen=True, slots=True)
class Safety:
    """The state at one moment.

    Parameters
    ----------
    state
        The state.
    at
        When it was proved, or when live mode began; empty while not proved.
    reason, stays_connected
        Of live mode.
    until
        When it ends by itself, ISO 8601; empty while not proved.
    isolated
        Whether the machine is cut off.
    source_before
        The known source as it showed first, None while it has not.
    points
        Standing proof reading of each point by test id, good or bad.
    bad
        Ids of points whose reading is outside its limit.
    lapsed
        Why an earlier proof no longer holds, empty where there was none.
    """

    state: SafetyState
    at: str = ""
    reason: str = ""
    stays_connected: str = ""
    until: str = ""
    isolated: bool = False
    source_before: Reading | None = None
    points: dict[str, Reading] = field(default_factory=dict)
    bad: tuple[str, ...] = ()
    lapsed: str = ""


@dataclass(frozen=True, slots=True)
class _Walk:
    """Where the proof stands while the log is read from its beginning."""

    isolated: bool = False
    before: Reading | None = None
    points: dict[str, Reading] = field(default_factory=dict)
    proved: Reading | None = None
    live: Event | None = None
    last: datetime | None = None
    lapsed: str = ""


def moment(at: str) -> datetime:
    """Return a stored moment."""
    return datetime.fromisoformat(at)


def safety_at(case: Case, now: datetime) -> Safety:
    """Return the state of safety at a moment.

    Parameters
    ----------
    case
        Sheet, readings and events.
    now
        The moment, with its time zone.
    """
    walk = _Walk()
    standing = {reading.id for reading in case.standing}
    for item in _log(case):
        when = moment(item.at)
        walk = replace(_unless_unattended(walk, when), last=when)
        if isinstance(item, Event):
            walk = _after_event(walk, item)
        elif item.id in standing and item.test is not None:
            walk = _after_reading(walk, item, case)
    return _told(_unless_unattended(walk, now), case, now)


def last_cut(case: Case) -> int:
    """Return the order of the last event that ended a proof, 0 where none did."""
    return max((event.order for event in case.events if isinstance(event.body, _CUTS)), default=0)


def is_inside(reading: Reading, case: Case) -> bool:
    """Tell whether a proof reading lies inside its limit with its meter's whole error."""
    test = next(test for test in dead_tests(case.sheet) if test.id == reading.test)
    if reading.function is not test.function:
        return False
    interval = reading.meter.interval_of(reading.indication, reading.function)
    return test.window.interval.contains(interval)


# What only a powered machine does: whoever writes it down has plugged it in again.
_CUTS = (PluggedIn, LiveBegun, Reclosed, CycleBegun, EntryTried, RunWatched, Tripped)


def _log(case: Case) -> Iterator[Reading | Event]:
    """Yield readings and events in the order in which they were written."""
    both: list[Reading | Event] = [*case.readings, *case.events]
    yield from sorted(both, key=lambda item: item.order)


def _unless_unattended(walk: _Walk, when: datetime) -> _Walk:
    """Drop the proof where nobody was there for too long, or the clock was set back."""
    if not walk.isolated or walk.last is None:
        return walk
    gap = when - walk.last
    if gap > UNATTENDED:
        return _Walk(last=walk.last, lapsed="ten minutes unattended")
    if gap < -CLOCK_SLACK:
        return _Walk(last=walk.last, lapsed="the clock was set back")
    return walk


def _after_event(walk: _Walk, event: Event) -> _Walk:
    """Return the walk after one event."""
    match event.body:
        case Isolated():
            return _Walk(isolated=True, last=walk.last)
        case LiveBegun():
            return _Walk(live=event, last=walk.last)
        case Tripped() | RunMade(has_tripped=True) | PluggedIn() | Reclosed():
            return _powered(walk)
        case CycleBegun() | EntryTried() | RunWatched():
            return walk if walk.live is not None and not _has_tripped(event) else _powered(walk)
        case LiveEnded() | Opened() | StripStep():
            return replace(walk, live=None)
        case _:
            return walk


def _has_tripped(event: Event) -> bool:
    """Tell whether a watched run ended in a trip."""
    return isinstance(event.body, RunWatched) and event.body.outcome == TRIPS


def _powered(walk: _Walk) -> _Walk:
    """Return the walk of a machine that was plugged in: no proof outlives it."""
    return _Walk(last=walk.last, lapsed="plugged in again" if walk.proved or walk.isolated else "")


def _after_reading(walk: _Walk, reading: Reading, case: Case) -> _Walk:
    """Return the walk after one reading; those that are no part of a proof change nothing."""
    if not walk.isolated:
        return walk
    if reading.test == SOURCE:
        return _after_source(walk, reading, case)
    is_point = reading.test in _points(case)
    if not is_point or walk.before is None or walk.before.meter != reading.meter:
        return walk
    proved = walk.proved if is_inside(reading, case) else None
    return replace(walk, points={**walk.points, str(reading.test): reading}, proved=proved)


def _after_source(walk: _Walk, reading: Reading, case: Case) -> _Walk:
    """Return the walk after a known source: the proof is whole, or it begins."""
    if not is_inside(reading, case):
        return replace(walk, before=None, proved=None)
    if walk.before is None or walk.before.meter != reading.meter or not walk.points:
        return replace(walk, before=reading, points={}, proved=None)
    is_whole = _points(case) == walk.points.keys() and all(is_inside(row, case) for row in walk.points.values())
    return replace(walk, proved=reading) if is_whole else walk


def _points(case: Case) -> set[str]:
    """Return the ids of every point that must read dead."""
    return {test.id for test in dead_tests(case.sheet)} - {SOURCE}


def _told(walk: _Walk, case: Case, now: datetime) -> Safety:
    """Return the state that the walk has come to."""
    bad = tuple(name for name, row in walk.points.items() if not is_inside(row, case))
    safety = Safety(
        SafetyState.NOT_PROVED,
        isolated=walk.isolated,
        source_before=walk.before,
        points=walk.points,
        bad=bad,
        lapsed=walk.lapsed,
    )
    if walk.live is not None and isinstance(walk.live.body, LiveBegun):
        body, ends = walk.live.body, moment(walk.live.at) + timedelta(minutes=walk.live.body.minutes)
        if now >= ends:
            return replace(safety, lapsed="live mode ended after its time")
        return replace(
            safety,
            state=SafetyState.LIVE,
            at=walk.live.at,
            reason=body.reason,
            stays_connected=body.stays_connected,
            until=_iso(ends),
        )
    if walk.proved is not None and walk.last is not None:
        return replace(safety, state=SafetyState.DEAD, at=walk.proved.at, until=_iso(walk.last + UNATTENDED))
    return safety


def _iso(when: datetime) -> str:
    return when.isoformat(timespec="seconds").replace("+00:00", "Z")
