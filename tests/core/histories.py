"""Random histories of a job, told to the core and to the long-hand definition alike."""

from __future__ import annotations

from dataclasses import dataclass, field, replace
from datetime import timedelta
from typing import Any

from tests.core import longhand
from tests.core.case_of import START, Log
from tests.core.longhand import LINES, SERIES, Said

from ohmcensus.core.errors import OhmcensusError
from ohmcensus.core.event import (
    Attended,
    Body,
    Changed,
    Event,
    FoundPowered,
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
}
READINGS = [*dict.fromkeys(SERIES), *LINES, "dead ln 40", "source 9", "board relay_on 231", "heater 26"]
OVERRIDE = "I am quite sure that it is safe"
LETTERS = {"dead": "D", "not_proved": "N", "under_voltage": "U", "live": "L"}


@dataclass
class History:
    """A history that grows by one act after another; each is told to both where the core accepts it."""

    sheet: Sheet
    log: Log = field(init=False)
    walk: Any = None
    said: list[Said] = field(default_factory=list)

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

    def tell(self, act: str, *, override: bool = False) -> None:
        """Let something happen a second later, if the core admits it."""
        self.log.now += timedelta(seconds=1)
        before = self.case
        safety = self.safety
        is_overridden = False
        try:
            if act in ACTS:
                refuse_event(before, ACTS[act], safety)
                self.log.did(ACTS[act])
            else:
                is_tester = "cord" in act or "heater e" in act or "pe" in act
                self.log.read(act, meter=GENERIC_METERS[2] if is_tester else None)
                row = replace(self.case.readings[-1], override=OVERRIDE if override else "")
                is_overridden = admitted(row, safety).is_overridden
                row = row if is_overridden else replace(row, override="")
                self.log.case = replace(self.case, readings=(*before.readings, row))
        except OhmcensusError:
            self.log.case = before
            return
        item = self.case.events[-1] if act in ACTS else self.case.readings[-1]
        assert isinstance(item, Event) == (act in ACTS)
        self.walk = stepped(self.walk, item)
        self.said.append(Said(act, self.log.now, is_overridden))

    def wait(self, seconds: int) -> None:
        self.log.now += timedelta(seconds=seconds)

    def differs(self) -> str:
        """Say where the core and the long-hand definition part, empty where they agree."""
        safety, now = self.safety, self.log.now
        ours = (LETTERS[safety.state], {row.id.value for row in safety.dangers})
        theirs = (longhand.state(self.said, now), longhand.dangers(self.said))
        if ours != theirs:
            return f"{ours} where the definition says {theirs}"
        power = may(self.case, safety, sign_off=False).power
        wanted = longhand.may_power(self.said, now)
        return "" if power is wanted else f"power {power} where the definition says {wanted}"
