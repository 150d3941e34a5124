"""The state of safety at a moment: worked out from what was logged, never ticked.

What enters and leaves each state, and what a proof of dead is, stands in docs/guide.md ("Making safe").
"""

from __future__ import annotations

from dataclasses import dataclass, field, replace
from datetime import datetime

from ohmcensus.core.acts import Act, ActId, go
from ohmcensus.core.event import CutOff, Event, Says
from ohmcensus.core.job.case import Case, Frame
from ohmcensus.core.job.reading import Reading
from ohmcensus.core.judgement.passes import Pass
from ohmcensus.core.machine.dead_tests import points
from ohmcensus.core.safety.after_event import after_event, struck
from ohmcensus.core.safety.after_reading import after_reading
from ohmcensus.core.safety.clock import UNATTENDED, arrived, moment
from ohmcensus.core.safety.danger import FORMER, Found, former, former_line, told
from ohmcensus.core.safety.forbidding import forbidden_by
from ohmcensus.core.safety.hands import attended
from ohmcensus.core.safety.lifted_by import arrester_missing, needs
from ohmcensus.core.safety.lifting import is_lifted_on, relifted, reopened
from ohmcensus.core.safety.measured import measured
from ohmcensus.core.safety.needs import Need
from ohmcensus.core.safety.opening import forbidden_anew, opened
from ohmcensus.core.safety.series import is_inside
from ohmcensus.core.safety.stretch import stretched
from ohmcensus.core.safety.walk import Walk, log_of
from ohmcensus.core.safety.words import DangerId, Forbidden, SafetyState


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
    act
        The way to that.
    typed, look
        What is typed for that, and the look that is answered, each empty where it is none.
    needs
        All that is still missing.
    causes
        What opened it, one by one.
    """

    id: DangerId
    words: str
    since: int
    forbids: tuple[Forbidden, ...]
    lifted_by: str
    act: Act
    typed: str
    needs: tuple[Need, ...]
    causes: tuple[Found, ...]
    look: str = ""

    @property
    def forbids_power(self) -> bool:
        """Whether the machine may not be switched on meanwhile."""
        return Forbidden.POWER in self.forbids


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
            walk = stepped(walk, item, counts=item.id not in case.withdrawn, is_struck=item.id in case.struck)
    return walk


def stepped(walk: Walk, item: Reading | Event, *, counts: bool = True, is_struck: bool = False) -> Walk:
    """Return the walk after one more record.

    Parameters
    ----------
    walk
        The log as read so far.
    item
        The record.
    counts
        Whether it was not taken back; of one that was only the moment counts, and who was there.
    is_struck
        Whether it was taken back too late to have never been: what it voided stays void.
    """
    walk = before = replace(arrived(walk, moment(item.at)), order=item.order)
    if counts:
        walk = after_reading(walk, item) if isinstance(item, Reading) else after_event(walk, item)
    elif is_struck and isinstance(item, Event):
        walk = struck(walk, item)
    return stretched(attended(forbidden_anew(before, relifted(walk)), item))


def framed(walk: Walk, frame: Frame) -> Walk:
    """Return the walk after another sheet, complaint or limit came into force.

    A complaint that is no longer made lifts nothing; a limit that is stricter is broken by what was read under the
    looser one, and opens anew what was lifted by less. A proof of dead stands only where every point of the sheet that
    holds now was in its series.
    """
    was, before, order = walk, walk.frame, int(frame.order) if frame.order < float("inf") else walk.order
    walk = _with_sheet(replace(walk, frame=frame), before)
    if frame.is_arrival:
        walk = replace(walk.lapsed_by("this job came in from a file", keeps_cut=False), live=None, live_until=None)
        walk = replace(walk, powered="", hands={}, provers=frozenset(), discharged=frozenset())
    gone = {(row.id, former_line(row)) for row in (before.former if before else ()) if row not in frame.former}
    if gone:
        walk = replace(walk, found=tuple(row for row in walk.found if not _is_gone(row, gone)))
    for found in (*told(frame, before, order), *former(frame, before, order)):
        walk = opened(replace(walk, trip=max(walk.trip, order)) if found.id is DangerId.TRIP else walk, found)
    if before is not None and before.terms != frame.terms:
        walk = _on_new_terms(walk, before)
    return stretched(forbidden_anew(was, relifted(walk)))


def _is_gone(row: Found, gone: set[tuple[str, str]]) -> bool:
    """Tell whether a danger was brought by a serial number that was put right."""
    return row.is_former and (
        (row.id.value, row.line) in gone or (row.line == FORMER and (row.id.value, FORMER) in gone)
    )


def _with_sheet(walk: Walk, before: Frame | None) -> Walk:
    """Return the walk after another sheet: dead only where its points were all in the series, the cut-off stands.

    A series that would have been short is whole again where the sheet asks a point that the one before did not.
    """
    if before is None or before.sheet == walk.terms.sheet:
        return walk
    if walk.proved is None:
        asks_more = {row.id for row in points(walk.terms.sheet)} - {row.id for row in points(before.sheet)}
        whole = replace(walk.series, is_short=False)
        return replace(walk, may_be_short=False, series=whole) if asks_more else walk
    if walk.series.holds_all(walk.terms.sheet):
        return walk
    return replace(walk, proved=None, may_be_short=False, lapsed="another sheet asks a point that was not read")


def _on_new_terms(walk: Walk, before: Frame) -> Walk:
    """Return the walk with what the terms of now open that those of before did not, and open anew."""
    terms = walk.terms
    for answers in walk.rows.values():
        row = answers[-1] if answers else None
        if row is None or row.line.startswith("outlet.") or row.result(before.terms) is Pass.BAD:
            continue
        found = measured(row, terms)
        if found is not None:
            walk = opened(walk, found)
    of_machine = (row for row in walk.lifted if row.found.id is not DangerId.LIVE_THOUGH_FORBIDDEN)
    back = tuple(row for row in of_machine if not is_lifted_on(row, walk))
    walk = replace(walk, lifted=tuple(row for row in walk.lifted if row not in back))
    for lifted in back:
        walk = reopened(walk, replace(lifted.found, anew=(*lifted.found.anew, terms)))
    return walk


def at_present(walk: Walk, case: Case) -> Walk:
    """Return the walk with the frame that holds now, where the setup has moved on since the last record.

    A job that has ended keeps the terms that it ended on.
    """
    frame = walk.frame
    now = case.present
    if case.ended is not None and frame is not None:
        return walk
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
    walk = arrived(at_present(walk_of(case) if walk is None else walk, case), now)
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
            until=_iso(walk.live_until),
        )
    if walk.powered:
        return Safety(SafetyState.UNDER_VOLTAGE, walk, reason=walk.powered)
    if walk.proved is not None and walk.cut is not None:
        return Safety(SafetyState.DEAD, walk, at=walk.proved.at, until=_iso(_lapses(walk)))
    return Safety(SafetyState.NOT_PROVED, walk, until=_iso(_lapses(walk)) if walk.series.tools and walk.cut else "")


def _lapses(walk: Walk) -> datetime | None:
    ends = [when + UNATTENDED for when in (walk.attended,) if when is not None]
    if walk.cut is CutOff.SWITCHED_OFF and walk.off_since is not None:
        ends.append(walk.off_since + UNATTENDED)
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
    titles = {row.title for row in causes}
    title = titles.pop() if len(titles) == 1 else danger.words
    goes = "; it read good since, with no change: it comes and goes" if all(r.is_intermittent for r in causes) else ""
    words = (f"{title}: {'; '.join(said)}" if said else title) + goes
    of_arrester = (need for row in causes for need in arrester_missing(row, walk))
    first = missing[0] if missing else next(of_arrester, _THREE)
    forbids = tuple(act for act in Forbidden if any(act in forbidden_by(row, walk) for row in causes))
    return Danger(
        danger,
        words,
        max(row.since for row in causes),
        forbids,
        first.words,
        first.act,
        first.typed,
        missing,
        causes,
        first.look,
    )


_THREE = Need(
    "change the part, or measure it good three times in a row, a minute apart",
    go(ActId.MEASURE, "Measure it again", "trace"),
)


def _bad(walk: Walk) -> tuple[str, ...]:
    sheet = walk.terms.sheet
    asked = {test.id for test in points(sheet)}
    return tuple(name for name, row in walk.series.points.items() if name in asked and not is_inside(row, sheet))


def _iso(when: datetime | None) -> str:
    return "" if when is None else when.isoformat(timespec="seconds").replace("+00:00", "Z")
