"""The world that the suspects are held against shares nothing with them but the reader of sheets and the decks."""

from __future__ import annotations

import ast
from pathlib import Path

import numpy as np
import pytest
from benchmarks.world.breaks import MIX, WAYS
from benchmarks.world.machine import Specimen, elements
from benchmarks.world.play import type_of

WORLD = Path(__file__).parents[2] / "benchmarks" / "world"
SHARED = {"ohmcensus.exchange.sheet_yaml", "ohmcensus.services.reading.predict_reading"}


@pytest.mark.parametrize("file", sorted(WORLD.glob("*.py")), ids=lambda file: file.name)
def test_it_imports_nothing_of_the_product_but_sheets_and_decks(file: Path) -> None:
    tree = ast.parse(file.read_text(encoding="utf-8"))
    plain = {name.name for row in ast.walk(tree) if isinstance(row, ast.Import) for name in row.names}
    named = {row.module or "" for row in ast.walk(tree) if isinstance(row, ast.ImportFrom)}
    assert {name for name in plain | named if name.startswith("ohmcensus")} <= SHARED


def test_its_mix_is_the_one_that_was_fixed_before_it_was_played() -> None:
    assert sum(MIX.values()) == pytest.approx(1.0)
    assert MIX["electrical"] == 0.64


def test_what_breaks_is_read_from_edited_decks() -> None:
    """R = U²/P of the plate; an open lead, a leak and shorted turns read as they must."""
    sound = Specimen("fl7-u", np.random.default_rng(3))
    ohm = sound.reading("heater.element", {}, 0.0)
    assert ohm
    assert ohm == pytest.approx(26.45, rel=0.15)
    assert sound.reading("heater.element", {"heater.element": ("shorted turns", 0.5)}, 0.0) == pytest.approx(ohm / 2)
    opened = sound.reading("heater.element", {"heater.element": ("open", 1e10)}, 0.0)
    leaking = sound.reading("heater.pe", {"heater.element": ("leak", 47e3)}, 0.0)
    assert opened
    assert opened > 1e9
    assert leaking == pytest.approx(47e3, rel=0.01)
    assert sound.reading("motor.brush_1", {}, 0.0) is None


def test_every_part_of_a_machine_is_made_of_what_can_break() -> None:
    kind_of = type_of("fl7-u")
    found = elements("fl7-u", kind_of.deck_test)
    assert {sort for rows in found.values() for _, sort, _ in rows} <= WAYS.keys()
    assert [row[:2] for row in found["heater"]] == [("element", "load")]
    assert ("heater", "wire") in [row[:2] for row in found["harness"]]
