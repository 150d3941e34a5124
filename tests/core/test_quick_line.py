"""One typed line to a test, or two points, and a reading."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from ohmcensus.core.errors import InputError
from ohmcensus.core.machine import machine_tests, read_line
from ohmcensus.core.machine.quick_line import completions, with_line
from ohmcensus.core.sheet import Sheet, sheet_from
from ohmcensus.services.at_hand.sheets import all_sheets

UNDERSTOOD = [
    ("heater 25.9", "heater.element", "25.9"),
    ("HEATER 25,9", "heater.element", "25,9"),
    ("heat 25.9", "heater.element", "25.9"),
    ("heater element 2k2", "heater.element", "2k2"),
    ("heater pe >299M", "heater.pe", ">299M"),
    ("heater earth OL", "heater.earth", "OL"),
    ("heater to earth OL", "heater.pe", "OL"),
    ("heater R47", "heater.element", "R47"),
    ("heater over range", "heater.element", "over range"),
    ("heater 10 meg", "heater.element", "10 meg"),
    ("field 2k2", "motor.field", "2k2"),
    ("motor 1.9", "motor.field", "1.9"),
    ("motor brush to brush 4.9", "motor.armature", "4.9"),
    ("tacho 71", "motor.tacho", "71"),
    ("tacho_volts 1.2", "motor.tacho_volts", "1.2"),
    ("brush 1 19mm", "motor.brush_1", "19mm"),
    ("lock 1.1k", "lock.ptc", "1.1k"),
    ("door lock locked 0.3", "lock.locked", "0.3"),
    ("lock unlocked OL", "lock.unlocked", "OL"),
    ("drain pump 148", "pump.coil", "148"),
    ("filter cap 0.47u", "filter.x", "0.47u"),
    ("heater relay OL", "board.relay", "OL"),
    ("board coil 271", "board.coil", "271"),
    ("ntc 10.4k at 24C", "ntc.sensor", "10.4k"),
    ("main valve 3.7k", "valve.coil", "3.7k"),
    ("harness heater 0.2", "harness.heater", "0.2"),
    ("outlet -3", "outlet.ln", "-3"),
    ("heater", "heater.element", ""),
]


def test_a_test_may_be_called_like_a_reading() -> None:
    line = read_line("sensor h1 0.1..4.9 turned", all_sheets()["dd8-r"])
    assert (line.test and line.test.id, line.reading) == ("sensor.h1", "0.1..4.9 turned")


def test_the_condition_of_a_part_and_a_lower_voltage_are_said_behind_the_reading(fl7: Sheet) -> None:
    line = read_line("heater pe 0.8M dried at 250V at 21C", fl7)
    assert (line.reading, line.condition, line.celsius) == ("0.8M", "dried, at 250 V", 21.0)


@pytest.mark.parametrize(("text", "test_id", "reading"), UNDERSTOOD, ids=[row[0] for row in UNDERSTOOD])
def test_a_line_names_a_test_and_a_reading(fl7: Sheet, text: str, test_id: str, reading: str) -> None:
    line = read_line(text, fl7)
    assert line.test is not None
    assert (line.test.id, line.reading) == (test_id, reading)


def test_a_line_may_say_alone_and_the_temperature(fl7: Sheet) -> None:
    line = read_line("heater pe alone 0.044M at 21C", fl7)
    assert (line.reading, line.alone, line.celsius) == ("0.044M", True, 21.0)
    warm = read_line("ntc 2.5k at 60 C", fl7)
    assert warm.celsius == 60.0
    assert warm.test is not None
    assert warm.test.window.nominal == pytest.approx(2488, rel=0.01)


def test_two_points_that_no_test_names(fl7: Sheet) -> None:
    line = read_line("between heater.a pump.b 12.3", fl7)
    assert (line.test, line.between, line.reading) == (None, ("heater.a", "pump.b"), "12.3")


def test_two_points_that_a_test_names_are_that_test(fl7: Sheet) -> None:
    line = read_line("between heater.b heater.a 25.9", fl7)
    assert line.test is not None
    assert line.test.id == "heater.element"


REFUSED = [
    ("", "type a part and a reading"),
    ("heeter 25", "no 'heeter' on this sheet: heater?"),
    ("zzz 25", "its parts are outlet, cord"),
    ("motor feild 2", "no test 'feild' on motor: field?"),
    ("heater xyzzy 2", "its tests are element, pe"),
    ("motor brush 4", "may be more than one test"),
    ("h 25", "more than one thing on this sheet: heater or harness?"),
    ("between heater.a", "'between' needs two points"),
    ("between heater.q pump.a 3", "no single point 'heater.q'"),
    ("heater 25 at noonC", "the temperature 'noonC' is not a reading"),
    ("x" * 10_240, "far too long"),
]


@pytest.mark.parametrize(("text", "says"), REFUSED, ids=[row[0][:20] for row in REFUSED])
def test_a_line_that_names_nothing_says_what_it_may_mean(fl7: Sheet, text: str, says: str) -> None:
    with pytest.raises(InputError) as caught:
        read_line(text, fl7)
    assert says in str(caught.value)
    assert len(str(caught.value)) < 220


@given(st.text(max_size=170))
def test_any_line_is_understood_or_refused(fl7: Sheet, text: str) -> None:
    try:
        line = read_line(text, fl7)
    except InputError:
        return
    assert line.between
    completions(text, fl7)


def test_every_test_goes_by_its_part_and_its_name_its_title_and_its_aliases(fl7: Sheet) -> None:
    for test in machine_tests(fl7, 20.0):
        for part in (test.part, test.part_title):
            for name in (test.name, test.title, *test.aliases):
                line = read_line(f"{part} {name} 12.5", fl7)
                assert line.test is not None
                assert (line.test.id, line.reading) == (test.id, "12.5"), f"{part} {name}"


def test_an_alias_of_the_sheet_is_a_name_of_the_part() -> None:
    part = {"id": "heater", "kind": "heater", "aliases": ["kettle"], "ratings": {"watts": 2000.0, "volts": 230.0}}
    toy = sheet_from(
        {
            "format": "ohmcensus-sheet/1",
            "id": "toy",
            "title": "Toy",
            "volts": 230,
            "hertz": 50,
            "watts": 2000,
            "protection_class": "I",
            "parts": [part],
        }
    )
    assert read_line("kettle 26", toy).between == ("heater.a", "heater.b")


@pytest.mark.parametrize(
    ("text", "offered"),
    [
        ("hea", ["heater "]),
        ("h", ["heater ", "harness "]),
        ("heater ", ["heater element ", "heater pe ", "heater earth ", "heater uncalled "]),
        ("motor br", ["motor brush_1 ", "motor brush_2 "]),
        ("", []),
        ("heater 25", []),
    ],
)
def test_beginnings_are_completed(fl7: Sheet, text: str, offered: list[str]) -> None:
    assert completions(text, fl7) == offered


@pytest.mark.parametrize(
    ("typed", "line", "whole"),
    [
        ("26", "heater.element", "heater element 26"),
        (" 25,9 ", "heater.element", "heater element 25,9"),
        (">299M", "heater.pe", "heater pe >299M"),
        ("OL", "heater.element", "heater element OL"),
        ("ol loose", "heater.element", "heater element ol loose"),
        (".4", "lock.locked", "lock locked .4"),
        ("-3", "motor.field", "motor field -3"),
        ("10.4k at 24C", "ntc.sensor", "ntc sensor 10.4k at 24C"),
        ("12", "heater.a pump.b", "between heater.a pump.b 12"),
        ("pump 148", "heater.element", "pump 148"),
        ("outlet 229", "heater.element", "outlet 229"),
        ("older heater 3", "heater.element", "older heater 3"),
        ("26", "", "26"),
        ("", "heater.element", ""),
    ],
)
def test_a_bare_reading_belongs_to_the_line_in_question(typed: str, line: str, whole: str) -> None:
    assert with_line(typed, line) == whole
