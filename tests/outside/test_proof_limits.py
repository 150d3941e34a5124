"""Limits after repair against EN 50678 and EN 50699 (from memory) and 120 V practice (common practice, no source)."""

from __future__ import annotations

import pytest
from tests.core.case_of import Log

from ohmcensus.core.proof import criteria, current_limit_a
from ohmcensus.core.sheet import Sheet
from ohmcensus.services.find_sheet import find_sheet


def with_heating(watts: float) -> Sheet:
    sheet = find_sheet("fl7-u")
    parts = tuple(
        part.model_copy(update={"ratings": part.ratings.model_copy(update={"watts": watts})})
        if part.kind == "heater"
        else part
        for part in sheet.parts
    )
    return sheet.model_copy(update={"parts": parts})


@pytest.mark.parametrize(
    ("watts", "ampere"), [(2000, 3.5e-3), (3500, 3.5e-3), (4200, 4.2e-3), (9000, 9e-3), (12_000, 10e-3)]
)
def test_protective_conductor_current(watts: float, ampere: float) -> None:
    """3.5 mA; over 3.5 kW of heating 1 mA a kW, at most 10 mA."""
    assert current_limit_a(with_heating(watts)) == pytest.approx(ampere)


def test_limits_by_protection_class() -> None:
    """Class I: earth, insulation, current both ways; class II: insulation, touch current 0.5 mA, no earth."""
    sheet = find_sheet("fl7-u")
    one = {row.id: row.window for row in criteria(Log(sheet).case)}
    assert one["protective_conductor"] is not None
    assert one["protective_conductor"].interval.hi == pytest.approx(0.3)
    assert one["insulation"] is not None
    assert one["insulation"].interval.lo == pytest.approx(0.3e6)
    two = {row.id: row.window for row in criteria(Log(sheet.model_copy(update={"protection_class": "II"})).case)}
    assert "protective_conductor" not in two
    assert "current" not in two
    assert two["touch"] is not None
    assert two["touch"].interval.hi == pytest.approx(0.5e-3)
    low = {row.id: row.window for row in criteria(Log(find_sheet("tl4-c")).case)}
    assert low["current"] is not None
    assert low["current"].interval.hi == pytest.approx(0.75e-3)
