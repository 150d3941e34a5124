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


# Left out by make quick: a second and more each, mostly for a fault dictionary or a full store.
SLOW = {
    "test_diagnosis",
    "test_dictionaries",
    "test_dictionary",
    "test_edit_sheet",
    "test_export_story",
    "test_history",
    "test_import_job",
    "test_job_files",
    "test_lint",
    "test_list_jobs",
    "test_new_kind",
    "test_one_judge",
    "test_report",
    "test_rules_dropped",
    "test_safety_property",
    "test_sent_twice",
    "test_sheet_out",
    "test_signed_sheets",
    "test_stories",
    "test_suspects",
    "test_taking_a_job",
}


def pytest_collection_modifyitems(items: list[pytest.Item]) -> None:
    for item in items:
        if item.path.stem in SLOW:
            item.add_marker(pytest.mark.slow)


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
