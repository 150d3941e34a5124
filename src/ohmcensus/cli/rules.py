"""Figures of the trade, worked out on the command line."""

from __future__ import annotations

from dataclasses import asdict
from typing import Any

import click

from ohmcensus.cli.say import say
from ohmcensus.core.errors import InputError


@click.group()
def rules() -> None:
    """Work out a figure of the trade."""


@rules.command("rcd")
@click.option("--leakage", type=float, required=True, help="What the machine leaks, in amperes.")
@click.option("--standing", type=float, default=0.0, show_default=True, help="What the rest of the circuit leaks.")
@click.option("--rating", type=float, help="Rated residual current in amperes; none for a GFCI of class A.")
def rules_rcd(leakage: float, standing: float, rating: float | None) -> None:
    """Say whether a residual-current device must, may or must not trip."""
    from ohmcensus.core.physics.residual import GFCI, rcd, trip_chance  # noqa: PLC0415
    from ohmcensus.core.quantity import Interval  # noqa: PLC0415

    found = trip_chance(GFCI if rating is None else rcd(rating), Interval(leakage, leakage), standing)
    say(
        {
            "total_a": {"lo": found.total_a.lo, "hi": found.total_a.hi},
            "trips": {"lo": found.chance.lo, "hi": found.chance.hi},
        }
    )


@rules.command("breaker")
@click.option("--letter", default="", help="B, C or D; gG or plug for a fuse; none for the 120 V world.")
@click.option("--rating", type=float, required=True, help="Rated current in amperes.")
@click.option("--amperes", type=float, help="Current that flows.")
@click.option("--sheet", "sheet_id", help="Machine type whose current and inrush are asked for.")
def rules_breaker(letter: str, rating: float, amperes: float | None, sheet_id: str | None) -> None:
    """Say what a breaker or fuse does with a current, or with a machine."""
    from ohmcensus.core.trip.overcurrent import breaker_bands, inrush_of, reaction  # noqa: PLC0415
    from ohmcensus.services.at_hand.sheets import find_sheet  # noqa: PLC0415

    if (amperes is None) == (sheet_id is None):
        raise InputError(what="one of --amperes and --sheet is needed", remedy="give one of the two", field="amperes")
    bands = breaker_bands(letter, rating)
    said: dict[str, object] = {"slow_a": asdict(bands.slow_a), "at_once_a": asdict(bands.at_once_a)}
    if amperes is not None:
        said["reaction"] = reaction(bands, amperes).value
    if sheet_id is not None:
        sheet = find_sheet(sheet_id)
        said["lasting_a"] = sheet.watts / sheet.volts
        said["reaction"] = reaction(bands, sheet.watts / sheet.volts).value
        said["inrush"] = [
            {
                "part": row.part,
                **asdict(row.ampere),
                "at_least": reaction(bands, row.ampere.lo).value,
                "at_most": reaction(bands, row.ampere.hi).value,
            }
            for row in inrush_of(sheet)
        ]
    say(said)


@rules.command("power")
@click.option("--volts", type=float)
@click.option("--amperes", type=float)
@click.option("--ohms", type=float)
@click.option("--watts", type=float)
def rules_power(**known: float | None) -> None:
    """Work out the other two of volts, amperes, ohms and watts from any two."""
    from ohmcensus.core.physics.ohm_and_power import load_from  # noqa: PLC0415

    say(asdict(load_from(**known)))


@rules.command("heat-up")
@click.option("--litres", type=float, required=True, help="Water in the tub.")
@click.option("--from-celsius", type=float, default=15.0, show_default=True)
@click.option("--to-celsius", type=float, required=True)
@click.option("--watts", type=float, required=True, help="Power of the heater.")
def rules_heat_up(litres: float, from_celsius: float, to_celsius: float, watts: float) -> None:
    """Work out how long a heater takes, and what that takes from the meter."""
    from ohmcensus.core.physics.heat import JOULE_A_KWH, heat_energy_j, heat_up_minutes  # noqa: PLC0415

    alone, laden = heat_up_minutes(litres, from_celsius, to_celsius, watts)
    energy = heat_energy_j(litres, from_celsius, to_celsius)
    say({"energy_j": energy, "kilowatt_hours": energy / JOULE_A_KWH, "minutes": {"lo": alone, "hi": laden}})


@rules.command("wash")
@click.option("--litres", type=float, default=14.0, show_default=True, help="Water of the main wash.")
@click.option("--from-celsius", type=float, default=15.0, show_default=True)
@click.option("--to-celsius", type=float, default=40.0, show_default=True)
@click.option("--laundry-kg", type=float, default=4.0, show_default=True, help="Dry laundry.")
@click.option("--rinses", type=int, default=3, show_default=True)
@click.option("--rinse-litres", type=float, default=12.0, show_default=True, help="Water of each rinse.")
@click.option("--motor-watts", type=float, default=120.0, show_default=True, help="On average over the programme.")
@click.option("--minutes", type=float, default=90.0, show_default=True, help="Of the whole programme.")
def rules_wash(**given: Any) -> None:
    """Work out the water and the energy of one wash."""
    from ohmcensus.core.physics.heat import JOULE_A_KWH  # noqa: PLC0415
    from ohmcensus.core.physics.wash import Programme, wash_of  # noqa: PLC0415

    found = wash_of(Programme(**given))
    say({**asdict(found), "energy_j": found.energy_j, "kilowatt_hours": found.energy_j / JOULE_A_KWH})


@rules.command("worth")
@click.option("--price", type=float, required=True, help="Price of the part, new.")
@click.option("--minutes", type=float, default=30.0, show_default=True, help="To replace it.")
@click.option("--age", type=float, default=6.0, show_default=True, help="Age of the machine in years.")
@click.option("--machine", type=float, default=520.0, show_default=True, help="Price of another machine, fitted.")
def rules_worth(price: float, minutes: float, age: float, machine: float) -> None:
    """Compare replacing a part with giving up the machine, by the cost of a year of use."""
    from pydantic import ValidationError  # noqa: PLC0415

    from ohmcensus.core.worth import Assumptions, options, usual_offers  # noqa: PLC0415

    try:
        given = Assumptions(offers=usual_offers(price), minutes=minutes, age_years=age, machine_price=machine)
    except ValidationError as error:
        what = "; ".join(f"{row['loc'][-1]}: {row['msg'].lower()}" for row in error.errors())
        raise InputError(what=what, remedy="give figures of 0 or more", field="price") from error
    say([asdict(row) for row in options(given)])
