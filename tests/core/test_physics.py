"""Laws that the windows are computed with; values by hand, outside references stand in tests/outside."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from ohmcensus.core.errors import InputError
from ohmcensus.core.physics.cable import core_resistance_ohm, protective_conductor_limit_ohm
from ohmcensus.core.physics.capacitor import capacitive_current_a
from ohmcensus.core.physics.ohm_and_power import element_window_ohm, load_from
from ohmcensus.core.physics.temperature import winding_resistance_at
from ohmcensus.core.physics.thermistor import ntc_resistance_ohm

positive = st.floats(min_value=0.01, max_value=1e4)


@given(positive, positive)
def test_any_two_quantities_of_a_load_give_the_same_whole(volts: float, ohms: float) -> None:
    load = load_from(volts=volts, ohms=ohms)
    for pair in (
        {"volts": load.volts, "amperes": load.amperes},
        {"volts": load.volts, "watts": load.watts},
        {"amperes": load.amperes, "ohms": load.ohms},
        {"amperes": load.amperes, "watts": load.watts},
        {"ohms": load.ohms, "watts": load.watts},
    ):
        again = load_from(**pair)
        assert (again.volts, again.amperes, again.ohms, again.watts) == pytest.approx(
            (load.volts, load.amperes, load.ohms, load.watts), rel=1e-9
        )


@pytest.mark.parametrize(
    "given_values", [{}, {"volts": 230.0}, {"volts": 230.0, "ohms": 26.0, "watts": 1.0}, {"volts": 0.0, "ohms": 2.0}]
)
def test_a_load_needs_exactly_two_positive_quantities(given_values: dict[str, float]) -> None:
    with pytest.raises(InputError):
        load_from(**given_values)


def test_a_machine_plate_moves_only_the_lower_edge_of_the_element() -> None:
    stamped, machine = element_window_ohm(230, 2000), element_window_ohm(230, 2000, stamped_on_element=False)
    assert (stamped.lo, stamped.hi) == pytest.approx((25.19, 29.389), abs=1e-2)
    assert machine.hi == stamped.hi
    assert machine.lo == pytest.approx(stamped.lo * 0.96)


@given(st.floats(min_value=0.1, max_value=1e4), st.floats(-20, 120), st.floats(-20, 120))
def test_a_winding_brought_there_and_back_is_unchanged(ohms: float, cold: float, warm: float) -> None:
    there = winding_resistance_at(ohms, cold, warm)
    assert winding_resistance_at(there, warm, cold) == pytest.approx(ohms)
    assert (there >= ohms) == (warm >= cold) or there == pytest.approx(ohms)


@given(st.floats(-20, 110), st.floats(1, 20))
def test_an_ntc_falls_as_it_warms(celsius: float, step: float) -> None:
    assert ntc_resistance_ohm(10e3, 3950, celsius + step) < ntc_resistance_ohm(10e3, 3950, celsius)


def test_cord_resistance_goes_by_length_and_size() -> None:
    assert core_resistance_ohm(2.0, 1.0) == pytest.approx(0.039)
    assert core_resistance_ohm(2.0, 1.5) == pytest.approx(0.0266)
    with pytest.raises(InputError, match=r"sizes are 0\.5"):
        core_resistance_ohm(2.0, 1.2)


@pytest.mark.parametrize(
    ("length", "limit"), [(1.8, 0.3), (5.0, 0.3), (5.1, 0.4), (12.5, 0.4), (12.6, 0.5), (100.0, 1.0)]
)
def test_the_protective_conductor_limit_grows_in_steps(length: float, limit: float) -> None:
    assert protective_conductor_limit_ohm(length) == pytest.approx(limit)


def test_filter_figures() -> None:
    assert capacitive_current_a(4.7e-9, 230, 50) == pytest.approx(0.34e-3, rel=5e-3)
    assert capacitive_current_a(4.7e-9, 120, 60) == pytest.approx(0.21e-3, rel=2e-2)
