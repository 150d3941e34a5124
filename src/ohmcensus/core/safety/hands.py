"""Two people at one machine: whose proof it is, and who may have hands in it.

Without accounts two people are two devices; a device is a random id that its browser keeps, and one that is forged is
not told from the true one.
"""

from __future__ import annotations

from dataclasses import replace

from ohmcensus.core.event import (
    Attended,
    BypassRemoved,
    Changed,
    Checked,
    ConnectorTicked,
    EarthLifted,
    EarthRefitted,
    Event,
    HazardFound,
    Isolated,
    Opened,
    ProofMade,
    RecordWithdrawn,
    RunMade,
    Shut,
    StepTicked,
    StripBack,
    StripStep,
)
from ohmcensus.core.job.reading import Reading
from ohmcensus.core.safety.clock import UNATTENDED
from ohmcensus.core.safety.walk import Walk

# What shows that somebody is at the machine (SAFETY).
_ATTENDS = (
    Isolated,
    Opened,
    Shut,
    StripStep,
    StripBack,
    ConnectorTicked,
    EarthLifted,
    EarthRefitted,
    BypassRemoved,
    HazardFound,
    Checked,
    StepTicked,
    Changed,
    ProofMade,
    Attended,
    RunMade,
    RecordWithdrawn,
)


def begun_by(walk: Walk, device: str, who: str) -> Walk:
    """Return the walk with a device about to prove it; whoever has the hands in stays a prover."""
    return replace(walk, provers=frozenset({device, *walk.hands}), prover_who=who)


def proved_by(walk: Walk, device: str) -> Walk:
    """Return the walk with the hands of a device in the machine: it has proved it, or holds its plug."""
    return replace(walk, hands={**walk.hands, device: walk.now})


def powered_from(walk: Walk, device: str) -> Walk:
    """Return the walk after a device put the machine under power: its hands are out."""
    if device not in walk.hands and device not in walk.provers:
        return walk
    hands = {name: at for name, at in walk.hands.items() if name != device}
    return replace(walk, hands=hands, provers=walk.provers - {device})


def hands_off(walk: Walk, device: str) -> Walk:
    """Return the walk after a prover said that the hands are off."""
    return replace(walk, hands={name: at for name, at in walk.hands.items() if name != device})


def others_in(walk: Walk, device: str) -> tuple[str, ...]:
    """Return the other devices that may have hands in the machine now."""
    return tuple(name for name in walk.hands if name != device)


def attended(walk: Walk, item: Reading | Event) -> Walk:
    """Return the walk with its prover at the machine, where a record shows that."""
    if isinstance(item, Event) and not isinstance(item.body, _ATTENDS):
        return walk
    if item.refused:
        return walk
    now = walk.now
    if walk.cut is not None and item.device == walk.cut_by:
        is_gap = walk.cut_seen is not None and now - walk.cut_seen > UNATTENDED
        walk = replace(walk, cut_seen=now, has_gap=walk.has_gap or is_gap)
    if item.device in walk.hands:
        # Also of a machine that was found under voltage since: whoever writes there is there.
        walk = replace(walk, hands={**walk.hands, item.device: now})
    if item.device not in walk.provers:
        return walk
    walk = replace(walk, attended=now)
    is_proved = walk.proved is not None or walk.is_hand_proved
    is_still_here = isinstance(item, Event) and isinstance(item.body, Attended)
    if item.device in walk.hands or (is_proved and not is_still_here):
        walk = replace(walk, hands={**walk.hands, item.device: now})
    return replace(walk, hand_at=now) if isinstance(item, Reading) else walk


def is_prover(walk: Walk, device: str) -> bool:
    """Tell whether a device has proved the machine dead, or is about to."""
    return device in walk.provers
