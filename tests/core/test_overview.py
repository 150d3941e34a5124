"""The machine as one line a part: which reading says most of it, and what is only looked at."""

from __future__ import annotations

import pytest
from tests.core.case_of import Log

from ohmcensus.core.event import Checked, CheckOutcome
from ohmcensus.core.judgement.census_sheet import census_lines
from ohmcensus.core.judgement.overview import MeasuredPart, looked_parts, measured_parts
from ohmcensus.core.sheet import Sheet
from ohmcensus.services.at_hand.sheets import find_sheet

ALL = ("fl7-u", "wd8-h", "tl4-c", "tl6-s", "dd8-r", "fl9-t")


def overview(log: Log) -> dict[str, MeasuredPart]:
    return {row.part: row for row in measured_parts(census_lines(log.case))}


@pytest.mark.parametrize("sheet_id", ALL)
def test_every_test_of_a_type_stands_once_in_the_line_of_its_part(sheet_id: str) -> None:
    log = Log(find_sheet(sheet_id))
    lines = census_lines(log.case)
    parts = measured_parts(lines)
    assert [line for part in parts for line in part.lines] == [line for line in lines if line.test]
    assert 12 <= len(parts) <= 17
    assert all(part.worst is None and part.outside == 0 for part in parts)
    looked = looked_parts(log.case, parts)
    assert {row.part for row in looked} & {row.part for row in parts} == set()
    assert all(row.outcome is None for row in looked)


@pytest.mark.parametrize(
    ("typed", "worst", "outside"),
    [
        (("heater 26", "heater pe 47k"), "heater.pe", 1),
        (("heater pe 47k", "heater 26"), "heater.pe", 1),
        (("heater OL", "heater pe 47k"), "heater.pe", 2),
        (("heater 26", "heater pe >299M"), "heater.pe", 0),
        (("heater pe >299M", "heater 26"), "heater.element", 0),
    ],
    ids=["outside later", "outside earlier", "two outside", "two inside", "inside the other way round"],
)
def test_an_outside_reading_says_most_and_of_two_alike_the_later(
    fl7: Sheet, typed: tuple[str, ...], worst: str, outside: int
) -> None:
    found = overview(Log(fl7).read(*typed))["heater"]
    assert found.worst is not None
    assert found.worst.test is not None
    assert (found.worst.test.id, found.outside) == (worst, outside)


def test_a_pair_of_points_is_no_part(fl7: Sheet) -> None:
    assert "" not in overview(Log(fl7).read("between heater.a pump.b 12"))


def test_the_last_look_of_each_check_counts_and_a_bad_one_is_not_hidden(fl7: Sheet) -> None:
    log = Log(fl7)
    parts = measured_parts(census_lines(log.case))
    belt = next(row for row in looked_parts(log.case, parts) if row.part == "belt")
    assert belt.outcome is None
    checks = [f"belt.look_{check.id}" for check in fl7.known_part("belt").part_kind.checks]
    log.did(*(Checked(check=check, outcome=CheckOutcome.GOOD) for check in checks))
    assert _outcome(log, "belt") is CheckOutcome.GOOD
    log.did(Checked(check=checks[0], outcome=CheckOutcome.BAD))
    assert _outcome(log, "belt") is CheckOutcome.BAD
    log.did(Checked(check=checks[0], outcome=CheckOutcome.GOOD))
    assert _outcome(log, "belt") is CheckOutcome.GOOD


def _outcome(log: Log, part: str) -> CheckOutcome | None:
    looked = looked_parts(log.case, measured_parts(census_lines(log.case)))
    return next(row.outcome for row in looked if row.part == part)
