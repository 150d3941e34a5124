"""Limits after repair against EN 50678 and EN 50699 (from memory) and 120 V practice (common practice, no source)."""

from __future__ import annotations

from dataclasses import replace

import pytest
from tests.core.case_of import START, Log

from ohmcensus.core.job.case import Case
from ohmcensus.core.limits.profile import BUILT_IN, usual_profile
from ohmcensus.core.limits.terms import Terms
from ohmcensus.core.physics.cable import protective_conductor_limit_ohm
from ohmcensus.core.proof import criteria
from ohmcensus.core.quantity.window import Window
from ohmcensus.core.safety import safety_at
from ohmcensus.core.sheet import Sheet
from ohmcensus.services.at_hand.sheets import find_sheet


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
    assert Terms(with_heating(watts), usual_profile(230)).conductor_a == pytest.approx(ampere)


def windows(case: Case) -> dict[str, Window | None]:
    return {row.id: row.window for row in criteria(case, safety_at(case, START))}


def test_limits_by_protection_class() -> None:
    """Class I: earth, insulation, current both ways; class II: insulation, touch current 0.5 mA, no earth."""
    sheet = find_sheet("fl7-u")
    one = windows(Log(sheet).case)
    assert one["protective_conductor"] is not None
    assert one["protective_conductor"].interval.hi == pytest.approx(0.3)
    assert one["insulation"] is not None
    assert one["insulation"].interval.lo == pytest.approx(0.3e6)
    two = windows(Log(sheet.model_copy(update={"protection_class": "II"})).case)
    assert "protective_conductor" not in two
    assert "current" not in two
    assert two["touch"] is not None
    assert two["touch"].interval.hi == pytest.approx(0.5e-3)
    held = Log(find_sheet("tl4-c")).case
    assert windows(held)["current"] is None, "held on a GFCI through one full run"
    low = windows(replace(held, profile=held.limits.model_copy(update={"is_held_on_gfci": False})))
    assert low["current"] is not None
    assert low["current"].interval.hi == pytest.approx(0.75e-3)


@pytest.mark.parametrize(
    ("metres", "ohm"),
    [(1.8, 0.3), (5.0, 0.3), (5.1, 0.4), (12.5, 0.4), (12.6, 0.5), (40.0, 0.8), (50.0, 0.9)],
)
def test_the_protective_conductor_by_the_length_of_the_cord(metres: float, ohm: float) -> None:
    """0.3 ohm to 5 m, +0.1 for every further 7.5 m begun, 1.0 at most (EN 50678, from memory)."""
    assert protective_conductor_limit_ohm(metres) == pytest.approx(ohm)
    assert protective_conductor_limit_ohm(500.0) == 1.0


@pytest.mark.parametrize(
    ("kind", "protection_class", "megohm"),
    [("drain_pump", "I", 1.0), ("heater", "I", 0.3), ("drain_pump", "II", 2.0), ("heater", "II", 2.0)],
)
def test_insulation_by_class_and_part(kind: str, protection_class: str, megohm: float) -> None:
    """1.0 megohm, 0.3 with heating elements, 2.0 in class II (EN 50678, from memory)."""
    assert usual_profile(230).least_megohm(kind, protection_class) == megohm


@pytest.mark.parametrize(
    ("profile", "earth", "current"),
    [("after_repair", 0.3, 3.5e-3), ("stricter", 0.1 + 0.0239, 3.5e-3), ("one_megohm_five_ma", 1.0, 5e-3)],
)
def test_the_chosen_profile_sets_earth_and_current(profile: str, earth: float, current: float) -> None:
    """1.8 m of 1.5 mm2 is 13.3 mohm a metre (IEC 60228 class 5, from memory): 0.0239 ohm."""
    case = replace(Log(find_sheet("fl7-u")).case, profile=next(row for row in BUILT_IN if row.id == profile))
    found = windows(case)
    assert found["protective_conductor"] is not None
    assert found["protective_conductor"].interval.hi == pytest.approx(earth, abs=1e-3)
    assert found["current"] is not None
    assert found["current"].interval.hi == pytest.approx(current)
