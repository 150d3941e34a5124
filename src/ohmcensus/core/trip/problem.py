"""Parts, instrument and runs of an isolation."""

from __future__ import annotations

import math
from collections.abc import Mapping
from dataclasses import dataclass, field, replace
from enum import StrEnum
from functools import cached_property

from ohmcensus.core.meter import Function
from ohmcensus.core.quantity import Indication, Interval, parse_indication, with_scale

# A tester that shows nothing at all is taken to mean less than an ohm (ours).
DEAD_SHORT_MEGOHM = 1e-6
# A leak under this share of every limit is far under it (ours).
FAR_UNDER = 0.1


class Method(StrEnum):
    """Which instrument the runs were made with."""

    INSULATION = "insulation"
    LEAKAGE = "leakage"


class Polarity(StrEnum):
    """How the plug sat in a run of a leakage tester; a run of both is one that states none."""

    NORMAL = "normal"
    REVERSED = "reversed"


@dataclass(frozen=True, slots=True)
class LeakyPart:
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
    healthy
        The leak from which it is no healthy part any more though it keeps its limit; infinite where nothing is known.
    rides_with
        Parts that cannot be tested together with others without it: a harness with its loads.
    """

    id: str
    limit: float
    weight: float = 1.0
    minutes: float = 1.0
    behind: str | None = None
    healthy: float = math.inf
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
        False once the protective conductor has failed: then no leak shows where it should.
    is_neutral_earthed
        False on a supply with two live poles or none: leaks of both can cancel, so currents prove nothing.
    former
        Parts among them that are no longer as they were: changed since, kept for the runs made with them.
    is_whole_untested
        Parts were read by themselves and nobody has tested the whole machine yet: that comes first, by rule.
    is_changed
        A part was changed since the whole machine was last tested: that comes first, by rule.
    """

    method: Method
    parts: tuple[LeakyPart, ...]
    runs: tuple[Run, ...]
    panels: Mapping[str, float] = field(default_factory=dict, hash=False)
    open_panels: frozenset[str] = frozenset()
    is_earth_ok: bool = True
    is_neutral_earthed: bool = True
    former: frozenset[str] = frozenset()
    is_changed: bool = False
    is_whole_untested: bool = False

    @property
    def present(self) -> tuple[LeakyPart, ...]:
        """The parts as they are now."""
        return tuple(part for part in self.parts if part.id not in self.former)

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
    def loosely(self) -> tuple[Run, ...]:
        """The runs that count, those far under every limit in them as no more than *at most a tenth of it*.

        Insulation drifts with minutes and with damp: 80 MΩ now and 40 MΩ then are no contradiction where 1 MΩ is asked.
        """
        limits = {part.id: part.limit for part in self.parts}

        def told(run: Run) -> Run:
            least = FAR_UNDER * min((limits[part] for part in run.connected | run.maybe), default=0.0)
            return replace(run, interval=Interval(0.0, least)) if run.interval.hi < least < math.inf else run

        return tuple(told(run) for run in self.counted)

    @property
    def proves_nothing(self) -> bool:
        """Whether no run can prove anything here: the earth has failed, or currents of two live poles may cancel."""
        return not self.is_earth_ok or (self.method is Method.LEAKAGE and not self.is_neutral_earthed)

    @property
    def as_it_is(self) -> Problem:
        """The problem for whoever plans: what a former part was in proves no more than that the others held."""
        if not self.former:
            return self
        runs = tuple(
            run
            if not self.former & (run.connected | run.maybe)
            else replace(
                run,
                connected=run.connected - self.former,
                maybe=run.maybe - self.former,
                interval=Interval(0.0, run.interval.hi),
            )
            for run in self.runs
        )
        kept = tuple(run for run in runs if run.connected or run.maybe)
        return replace(self, parts=self.present, runs=kept, former=frozenset())

    @cached_property
    def place(self) -> dict[str, int]:
        """Place of every part."""
        return {part.id: index for index, part in enumerate(self.parts)}


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
    least, most = max(0.0, megohm.lo - error), max(DEAD_SHORT_MEGOHM, megohm.hi + error)
    return Interval(0.0 if math.isinf(most) else 1 / most, 1 / least if least > 0 else math.inf)


def run_indication(text: str, method: Method, over_range_texts: frozenset[str] = frozenset()) -> Indication:
    """Return what a tester showed, in ohms or amperes; a bare number is in MΩ or mA, as its scale is.

    Parameters
    ----------
    text, method
        As typed, and by which instrument.
    over_range_texts
        What its display writes beyond its range.

    Raises
    ------
    ReadingTextError
        If the text is no reading.
    """
    function = Function.INSULATION if method is Method.INSULATION else Function.LEAKAGE
    typed = with_scale(text, function.scale, over_range_texts)
    return parse_indication(typed, function.unit, over_range_texts=over_range_texts)
