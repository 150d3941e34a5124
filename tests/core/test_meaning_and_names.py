"""What a load would take at work; names as people type them; what errors say."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from ohmcensus.core.errors import InputError, OhmcensusError, StaleRevisionError
from ohmcensus.core.judgement.meaning import at_work
from ohmcensus.core.meter import Function, generic_meter
from ohmcensus.core.physics.uncertainty import Estimate, combined
from ohmcensus.core.quantity import Unit, parse_indication
from ohmcensus.core.text.names import find, folded, nearest

KNOWN = {"heater": "H", "heater relay": "R", "door lock": "L", "lock": "L"}


@pytest.mark.parametrize(
    ("text", "says"),
    [
        ("25.9", "at 230 V it draws 8.9 A and takes 2.04 kW ± 49 W"),
        ("26.45", "at 230 V it draws 8.7 A and takes 2 kW ± 47 W"),
        ("OL", ""),
        (">20", ""),
        ("0.2", ""),
    ],
)
def test_a_load_is_said_to_draw_and_take(text: str, says: str) -> None:
    meter, shown = generic_meter("multimeter-6000"), parse_indication(text, Unit.OHM)
    assert at_work(shown, meter.interval_of(shown, Function.OHM), 230.0) == says


@given(st.floats(1, 1e3), st.floats(0, 1), st.floats(1, 1e3), st.floats(0, 1))
def test_uncertainties_add_in_squares(a: float, ua: float, b: float, ub: float) -> None:
    total = combined(lambda x, y: x + y, Estimate(a, ua), Estimate(b, ub))
    assert total.value == pytest.approx(a + b)
    assert total.standard == pytest.approx((ua**2 + ub**2) ** 0.5, abs=1e-6)


@pytest.mark.parametrize(
    ("typed", "found"),
    [
        ("heater", ["H"]),
        ("HEATER", ["H"]),
        ("heater_relay", ["R"]),
        ("Heater-Relay", ["R"]),
        ("heat", ["H", "R"]),
        ("lo", ["L"]),
        ("door", ["L"]),
        ("", []),
        ("zzz", []),
    ],
)
def test_a_name_is_found_exactly_or_by_its_beginning(typed: str, found: list[str]) -> None:
    assert find(typed, KNOWN) == found


def test_a_near_miss_is_offered_and_a_far_one_is_not() -> None:
    assert nearest("heeter", KNOWN) == "heater"
    assert nearest("xyzzy", KNOWN) is None


@given(st.text(max_size=30))
def test_folding_a_name_twice_changes_nothing(name: str) -> None:
    assert folded(folded(name)) == folded(name)


def test_an_error_reads_as_one_sentence_with_its_remedy() -> None:
    error = InputError(what="no 'heeter' on this sheet", remedy="heater?", field="line")
    assert (str(error), error.field) == ("no 'heeter' on this sheet: heater?", "line")
    assert str(OhmcensusError(what="the tub is full")) == "the tub is full"
    assert "from revision 3 to 5" in str(StaleRevisionError(stated=3, current=5))
