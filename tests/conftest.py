"""What every test may ask for: the built-in sheet, and an open data directory with a clock that stands still."""

from __future__ import annotations

from collections.abc import Iterator
from pathlib import Path

import pytest
from hypothesis import HealthCheck, settings

from ohmcensus.core.sheet import Sheet
from ohmcensus.services.at_hand.context import Context
from ohmcensus.services.at_hand.sheets import all_sheets, find_sheet
from tests.noon import NOON
from tests.seeded import new_store

settings.register_profile(
    "ours", deadline=None, max_examples=60, suppress_health_check=[HealthCheck.function_scoped_fixture]
)
settings.load_profile("ours")


@pytest.fixture(scope="session")
def fl7() -> Sheet:
    return find_sheet("fl7-u")


@pytest.fixture(scope="session", params=sorted(all_sheets()))
def any_sheet(request: pytest.FixtureRequest) -> Sheet:
    """Every built-in machine in turn."""
    return find_sheet(request.param)


@pytest.fixture
def context(tmp_path: Path) -> Iterator[Context]:
    store = new_store(tmp_path / "data")
    yield Context(store, clock=lambda: NOON)
    store.close()
