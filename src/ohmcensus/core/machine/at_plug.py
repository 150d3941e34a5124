"""Tests at the plug's pins, covers on: between them, and from the earth pin to bare metal."""

from __future__ import annotations

from ohmcensus.core.machine.net import PLUG_L, PLUG_N, PLUG_PE
from ohmcensus.core.parts.element import CHASSIS
from ohmcensus.core.parts.kind import MachineState, TestSpec
from ohmcensus.core.sheet import Part

AT_PLUG_WORDS = "at the plug, covers on"
_PINS = frozenset({PLUG_L, PLUG_N, PLUG_PE})
# What the protective conductor ends on inside is touched as the bare metal of the machine outside.
_BARE = frozenset({"cord.end_pe", CHASSIS})


def is_made_at_plug(between: tuple[str, str]) -> bool:
    """Tell whether two points are touched with every cover on: pins of the pulled plug, and bare metal."""
    points = set(between)
    return bool(points & _PINS) and points <= _PINS | _BARE


def cover_of(part: Part, spec: TestSpec) -> str | None:
    """Return the cover that comes off for a test of a part; None where it is made at the plug, or none hides it."""
    at_plug = is_made_at_plug((part.point(spec.between[0]), part.point(spec.between[1])))
    is_far_end_off = spec.state is MachineState.PLUG_PULLED
    return None if at_plug and not is_far_end_off else part.behind
