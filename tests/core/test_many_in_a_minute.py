"""Two thousand records in a minute: whoever writes fast settles nothing by it, and nothing is lost."""

from __future__ import annotations

from tests.core.case_of import PROOF, Log

from ohmcensus.core.event import Attended, Isolated, Opened, Shut
from ohmcensus.core.meter import GENERIC_METERS
from ohmcensus.core.safety import DangerId, SafetyState, safety_at, stepped, walk_of
from ohmcensus.core.sheet import Sheet

TICK = 60 / 2000


def test_two_thousand_records_in_a_minute(fl7: Sheet) -> None:
    log = Log(fl7).did(Isolated()).read(*PROOF).read("cord pe >20", meter=GENERIC_METERS[2])
    for _ in range(166):
        for body in (Opened(panel="back"), Shut(panel="back"), Attended()) * 3 + (Opened(panel="back"), Attended()):
            log.wait(seconds=TICK).did(body)
        log.wait(seconds=TICK).read("cord pe 0.08", meter=GENERIC_METERS[2])
    assert len(log.case.events) + len(log.case.readings) == 2000
    safety = log.safety
    assert safety.state is SafetyState.DEAD
    earth = safety.danger(DangerId.EARTH)
    assert earth is not None, "hundreds of good readings in one minute are one"
    assert not earth.forbids_power
    walk = walk_of(log.case)
    for minutes in (1.1, 1.1):
        log.wait(minutes=minutes).read("cord pe 0.08", meter=GENERIC_METERS[2])
        walk = stepped(walk, log.case.readings[-1])
    assert walk == walk_of(log.case)
    assert safety_at(log.case, log.now, walk).danger(DangerId.EARTH) is None
