"""Heating water against pint and by hand; 4.19 kJ/(kg·K) is a handbook value (from memory)."""

from __future__ import annotations

import pint
import pytest

from ohmcensus.core.errors import InputError
from ohmcensus.core.physics.heat import heat_energy_j, heat_up_minutes


def test_the_energy_is_that_of_pint() -> None:
    units: pint.UnitRegistry[float] = pint.UnitRegistry()
    energy = (15 * units.kg * 4.19 * units.kJ / units.kg / units.delta_degC * (60 - 15) * units.delta_degC).to("kWh")
    assert heat_energy_j(15, 15, 60) / 3.6e6 == pytest.approx(energy.magnitude)


def test_ten_litres_by_fifty_degrees_at_two_kilowatts_take_seventeen_and_a_half_minutes() -> None:
    """10 kg x 4.19 kJ/(kg K) x 50 K = 2095 kJ; at 2 kW 1047.5 s."""
    assert heat_up_minutes(10, 10, 60, 2000)[0] == pytest.approx(1047.5 / 60)


@pytest.mark.parametrize(
    ("litres", "start", "end", "watts"),
    [(0, 15, 60, 2000), (-5, 15, 60, 2000), (15, 60, 15, 2000), (15, 15, 140, 2000), (15, 15, 60, 0)],
)
def test_what_heats_nothing_is_refused(litres: float, start: float, end: float, watts: float) -> None:
    with pytest.raises(InputError):
        heat_up_minutes(litres, start, end, watts)
