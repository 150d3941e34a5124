"""Another variant of a part than the sheet says is asked for on its stamp before a fault is named."""

from __future__ import annotations

import pytest
from tests.core.case_of import Log
from tests.tables import table

from ohmcensus.core.diagnosis.again import concluded
from ohmcensus.core.diagnosis.conclusion import Conclusion, Standing
from ohmcensus.core.diagnosis.of_case import diagnosed, reach_of
from ohmcensus.core.diagnosis.question import Asks, Question
from ohmcensus.core.diagnosis.ranking import ask
from ohmcensus.core.event import Stamped
from ohmcensus.core.intake import Complaint
from ohmcensus.core.judgement import Verdict, census_lines
from ohmcensus.core.machine.stamped import as_stamped, rating_of, stated_figure, valued_tests
from ohmcensus.core.safety import safety_at
from ohmcensus.core.sheet import Sheet
from ohmcensus.core.symptom import Symptom
from ohmcensus.services.at_hand.sheets import all_sheets, find_sheet


def told(log: Log) -> tuple[Conclusion, tuple[Question, ...]]:
    log.complains(Complaint(symptoms=(Symptom.NO_HEAT,)))
    case, lines = log.case, census_lines(log.case)
    known = diagnosed(case, lines, table(case.sheet))
    reach = reach_of(case, lines, safety_at(case, log.now))
    return concluded(known, reach), ask(known, reach)


@pytest.mark.parametrize(
    ("sheet", "part", "test", "rating"),
    [
        ("fl7-u", "heater", "element", "watts"),
        ("fl7-u", "ntc", "sensor", "r25_ohm"),
        ("fl7-u", "pump", "coil", "coil"),
        ("tl4-c", "capacitor", "value", "farad"),
        ("tl4-c", "hot", "coil", "coil"),
    ],
)
def test_what_to_read_on_a_part_follows_from_its_test(sheet: str, part: str, test: str, rating: str) -> None:
    assert rating_of(find_sheet(sheet), part, test) == rating


@pytest.mark.parametrize("sheet", all_sheets().values(), ids=lambda sheet: sheet.id)
def test_a_stamp_that_says_what_the_sheet_says_changes_nothing_and_another_one_moves_the_window(sheet: Sheet) -> None:
    for part in sheet.parts:
        for spec in valued_tests(sheet, part):
            rating = rating_of(sheet, part.id, spec.name)
            figure = stated_figure(sheet, part.id, rating)
            if figure is None:
                continue
            moved = as_stamped(sheet, [(part.id, rating, 1.3 * figure)])
            assert moved != sheet, (part.id, rating)
            assert as_stamped(moved, [(part.id, rating, figure)]).known_part(part.id).ratings == part.ratings


@pytest.mark.parametrize("stamp", [("heater", "watts", -5.0), ("heater", "colour", 7.0), ("pump", "coil", 0.0)])
def test_what_cannot_be_on_a_stamp_moves_nothing(fl7: Sheet, stamp: tuple[str, str, float]) -> None:
    assert as_stamped(fl7, [stamp]) == fl7


def test_a_heater_of_fewer_watts_is_asked_for_its_stamp_and_is_sound_then(fl7: Sheet) -> None:
    """U²/P: 1540 W at 230 V are 34.4 Ω, a third over the 2 kW of the sheet."""
    log = Log(fl7).read("heater 34.4", "heater 34.4")
    found, rows = told(log)
    assert (found.standing, found.named) == (Standing.ANOTHER_VARIANT, ())
    assert (rows[0].kind, rows[0].test, rows[0].rating) == (Asks.PLATE, "heater.watts", "watts")
    log.did(Stamped(part="heater", rating="watts", value=1540.0))
    after, _ = told(log)
    line = next(line for line in census_lines(log.case) if line.test and line.test.id == "heater.element")
    assert line.answer is not None
    assert line.answer.judgement.verdict is Verdict.INSIDE
    at = after.known.table.parts.index("heater")
    assert after.known.of_part[at] < found.known.of_part[at] / 2


def test_a_stamp_as_the_sheet_says_leaves_the_fault_with_the_part(fl7: Sheet) -> None:
    log = Log(fl7).read("heater 34.4", "heater 34.4")
    before, _ = told(log)
    after, rows = told(log.did(Stamped(part="heater", rating="watts", value=2000.0)))
    at = after.known.table.parts.index("heater")
    assert after.known.of_part[at] > before.known.of_part[at]
    assert Asks.PLATE not in {row.kind for row in rows}


def test_what_no_variant_reads_names_its_part_without_a_stamp(fl7: Sheet) -> None:
    found, rows = told(Log(fl7).read("heater OL", "heater OL"))
    assert (found.named, rows) == (("heater",), ())
