"""Every record in a few words, parts and covers by their titles."""

from __future__ import annotations

import typing

import pytest
from tests.core.case_of import Log

from ohmcensus.core.event import (
    Body,
    Changed,
    Checked,
    CheckOutcome,
    CodesRead,
    EntryTried,
    Hazard,
    HazardFound,
    Intervention,
    Isolated,
    LiveBegun,
    Opened,
    RunMade,
    RunWatched,
    Skipped,
    StepTicked,
    StripBack,
    StripStep,
    Tripped,
    WhySkipped,
)
from ohmcensus.core.event.safety import CutOff
from ohmcensus.core.job.record_words import _WORDS, record_words
from ohmcensus.core.sheet import Sheet


@pytest.mark.parametrize(
    ("body", "says"),
    [
        (Isolated(how=CutOff.LOCKED_OFF), "locked off in all poles"),
        (LiveBegun(reason="volts at the board"), "live: volts at the board"),
        (StepTicked(step="discharge1", is_done=False), "discharge 1: not done"),
        (HazardFound(hazard=Hazard.SHOCK), "danger: gave a shock or tingle"),
        (Opened(panel="back"), "Back panel: off"),
        (Checked(check="drain_filter", outcome=CheckOutcome.GOOD), "drain filter: good"),
        (Checked(check="belt.look_belt", outcome=CheckOutcome.BAD, words="off"), "Drive belt, Belt: bad, off"),
        (CodesRead(scheme="lamps", codes=()), "codes read: none stored"),
        (CodesRead(scheme="lamps", codes=("9", "21")), "codes read: 9, 21"),
        (EntryTried(sequence="a", is_in=False), "service mode not entered"),
        (Changed(part="heater", intervention=Intervention.REPLACED), "Heater: another one fitted"),
        (RunMade(method="insulation", connected=("heater",), text="0.05M"), "leak test: 0.05M"),
        (RunWatched(outcome="through"), "run: runs through"),
        (Skipped(test="heater.element", why=WhySkipped.CANNOT_REACH), "left out: Heater, element"),
        (Tripped(machine="out"), "it tripped, the machine unplugged"),
    ],
)
def test_a_record_says_what_was_done(fl7: Sheet, body: Body, says: str) -> None:
    assert record_words(Log(fl7).case, body) == says


def test_what_is_back_says_what_came_off(fl7: Sheet) -> None:
    log = Log(fl7).did(StripStep(words="back panel"))
    assert record_words(log.case, StripBack(step=log.case.events[0].id)) == "back again: back panel"


def test_every_kind_of_record_has_its_words() -> None:
    union = typing.get_args(typing.get_args(Body)[0])
    assert set(union) == set(_WORDS)
