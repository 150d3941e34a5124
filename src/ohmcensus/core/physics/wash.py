"""What a wash takes: water, heat, and the turning of the drum."""

from __future__ import annotations

from dataclasses import dataclass

from ohmcensus.core.errors import InputError
from ohmcensus.core.physics.heat import heat_energy_j

# Specific heat of dry cotton, kJ/(kg·K) (handbook value, from memory).
LAUNDRY_KJ_PER_KG_K = 1.34
_MOST = {
    "litres": 60.0,
    "laundry_kg": 30.0,
    "rinses": 10,
    "rinse_litres": 60.0,
    "minutes": 600.0,
    "motor_watts": 5000.0,
}


@dataclass(frozen=True, slots=True)
class Programme:
    """A programme of a household washer.

    Parameters
    ----------
    litres, from_celsius, to_celsius
        Water of the main wash; no rise for a cold wash.
    laundry_kg
        Dry laundry that is warmed with it.
    rinses, rinse_litres
        How many rinses, and the water of each.
    motor_watts, minutes
        What the motor takes on average, and how long the programme runs.
    """

    litres: float = 14.0
    from_celsius: float = 15.0
    to_celsius: float = 40.0
    laundry_kg: float = 4.0
    rinses: int = 3
    rinse_litres: float = 12.0
    motor_watts: float = 120.0
    minutes: float = 90.0


@dataclass(frozen=True, slots=True)
class Wash:
    """What one wash takes.

    Parameters
    ----------
    water_litres
        Main wash and rinses together.
    water_heat_j, laundry_heat_j, turning_j
        Heat of the water, of the laundry in it, and what the motor takes, in joule.
    """

    water_litres: float
    water_heat_j: float
    laundry_heat_j: float
    turning_j: float

    @property
    def energy_j(self) -> float:
        """All of it, in joule."""
        return self.water_heat_j + self.laundry_heat_j + self.turning_j


def wash_of(programme: Programme) -> Wash:
    """Return what a wash takes.

    Raises
    ------
    InputError
        If a figure lies outside what a household washer does.
    """
    for field, most in _MOST.items():
        value = getattr(programme, field)
        if not 0 <= value <= most:
            raise InputError(what=f"{value:g} for {field}", remedy=f"give 0 to {most:g}", field=field)
    begins, ends = programme.from_celsius, programme.to_celsius
    heat = 0.0 if begins == ends else heat_energy_j(programme.litres, begins, ends)
    laundry = programme.laundry_kg * LAUNDRY_KJ_PER_KG_K * 1e3 * (ends - begins)
    water = programme.litres + programme.rinses * programme.rinse_litres
    return Wash(water, heat, laundry, programme.motor_watts * programme.minutes * 60)
