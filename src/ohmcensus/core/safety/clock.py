"""What the clock alone changes: what lapses, when, and what a clock that was set back ends.

Minutes run from the latest moment in the log, so that a clock that creeps back gains nothing.
"""

from __future__ import annotations

from dataclasses import replace
from datetime import UTC, datetime, timedelta

from ohmcensus.core.event import CutOff
from ohmcensus.core.safety.walk import Walk

# Ours: whoever works at a machine writes something down at least this often.
UNATTENDED = timedelta(minutes=10)
# A clock that was set back by more than this makes every moment doubtful (our choice).
CLOCK_SLACK = timedelta(seconds=90)
# Cut-offs that hold by somebody's presence alone.
_BY_PRESENCE = frozenset({CutOff.PLUG_IN_HAND, CutOff.SWITCHED_OFF})


def moment(at: str) -> datetime:
    """Return a stored moment."""
    return datetime.fromisoformat(at)


def ticked(walk: Walk, when: datetime) -> Walk:
    """Return the walk at a moment: what has lapsed by then, and whether the clock was set back."""
    if walk.last is None:
        return walk
    if when < walk.last - CLOCK_SLACK:
        return _set_back(walk, when)
    now = max(when, walk.last)
    hands = {name: at for name, at in walk.hands.items() if now - at <= UNATTENDED}
    walk = walk if len(hands) == len(walk.hands) else replace(walk, hands=hands)
    if walk.live is not None:
        is_over = walk.live_until is not None and now >= walk.live_until
        return walk.powered_by("live mode ended after its time") if is_over else walk
    return _unattended(walk, now)


def arrived(walk: Walk, when: datetime) -> Walk:
    """Return the walk as a record of a moment comes in: that moment is the latest one now, or begins a new count."""
    is_back = walk.last is not None and when < walk.last - CLOCK_SLACK
    walk = ticked(walk, when)
    return replace(walk, last=when if walk.last is None or is_back else max(when, walk.last))


def settles_at(walk: Walk) -> datetime:
    """Return the moment from which on the clock alone changes nothing any more."""
    return max(_ends(walk), default=datetime.min.replace(tzinfo=UTC)) + timedelta(seconds=1)


def next_change(walk: Walk, now: datetime) -> datetime | None:
    """Return the next moment at which the clock alone may change something, None where it never does."""
    return min((end for end in _ends(walk) if end > now), default=None)


def _ends(walk: Walk) -> list[datetime]:
    known = (walk.attended, walk.off_since, walk.hand_at, walk.last, walk.cut_seen, *walk.hands.values())
    ends = [when + UNATTENDED for when in known if when is not None]
    return [*ends, walk.live_until] if walk.live_until is not None else ends


def _set_back(walk: Walk, when: datetime) -> Walk:
    """Return the walk after the clock was set back: what holds by the minute is over, and nothing lies ahead."""

    def earlier(known: datetime | None) -> datetime | None:
        return None if known is None else min(known, when)

    walk = replace(
        walk,
        attended=earlier(walk.attended),
        cut_at=earlier(walk.cut_at),
        cut_seen=earlier(walk.cut_seen),
        off_since=earlier(walk.off_since),
        hand_at=earlier(walk.hand_at),
        hands={name: min(at, when) for name, at in walk.hands.items()},
        charged={name: min(at, when) for name, at in walk.charged.items()},
    )
    if walk.live is not None:
        return walk.powered_by("the clock was set back in live mode")
    return walk.lapsed_by("the clock was set back", keeps_cut=walk.cut not in _BY_PRESENCE) if walk.cut else walk


def _unattended(walk: Walk, now: datetime) -> Walk:
    if walk.cut is CutOff.SWITCHED_OFF and walk.off_since is not None and now - walk.off_since > UNATTENDED:
        return walk.lapsed_by("ten minutes switched off without a lock", keeps_cut=False)
    if walk.cut is CutOff.PLUG_IN_HAND and walk.hand_at is not None and now - walk.hand_at > UNATTENDED:
        return walk.lapsed_by("ten minutes without a reading, plug in hand", keeps_cut=False)
    has_begun = walk.proved is not None or bool(walk.series.tools)
    if has_begun and walk.attended is not None and now - walk.attended > UNATTENDED:
        return walk.lapsed_by("ten minutes unattended", keeps_cut=True)
    return walk
