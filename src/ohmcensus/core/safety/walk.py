"""The log of a job, read from its beginning: where the state of safety and the dangers stand after each record.

A walk is a value; one record more gives the next one. Nothing of it is stored: it is worked out anew from the log,
and kept at hand only so that one more record costs one more step.
"""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from dataclasses import dataclass, field, replace
from datetime import UTC, datetime, timedelta

from ohmcensus.core.event import CircuitNoted, CutOff, Event, LiveBegun, ProofMade, RunWatched, StripStep
from ohmcensus.core.job.case import Case, Frame
from ohmcensus.core.job.reading import Reading
from ohmcensus.core.limits.terms import Terms
from ohmcensus.core.safety.danger import Found
from ohmcensus.core.safety.evidence import Evidence
from ohmcensus.core.safety.series import Series

# Ours: whoever works at a machine writes something down at least this often.
UNATTENDED = timedelta(minutes=10)
# A clock that was set back by more than this makes every moment doubtful (our choice).
CLOCK_SLACK = timedelta(seconds=90)


@dataclass(frozen=True, slots=True)
class Shout:
    """A voltage that was found where none should be: when, and where how much."""

    order: int
    at: str
    words: str


@dataclass(frozen=True, slots=True)
class Marks:
    """Orders of the last records that void something that was shown before.

    Parameters
    ----------
    own
        By part: its change, its earth off or back, its own plugs off or back.
    changed
        By part: replaced or mended.
    earths
        By part: its earth off or back.
    change, cover, plug, earth
        The last of each, of any part.
    hazard
        The last shock, trip, smell or water; nought where there was none.
    """

    own: Mapping[str, int] = field(default_factory=dict)
    changed: Mapping[str, int] = field(default_factory=dict)
    earths: Mapping[str, int] = field(default_factory=dict)
    change: int = 0
    cover: int = 0
    plug: int = 0
    earth: int = 0
    hazard: int = 0

    @property
    def whole(self) -> int:
        """From here on what shows the whole machine counts."""
        return max(self.change, self.cover, self.plug, self.earth)

    @property
    def function(self) -> int:
        """From here on a run counts."""
        return max(self.change, self.plug, self.earth)


@dataclass(frozen=True, slots=True)
class Walk:
    """Where a job stands after some of its records.

    Parameters
    ----------
    frame
        Sheet, complaint and limits that hold.
    order, last
        Place and moment of the last record.
    attended, prover, prover_who, is_hands_off
        When the prover last wrote something down; the prover's device and name; whether the hands are off.
    powered
        Why it counts as under voltage, empty where it does not.
    live
        Live mode that is declared.
    cut, cut_at, cut_order
        How and when it was cut off, None where it is not.
    series, proved, is_over, charged, lapsed, may_be_short
        The proof of dead: its series; the reading that closed it; whether a point was over its limit since the last
        whole series; charges that were found, and when; why an earlier proof is gone; whether a short series will do.
    hand_meter, is_hand_proved, is_hand_charged, hand_at
        The same for the pulled plug in the hand.
    covers, steps, earths
        Covers that are off; steps of the strip-down with plugs off, by the id of their record; earths off, by part:
        when, and when back.
    good, row
        Last answer of each line that kept its limit and was not followed by one that did not; how many in a row.
    latest
        Last answer of each line.
    found, lifted
        Dangers that stand; those that were lifted, with the records that did it.
    closed
        Dangers that were noted in error, with whose word that is and why.
    marks
        What voids what was shown.
    watched, made
        Last run that counts; last record of each criterion of the proof.
    trip, reclosed, is_trip_told
        Orders of the last trip and of the last re-close.
    outs
        Orders at which a bypass was taken out, a place noted, a proof of dead reached, and the like.
    shouts
        Voltages found.
    circuit
        Circuit of the house as last written down.
    """

    frame: Frame | None = None
    order: int = 0
    last: datetime | None = None
    attended: datetime | None = None
    prover: str = ""
    prover_who: str = ""
    is_hands_off: bool = False
    powered: str = ""
    live: Event[LiveBegun] | None = None
    cut: CutOff | None = None
    cut_at: datetime | None = None
    cut_order: int = 0
    series: Series = field(default_factory=Series)
    proved: Reading | None = None
    is_over: bool = False
    charged: Mapping[str, datetime] = field(default_factory=dict)
    lapsed: str = ""
    may_be_short: bool = False
    hand_meter: str = ""
    is_hand_proved: bool = False
    is_hand_charged: bool = False
    hand_at: datetime | None = None
    covers: frozenset[str] = frozenset()
    steps: Mapping[str, StripStep] = field(default_factory=dict)
    earths: Mapping[str, tuple[int, int | None]] = field(default_factory=dict)
    good: Mapping[str, Evidence] = field(default_factory=dict)
    row: Mapping[str, int] = field(default_factory=dict)
    latest: Mapping[str, Evidence] = field(default_factory=dict)
    found: tuple[Found, ...] = ()
    lifted: tuple[tuple[Found, frozenset[str]], ...] = ()
    closed: tuple[tuple[Found, str], ...] = ()
    marks: Marks = field(default_factory=Marks)
    watched: Event[RunWatched] | None = None
    made: Mapping[str, Event[ProofMade]] = field(default_factory=dict)
    trip: int = -1
    reclosed: int = -1
    outs: Mapping[str, int] = field(default_factory=dict)
    shouts: tuple[Shout, ...] = ()
    circuit: CircuitNoted | None = None

    @property
    def terms(self) -> Terms:
        """The terms that hold; a walk that has begun has a frame."""
        assert self.frame is not None  # noqa: S101 - the first thing in every log
        return self.frame.terms

    @property
    def is_live(self) -> bool:
        """Whether live mode is declared."""
        return self.live is not None

    @property
    def plugs_off(self) -> frozenset[str]:
        """Plugs that are noted off."""
        return frozenset(plug for step in self.steps.values() for plug in step.plugs)

    def powered_by(self, why: str) -> Walk:
        """Return the walk of a machine that stands under voltage: no proof and no cut-off outlives it."""
        had = self.proved is not None or self.cut is not None
        return replace(
            self._without_proof(),
            powered=why,
            live=None,
            cut=None,
            may_be_short=False,
            lapsed=why if had else self.lapsed,
        )

    def lapsed_by(self, why: str, *, keeps_cut: bool) -> Walk:
        """Return the walk after a proof has lapsed; the cut-off may stand."""
        was_whole = self.proved is not None and keeps_cut
        return replace(
            self._without_proof(),
            cut=self.cut if keeps_cut else None,
            lapsed=why,
            may_be_short=(was_whole or self.may_be_short) and keeps_cut and not self.is_over,
        )

    def _without_proof(self) -> Walk:
        return replace(
            self,
            series=Series(),
            proved=None,
            hand_meter="",
            is_hand_proved=False,
            is_hand_charged=False,
            is_hands_off=False,
        )

    def marked(self, name: str) -> Walk:
        """Return the walk with the place of a record kept under a name."""
        return replace(self, outs={**self.outs, name: self.order})

    def when(self, name: str) -> int:
        """Return the place at which something was last written down, -1 where it never was."""
        return self.outs.get(name, -1)


def live_ends(event: Event[LiveBegun]) -> datetime:
    """Return the moment at which a declared live mode ends by itself."""
    return moment(event.at) + timedelta(minutes=event.body.minutes)


def settles_at(walk: Walk) -> datetime:
    """Return the moment from which on the clock alone changes nothing any more."""
    return max(_ends(walk), default=datetime.min.replace(tzinfo=UTC)) + timedelta(seconds=1)


def next_change(walk: Walk, now: datetime) -> datetime | None:
    """Return the next moment at which the clock alone may change something, None where it never does."""
    return min((end for end in _ends(walk) if end > now), default=None)


def _ends(walk: Walk) -> list[datetime]:
    ends = [when + UNATTENDED for when in (walk.attended, walk.cut_at, walk.hand_at, walk.last) if when is not None]
    return [*ends, live_ends(walk.live)] if walk.live is not None else ends


def moment(at: str) -> datetime:
    """Return a stored moment."""
    return datetime.fromisoformat(at)


def ticked(walk: Walk, when: datetime) -> Walk:
    """Return the walk at a moment: what has lapsed by then, and whether the clock was set back."""
    if walk.last is None:
        return walk
    if when < walk.last - CLOCK_SLACK:
        if walk.live is not None:
            return walk.powered_by("the clock was set back in live mode")
        keeps = walk.cut is not CutOff.PLUG_IN_HAND
        return walk.lapsed_by("the clock was set back", keeps_cut=keeps) if walk.cut else walk
    if walk.live is not None:
        return walk.powered_by("live mode ended after its time") if when >= live_ends(walk.live) else walk
    return _unattended(walk, when)


def _unattended(walk: Walk, when: datetime) -> Walk:
    if walk.cut is CutOff.SWITCHED_OFF and walk.cut_at is not None and when - walk.cut_at > UNATTENDED:
        return walk.lapsed_by("ten minutes switched off without a lock", keeps_cut=False)
    if walk.cut is CutOff.PLUG_IN_HAND and walk.hand_at is not None and when - walk.hand_at > UNATTENDED:
        return walk.lapsed_by("ten minutes without a reading, plug in hand", keeps_cut=False)
    has_begun = walk.proved is not None or bool(walk.series.tools)
    if has_begun and walk.attended is not None and when - walk.attended > UNATTENDED:
        return walk.lapsed_by("ten minutes unattended", keeps_cut=True)
    return walk


def log_of(case: Case) -> Iterator[Frame | Reading | Event]:
    """Yield frames, readings and events of a case in the order in which they came."""
    frames = case.frames or (replace(case.present, order=0),)
    both: list[Reading | Event] = sorted([*case.readings, *case.events], key=lambda item: item.order)
    waiting = list(frames)
    for item in both:
        while waiting and waiting[0].order <= item.order:
            yield waiting.pop(0)
        yield item
    yield from waiting
