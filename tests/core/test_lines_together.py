"""Readings that say something together: the same line twice, like pieces side by side, an output and its supply."""

from __future__ import annotations

import pytest
from tests.core.case_of import Log

from ohmcensus.core.event import Changed, Intervention
from ohmcensus.core.judgement import Verdict, census_lines
from ohmcensus.core.judgement.census_sheet import CensusLine
from ohmcensus.core.judgement.compare import ComparedLine, compared_lines
from ohmcensus.core.sheet import Sheet
from ohmcensus.services.at_hand.sheets import all_sheets


def line_of(log: Log, key: str) -> CensusLine:
    return next(line for line in census_lines(log.case) if line.test and line.test.id == key)


def compared(sheet_id: str, *lines: str) -> dict[str, ComparedLine]:
    log = Log(all_sheets()[sheet_id]).read(*lines)
    return {row.title: row for row in compared_lines(log.case.sheet, census_lines(log.case))}


@pytest.mark.parametrize(
    ("lines", "verdict", "goes"),
    [
        (("lock locked 0.3", "lock locked OL"), Verdict.OPEN, True),
        (("lock locked OL", "lock locked 0.3"), Verdict.OPEN, True),
        (("lock locked 0.2", "lock locked 0.3"), Verdict.INSIDE, False),
        (("lock locked 0.2..38 wiggled",), Verdict.OUTSIDE_HIGH, True),
        (("armature 1.5", "armature 4.5"), Verdict.UNSURE, True),
        (("armature 1.5..4.5 turned",), Verdict.UNSURE, True),
        (("outlet 231", "outlet 224"), Verdict.INSIDE, False),
        (("heater pe 45M", "heater pe 90M"), Verdict.INSIDE, False),
        (("heater pe 0.1M", "heater pe 90M"), Verdict.OUTSIDE_LOW, True),
        (("heater pe 0.1M", "heater pe 90M dried"), Verdict.INSIDE, False),
        (("heater pe 20M..90M",), Verdict.INSIDE, False),
        (("ntc 12.4k", "ntc 10.9k"), Verdict.INSIDE, False),
        (("ntc 12.4k at 20C", "ntc 3.6k at 50C"), Verdict.INSIDE, False),
    ],
)
def test_two_readings_of_a_line_that_contradict_each_other_come_and_go(
    fl7: Sheet, lines: tuple[str, ...], verdict: Verdict, goes: bool
) -> None:
    motor = tuple(line.replace("armature", "motor armature") for line in lines)
    found = next(line for line in census_lines(Log(fl7).read(*motor).case) if line.answers)
    assert (found.verdict, found.comes_and_goes) == (verdict, goes)
    assert (found.remark == "comes and goes") is goes


def test_a_change_of_the_part_between_them_is_no_contradiction(fl7: Sheet) -> None:
    log = Log(fl7).read("lock locked OL")
    log.did(Changed(part="lock", intervention=Intervention.REPLACED, fitted="new")).read("lock locked 0.3")
    assert line_of(log, "lock.locked").verdict is Verdict.INSIDE


@pytest.mark.parametrize(
    ("readings", "verdict", "remark"),
    [
        ((5.0, 5.0, 5.1), Verdict.INSIDE, "alike"),
        ((4.7, 4.7, 5.5), Verdict.OUTSIDE_HIGH, "winding W to U: 11 % over their mean of 4.97 Ω"),
        ((4.5, 5.4, 5.5), Verdict.OUTSIDE_LOW, "winding U to V: 12 % under their mean of 5.13 Ω"),
        ((4.7, 4.9, 5.0), Verdict.UNSURE, "within the meter's error"),
    ],
)
def test_three_phases_are_held_against_their_mean(
    readings: tuple[float, float, float], verdict: Verdict, remark: str
) -> None:
    u, v, w = readings
    row = compared("fl9-t", f"motor uv {u}", f"motor vw {v}", f"motor wu {w}")["windings alike"]
    assert (row.verdict, row.remark) == (verdict, remark)


def test_two_phases_are_not_compared_yet_and_one_that_reads_open_never_is() -> None:
    assert "windings alike" not in compared("fl9-t", "motor uv 5.0", "motor vw 5.0")
    assert "windings alike" not in compared("fl9-t", "motor uv 5.0", "motor vw 5.0", "motor wu OL")


def test_like_valves_two_brushes_and_run_start_and_their_sum() -> None:
    valves = compared("fl7-u", "valve 3.70k", "prewash 3.75k")["inlet valves of one type alike"]
    assert valves.verdict is Verdict.INSIDE
    assert compared("fl7-u", "valve 3.1k", "prewash 4.3k")["inlet valves of one type alike"].verdict.is_outside
    assert compared("fl7-u", "brush_1 9", "brush_2 25")["brushes alike"].verdict.is_outside
    assert compared("fl7-u", "brush_1 22", "brush_2 25")["brushes alike"].verdict is Verdict.INSIDE
    motor = compared("tl4-c", "motor run 1.8", "motor start 5.0", "between motor.run motor.start 6.8")
    assert {row.verdict for row in motor.values()} == {Verdict.INSIDE}
    swapped = compared("tl4-c", "motor run 5.0", "motor start 1.8", "between motor.run motor.start 3.1")
    assert [row.verdict for row in swapped.values()] == [Verdict.OUTSIDE_HIGH, Verdict.OUTSIDE_LOW]


def test_six_valves_of_an_inverter_are_alike() -> None:
    rows = [f"drive {phase}_{rail} 0.45" for phase in "uvw" for rail in ("plus", "minus")]
    assert compared("fl9-t", *rows)["six valves alike"].verdict is Verdict.INSIDE
    assert compared("fl9-t", *rows[:-1], "drive w_minus 0.62")["six valves alike"].verdict is Verdict.OUTSIDE_HIGH


@pytest.mark.parametrize(
    ("supply", "typed", "verdict"),
    [
        ("5.02", "0.1..4.9", Verdict.INSIDE),
        ("5.02", "4.9..0.1", Verdict.INSIDE),
        ("11.9", "0.1..4.9", Verdict.OUTSIDE_LOW),
        ("11.9", "0.1..11.6", Verdict.INSIDE),
        ("5.02", "1.9..4.9", Verdict.OUTSIDE_HIGH),
        ("5.02", "0.02", Verdict.OUTSIDE_LOW),
        ("5.02", "5.0", Verdict.OUTSIDE_HIGH),
        ("5.02", "2.5", Verdict.UNSURE),
    ],
)
def test_an_output_is_held_against_the_supply_that_was_measured(supply: str, typed: str, verdict: Verdict) -> None:
    log = Log(all_sheets()["dd8-r"]).read(f"sensor h1 {typed}", f"sensor supply {supply}")
    assert line_of(log, "sensor.h1").verdict is verdict


def test_a_line_that_talks_shows_its_mean_and_stands_at_no_rail() -> None:
    for typed, verdict in (("2.4", Verdict.INSIDE), ("1.2..3.4", Verdict.INSIDE), ("5.0", Verdict.OUTSIDE_HIGH)):
        assert line_of(Log(all_sheets()["fl9-t"]).read(f"panel link {typed}"), "panel.link").verdict is verdict


@pytest.mark.parametrize(
    ("lines", "line", "neutral"),
    [
        (("outlet 231", "outlet le 230", "outlet ne 1.2"), Verdict.INSIDE, Verdict.INSIDE),
        (("outlet 231", "outlet le 0.4", "outlet ne 230"), Verdict.INSIDE, Verdict.INSIDE),
        (("outlet 231", "outlet ne 230", "outlet le 0.4"), Verdict.INSIDE, Verdict.INSIDE),
        (("outlet 231", "outlet le 0.4", "outlet ne 0.3"), Verdict.OUTSIDE_LOW, Verdict.OUTSIDE_LOW),
        (("outlet 0.1", "outlet le 0.1", "outlet ne 0.1"), Verdict.OUTSIDE_LOW, Verdict.INSIDE),
    ],
)
def test_the_outlets_voltages_to_earth_are_right_either_way_round_and_only_as_a_pair(
    fl7: Sheet, lines: tuple[str, ...], line: Verdict, neutral: Verdict
) -> None:
    log = Log(fl7).read(*lines)
    assert (line_of(log, "outlet.le").verdict, line_of(log, "outlet.ne").verdict) == (line, neutral)
