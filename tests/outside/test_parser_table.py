"""Spellings of readings against values made outside this project.

Sources: the preferred numbers of the E series (IEC 60063) as the package ``eseries`` lists them, spelled with
letters for the decimal mark after IEC 60062 by a few lines here; the rest is common practice, no source.
"""

from __future__ import annotations

import eseries
import pytest

from ohmcensus.core.quantity import Unit, parse_indication

LETTERS = {0: "R", 3: "k", 6: "M"}
MICRO = {-12: "p", -9: "n", -6: "u"}


def coded(significand: float, decade: int, letters: dict[int, str]) -> str:
    """Spell a preferred number with a letter for the decimal mark: 4.7 kΩ is 4k7, 470 Ω is 470R."""
    group = 3 * (decade // 3)
    digits = f"{significand:g}".replace(".", "")
    whole = decade - group + 1
    padded = digits.ljust(whole, "0")
    return f"{padded[:whole]}{letters[group]}{padded[whole:]}"


E24 = [float(number) / 10 for number in eseries.series(eseries.E24)]


@pytest.mark.parametrize("decade", range(8))
def test_resistors_of_the_e24_series_in_code(decade: int) -> None:
    for significand in E24:
        text = coded(significand, decade, LETTERS)
        assert parse_indication(text, Unit.OHM).value == pytest.approx(significand * 10**decade, rel=1e-12), text


@pytest.mark.parametrize("decade", range(-12, -4))
def test_capacitors_of_the_e24_series_in_code(decade: int) -> None:
    for significand in E24:
        text = coded(significand, decade, MICRO)
        assert parse_indication(text, Unit.FARAD).value == pytest.approx(significand * 10**decade, rel=1e-12), text


TABLE = [  # common practice, no source
    ("2k2", Unit.OHM, 2200.0),
    ("4R7", Unit.OHM, 4.7),
    ("R47", Unit.OHM, 0.47),
    ("1,5k", Unit.OHM, 1500.0),
    ("11.2M", Unit.OHM, 11.2e6),
    ("50m", Unit.OHM, 0.05),
    ("10 meg", Unit.OHM, 10e6),
    ("10meg", Unit.OHM, 10e6),
    ("10 Megohm", Unit.OHM, 10e6),
    ("1.", Unit.OHM, 1.0),
    (".5", Unit.OHM, 0.5),
    ("0,03", Unit.OHM, 0.03),
    ("25.9", Unit.OHM, 25.9),
    ("25,9 ohm", Unit.OHM, 25.9),
    ("25.9 Ω", Unit.OHM, 25.9),
    ("25.9Ω", Unit.OHM, 25.9),
    ("25.9 Ohms", Unit.OHM, 25.9),
    ("100R", Unit.OHM, 100.0),
    ("1K", Unit.OHM, 1000.0),
    ("1 k", Unit.OHM, 1000.0),
    ("1kΩ", Unit.OHM, 1000.0),
    ("1.1 kohm", Unit.OHM, 1100.0),
    ("0.044M", Unit.OHM, 44e3),
    ("M47", Unit.OHM, 470e3),
    ("1G", Unit.OHM, 1e9),
    ("2.2e3", Unit.OHM, 2200.0),
    ("0", Unit.OHM, 0.0),
    ("0.00", Unit.OHM, 0.0),
    ("4u7", Unit.FARAD, 4.7e-6),
    ("4µ7", Unit.FARAD, 4.7e-6),
    ("51.6u", Unit.FARAD, 51.6e-6),
    ("51.6 uF", Unit.FARAD, 51.6e-6),
    ("50mfd", Unit.FARAD, 50e-6),
    ("50 MFD", Unit.FARAD, 50e-6),
    ("470n", Unit.FARAD, 470e-9),
    ("4n7", Unit.FARAD, 4.7e-9),
    ("100 pF", Unit.FARAD, 100e-12),
    ("−40C", Unit.CELSIUS, -40.0),
    ("-40", Unit.CELSIUS, -40.0),
    ("21C", Unit.CELSIUS, 21.0),
    ("21.5 °C", Unit.CELSIUS, 21.5),
    ("212F", Unit.CELSIUS, 100.0),
    ("32 °F", Unit.CELSIUS, 0.0),
    ("231", Unit.VOLT, 231.0),
    ("231V", Unit.VOLT, 231.0),
    ("231 VAC", Unit.VOLT, 231.0),
    ("-5.1 V", Unit.VOLT, -5.1),
    ("3V3", Unit.VOLT, 3.3),
    ("350mV", Unit.VOLT, 0.35),
    ("0.34mA", Unit.AMPERE, 0.34e-3),
    ("340 uA", Unit.AMPERE, 340e-6),
    ("8,8 A", Unit.AMPERE, 8.8),
    ("2kW", Unit.WATT, 2000.0),
    ("34.5kHz", Unit.HERTZ, 34500.0),
    ("50", Unit.HERTZ, 50.0),
    ("19mm", Unit.METRE, 0.019),
    ("1.8 m", Unit.METRE, 1.8),
    ("0.5 in", Unit.METRE, 0.0127),
]
ONE_SIDED = [  # common practice, no source
    ("OL", None, "above"),
    ("O.L", None, "above"),
    ("0L", None, "above"),
    (">299M", 299e6, "above"),
    ("> 20 MΩ", 20e6, "above"),
    ("≥20M", 20e6, "above"),
    ("<0.5M", 0.5e6, "below"),
    ("<= 0.1", 0.1, "below"),
]


@pytest.mark.parametrize(("text", "unit", "value"), TABLE, ids=[f"{row[0]}-{row[1]}" for row in TABLE])
def test_spellings_of_the_trade(text: str, unit: Unit, value: float) -> None:
    found = parse_indication(text, unit)
    assert found.value == pytest.approx(value, rel=1e-12)
    assert found.bound.value == "exact"


@pytest.mark.parametrize(("text", "value", "bound"), ONE_SIDED, ids=[row[0] for row in ONE_SIDED])
def test_one_sided_spellings_of_the_trade(text: str, value: float | None, bound: str) -> None:
    found = parse_indication(text, Unit.OHM)
    assert (found.value, found.bound.value) == (value, bound)
