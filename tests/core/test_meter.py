"""The interval that an indication stands for."""

from __future__ import annotations

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st
from pydantic import ValidationError

from ohmcensus.core.errors import UnknownNameError
from ohmcensus.core.meter import GENERIC_METERS, Function, Meter, Range, generic_meter
from ohmcensus.core.quantity import Bound, Indication, Unit, parse_indication

MULTIMETER, SIMPLE, TESTER, *_ = GENERIC_METERS


def ohms(text: str, meter: Meter = MULTIMETER, function: Function = Function.OHM) -> tuple[float, float]:
    interval = meter.interval_of(parse_indication(text, Unit.OHM, over_range_texts=meter.over_range_texts), function)
    return interval.lo, interval.hi


def test_accuracy_is_percent_of_reading_and_digits_of_the_range() -> None:
    assert ohms("25.9") == pytest.approx((25.9 - 0.2331 - 0.3, 25.9 + 0.2331 + 0.3))


def test_the_smallest_range_that_shows_the_value_counts() -> None:
    assert ohms("600.0")[1] - 600 == pytest.approx(5.4 + 0.3)
    assert ohms("601")[1] - 601 == pytest.approx(5.409 + 3)


def test_leads_that_were_not_nulled_widen_the_interval_downwards_only() -> None:
    lo, hi = ohms("5.0", SIMPLE)
    assert lo == pytest.approx(5.0 - 0.05 - 0.4 - 0.3)
    assert hi == pytest.approx(5.0 + 0.05 + 0.4)


def test_no_resistance_is_below_zero() -> None:
    assert ohms("0.1")[0] == 0.0
    assert ohms("0.00", TESTER, Function.INSULATION) == (0.0, 0.02e6)


@pytest.mark.parametrize(
    ("text", "meter", "function", "lo", "hi"),
    [
        ("OL", MULTIMETER, Function.OHM, 60e6 - 0.54e6 - 30e3, math.inf),
        ("1", SIMPLE, Function.OHM, 2e6 - 20e3 - 4e3 - 0.3, math.inf),
        (">299M", TESTER, Function.INSULATION, 299e6 - 8.97e6 - 20e3, math.inf),
        ("<0.5M", TESTER, Function.INSULATION, 0.0, 0.5e6 + 15e3 + 20e3),
    ],
    ids=["multimeter OL", "lone 1", "tester over-range", "below"],
)
def test_one_sided_readings_stay_one_sided(text: str, meter: Meter, function: Function, lo: float, hi: float) -> None:
    assert ohms(text, meter, function) == pytest.approx((lo, hi))


def test_negative_volts_keep_their_sign() -> None:
    interval = MULTIMETER.interval_of(parse_indication("-5.00", Unit.VOLT), Function.VOLTS_DC)
    assert interval.lo < -5.0 < interval.hi < 0.0


@given(st.floats(min_value=0.0, max_value=6e7), st.sampled_from(GENERIC_METERS[:3]))
def test_the_interval_holds_the_shown_value(value: float, meter: Meter) -> None:
    function = Function.OHM if meter.measures(Function.OHM) else Function.INSULATION
    interval = meter.interval_of(Indication(value, Unit.OHM, Bound.EXACT, 0.1), function)
    assert interval.lo <= value <= interval.hi


def test_a_display_that_writes_no_ol_cannot_have_shown_one() -> None:
    over_range = Indication(None, Unit.OHM, Bound.ABOVE)
    assert MULTIMETER.can_show(over_range, Function.OHM)
    assert not TESTER.can_show(over_range, Function.INSULATION)
    assert not MULTIMETER.can_show(parse_indication("299M", Unit.OHM), Function.OHM)
    assert TESTER.can_show(parse_indication(">299M", Unit.OHM), Function.INSULATION)


@pytest.mark.parametrize(
    "ranges",
    [
        [],
        [{"full_scale": 600, "resolution": 0.1, "percent": 1, "digits": 3}] * 2,
        [{"full_scale": 1, "resolution": 2, "percent": 1, "digits": 3}],
        [{"full_scale": math.nan, "resolution": 0.1, "percent": 1, "digits": 3}],
        [{"full_scale": 600, "resolution": 0.1, "percent": -1, "digits": 3}],
        [{"full_scale": 600, "resolution": 0, "percent": 1, "digits": 3}],
    ],
    ids=["none", "not ascending", "resolution above scale", "nan", "negative accuracy", "no resolution"],
)
def test_a_leaflet_that_cannot_be_is_refused(ranges: list[dict[str, float]]) -> None:
    with pytest.raises(ValidationError):
        Meter.model_validate({"id": "x", "title": "X", "functions": {"ohm": ranges}})


def test_a_range_states_its_limit_of_error() -> None:
    assert Range(full_scale=20, resolution=0.01, percent=2, digits=2).error_of(-10) == pytest.approx(0.22)


def test_an_unknown_meter_names_the_known() -> None:
    with pytest.raises(UnknownNameError, match="known are multimeter-6000"):
        generic_meter("wand")
