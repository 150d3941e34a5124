"""Random histories of a job, told to the core and to the long-hand definition alike."""

from __future__ import annotations

from collections import Counter
from dataclasses import dataclass, field, replace
from datetime import datetime, timedelta
from typing import Any

from tests.core import longhand
from tests.core.case_of import START, Log
from tests.core.longhand import LINES, SERIES, Said

from ohmcensus.core.errors import OhmcensusError
from ohmcensus.core.event import (
    Attended,
    Body,
    Changed,
    FoundPowered,
    HandsOff,
    Hazard,
    HazardFound,
    Intervention,
    Isolated,
    LiveBegun,
    LiveEnded,
    Opened,
    PluggedIn,
    RunWatched,
    Shut,
    Tripped,
    When,
)
from ohmcensus.core.job.case import Case
from ohmcensus.core.job.reading import Reading, standing
from ohmcensus.core.meter import GENERIC_METERS
from ohmcensus.core.safety import Safety, admitted, may, refuse_event, safety_at, stepped, walk_of
from ohmcensus.core.sheet import Sheet
from ohmcensus.core.symptom import Device

ACTS: dict[str, Body] = {
    "isolated": Isolated(),
    "plugged_in": PluggedIn(),
    "live_begun": LiveBegun(reason="volts at the relay", minutes=2),
    "live_ended": LiveEnded(),
    "opened": Opened(panel="back"),
    "shut": Shut(panel="back"),
    "attended": Attended(),
    "tripped": Tripped(device=Device.RCD),
    "tripped out": Tripped(device=Device.RCD, machine="out"),
    "shock": HazardFound(hazard=Hazard.SHOCK),
    "replaced": Changed(part="heater", intervention=Intervention.REPLACED),
    "run": RunWatched(outcome="through", was=When.NOW),
    "found_powered": FoundPowered(),
    "hands_off": HandsOff(),
}
READINGS = [*dict.fromkeys(SERIES), *LINES, "dead ln 40", "source 9", "board relay_on 231", "heater 26"]
OVERRIDES = [f"{word} is out and lies before me" for word in ("plug", "cord", "pin", "lead", "fork")]
LETTERS = {"dead": "D", "not_proved": "N", "under_voltage": "U", "live": "L"}


@dataclass
class History:
    """A history that grows by one act after another; each is told to both where the core accepts it."""

    sheet: Sheet
    log: Log = field(init=False)
    walk: Any = None
    said: list[Said] = field(default_factory=list)
    # By which row the definition refused, how often; where the core took what it refuses, or the other way round.
    refusals: Counter[str] = field(default_factory=Counter)
    parted: list[str] = field(default_factory=list)

    def __post_init__(self) -> None:
        self.log = Log(self.sheet)
        self.log.now = START
        self.walk = walk_of(self.log.case)

    @property
    def case(self) -> Case:
        return self.log.case

    @property
    def safety(self) -> Safety:
        return safety_at(self.case, self.log.now, self.walk)

    def tell(self, act: str, *, override: bool = False, device: str = "") -> None:
        """Let something happen a second later on a device, if the core admits it; the definition is asked too."""
        self.log.now += timedelta(seconds=1)
        before = self.case
        reason = OVERRIDES[len(self.said) % len(OVERRIDES)] if override else ""
        target = self._last_good() if act == "withdraw" else None
        if act == "withdraw" and target is None:
            return
        wanted = longhand.refuses(self.said, Said(act, self.log.now, device, reason))
        if wanted:
            self.refusals[wanted] += 1
        is_overridden, why = False, ""
        try:
            is_overridden = self._told(act, before, device, reason, target)
        except OhmcensusError as error:
            self.log.case, why = before, str(error)
        if bool(why) != bool(wanted):
            where = f"after {len(self.said)}: {act} on '{device}' with '{reason}'"
            self.parted.append(f"{where}: core '{why}', definition '{wanted}'")
        if why:
            return
        item = self.case.events[-1] if act in ACTS else self.case.readings[-1]
        self.walk = stepped(self.walk, item)
        back = None if target is None else datetime.fromisoformat(target.at)
        self.said.append(Said(act, self.log.now, device, reason if is_overridden else "", back))

    def _told(self, act: str, before: Case, device: str, reason: str, target: Reading | None) -> bool:
        """Let the core take it; return whether a reason alone let it through."""
        safety = self.safety
        if act in ACTS:
            refuse_event(before, ACTS[act], safety, device)
            self.log.did(ACTS[act])
            event = replace(self.case.events[-1], device=device)
            self.log.case = replace(self.case, events=(*before.events, event))
            return False
        if target is not None:
            self.log.read(target.text, meter=target.meter)
            row = self.case.readings[-1]
            row = replace(
                target, id=row.id, order=row.order, at=row.at, supersedes=target.id, withdrawn=True, device=device
            )
            self.log.case = replace(self.case, readings=(*before.readings, row))
            return False
        is_tester = "cord" in act or "heater e" in act or "pe" in act
        self.log.read(act, meter=GENERIC_METERS[2] if is_tester else None)
        row = replace(self.case.readings[-1], override=reason, device=device)
        is_overridden = admitted(row, safety).is_overridden
        row = row if is_overridden else replace(row, override="")
        self.log.case = replace(self.case, readings=(*before.readings, row))
        return is_overridden

    def _last_good(self) -> Reading | None:
        """Return the newest good reading of a line that stands, None where there is none."""
        rows = [row for row in standing(self.case.readings) if LINES.get(row.text, ("", False))[1]]
        return rows[-1] if rows else None

    def wait(self, seconds: int) -> None:
        self.log.now += timedelta(seconds=seconds)

    def differs(self) -> str:
        """Say where the core and the long-hand definition part, empty where they agree."""
        if self.parted:
            return self.parted[0]
        safety, now = self.safety, self.log.now
        ours = (LETTERS[safety.state], {row.id.value for row in safety.dangers})
        theirs = (longhand.state(self.said, now), longhand.dangers(self.said))
        if ours != theirs:
            return f"{ours} where the definition says {theirs}"
        for device in ("", "phone"):
            power = may(self.case, safety, sign_off=False, device=device).power
            why = longhand.refuses(self.said, Said("plugged_in", now, device))
            if power is bool(why):
                return f"power {power} on '{device}' where the definition says '{why}'"
        return ""
