"""What people type from a display, and how it is written back."""

from __future__ import annotations

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from ohmcensus.core.errors import ReadingTextError
from ohmcensus.core.quantity import (
    Bound,
    Indication,
    Interval,
    Unit,
    parse_indication,
    show_indication,
    show_range,
    show_value,
)

REFUSED = [
    ("", Unit.OHM, "no reading typed"),
    ("   ", Unit.OHM, "no reading typed"),
    ("abc", Unit.OHM, "'abc' is not a reading"),
    ("12..3", Unit.OHM, "'12..3' is not a reading"),
    ("1,234.5", Unit.OHM, "is not a reading"),
    ("2k2k", Unit.OHM, "is not a reading"),
    ("4R7k", Unit.OHM, "is not a reading"),
    (">", Unit.OHM, "is not a reading"),
    ("<OL", Unit.OHM, "is not a reading"),
    ("NaN", Unit.OHM, "'NaN' is not a reading"),
    ("inf", Unit.OHM, "is not a reading"),
    ("1e999", Unit.OHM, "more than any meter shows"),
    ("99999G", Unit.OHM, None),
    ("1e20", Unit.OHM, "more than any meter shows"),
    ("٣", Unit.OHM, "is not a reading"),
    ("1\x00", Unit.OHM, "is not a reading"),
    ("-3", Unit.OHM, "a minus means voltage on the part"),
    ("-1u", Unit.FARAD, "never negative"),
    ("-5", Unit.HERTZ, "never negative"),
    ("230V", Unit.OHM, "is in volts where ohms belong"),
    ("25.9 ohm", Unit.VOLT, "is in ohms where volts belong"),
    ("5 C", Unit.OHM, "is in degrees Celsius where ohms belong"),
    ("2 kW", Unit.AMPERE, "is in watts where amperes belong"),
    ("-300", Unit.CELSIUS, "below absolute zero"),
    ("20k", Unit.CELSIUS, "where degrees Celsius belong"),
    ("x" * 10_240, Unit.OHM, "far too long"),
]


@pytest.mark.parametrize(("text", "unit", "says"), REFUSED, ids=[repr(row[0][:12]) for row in REFUSED])
def test_bad_text_is_refused_in_one_sentence(text: str, unit: Unit, says: str | None) -> None:
    if says is None:
        assert parse_indication(text, unit).value == 99999e9
        return
    with pytest.raises(ReadingTextError) as caught:
        parse_indication(text, unit)
    message = str(caught.value)
    assert says in message
    assert "\n" not in message
    assert len(message) < 200
    assert caught.value.remedy


@pytest.mark.parametrize(
    ("texts", "unit"),
    [
        (("2.2k", "2k2", "2200", "2,2k", "2.2 kΩ", "2.2 kΩ", "2.2e3", "2K2", "2k2Ω", "2.2 kohm"), Unit.OHM),
        (("0.47", "R47", "470m", "0R47", ".47", ",47", "470 milliohm"), Unit.OHM),
        (("4.7u", "4u7", "4.7 µF", "4.7μF", "4700n", "4.7 mfd", "4.7 MFD", "0.0000047"), Unit.FARAD),
        (("-40", "−40", "–40", "-40C", "-40 °C", "-40 ℃", "-40F", "-40 deg C"), Unit.CELSIUS),
        (("3.3", "3V3", "3.3 V", "3300 mV", "3.3vac", "3.3 VDC"), Unit.VOLT),
        (("0.012", "12mm", "1.2 cm", "12 mm"), Unit.METRE),
        (("0.34m", "0.34 mA", "340u", "340 µA"), Unit.AMPERE),
    ],
    ids=["kilohm", "milliohm", "microfarad", "celsius", "volt", "metre", "ampere"],
)
def test_every_spelling_of_a_value_is_the_same_float(texts: tuple[str, ...], unit: Unit) -> None:
    assert len({parse_indication(text, unit).value for text in texts}) == 1


@pytest.mark.parametrize("text", ["OL", "ol", "O.L", "0L", "0.L", ".OL", "O L", "over range", "overload", "∞", ">OL"])
def test_over_range_has_no_figure(text: str) -> None:
    assert parse_indication(text, Unit.OHM) == Indication(None, Unit.OHM, Bound.ABOVE)


def test_a_lone_one_is_over_range_only_on_a_meter_that_shows_it_so() -> None:
    simple = frozenset({"1", "1."})
    assert parse_indication("1.", Unit.OHM).value == 1.0
    assert parse_indication("1.", Unit.OHM, over_range_texts=simple).value is None
    assert parse_indication("1,", Unit.OHM, over_range_texts=simple).value is None
    assert parse_indication("1.00", Unit.OHM, over_range_texts=simple).value == 1.0
    assert parse_indication("1R", Unit.OHM, over_range_texts=simple).value == 1.0


@pytest.mark.parametrize(
    ("text", "unit", "shown"),
    [
        ("2.20k", Unit.OHM, "2.20 kΩ"),
        ("0.03", Unit.OHM, "0.03 Ω"),
        ("0.00", Unit.OHM, "0.00 Ω"),
        (".044M", Unit.OHM, "44 kΩ"),
        (">299M", Unit.OHM, "> 299 MΩ"),
        ("<0.5M", Unit.OHM, "< 500 kΩ"),
        ("OL", Unit.OHM, "OL"),
        ("0.466u", Unit.FARAD, "466 nF"),
        ("0.37m", Unit.AMPERE, "0.37 mA"),
        ("-4.5", Unit.CELSIUS, "−4.5 °C"),
        ("19mm", Unit.METRE, "19 mm"),
    ],
)
def test_an_indication_keeps_the_digits_that_were_typed(text: str, unit: Unit, shown: str) -> None:
    assert show_indication(parse_indication(text, unit)) == shown


@pytest.mark.parametrize(
    ("interval", "unit", "shown"),
    [
        (Interval(25.19, 29.39), Unit.OHM, "25.2–29.4 Ω"),
        (Interval(600, 1900), Unit.OHM, "0.6–1.9 kΩ"),
        (Interval(hi=0.1), Unit.OHM, "< 0.1 Ω"),
        (Interval(300e3), Unit.OHM, "> 300 kΩ"),
        (Interval(207, 253), Unit.VOLT, "207–253 V"),
        (Interval(0, 0.000408), Unit.AMPERE, "0–0.408 mA"),
        (Interval(), Unit.OHM, "anything"),
    ],
)
def test_a_range_is_written_with_one_prefix(interval: Interval, unit: Unit, shown: str) -> None:
    assert show_range(interval, unit) == shown


@pytest.mark.parametrize(("value", "shown"), [(999.6, "1 kΩ"), (0.0, "0 Ω"), (1e6, "1 MΩ"), (0.0234, "0.0234 Ω")])
def test_a_computed_value_is_rounded_before_its_prefix_is_chosen(value: float, shown: str) -> None:
    assert show_value(value, Unit.OHM) == shown


@given(st.decimals(min_value="0.001", max_value="9999", places=3, allow_nan=False))
def test_a_prefix_never_changes_the_value(number: object) -> None:
    text = f"{number}"
    kilo, mega = parse_indication(f"{text}k", Unit.OHM), parse_indication(f"{text}M", Unit.OHM)
    assert kilo.value == pytest.approx(float(text) * 1e3, rel=1e-15)
    assert mega.value == pytest.approx(float(text) * 1e6, rel=1e-15)
    assert parse_indication(text.replace(".", ","), Unit.OHM) == parse_indication(text, Unit.OHM)


@given(st.text(max_size=60), st.sampled_from(list(Unit)))
def test_any_text_is_read_or_refused_and_never_breaks(text: str, unit: Unit) -> None:
    try:
        found = parse_indication(text, unit)
    except ReadingTextError:
        return
    assert found.value is None or math.isfinite(found.value)
    assert show_indication(found)


@given(st.floats(min_value=1e-3, max_value=9.9e9), st.sampled_from([Unit.OHM, Unit.VOLT, Unit.WATT]))
def test_what_is_shown_can_be_typed_again(value: float, unit: Unit) -> None:
    shown = show_value(value, unit, figures=6)
    assert parse_indication(shown, unit).value == pytest.approx(value, rel=1e-5)


def test_an_interval_refuses_ends_out_of_order() -> None:
    with pytest.raises(ValueError, match="2"):
        Interval(2.0, 1.0)
    with pytest.raises(ValueError, match="nan"):
        Interval(math.nan, 1.0)
