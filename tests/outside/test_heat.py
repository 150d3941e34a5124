"""Heating water against pint and by hand; 4.19 kJ/(kg·K) is a handbook value (from memory)."""

from __future__ import annotations

import pint
import pytest

from ohmcensus.core.errors import InputError
from ohmcensus.core.physics.heat import heat_energy_j, heat_up_bounds, heat_up_minutes
from ohmcensus.core.physics.wash import Programme, wash_of


def test_the_energy_is_that_of_pint() -> None:
    units: pint.UnitRegistry[float] = pint.UnitRegistry()
    energy = (15 * units.kg * 4.19 * units.kJ / units.kg / units.delta_degC * (60 - 15) * units.delta_degC).to("kWh")
    assert heat_energy_j(15, 15, 60) / 3.6e6 == pytest.approx(energy.magnitude)


def test_ten_litres_by_fifty_degrees_at_two_kilowatts_take_seventeen_and_a_half_minutes() -> None:
    """10 kg x 4.19 kJ/(kg K) x 50 K = 2095 kJ; at 2 kW 1047.5 s."""
    assert heat_up_minutes(10, 10, 60, 2000)[0] == pytest.approx(1047.5 / 60)


def test_the_bounds_of_a_sound_heater_by_hand() -> None:
    """10 l by 25 K at 2 kW: 8.73 min; a degree off at either end 0.698 min; +5/-10 % of power (IEC 60335-1, memory)."""
    least, most = heat_up_bounds(10, 15, 40, 2000)
    assert least == pytest.approx((8.729 - 0.698) / 1.05, rel=1e-3)
    assert most == pytest.approx((8.729 + 0.698) * 1.15 / 0.90, rel=1e-3)
    weak, _ = heat_up_bounds(10, 15, 40, 2000, volts_share=0.9)
    assert weak == pytest.approx(least / 0.81)


def test_a_wash_against_pint() -> None:
    """14 l and 4 kg of cotton from 15 to 40 degrees, 3 rinses of 12 l, 120 W for 90 min."""
    units: pint.UnitRegistry[float] = pint.UnitRegistry()
    per = units.kJ / units.kg / units.delta_degC
    rise = 25 * units.delta_degC
    heat = (14 * units.kg * 4.19 * per + 4 * units.kg * 1.34 * per) * rise
    found = wash_of(Programme())
    assert found.energy_j == pytest.approx((heat + 120 * units.W * 90 * units.minute).to("J").magnitude)
    assert found.water_litres == 50
    assert wash_of(Programme(to_celsius=15)).water_heat_j == 0
    with pytest.raises(InputError, match="12 for rinses: give 0 to 10"):
        wash_of(Programme(rinses=12))


@pytest.mark.parametrize(
    ("litres", "start", "end", "watts"),
    [(0, 15, 60, 2000), (-5, 15, 60, 2000), (15, 60, 15, 2000), (15, 15, 140, 2000), (15, 15, 60, 0)],
)
def test_what_heats_nothing_is_refused(litres: float, start: float, end: float, watts: float) -> None:
    with pytest.raises(InputError):
        heat_up_minutes(litres, start, end, watts)
