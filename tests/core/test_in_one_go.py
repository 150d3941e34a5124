"""Tests that share a place are asked in one go, and a second one there costs twenty seconds."""

from __future__ import annotations

from dataclasses import replace

import pytest
from tests.tables import table

from ohmcensus.core.diagnosis.battery import along_with
from ohmcensus.core.diagnosis.effort import SAME_PLACE_MINUTES, efforts
from ohmcensus.core.diagnosis.evidence import symptom_told
from ohmcensus.core.diagnosis.posterior import diagnose
from ohmcensus.core.diagnosis.question import Objective, Reach
from ohmcensus.core.diagnosis.ranking import ask, questions
from ohmcensus.core.sheet import Sheet
from ohmcensus.core.symptom import Symptom
from ohmcensus.services.at_hand.sheets import all_sheets


@pytest.mark.parametrize("sheet", all_sheets().values(), ids=lambda sheet: sheet.id)
@pytest.mark.parametrize("symptom", [Symptom.NO_TURN, Symptom.DEAD, Symptom.CODE])
def test_what_is_asked_along_shares_part_state_and_meter_and_its_minutes_are_counted(
    sheet: Sheet, symptom: Symptom
) -> None:
    known = diagnose(table(sheet.id), [symptom_told(table(sheet.id), symptom)])
    for first in questions(known, Reach())[:12]:
        left = [row.test for row in questions(known, Reach())]
        also = along_with(known, first.test, left, worth=0.0, handling=0.5)
        places = {efforts(sheet)[name].place for name in (first.test, *also)}
        assert len(places) == 1
        assert first.test not in also
        assert not also or places != {None}
    following = ask(known, Reach())[0]
    alone = next(row for row in questions(known, Reach()) if row.test == following.test)
    assert following.minutes == pytest.approx(alone.minutes + SAME_PLACE_MINUTES * len(following.also))


def test_the_second_winding_at_an_open_plug_costs_twenty_seconds() -> None:
    known = diagnose(table("fl9-t"), [symptom_told(table("fl9-t"), Symptom.NO_TURN)])
    place = efforts(known.table.sheet)["motor.uv"].place
    there = Reach(open_panels=frozenset({"back"}), place=place)
    by_test = {row.test: row for row in questions(known, there)}
    assert by_test["motor.vw"].minutes == pytest.approx(1 / 3)
    elsewhere = {row.test: row for row in questions(known, replace(there, place=None))}
    assert by_test["motor.vw"].score > elsewhere["motor.vw"].score
    assert by_test["ntc.sensor"].minutes == elsewhere["ntc.sensor"].minutes


@pytest.mark.parametrize("objective", list(Objective))
def test_the_next_question_holds_nothing_that_was_left_out(objective: Objective) -> None:
    known = diagnose(table("fl9-t"), [symptom_told(table("fl9-t"), Symptom.NO_TURN)])
    out = frozenset({"motor.uv", "motor.vw"})
    for row in ask(known, Reach(left_out=out, barred=out), objective):
        assert not out & {row.test, *row.also}
