"""Tests at the plug's pins on every sheet: what they read on a sound machine, and with an earth that is broken."""

from __future__ import annotations

import pytest

from ohmcensus.core.machine import machine_tests
from ohmcensus.core.machine.probe import Prediction
from ohmcensus.core.quantity import Bound
from ohmcensus.core.sheet import Sheet
from ohmcensus.services.at_hand.sheets import all_sheets
from ohmcensus.services.reading.predict_reading import Asked, predicted

SHEETS = sorted(all_sheets())
METAL_OHM = 0.3


@pytest.fixture(params=SHEETS)
def sheet(request: pytest.FixtureRequest) -> Sheet:
    return all_sheets()[request.param]


def reads(sheet: Sheet, test: str, *faults: str) -> Prediction:
    return predicted(Asked(sheet.id, test=test, faults=faults))[1]


def ohms(row: Prediction) -> float:
    assert row.value is not None
    return row.value


def earthed(sheet: Sheet) -> list[str]:
    return [test.part for test in machine_tests(sheet, 20.0) if test.name == "earth"]


def test_a_broken_earth_of_a_part_is_seen_there_and_nowhere_else(sheet: Sheet) -> None:
    parts = earthed(sheet)
    assert parts
    for broken in parts:
        found = {
            line: reads(sheet, line, f"{broken}:earth_open") for line in ("cord.pe", *(f"{p}.earth" for p in parts))
        }
        assert found.pop(f"{broken}.earth").bound is Bound.ABOVE
        assert all(row.bound is Bound.EXACT and ohms(row) < METAL_OHM for row in found.values())


def test_a_broken_earth_of_the_cord_takes_all_of_them(sheet: Sheet) -> None:
    for line in ("cord.pe", *(f"{part}.earth" for part in earthed(sheet))):
        assert reads(sheet, line, "cord:earth_open").bound is Bound.ABOVE


def test_line_to_neutral_is_no_short_and_a_short_is_seen(sheet: Sheet) -> None:
    assert ohms(reads(sheet, "cord.across")) > 1000
    assert ohms(reads(sheet, "cord.across", "filter:short")) < 1


def test_a_leak_of_the_neutral_is_seen_from_n_alone(sheet: Sheet) -> None:
    pump = reads(sheet, "cord.n_pe", "pump:leak=50000")
    assert pump.value == pytest.approx(50_000, rel=0.02)
    assert ohms(reads(sheet, "cord.n_pe")) > 2e6
