"""Which readings stand, what the census sheet says, and where the drawings put it."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from ohmcensus.core.job.case import Case
from ohmcensus.core.job.reading import Reading
from ohmcensus.core.judgement import Verdict, census_lines, choose_use
from ohmcensus.core.judgement.census_sheet import next_line
from ohmcensus.core.layout import OhmRuler, ohm_ruler, short_ruler
from ohmcensus.core.layout.ohm_ruler import position
from ohmcensus.core.machine import read_line
from ohmcensus.core.meter import GENERIC_METERS, Function
from ohmcensus.core.quantity import Interval, Unit
from ohmcensus.core.quantity.window import Source, Window
from ohmcensus.core.sheet import Sheet


def reading(
    fl7: Sheet, row_id: str, text: str, *, supersedes: str | None = None, withdrawn: bool = False, celsius: float = 20.0
) -> Reading:
    line = read_line(text, fl7)
    function = line.test.function if line.test else Function.OHM
    use = choose_use(line.reading, line.test, GENERIC_METERS, function=function)
    return Reading(
        id=row_id,
        between=line.between,
        test=line.test.id if line.test else None,
        function=use.function,
        meter=use.meter,
        indication=use.indication,
        text=text,
        celsius=celsius,
        supersedes=supersedes,
        withdrawn=withdrawn,
    )


def ruler_of(fl7: Sheet, rows: tuple[Reading, ...]) -> OhmRuler:
    case = Case(fl7, rows)
    return ohm_ruler(case, census_lines(case))


def stands(*rows: Reading) -> list[str]:
    return [row.id for row in Case(sheet=None, readings=rows).standing]  # type: ignore[arg-type]


def test_a_correction_takes_the_place_and_undoing_it_brings_the_old_one_back(fl7: Sheet) -> None:
    first = reading(fl7, "a", "heater 259")
    other = reading(fl7, "b", "pump 148")
    fixed = reading(fl7, "c", "heater 25.9", supersedes="a")
    undone = reading(fl7, "d", "heater 25.9", supersedes="c", withdrawn=True)
    gone = reading(fl7, "e", "heater 25.9", supersedes="a", withdrawn=True)
    assert stands(first, other) == ["a", "b"]
    assert stands(first, other, fixed) == ["b", "c"]
    assert stands(first, other, fixed, undone) == ["a", "b"]
    assert stands(first, other, fixed, undone, gone) == ["b"]


@given(st.lists(st.tuples(st.integers(0, 6), st.booleans()), max_size=12))
def test_nothing_stands_twice_and_nothing_withdrawn_stands(fl7: Sheet, steps: list[tuple[int, bool]]) -> None:
    base = reading(fl7, "0", "pump 148")
    rows = [base]
    for number, (target, withdrawn) in enumerate(steps, start=1):
        aim = str(target) if target < number else None
        if withdrawn and aim is None:
            continue
        rows.append(reading(fl7, str(number), "pump 148", supersedes=aim, withdrawn=withdrawn))
    found = stands(*rows)
    assert len(found) == len(set(found))
    assert not {row.id for row in rows if row.withdrawn} & set(found)


def test_the_census_sheet_has_a_line_for_every_test_and_loose_pair(fl7: Sheet) -> None:
    rows = (
        reading(fl7, "a", "heater 25.9"),
        reading(fl7, "b", "heater 26.0"),
        reading(fl7, "c", "between heater.a pump.a 3"),
    )
    lines = census_lines(Case(fl7, rows))
    assert [line.test.id for line in lines if line.test][:3] == ["outlet.ln", "outlet.le", "outlet.ne"]
    asked = {line.between: line for line in lines if line.answer}
    assert [answer.reading.id for answer in asked["heater.a", "heater.b"].answers] == ["a", "b"]
    assert lines[-1].between == ("heater.a", "pump.a")
    assert lines[-1].answer is not None
    assert lines[-1].answer.judgement.verdict is Verdict.NOT_JUDGED


def test_a_reading_is_judged_at_its_own_temperature(fl7: Sheet) -> None:
    rows = (reading(fl7, "a", "ntc 2.49k", celsius=60.0),)
    line = next(line for line in census_lines(Case(fl7, rows)) if line.test and line.test.id == "ntc.sensor")
    assert line.answer is not None
    assert line.answer.judgement.verdict is Verdict.INSIDE


def test_the_next_line_is_behind_the_last_one_and_can_be_asked_dead(fl7: Sheet) -> None:
    lines = census_lines(Case(fl7, (reading(fl7, "a", "heater 25.9"),)))
    following = next_line(lines, "heater.element")
    first = next_line(lines, None)
    assert following is not None
    assert following.test is not None
    assert following.test.id == "heater.pe"
    assert first is not None
    assert first.test is not None
    assert first.test.id == "cord.l"


@pytest.mark.parametrize(("ohms", "x"), [(0.0, 0.0), (0.1, 0.0), (1.0, 0.1), (100e3, 0.6), (1e9, 1.0), (5e12, 1.0)])
def test_each_decade_is_a_tenth_of_the_ruler(ohms: float, x: float) -> None:
    assert position(ohms) == pytest.approx(x)


@given(st.lists(st.floats(0.01, 5.9e7), min_size=1, max_size=12))
def test_pins_stand_in_order_and_on_the_ruler(fl7: Sheet, values: list[float]) -> None:
    rows = tuple(reading(fl7, str(i), f"between heater.a motor.pe {v:.3f}") for i, v in enumerate(values))
    ruler = ruler_of(fl7, rows)
    assert [pin.x for pin in ruler.pins] == sorted(pin.x for pin in ruler.pins)
    assert all(0 <= pin.x <= 1 and 0 <= pin.level <= 2 for pin in ruler.pins)
    assert all(0 <= band.x0 <= band.x1 <= 1 for band in ruler.bands)


def test_an_outside_pin_points_at_its_window_and_a_one_sided_one_beyond_itself(fl7: Sheet) -> None:
    rows = (reading(fl7, "a", "heater pe 47k"), reading(fl7, "b", "pump OL"), reading(fl7, "c", "heater 25.9"))
    pins = {pin.line: pin for pin in ruler_of(fl7, rows).pins}
    assert pins["heater.pe"].towards == pytest.approx(position(300e3))
    assert (pins["pump.coil"].label, pins["pump.coil"].beyond) == ("OL", 1)
    assert (pins["heater.element"].towards, pins["heater.element"].beyond) == (None, 0)


def test_other_units_stay_off_the_ohm_ruler(fl7: Sheet) -> None:
    rows = (reading(fl7, "a", "outlet 231"), reading(fl7, "b", "brush 1 19mm"))
    ruler = ruler_of(fl7, rows)
    assert ruler.pins == ()
    assert "outlet.ln" not in {band.line for band in ruler.bands}


@pytest.mark.parametrize(
    ("window", "shown", "value"),
    [
        (Interval(207, 253), Interval(228, 234), 231.0),
        (Interval(hi=0.3), Interval(0.1, 0.14), 0.12),
        (Interval(0.011), Interval(0.018, 0.02), 0.019),
        (Interval(300e3), Interval(290e6), None),
    ],
)
def test_a_short_ruler_holds_window_and_reading(window: Interval, shown: Interval, value: float | None) -> None:
    ruler = short_ruler(Window(window, Unit.VOLT, Source.COMMON, "x"), shown, value)
    assert 0 <= ruler.window_lo < ruler.window_hi <= 1
    assert ruler.lo is not None
    assert ruler.hi is not None
    assert ruler.pin is not None
    assert 0 <= ruler.lo <= ruler.pin <= ruler.hi <= 1
    empty = short_ruler(Window(window, Unit.VOLT, Source.COMMON, "x"), None, None)
    assert empty.pin is None
