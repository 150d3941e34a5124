"""The state of safety at a moment: worked out from what was logged, never ticked.

What enters and leaves each state, and what a proof of dead is, stands in docs/guide.md ("Making safe").
"""

from __future__ import annotations

from dataclasses import dataclass, field, replace
from datetime import datetime

from ohmcensus.core.event import (
    Attended,
    BypassRemoved,
    Changed,
    Checked,
    ConnectorTicked,
    CutOff,
    EarthLifted,
    EarthRefitted,
    Event,
    HazardFound,
    Isolated,
    Opened,
    ProofMade,
    RecordWithdrawn,
    RunMade,
    Says,
    Shut,
    StepTicked,
    StripBack,
    StripStep,
)
from ohmcensus.core.job.case import Case, Frame
from ohmcensus.core.job.reading import Reading
from ohmcensus.core.judgement.passes import Pass
from ohmcensus.core.safety.after_event import after_event
from ohmcensus.core.safety.after_reading import after_reading, opened
from ohmcensus.core.safety.danger import Found, former, measured, told
from ohmcensus.core.safety.lifting import forbidden_by, needs, relifted
from ohmcensus.core.safety.needs import Need
from ohmcensus.core.safety.series import is_inside
from ohmcensus.core.safety.walk import UNATTENDED, Walk, live_ends, log_of, moment, ticked
from ohmcensus.core.safety.words import Act, DangerId, SafetyState

# What shows that somebody is at the machine, from the device that proved it (SAFETY).
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


@dataclass(frozen=True, slots=True)
class Danger:
    """A danger that stands.

    Parameters
    ----------
    id, words
        Which, and what was found, all its causes together.
    since
        Order of its newest cause.
    forbids
        What it forbids now.
    lifted_by
        The one thing that comes next before it is lifted.
    typed
        What is typed for that, empty where it is no reading.
    needs
        All that is still missing.
    causes
        What opened it, one by one.
    """

    id: DangerId
    words: str
    since: int
    forbids: tuple[Act, ...]
    lifted_by: str
    typed: str
    needs: tuple[Need, ...]
    causes: tuple[Found, ...]

    @property
    def forbids_power(self) -> bool:
        """Whether the machine may not be switched on meanwhile."""
        return Act.POWER in self.forbids


@dataclass(frozen=True, slots=True)
class Safety:
    """Where a job stands at one moment.

    Parameters
    ----------
    state
        What is established about voltage.
    walk
        The log as it was read, all that has lapsed by now taken off.
    at
        When it was proved dead, or when live mode began.
    reason, stays_connected, says
        Of live mode.
    until
        When the state ends by itself, ISO 8601; empty where it does not.
    dangers
        Those that stand, each once.
    bad
        Points of the proof that are not inside their limit.
    """

    state: SafetyState
    walk: Walk
    at: str = ""
    reason: str = ""
    stays_connected: str = ""
    says: tuple[Says, ...] = ()
    until: str = ""
    dangers: tuple[Danger, ...] = ()
    bad: tuple[str, ...] = field(default=())

    @property
    def isolated(self) -> bool:
        """Whether the machine is cut off."""
        return self.walk.cut is not None

    @property
    def cut(self) -> CutOff | None:
        """How it is cut off."""
        return self.walk.cut

    @property
    def points(self) -> dict[str, Reading]:
        """Standing reading of each point of the proof."""
        return dict(self.walk.series.points)

    @property
    def source_before(self) -> Reading | None:
        """The known source as it showed first, of the meter that is in use."""
        tools = list(self.walk.series.tools.values())
        return tools[-1].before if tools else None

    @property
    def lapsed(self) -> str:
        """Why an earlier proof no longer holds, empty where there was none."""
        return self.walk.lapsed

    @property
    def is_shut(self) -> bool:
        """Whether no cover is noted off."""
        return not self.walk.covers

    @property
    def shout(self) -> str:
        """The voltage that was found and not proved gone since, empty where there is none."""
        walk = self.walk
        if not walk.shouts or walk.shouts[-1].order <= max(walk.when("dead"), walk.when("hand"), walk.cut_order):
            return walk.shouts[-1].words if walk.charged and walk.shouts else ""
        return walk.shouts[-1].words

    def danger(self, danger: DangerId) -> Danger | None:
        """Return a danger that stands, None where it does not."""
        return next((row for row in self.dangers if row.id is danger), None)


def walk_of(case: Case) -> Walk:
    """Return the log of a case, read from its beginning."""
    walk = Walk()
    for item in log_of(case):
        if isinstance(item, Frame):
            walk = framed(walk, item)
        else:
            walk = stepped(walk, item, counts=item.id not in case.withdrawn)
    return walk


def stepped(walk: Walk, item: Reading | Event, *, counts: bool = True) -> Walk:
    """Return the walk after one more record; of one that was taken back only the moment counts, and who was there."""
    when = moment(item.at)
    walk = replace(ticked(walk, when), order=item.order, last=when)
    if counts:
        walk = after_reading(walk, item) if isinstance(item, Reading) else after_event(walk, item)
    return relifted(_attended(walk, item, when))


def framed(walk: Walk, frame: Frame) -> Walk:
    """Return the walk after another sheet, complaint or limit came into force.

    A complaint that is no longer made lifts nothing; a limit that is stricter is broken by what was read under the
    looser one.
    """
    before, order = walk.frame, int(frame.order) if frame.order < float("inf") else walk.order
    walk = replace(walk, frame=frame)
    if frame.is_arrival:
        walk = replace(walk.lapsed_by("this job came in from a file", keeps_cut=False), live=None, powered="")
    for found in (*told(frame, before, order), *former(frame, before, order)):
        walk = opened(replace(walk, trip=max(walk.trip, order)) if found.id is DangerId.TRIP else walk, found)
    if before is not None and before.terms != frame.terms:
        for row in walk.latest.values():
            found_now = measured(row, frame.terms)
            if found_now is not None and row.result(before.terms) is not Pass.BAD and _is_machines(row.line):
                walk = opened(walk, found_now)
    return relifted(walk)


def _is_machines(line: str) -> bool:
    return not line.startswith("outlet.")


def at_present(walk: Walk, case: Case) -> Walk:
    """Return the walk with the frame that holds now, where the setup has moved on since the last record."""
    frame = walk.frame
    now = case.present
    if frame is not None and frame.terms == now.terms and frame.complaint == now.complaint:
        return walk
    return framed(walk, now)


def safety_at(case: Case, now: datetime, walk: Walk | None = None) -> Safety:
    """Return the state of safety at a moment.

    Parameters
    ----------
    case
        Sheet, readings and events.
    now
        The moment, with its time zone.
    walk
        Its log as it was read before, where that is at hand.
    """
    walk = ticked(at_present(walk_of(case) if walk is None else walk, case), now)
    found = _state(walk)
    return replace(found, dangers=_dangers(walk), bad=_bad(walk))


def _state(walk: Walk) -> Safety:
    if walk.live is not None:
        body = walk.live.body
        return Safety(
            SafetyState.LIVE,
            walk,
            at=walk.live.at,
            reason=body.reason,
            stays_connected=body.stays_connected,
            says=body.says,
            until=_iso(live_ends(walk.live)),
        )
    if walk.powered:
        return Safety(SafetyState.UNDER_VOLTAGE, walk, reason=walk.powered)
    if walk.proved is not None and walk.cut is not None:
        return Safety(SafetyState.DEAD, walk, at=walk.proved.at, until=_iso(_lapses(walk)))
    return Safety(SafetyState.NOT_PROVED, walk, until=_iso(_lapses(walk)) if walk.series.tools and walk.cut else "")


def _lapses(walk: Walk) -> datetime | None:
    ends = [when + UNATTENDED for when in (walk.attended,) if when is not None]
    if walk.cut is CutOff.SWITCHED_OFF and walk.cut_at is not None:
        ends.append(walk.cut_at + UNATTENDED)
    return min(ends, default=None)


def _dangers(walk: Walk) -> tuple[Danger, ...]:
    """Return the dangers that stand, those of one kind together, in the order of their kinds."""
    found = []
    for danger in DangerId:
        causes = tuple(row for row in walk.found if row.id is danger)
        if causes:
            found.append(_danger(danger, causes, walk))
    return tuple(found)


def _danger(danger: DangerId, causes: tuple[Found, ...], walk: Walk) -> Danger:
    missing = tuple(dict.fromkeys(need for row in causes for need in needs(row, walk)))
    said = [row.words for row in causes if row.words]
    goes = "; it read good since, with no change: it comes and goes" if all(r.is_intermittent for r in causes) else ""
    words = (f"{danger.words}: {'; '.join(said)}" if said else danger.words) + goes
    first = missing[0] if missing else Need("change the part, or read it good three times in a row")
    forbids = tuple(act for act in Act if any(act in forbidden_by(row, walk) for row in causes))
    return Danger(danger, words, max(row.since for row in causes), forbids, first.words, first.typed, missing, causes)


def _bad(walk: Walk) -> tuple[str, ...]:
    sheet = walk.terms.sheet
    return tuple(name for name, row in walk.series.points.items() if not is_inside(row, sheet))


def _attended(walk: Walk, item: Reading | Event, when: datetime) -> Walk:
    """Return the walk with the prover attending, where the record is one that shows it."""
    body = item.body if isinstance(item, Event) else None
    if body is not None and not isinstance(body, _ATTENDS):
        return walk
    is_still_here = isinstance(body, Attended)
    if is_still_here and item.who == walk.prover_who:
        walk = replace(walk, prover=item.device)
    if item.device != walk.prover:
        return walk
    walk = replace(walk, attended=when, is_hands_off=walk.is_hands_off and is_still_here)
    return replace(walk, hand_at=when) if body is None else walk


def _iso(when: datetime | None) -> str:
    return "" if when is None else when.isoformat(timespec="seconds").replace("+00:00", "Z")
