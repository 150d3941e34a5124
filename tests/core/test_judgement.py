"""A reading against its window, with its meter's error."""

from __future__ import annotations

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from ohmcensus.core.errors import InputError, ReadingTextError
from ohmcensus.core.judgement import Judgement, Verdict, choose_use, judge, verdict_of
from ohmcensus.core.judgement.passes import named_test
from ohmcensus.core.limits.profile import BUILT_IN
from ohmcensus.core.limits.terms import Terms
from ohmcensus.core.machine import machine_tests, read_line
from ohmcensus.core.meter import GENERIC_METERS, Function, Meter
from ohmcensus.core.parts.fault import FaultMode
from ohmcensus.core.quantity import Bound, Indication, Interval, Unit, parse_indication
from ohmcensus.core.sheet import Sheet
from ohmcensus.services.at_hand.sheets import all_sheets

MULTIMETER, SIMPLE, TESTER, *_ = GENERIC_METERS
BAG = (MULTIMETER, TESTER)


def judged(fl7: Sheet, text: str, meters: tuple[Meter, ...] = BAG, celsius: float = 20.0) -> Judgement:
    line = read_line(text if " at " in text else f"{text} at {celsius:g}C", fl7)
    function = line.test.function if line.test else Function.OHM
    return judge(choose_use(line.reading, line.test, meters, function=function), line.test)


@pytest.mark.parametrize(
    ("text", "verdict"),
    [
        ("heater 25.9", Verdict.INSIDE),
        ("heater 25.1", Verdict.UNSURE),
        ("heater 24.0", Verdict.OUTSIDE_LOW),
        ("heater 33", Verdict.OUTSIDE_HIGH),
        ("heater OL", Verdict.OPEN),
        ("heater >50M", Verdict.OPEN),
        ("heater >20", Verdict.UNSURE),
        ("heater 0.3", Verdict.SHORT),
        ("heater <0.5", Verdict.SHORT),
        ("heater <20", Verdict.OUTSIDE_LOW),
        ("heater pe OL", Verdict.INSIDE),
        ("heater pe >299M", Verdict.INSIDE),
        ("heater pe >0.2M", Verdict.UNSURE),
        ("heater pe 47k", Verdict.OUTSIDE_LOW),
        ("heater pe 0.00M", Verdict.OUTSIDE_LOW),
        ("pump 148", Verdict.INSIDE),
        ("lock 1.1k", Verdict.INSIDE),
        ("field 2k2", Verdict.OUTSIDE_HIGH),
        ("lock unlocked OL", Verdict.INSIDE),
        ("lock unlocked 0.3", Verdict.SHORT),
        ("lock locked 0.3", Verdict.INSIDE),
        ("lock locked OL", Verdict.OPEN),
        ("board relay 0.2", Verdict.SHORT),
        ("brush 1 9mm", Verdict.OUTSIDE_LOW),
        ("outlet 231", Verdict.INSIDE),
        ("outlet 190", Verdict.OUTSIDE_LOW),
        ("outlet 0", Verdict.OUTSIDE_LOW),
        ("filter x 1n", Verdict.OUTSIDE_LOW),
        ("brush 1 0mm", Verdict.OUTSIDE_LOW),
        ("cord pe 0.12", Verdict.INSIDE),
        ("between heater.a pump.a 3", Verdict.NOT_JUDGED),
    ],
)
def test_verdicts_on_the_front_loader(fl7: Sheet, text: str, verdict: Verdict) -> None:
    assert judged(fl7, text).verdict is verdict


def test_the_story_line_is_answered_word_for_word(fl7: Sheet) -> None:
    assert judged(fl7, "heater 25.9").sentence == "inside 25.2–29.4 Ω, from the plate: 2000 W at 230 V, +5/−10 %"


@pytest.mark.parametrize(
    ("text", "remark"),
    [
        ("heater pe 47k", "six times too low"),
        ("field 2k2", "three decades too high"),
        ("heater 25.9", "blind to a leak"),
        ("heater 33", "3.6 Ω too high"),
        ("pump 2", "shorted"),
        ("pump 148", ""),
        ("heater 25.1", "within the meter's error"),
        ("pump OL", "open circuit"),
        ("motor armature 60", "12 times too high"),
    ],
)
def test_the_line_says_how_far_off_it_is(fl7: Sheet, text: str, remark: str) -> None:
    assert judged(fl7, text).remark == remark


def test_an_ohmmeter_to_earth_proves_little(fl7: Sheet) -> None:
    weak, proper = judged(fl7, "heater pe OL"), judged(fl7, "heater pe >299M")
    assert weak.verdict is proper.verdict is Verdict.INSIDE
    assert FaultMode.LEAK in weak.blind_to
    assert FaultMode.LEAK not in proper.blind_to
    assert weak.remark == "not proved: needs 500 V"
    assert "misses most leaks" in weak.sentence


def test_the_reading_tells_which_meter_was_used(fl7: Sheet) -> None:
    test = {t.id: t for t in machine_tests(fl7, 20.0)}["heater.pe"]
    for text, meter, function in (
        ("OL", MULTIMETER, Function.OHM),
        (">299M", TESTER, Function.INSULATION),
        ("47k", TESTER, Function.INSULATION),
    ):
        use = choose_use(text, test, BAG, function=test.function)
        assert (use.meter, use.function) == (meter, function), text


def test_a_meter_without_the_function_is_refused(fl7: Sheet) -> None:
    test = {t.id: t for t in machine_tests(fl7, 20.0)}["filter.x"]
    with pytest.raises(InputError, match="cannot read capacitance: choose a meter that has it"):
        choose_use("0.47u", test, [TESTER], function=test.function)


def test_a_wrong_unit_is_refused_where_it_is_typed(fl7: Sheet) -> None:
    with pytest.raises(ReadingTextError, match="'230V' is in volts where ohms belong"):
        judged(fl7, "heater 230V")


windows = st.tuples(st.floats(0.1, 1e6), st.floats(1.01, 100)).map(lambda t: Interval(t[0], t[0] * t[1]))


@given(windows, st.floats(0.0, 1e8), st.floats(0.0, 0.2))
def test_a_wider_error_never_turns_one_sure_verdict_into_the_other(window: Interval, value: float, part: float) -> None:
    shown = Indication(value, Unit.OHM, Bound.EXACT, 0.1)
    exact = verdict_of(shown, Interval(value, value), window)
    wide = verdict_of(shown, Interval(value * (1 - part), value * (1 + part)), window)
    low = {Verdict.SHORT, Verdict.OUTSIDE_LOW}
    assert wide in {exact, Verdict.UNSURE} or {wide, exact} <= low


@given(st.decimals(min_value="0.1", max_value="900", places=2), st.sampled_from([("", 1), ("k", 1e3)]))
def test_a_verdict_never_flips_with_the_prefix(number: object, prefix: tuple[str, float]) -> None:
    letter, factor = prefix
    window = Interval(25.2 * factor, 29.4 * factor)
    plain = parse_indication(f"{float(str(number)) * factor:.2f}", Unit.OHM)
    short = parse_indication(f"{number}{letter}", Unit.OHM)
    assert short.value == plain.value
    outcomes = {verdict_of(shown, MULTIMETER.interval_of(shown, Function.OHM), window) for shown in (plain, short)}
    assert len(outcomes) == 1


def test_plain_over_range_is_inside_wherever_there_is_no_upper_end() -> None:
    shown = Indication(None, Unit.OHM, Bound.ABOVE)
    assert verdict_of(shown, Interval(2e6), Interval(5e6)) is Verdict.INSIDE
    assert verdict_of(shown, Interval(2e6), Interval(5e6, 9e6)) is Verdict.UNSURE
    assert verdict_of(shown, Interval(2e6), Interval(hi=1.0)) is Verdict.OPEN


def test_the_simple_meter_reads_a_lone_one_as_over_range(fl7: Sheet) -> None:
    assert judged(fl7, "pump 1", (SIMPLE,)).verdict is Verdict.OPEN
    assert judged(fl7, "pump 1", (MULTIMETER,)).verdict is Verdict.SHORT
    assert judged(fl7, "pump 1", (SIMPLE,)).interval.hi == math.inf


@pytest.mark.parametrize(
    ("profile", "named"),
    [
        ("practice_120", "120 V practice, in place of the standard"),
        ("after_repair", "EN 50678"),
        ("stricter", "EN 50678"),
    ],
)
def test_a_profile_in_place_of_the_standard_is_named_where_it_holds(profile: str, named: str) -> None:
    terms = Terms(all_sheets()["tl4-c"], next(row for row in BUILT_IN if row.id == profile))
    test = named_test("cord.insulation", terms)
    assert test is not None
    assert test.window.basis.startswith(named)
