"""What a question costs in minutes, and where one stands for it: a second test at the same place is hardly any."""

from __future__ import annotations

from dataclasses import dataclass
from functools import lru_cache

from ohmcensus.core.job.work_time import PLUG_MINUTES
from ohmcensus.core.machine.asked import RUN, look_id
from ohmcensus.core.machine.at_plug import cover_of
from ohmcensus.core.machine.run_through import RUN_MINUTES
from ohmcensus.core.machine.specs import listed_tests
from ohmcensus.core.meter import Function
from ohmcensus.core.parts.kind import MachineState, Role, TestSpec
from ohmcensus.core.sheet import Part, Sheet

# The probes moved on at an open plug: twenty seconds (common practice, no source).
SAME_PLACE_MINUTES = 1 / 3
# Reading what is stamped on a part (ours).
PLATE_MINUTES = 1.0
# Taking up the meter, finding the points: what every question costs besides, and where one stands already; a cover that
# is off serves the next questions too, so only a share of it counts when they are compared (ours, after trying).
HANDLING_MINUTES, SAME_PLACE_HANDLING, COVER_SHARE = 2.0, 0.5, 0.5
# The ends of its leads lie all over the machine.
_SCATTERED = frozenset({Role.HARNESS})
_OHMS = frozenset({Function.OHM, Function.CONTINUITY, Function.DIODE, Function.CAPACITANCE})


@dataclass(frozen=True, slots=True)
class Place:
    """Where one stands with which instrument: a part, the state of the machine, what it is set to."""

    part: str
    state: MachineState
    instrument: str
    sets: tuple[tuple[str, str], ...]


@dataclass(frozen=True, slots=True)
class Effort:
    """What a question costs.

    Parameters
    ----------
    minutes, plug_minutes
        For itself, and for the plugs before it.
    is_live
        Whether it needs power.
    panel
        Cover before it.
    place
        Where one stands for it; None where nothing else is asked from there.
    """

    minutes: float
    plug_minutes: float = 0.0
    is_live: bool = False
    panel: str | None = None
    place: Place | None = None


@lru_cache(maxsize=16)
def efforts(sheet: Sheet) -> dict[str, Effort]:
    """Return what every question of a sheet costs, by its id."""
    found: dict[str, Effort] = {}
    for part in sheet.parts:
        for spec in listed_tests(sheet, part.id):
            plug = PLUG_MINUTES if spec.state is MachineState.PLUG_PULLED else 0.0
            is_live = spec.state is MachineState.LIVE
            found[f"{part.id}.{spec.name}"] = Effort(
                spec.minutes, plug, is_live, cover_of(part, spec), _place(part, spec)
            )
        for check in part.part_kind.checks:
            found[look_id(part, check)] = Effort(check.minutes, panel=part.behind)
    found[RUN] = Effort(RUN_MINUTES, is_live=True)
    return found


def _place(part: Part, spec: TestSpec) -> Place | None:
    if part.traits.role in _SCATTERED:
        return None
    instrument = "ohm" if spec.function in _OHMS else spec.function.value
    return Place(part.id, spec.state, instrument, tuple(sorted(spec.sets.items())))
