"""Connectors with numbered pins: whole when every one was held against the photo."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st
from pydantic import ValidationError
from tests.core.case_of import Log

from ohmcensus.core.errors import InputError
from ohmcensus.core.event import ConnectorNoted, ConnectorTicked, PinMark
from ohmcensus.core.job.connector import connectors, refuse_ticks
from ohmcensus.core.job.cover_minutes import Timed, learned_minutes
from ohmcensus.core.job.strip_down import minutes_until, unfinished
from ohmcensus.core.proof import blocking
from ohmcensus.core.sheet import Sheet


def noted(photo: str = "p1", *numbers: int) -> ConnectorNoted:
    pins = tuple(PinMark(number=number, x=0.1, y=0.2, colour="blue", is_empty=number == 3) for number in numbers)
    return ConnectorNoted(photo=photo, words="heater plug", plug="heater_tags", pins=pins)


def test_a_connector_is_whole_once_every_pin_is_ticked_the_empty_ones_too(fl7: Sheet) -> None:
    log = Log(fl7).did(noted("p1", 1, 2, 3))
    assert unfinished(log.case) == ("not held against its photo: heater plug",)
    log.did(ConnectorTicked(photo="p1", pins=(1,)))
    assert unfinished(log.case) == ("heater plug: pins 2, 3 not ticked",)
    assert blocking(log.case, log.safety)[0] == "heater plug: pins 2, 3 not ticked"
    log.did(ConnectorTicked(photo="p1", pins=(1, 2, 3)))
    assert unfinished(log.case) == ()
    log.did(noted("p1", 1, 2))
    assert not connectors(log.case)[0].is_whole, "noted anew, it was pulled anew"


def test_a_photo_that_says_enough_is_ticked_as_a_whole_and_a_wrong_one_is_taken_back(fl7: Sheet) -> None:
    log = Log(fl7).did(noted("p1"), noted("p2", 1))
    log.did(ConnectorTicked(photo="p1"), noted("p2").model_copy(update={"is_withdrawn": True}))
    assert [row.is_whole for row in connectors(log.case)] == [True]
    assert unfinished(log.case) == ()


@pytest.mark.parametrize(
    ("body", "said"),
    [
        (ConnectorTicked(photo="p9"), "no such connector was noted on this job: note it first"),
        (ConnectorTicked(photo="p1", pins=(1, 7)), "heater plug has no pin 7: its pins are 1, 2"),
        (ConnectorTicked(photo="p2", pins=(1,)), "heater plug has no pin 1: its pins are none: tick it as a whole"),
    ],
    ids=["unknown", "strange pin", "no pins"],
)
def test_ticks_on_what_is_not_there_are_refused(fl7: Sheet, body: ConnectorTicked, said: str) -> None:
    log = Log(fl7).did(noted("p1", 1, 2), noted("p2"))
    with pytest.raises(InputError, match=said):
        refuse_ticks(log.case, body)


def test_one_number_marks_one_pin() -> None:
    with pytest.raises(ValidationError, match="pin 2 is marked twice"):
        noted("p1", 1, 2, 2)


@given(st.lists(st.sets(st.integers(1, 6)), min_size=1, max_size=5))
def test_the_last_ticks_are_what_counts(rounds: list[set[int]]) -> None:
    from ohmcensus.services.at_hand.sheets import find_sheet  # noqa: PLC0415

    log = Log(find_sheet("fl7-u")).did(noted("p1", 1, 2, 3, 4, 5, 6))
    for ticks in rounds:
        log.did(ConnectorTicked(photo="p1", pins=tuple(sorted(ticks))))
    assert set(connectors(log.case)[0].left) == {1, 2, 3, 4, 5, 6} - rounds[-1]


def test_the_clock_tells_what_a_step_took_unless_somebody_was_away(fl7: Sheet) -> None:
    log = Log(fl7)
    assert minutes_until(log.case, log.now) is None
    log.did(noted("p1"))
    assert minutes_until(log.case, log.wait(minutes=4).now) == 4.0
    assert minutes_until(log.case, log.wait(minutes=40).now) is None


@given(st.floats(1, 60), st.lists(st.floats(0, 30), max_size=20))
def test_what_a_cover_takes_lies_between_the_sheet_and_what_was_timed(stated: float, timed: list[float]) -> None:
    found = learned_minutes(stated, Timed(sum(timed), len(timed)))
    assert min([stated, *timed]) - 1e-9 <= found <= max([stated, *timed]) + 1e-9
