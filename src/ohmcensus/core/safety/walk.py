"""The log of a job, read from its beginning: where the state of safety and the dangers stand after each record.

A walk is a value; one record more gives the next one. Nothing of it is stored: it is worked out anew from the log,
and kept at hand only so that one more record costs one more step.
"""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from dataclasses import dataclass, field, replace
from datetime import datetime

from ohmcensus.core.event import CircuitNoted, CutOff, Event, LiveBegun, ProofMade, RunWatched, StripStep
from ohmcensus.core.job.case import Case, Frame
from ohmcensus.core.job.reading import Reading
from ohmcensus.core.limits.terms import Terms
from ohmcensus.core.safety.danger import Found
from ohmcensus.core.safety.evidence import Evidence, standing_good
from ohmcensus.core.safety.series import Series
from ohmcensus.core.safety.words import Forbidden


@dataclass(frozen=True, slots=True)
class Shout:
    """What is told out loud: a voltage where none should be, or work under voltage; when, and in words."""

    order: int
    at: str
    words: str


@dataclass(frozen=True, slots=True)
class Marks:
    """Orders of the last records that void something that was shown before.

    Parameters
    ----------
    own
        By part: its change, its earth off or back, its own plugs and fixings off or back.
    changed
        By part: replaced or mended, its lines stay asked; also where that was taken back too late.
    mended
        By part: replaced or mended, and not taken back: only that mends anything.
    earths
        By part: its earth off or back.
    change, cover, plug, lead, earth, strap
        The last of each, of any part; a lead is a plug whose going off or back voids the insulation, a strap is a
        cover that carries an earth.
    ends
        The ends of the cord off their terminals, or back.
    hazard
        The last shock, trip, smell or water; nought where there was none.
    """

    own: Mapping[str, int] = field(default_factory=dict)
    changed: Mapping[str, int] = field(default_factory=dict)
    mended: Mapping[str, int] = field(default_factory=dict)
    earths: Mapping[str, int] = field(default_factory=dict)
    change: int = 0
    cover: int = 0
    plug: int = 0
    lead: int = 0
    earth: int = 0
    strap: int = 0
    ends: int = 0
    hazard: int = 0

    @property
    def whole(self) -> int:
        """From here on what shows the whole machine counts."""
        return max(self.change, self.plug, self.earth)

    @property
    def last_mended(self) -> int:
        """The last change of any part that stands."""
        return max(self.mended.values(), default=0)

    @property
    def insulation(self) -> int:
        """From here on the insulation of the whole machine counts."""
        return max(self.change, self.lead, self.earth)

    @property
    def bond(self) -> int:
        """From here on the earth of the whole machine counts."""
        return max(self.whole, self.strap)

    @property
    def seen(self) -> int:
        """From here on a look at it counts."""
        return max(self.whole, self.cover)

    @property
    def function(self) -> int:
        """From here on a run counts."""
        return max(self.change, self.plug)


@dataclass(frozen=True, slots=True)
class Stretch:
    """The last time that the machine stood under voltage.

    Parameters
    ----------
    begun, ended
        Orders of the records that began and ended it; None while it lasts.
    forbidden
        What dangers that stood meanwhile forbade.
    has_contact
        Whether a contact was known to be closed meanwhile: no run shows function then.
    """

    begun: int
    ended: int | None = None
    forbidden: frozenset[Forbidden] = frozenset()
    has_contact: bool = False


@dataclass(frozen=True, slots=True)
class Lifted:
    """A danger that was lifted, and what it was lifted by.

    Parameters
    ----------
    found
        The danger.
    by
        Ids of the records that did it.
    at
        Where the job stood when it was lifted: by this it is seen whether stricter terms open it anew.
    """

    found: Found
    by: frozenset[str]
    at: Walk


@dataclass(frozen=True, slots=True)
class Walk:
    """Where a job stands after some of its records.

    Parameters
    ----------
    frame
        Sheet, complaint and limits that hold.
    order, last
        Place of the last record; the latest moment in the log, from which minutes run.
    provers, prover_who, attended
        Devices that proved it or are about to; the name that belongs to the last one; when one of them last wrote
        something down.
    hands
        Devices that may have hands in the machine, from a whole proof on: when each last wrote something down.
    powered
        Why it counts as under voltage, empty where it does not.
    live, live_until
        Live mode that is declared, and when it ends by itself.
    stretch
        The last time under voltage, None where there was none.
    cut, cut_at, cut_order, cut_by, cut_seen, has_gap
        How, when and where in the log it was cut off, None where it is not; the device that told it; when that device
        last wrote something down, and whether it was silent for too long since.
    off_since
        When it was first switched off without a lock since the last power.
    series, proved, is_over, charged, lapsed, may_be_short
        The proof of dead: its series; the reading that closed it; whether a point was over its limit since the last
        whole series; charges that were found, and when; why an earlier proof is gone; whether a short series will do.
    discharged
        Charges that were read at most 10 V DC since the last power.
    reasons
        Reasons that were given for a reading before the proof, each once.
    hand_meter, is_hand_proved, is_hand_charged, hand_at
        The same for the pulled plug in the hand.
    covers, steps, earths, over
        Covers that are off; steps of the strip-down with plugs off, by the id of their record; earths off, by part:
        when, and when back; parts whose wires are said to be insulated and tied away.
    rows
        Every answer to a line that was not taken back, oldest first.
    found, lifted
        Dangers that stand; those that were lifted.
    closed
        Dangers that were noted in error, with whose word that is and why.
    marks
        What voids what was shown.
    watched, made
        Last run that counts; last record of each criterion of the proof.
    trip, reclosed
        Orders of the last trip and of the last re-close.
    outs
        Orders at which a bypass was taken out, a place noted, a proof of dead reached, and the like.
    shouts
        What was told out loud.
    circuit
        Circuit of the house as last written down.
    """

    frame: Frame | None = None
    order: int = 0
    last: datetime | None = None
    provers: frozenset[str] = frozenset()
    prover_who: str = ""
    attended: datetime | None = None
    hands: Mapping[str, datetime] = field(default_factory=dict)
    powered: str = ""
    live: Event[LiveBegun] | None = None
    live_until: datetime | None = None
    stretch: Stretch | None = None
    cut: CutOff | None = None
    cut_at: datetime | None = None
    cut_order: int = 0
    cut_by: str = ""
    cut_seen: datetime | None = None
    has_gap: bool = False
    off_since: datetime | None = None
    series: Series = field(default_factory=Series)
    proved: Reading | None = None
    is_over: bool = False
    charged: Mapping[str, datetime] = field(default_factory=dict)
    discharged: frozenset[str] = frozenset()
    reasons: frozenset[str] = frozenset()
    lapsed: str = ""
    may_be_short: bool = False
    hand_meter: str = ""
    is_hand_proved: bool = False
    is_hand_charged: bool = False
    hand_at: datetime | None = None
    covers: frozenset[str] = frozenset()
    steps: Mapping[str, StripStep] = field(default_factory=dict)
    earths: Mapping[str, tuple[int, int | None]] = field(default_factory=dict)
    over: frozenset[str] = frozenset()
    rows: Mapping[str, tuple[Evidence, ...]] = field(default_factory=dict)
    found: tuple[Found, ...] = ()
    lifted: tuple[Lifted, ...] = ()
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
    def now(self) -> datetime:
        """The latest moment in the log; a walk in which something was written has one."""
        assert self.last is not None  # noqa: S101 - set before any record is looked at
        return self.last

    @property
    def is_live(self) -> bool:
        """Whether live mode is declared."""
        return self.live is not None

    @property
    def is_under_power(self) -> bool:
        """Whether it stands under voltage, declared or not."""
        return self.is_live or bool(self.powered)

    @property
    def plugs_off(self) -> frozenset[str]:
        """Plugs that are noted off."""
        return frozenset(plug for step in self.steps.values() for plug in step.plugs)

    @property
    def earths_off(self) -> tuple[str, ...]:
        """Parts whose earth is noted off."""
        return tuple(part for part, (_, back) in self.earths.items() if back is None)

    def latest(self, line: str) -> Evidence | None:
        """Return the last answer to a line, None where there is none."""
        found = self.rows.get(line, ())
        return found[-1] if found else None

    def goods(self, line: str) -> tuple[Evidence, ...]:
        """Return the answers that say in a row that a line keeps its limit, oldest first."""
        return standing_good(self.rows.get(line, ()))

    def powered_by(self, why: str) -> Walk:
        """Return the walk of a machine that stands under voltage: no proof and no cut-off outlives it."""
        had = self.proved is not None or self.cut is not None
        return replace(
            self._without_proof(),
            powered=why,
            live=None,
            live_until=None,
            cut=None,
            off_since=None,
            provers=frozenset(),
            discharged=frozenset(),
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
        return replace(self, series=Series(), proved=None, hand_meter="", is_hand_proved=False, is_hand_charged=False)

    def marked(self, name: str) -> Walk:
        """Return the walk with the place of a record kept under a name."""
        return replace(self, outs={**self.outs, name: self.order})

    def when(self, name: str) -> int:
        """Return the place at which something was last written down, -1 where it never was."""
        return self.outs.get(name, -1)

    def shouted(self, at: str, words: str) -> Walk:
        """Return the walk with something told out loud."""
        return replace(self, shouts=(*self.shouts, Shout(self.order, at, words)))


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
