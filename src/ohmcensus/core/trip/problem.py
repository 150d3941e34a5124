"""Parts, instrument and runs of an isolation."""

from __future__ import annotations

import math
from collections.abc import Mapping
from dataclasses import dataclass, field
from enum import StrEnum
from functools import cached_property

from ohmcensus.core.quantity import Interval


class Method(StrEnum):
    """Which instrument the runs were made with."""

    INSULATION = "insulation"
    LEAKAGE = "leakage"


class Polarity(StrEnum):
    """How the plug sat in a run of a leakage tester; a run of both is one that states none."""

    NORMAL = "normal"
    REVERSED = "reversed"


@dataclass(frozen=True, slots=True)
class Suspect:
    """A part that may leak.

    Parameters
    ----------
    id
        Its name.
    limit
        The least leak that counts as a fault: µS for insulation runs, mA for leakage runs.
    weight
        How often it leaks, against the others.
    minutes
        To pull its plug, putting it back later included.
    behind
        Panel that covers it, None where it lies open.
    rides_with
        Parts that cannot be tested together with others without it: a harness with its loads.
    """

    id: str
    limit: float
    weight: float = 1.0
    minutes: float = 1.0
    behind: str | None = None
    rides_with: frozenset[str] = frozenset()


@dataclass(frozen=True, slots=True)
class Run:
    """One test with some parts connected.

    Parameters
    ----------
    id
        Its name.
    connected
        Parts that are surely in it.
    interval
        What all connected parts together leak: µS or mA; the upper end infinite where the reading has none.
    maybe
        Parts that are perhaps in it: behind a doubtful relay, loose.
    is_doubtful
        Left out of the computation.
    is_intermittent
        The fault comes and goes: what it shows is there, what it does not show may be there still.
    polarity
        Of a leakage run; None where it holds for both.
    """

    id: str
    connected: frozenset[str]
    interval: Interval
    maybe: frozenset[str] = frozenset()
    is_doubtful: bool = False
    is_intermittent: bool = False
    polarity: Polarity | None = None


@dataclass(frozen=True)
class Problem:
    """An isolation: its parts, its runs in order, and what stands around them.

    Parameters
    ----------
    method, parts, runs
        See there.
    panels
        Minutes to take each panel off.
    open_panels
        Panels that are off.
    is_earth_ok
        Whether the protective conductor was proved; without it no leak shows where it should.
    """

    method: Method
    parts: tuple[Suspect, ...]
    runs: tuple[Run, ...]
    panels: Mapping[str, float] = field(default_factory=dict)
    open_panels: frozenset[str] = frozenset()
    is_earth_ok: bool = True

    @cached_property
    def counted(self) -> tuple[Run, ...]:
        """The runs that count: no doubtful one, and the identical run once."""
        found: dict[object, Run] = {}
        for run in self.runs:
            if not run.is_doubtful:
                key = (run.connected, run.maybe, run.interval, run.is_intermittent, run.polarity)
                found.setdefault(key, run)
        return tuple(found.values())

    @cached_property
    def place(self) -> dict[str, int]:
        """Place of every part."""
        return {part.id: index for index, part in enumerate(self.parts)}


def conductance_of(ohm: Interval) -> Interval:
    """Return the conductance in siemens of a resistance in ohms that is known within its meter's error.

    G lies in [1/R_hi, 1/R_lo]; a resistance that may be zero has no upper end.
    """
    least = 0.0 if math.isinf(ohm.hi) else 1 / ohm.hi if ohm.hi > 0 else math.inf
    return Interval(least, 1 / ohm.lo if ohm.lo > 0 else math.inf)


def conductance_us(megohm: Interval, error: float) -> Interval:
    """Return the conductance to earth that a reading in megohm proves, in µS.

    R reads r MΩ ± e: G lies in [1/(r+e), 1/(r−e)], with no upper end where r ≤ e; a dead short is a reading.

    Parameters
    ----------
    megohm
        What was shown; unbounded above where the tester showed over-range.
    error
        e, in MΩ, of the finite end.
    """
    return conductance_of(Interval(max(0.0, megohm.lo - error), megohm.hi + error))
