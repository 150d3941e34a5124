"""Any history of a job against the definition of proved dead, written out the long way."""

from __future__ import annotations

from datetime import datetime, timedelta
from itertools import pairwise

from hypothesis import given
from hypothesis import strategies as st
from tests.core.case_of import PROOF, Log

from ohmcensus.core.case import Reading
from ohmcensus.core.event import (
    Attended,
    Body,
    CycleBegun,
    Event,
    Isolated,
    LiveBegun,
    LiveEnded,
    Opened,
    PluggedIn,
    StepTicked,
    Tripped,
)
from ohmcensus.core.meter import GENERIC_METERS
from ohmcensus.core.safety import SafetyState, open_hazards, power_hazards, safety_at
from ohmcensus.core.sheet import Sheet

EVENTS: list[Body] = [
    Isolated(),
    PluggedIn(),
    LiveBegun(reason="volts at the relay", minutes=2),
    LiveEnded(),
    Opened(panel="back"),
    Attended(),
    StepTicked(step="taps"),
    Tripped(),
    CycleBegun(cycle="self_test"),
]
SERIES = list(PROOF)
READINGS = [*SERIES, "dead ln 40", "source 9", "outlet 229", "heater 25.9"]
things = st.one_of(
    st.sampled_from(EVENTS),
    st.sampled_from(READINGS),
    st.integers(1, 700).map(lambda seconds: timedelta(seconds=seconds)),
    st.just(SERIES),
    st.just([Isolated(), *SERIES]),
)


Thing = Body | str | timedelta


def history(sheet: Sheet, done: list[Thing | list[Thing]]) -> Log:
    log = Log(sheet)
    for thing in done:
        for each in thing if isinstance(thing, list) else [thing]:
            if isinstance(each, timedelta):
                log.now += each
            elif isinstance(each, str):
                log.wait(seconds=1).read(each, meter=GENERIC_METERS[0])
            else:
                log.wait(seconds=1).did(each)
    return log


def is_dead_the_long_way(log: Log) -> bool:
    """Cut off, then source, every point good, source; nothing since that ends it; never ten minutes of silence."""
    both: list[Reading | Event] = [*log.case.readings, *log.case.events]
    items = sorted(both, key=lambda item: item.order)
    cuts = [i for i, item in enumerate(items) if isinstance(item, Event) and ends_proof(item)]
    isolated = [i for i, item in enumerate(items) if isinstance(item, Event) and isinstance(item.body, Isolated)]
    if not isolated or (cuts and cuts[-1] > isolated[-1]):
        return False
    since = items[isolated[-1] :]
    moments = [*[datetime.fromisoformat(item.at) for item in since], log.now]
    if any(later - earlier > timedelta(minutes=10) for earlier, later in pairwise(moments)):
        return False
    return ends_in_proof([item.text for item in since if isinstance(item, Reading)])


def ends_proof(event: Event) -> bool:
    return isinstance(event.body, PluggedIn | LiveBegun | CycleBegun | Tripped)


def ends_in_proof(texts: list[str]) -> bool:
    """Replay the series as a person would with a list of points to strike out."""
    sourced, struck, is_proved = False, dict[str, bool](), False
    for text in texts:
        if text.startswith("source"):
            good = text == "source 231"
            if good and sourced and struck:
                is_proved = is_proved or (len(struck) == 4 and all(struck.values()))
            else:
                sourced, is_proved = good, False
                struck = {} if good else struck
        elif text.startswith("dead") and sourced:
            struck[text.split()[1]] = text != "dead ln 40"
            is_proved = is_proved and text != "dead ln 40"
    return is_proved


@given(st.lists(things, max_size=14))
def test_dead_is_what_the_definition_says_and_nothing_else(fl7: Sheet, done: list[Thing | list[Thing]]) -> None:
    log = history(fl7, done)
    is_dead = safety_at(log.case, log.now).state is SafetyState.DEAD
    assert is_dead == is_dead_the_long_way(log)


@given(st.lists(things, max_size=14), st.integers(601, 90_000))
def test_nothing_stays_dead_or_live_by_itself(fl7: Sheet, done: list[Thing | list[Thing]], seconds: int) -> None:
    log = history(fl7, done)
    log.now += timedelta(seconds=seconds)
    assert safety_at(log.case, log.now).state is SafetyState.NOT_PROVED


@given(st.lists(things, max_size=14))
def test_a_trip_forbids_power_however_the_job_went_on(fl7: Sheet, done: list[Thing | list[Thing]]) -> None:
    log = history(fl7, [*done, Tripped()])
    assert [hazard.hazard for hazard in power_hazards(log.case)] == ["trip"]
    log.read("cord pe 0.05", "cord insulation >299M")
    assert open_hazards(log.case) == ()
