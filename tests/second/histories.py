"""Random histories of a job, told to the core and to the second definition alike."""

from __future__ import annotations

from dataclasses import dataclass, field, replace
from datetime import timedelta

from ohmcensus.core.errors import OhmcensusError
from ohmcensus.core.event import (
    Body,
    Ended,
    Event,
    RecordWithdrawn,
    RunDoubted,
    RunMade,
    StripBack,
)
from ohmcensus.core.job.case import Case
from ohmcensus.core.job.former import FormerDanger
from ohmcensus.core.job.reading import Reading
from ohmcensus.core.limits.profile import BUILT_IN
from ohmcensus.core.meter import GENERIC_METERS
from ohmcensus.core.proof.sign_off import refuse_sign_off
from ohmcensus.core.safety import Safety, Walk, admitted, may, refuse_event, safety_at, stepped, walk_of
from ohmcensus.core.trip.of_case import leaky_parts
from ohmcensus.core.trip.problem import Method
from ohmcensus.services.at_hand.sheets import find_sheet
from tests.core.case_of import START, Log
from tests.second import log as known
from tests.second.acts import ACTS, ALWAYS, BACK, LATER, LEAKS
from tests.second.admits import refuses
from tests.second.answers import MILD, has_arrester, is_earth_off, is_lead_off, is_out
from tests.second.dangers import standing
from tests.second.forbidden import is_live_though_forbidden
from tests.second.log import Said, decided
from tests.second.machine import DIRECT, LINES, TERMS, is_known, terms
from tests.second.opens import FORMER
from tests.second.rules import event_of
from tests.second.sign import currents, is_said_of
from tests.second.state import coarse, state

CREEP = timedelta(seconds=60)
FRAMES = (*TERMS, *FORMER)
OVERRIDES = [f"{word} is out and lies before me" for word in ("plug", "cord", "pin", "lead", "fork")]
LETTERS = {"dead": "D", "not_proved": "N", "under_voltage": "U", "live": "L"}
# Lines of which a bad figure is among the readings.
_TURNS_BAD = frozenset(line for line, bad in LINES.values() if bad == 2)
UNDONE = frozenset({"heater replaced", "cord replaced", "lock replaced", "tags off", "tags back"})


class Numbered(Log):
    """A log in which what comes into force takes a revision of its own."""

    def _next(self) -> int:
        return super()._next() + len(self.case.frames) - 1


def is_current(act: str) -> bool:
    """Tell whether an act is a current that is measured at the proof."""
    return act.removesuffix(" before") in {"current", "turned", "touch"}


def _order(row: Reading | Event) -> float:
    return row.order


def causes_of(log: known.Log) -> set[tuple[str, str, int, bool]]:
    """Return the causes that stand, each by its place."""
    return {(row.id, row.by, row.place, row.is_former) for row in standing(log)}


@dataclass
class History:
    """A history that grows by one act after another; each is told to both where the core accepts it.

    A refused act is kept all the same where it is told as from a file, marked as an import marks it.
    """

    log: Log = field(init=False)
    walk: Walk = field(init=False)
    said: list[Said] = field(default_factory=list)
    ids: list[str] = field(default_factory=list)
    parted: list[str] = field(default_factory=list)

    def __post_init__(self) -> None:
        known.begin()
        self.log = Numbered(find_sheet("fl7-u"))
        self.log.now = START
        self.log.case = replace(self.log.case, frames=(replace(self.log.case.present, order=0),))
        self.walk = walk_of(self.log.case)

    @property
    def case(self) -> Case:
        return self.log.case

    @property
    def past(self) -> known.Log:
        return tuple(self.said)

    @property
    def safety(self) -> Safety:
        return safety_at(self.case, self.log.now, self.walk)

    def wait(self, seconds: int) -> None:
        self.log.now += timedelta(seconds=seconds)

    def creep(self) -> None:
        """Let the clock creep back, by less than sets it back."""
        latest = known.clock(self.past)[-1][0] if self.said else self.log.now
        self.log.now = max(self.log.now - CREEP, latest - CREEP)

    def tell(self, act: str, *, device: str = "", override: bool = False, from_file: bool = False) -> None:
        """Let something happen a second later on a device, if the core admits it; the definition is asked too."""
        self.log.now += timedelta(seconds=1)
        if act in FRAMES:
            self._frame(act)
            return
        target = self._target(act)
        what = self._named(act, target)
        if (act in LATER and target is None) or not self._can_be(what):
            return
        reason = OVERRIDES[len(self.said) % len(OVERRIDES)] if override else ""
        record = Said(what, self.log.now, device, reason, target if act in BACK else None)
        wanted = "" if act in ALWAYS else refuses(self.past, record)
        before, why, is_overridden = self.case, "", False
        try:
            is_overridden = self._told(act, what, device, reason, target)
        except OhmcensusError as error:
            self.log.case, why = before, str(error)
        if act == "undo" and why:
            return
        if wanted:
            decided(wanted)
        if bool(why) != bool(wanted):
            self.parted.append(f"{len(self.said)}: {what} on '{device}': core '{why}', definition '{wanted}'")
        if why and from_file:
            self._kept(act, what, device, target, why)
            decided("17 a record from a file that would be refused")
        if not why or from_file:
            self._written(replace(record, reason=reason if is_overridden else "", is_refused=bool(why)))

    def _can_be(self, what: str) -> bool:
        """Tell whether something can be told as the history stands: what cannot be is not for safety to refuse."""
        log = self.past
        column = coarse(log, self.log.now)
        match what:
            case "tags off":
                return not is_out(log, "tags off", "tags back")
            case _ if is_current(what):
                is_asked = what.removesuffix(" before") in currents(log)
                return is_asked and (column != "N" or what.endswith(" before"))
            case "drum":
                return column == "N"
            case "lead off":
                return has_arrester(log) and not is_lead_off(log)
            case "ended safe":
                return is_said_of(log)
        return what in ACTS or what in LEAKS or what in LATER or self._is_on_sheet(what)

    def _written(self, said: Said) -> None:
        """Write the newest record down for the definition too, and hold both against each other."""
        rows: list[Reading | Event] = [*self.case.events, *self.case.readings]
        last = max(rows, key=_order)
        is_undo = isinstance(last, Event) and isinstance(last.body, RecordWithdrawn)
        self.walk = walk_of(self.case) if is_undo else stepped(self.walk, last)
        self.ids.append(last.id)
        self.said.append(said)
        self._count()
        self._compare()

    def _compare(self) -> None:
        """Hold state and dangers of the core against the definition's, after each record."""
        difference = self.standing_differs()
        if difference:
            self.parted.append(f"after {len(self.said)}: {difference}")

    def _count(self) -> None:
        """Count the row of the newest record, and what it opened and lifted."""
        log, before = self.past, self.past[:-1]
        newest = log[-1]
        takes_back = newest.back is not None and newest.what != "doubt"
        decided(event_of(newest.what, takes_back=takes_back) or "event figure")
        now, was = causes_of(log), causes_of(before)
        for name, _, place, _ in now - was:
            decided(f"{name}: {'opens' if place == len(log) - 1 else 'opens anew'}")
        for name, by, _, is_former in was - now:
            decided(f"{name}: lifted")
            if is_former and by == "former":
                decided("21 a former danger without a line is lifted")
        if now - was and newest.back is not None and coarse(before, newest.at) != "N":
            decided("5 what lifted it goes, under voltage")
        if any(place < len(log) - 1 for _, _, place, _ in now - was) and newest.what in TERMS:
            decided("7 stricter terms open it anew")

    def _named(self, act: str, target: int | None) -> str:
        """Return what is written down: of a correction the other figure of its line."""
        if act not in {"slip", "worse"} or target is None:
            return act
        line = LINES[self.said[target].what][0]
        bad = 0 if act == "slip" else 2
        return next((text for text, (name, how) in LINES.items() if name == line and how == bad), act)

    def _is_on_sheet(self, what: str) -> bool:
        held = terms(self.past)
        if what == MILD:
            is_whole = not (
                is_lead_off(self.past) or is_out(self.past, "tags off", "tags back") or is_earth_off(self.past)
            )
            return has_arrester(self.past) and is_whole
        if what == "motor tacho_volts 0.8":
            return held.sheet == "fl7-u"
        if what in {"dead drive 0.3", DIRECT}:
            return held.sheet == "fl9-t"
        return what not in LINES or is_known(LINES[what][0], held)

    def _target(self, act: str) -> int | None:
        """Return the place that an act is about: the newest that fits, None where there is none."""
        gone = {said.back for said in self.said}
        rows = [place for place in range(len(self.said)) if place not in gone and not self.said[place].is_refused]
        if act == "tags back":
            off = [place for place in rows if self.said[place].what == "tags off"]
            return off[-1] if off and is_out(self.past, "tags off", "tags back") else None
        if act == "doubt":
            wanted = [place for place in rows if self.said[place].what in LEAKS]
        elif act == "undo":
            wanted = [place for place in rows[-1:] if self.said[place].what in UNDONE]
        elif act in {"withdraw", "slip", "worse"}:
            bad = {"slip": {2}, "worse": {0}}.get(act, {0, 1})
            wanted = [
                place
                for place in rows
                if LINES.get(self.said[place].what, ("", 9))[1] in bad
                and self.said[place].back is None
                and self._is_on_sheet(self.said[place].what)
                and not LINES[self.said[place].what][0].startswith("outlet")
                and (act != "worse" or LINES[self.said[place].what][0] in _TURNS_BAD)
            ]
        else:
            return None
        return wanted[-1] if wanted else None

    def _frame(self, act: str) -> None:
        now = self.case.frames[-1]
        sheet, profile = find_sheet("fl9-t" if act == "it is fl9-t" else "fl7-u"), now.profile
        if act in TERMS:
            if act == "it is class II":
                sheet = sheet.model_copy(update={"id": "class-ii", "protection_class": "II"})
            profile = BUILT_IN[1] if act == "stricter limits" else BUILT_IN[0]
            frame = replace(now, sheet=sheet, profile=profile)
        else:
            rows = tuple(FormerDanger(name, line, line.partition(".")[0] if line else "") for name, line in FORMER[act])
            frame = replace(now, former=tuple(dict.fromkeys((*now.former, *rows))))
        if now.holds(frame):
            return
        order = self.log._next()
        frame = replace(frame, order=order)
        self.log.case = replace(self.case, sheet=frame.sheet, profile=frame.profile, frames=(*self.case.frames, frame))
        self.walk = walk_of(self.case)
        self.ids.append("")
        # What comes into force has no moment of its own.
        self.said.append(Said(act, self.said[-1].at if self.said else self.log.now))
        self._count()

    def _body(self, act: str, target: int | None) -> Body | None:
        if act in ACTS:
            return ACTS[act]
        if act in LEAKS:
            names = {part.id for part in leaky_parts(self.case.sheet, Method.INSULATION)}
            inside = names - ({"heater"} if "rest" in act else set())
            text = act.rsplit(" ", 1)[1].removesuffix("M")
            return RunMade(
                method="insulation", connected=tuple(sorted(inside)), text=text, instrument=GENERIC_METERS[2]
            )
        if target is None:
            return None
        if act == "tags back":
            return StripBack(step=self.ids[target], plugs=("heater_tags",))
        if act == "doubt":
            return RunDoubted(run=self.ids[target])
        return RecordWithdrawn(record=self.ids[target]) if act == "undo" else None

    def _told(self, act: str, what: str, device: str, reason: str, target: int | None) -> bool:
        """Let the core take it; return whether a reason alone let it through."""
        safety, body = self.safety, self._body(act, target)
        if body is not None:
            refuse_event(self.case, body, safety, device)
            if isinstance(body, Ended):
                refuse_sign_off(self.case, body, safety)
            self._event(body, device)
            return False
        row = self._reading(act, what, device, reason, target)
        if act == "withdraw":
            self.log.case = replace(self.case, readings=(*self.case.readings, row))
            return False
        is_overridden = admitted(row, safety).is_overridden
        row = row if is_overridden else replace(row, override="")
        self.log.case = replace(self.case, readings=(*self.case.readings, row))
        return is_overridden

    def _event(self, body: Body, device: str, refused: str = "") -> None:
        self.log.did(body)
        event = replace(self.case.events[-1], device=device, refused=refused)
        self.log.case = replace(self.case, events=(*self.case.events[:-1], event))

    def _reading(self, act: str, what: str, device: str, reason: str, target: int | None) -> Reading:
        before = self.case
        old = None if target is None else next(row for row in before.readings if row.id == self.ids[target])
        is_tester = "across" not in what and (what.startswith(("cord", "heater e")) or "pe" in what)
        self.log.read(old.text if act == "withdraw" and old else what, meter=GENERIC_METERS[2] if is_tester else None)
        row, self.log.case = self.case.readings[-1], before
        if act == "withdraw" and old is not None:
            fresh = replace(old, id=row.id, order=row.order, at=row.at, override="", refused="")
            return replace(fresh, supersedes=old.id, withdrawn=True, device=device)
        return replace(row, override=reason, device=device, supersedes=old.id if old is not None else None)

    def _kept(self, act: str, what: str, device: str, target: int | None, why: str) -> None:
        """Keep a refused record as an import keeps it."""
        body = self._body(act, target)
        if body is not None:
            self._event(body, device, why)
            return
        row = replace(self._reading(act, what, device, "", target), refused=why)
        self.log.case = replace(self.case, readings=(*self.case.readings, row))

    @property
    def decided(self) -> frozenset[str]:
        """What decided something in this history."""
        return frozenset(known.DECIDED)

    def standing_differs(self) -> str:
        """Say where state or dangers part, empty where they agree."""
        safety, now, log = self.safety, self.log.now, self.past
        ours = (LETTERS[safety.state], {row.id.value for row in safety.dangers})
        ids = {row.id for row in standing(log)} | (
            {"live_though_forbidden"} if is_live_though_forbidden(log) else set()
        )
        theirs = (state(log, now), ids)
        if ours != theirs:
            return f"{ours} where the definition says {theirs}"
        return ""

    def differs(self) -> str:
        """Say where the core and the second definition part, empty where they agree."""
        if self.parted:
            return self.parted[0]
        difference = self.standing_differs()
        if difference:
            return difference
        safety, now, log = self.safety, self.log.now, self.past
        for device in ("", "phone"):
            power = may(self.case, safety, sign_off=False, device=device).power
            why = refuses(log, Said("plugged in", now, device))
            if power is bool(why):
                return f"power {power} on '{device}' where the definition says '{why}'"
        return ""
