"""Sentences that are known are not typed again: what was done, why it is not safe, what a plate reads."""

from __future__ import annotations

import pytest
from tests.core.case_of import Log

from ohmcensus.core.event import (
    Body,
    BypassRemoved,
    Changed,
    Ended,
    Hazard,
    HazardFound,
    Intervention,
    Isolated,
    RunWatched,
)
from ohmcensus.core.intake import plate_of, plate_remarks
from ohmcensus.core.proof.sentences import MOST_SIGNS, done_words, standing_words
from ohmcensus.core.safety.danger_rows import open_rows
from ohmcensus.core.sheet import Sheet
from ohmcensus.services.at_hand.sheets import all_sheets

HEATER = Changed(part="heater", intervention=Intervention.REPLACED, fitted="spare 1")
LOCK = Changed(part="lock", intervention=Intervention.RESEATED)
BYPASS = HazardFound(hazard=Hazard.BYPASS, words="lid wires joined")


@pytest.mark.parametrize(
    ("done", "says"),
    [
        ((), ""),
        ((RunWatched(outcome="no_heat", was="before"),), ""),
        ((HEATER,), "Heater: another one fitted, spare 1."),
        ((LOCK, HEATER), "Door lock: plug or tag reseated; Heater: another one fitted, spare 1."),
        ((Changed(part="heater", intervention=Intervention.CLEANED), HEATER), "Heater: another one fitted, spare 1."),
        ((BYPASS, BypassRemoved(words="wires parted, tried")), "Bypass taken out: wires parted, tried."),
    ],
)
def test_what_was_done_is_known(fl7: Sheet, done: tuple[Body, ...], says: str) -> None:
    assert done_words(Log(fl7).did(*done).case) == says


def test_why_it_is_not_safe_is_what_stands(fl7: Sheet) -> None:
    log = Log(fl7).did(Isolated())
    assert standing_words(log.safety) == ""
    said = standing_words(log.did(BYPASS, HazardFound(hazard=Hazard.SHOCK)).safety)
    assert said == " ".join(open_rows(log.safety))
    assert "lid wires joined." in said


def test_a_sentence_is_as_short_as_the_record_wants_it(any_sheet: Sheet) -> None:
    """Every part of a machine worked on, each with a long word: the ending still takes the sentence."""
    long = "a piece from the tray at the far end of the shed"
    changes = [Changed(part=part.id, intervention=Intervention.REPLACED, fitted=long) for part in any_sheet.parts]
    said = done_words(Log(any_sheet).did(*changes).case)
    assert len(said) <= MOST_SIGNS
    assert Ended(why=said).why == said


def test_a_plate_that_reads_as_the_sheet_draws_no_remark() -> None:
    for sheet in all_sheets().values():
        plate = plate_of(sheet)
        plate.refuse_impossible()
        assert plate_remarks(plate, sheet) == (), sheet.id
        assert (plate.volts, plate.hertz, plate.watts) == (sheet.volts, sheet.hertz, sheet.watts)
