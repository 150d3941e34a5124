"""The real interface in real Chromium, on a real server over a fresh data directory."""

from __future__ import annotations

from collections.abc import Iterator
from pathlib import Path

import pytest
from playwright.sync_api import Browser, Page, ViewportSize, expect, sync_playwright
from scripts.chromium import launch

from ohmcensus.services.at_hand.context import Context
from ohmcensus.services.at_hand.sheets import all_sheets
from ohmcensus.web.serve import serving
from tests.seeded import new_store, with_demo
from tests.tables import table
from tests.working import job_on, prove_dead

SIZES: dict[str, ViewportSize] = {
    "laptop": {"width": 1280, "height": 800},
    "phone": {"width": 390, "height": 844},
    "sideways": {"width": 844, "height": 390},
}


# A journey waits for what it expects; how fast that comes is the benchmarks' business.
expect.set_options(timeout=20_000)


def pytest_collection_modifyitems(items: list[pytest.Item]) -> None:
    for item in items:
        if "journeys" in item.path.parts:
            item.add_marker(pytest.mark.system)


@pytest.fixture(scope="session")
def browser() -> Iterator[Browser]:
    with sync_playwright() as play:
        found = launch(play)
        yield found
        found.close()


class Visit:
    """A technician with the application open."""

    def __init__(self, browser: Browser, address: str, context: Context) -> None:
        self.browser = browser
        self.address = address
        self.context = context
        self.errors: list[str] = []

    def open(self, path: str, *, size: str = "laptop", night: bool = False) -> Page:
        page = self.browser.new_page(
            viewport=SIZES[size],
            color_scheme="dark" if night else "light",
            reduced_motion="reduce",
            has_touch=size != "laptop",
        )
        page.on("pageerror", lambda error: self.errors.append(str(error)))
        page.goto(f"{self.address}{path}")
        return page

    def job(self, machine: str) -> str:
        return job_on(self.context, machine)

    def trace(self, machine: str, *, size: str = "laptop", night: bool = False, dead: bool = True) -> Page:
        if dead:
            prove_dead(self.context, self.job(machine))
        page = self.open(f"/jobs/{self.job(machine)}/trace", size=size, night=night)
        page.locator("tr[data-line]").first.wait_for()
        return page


@pytest.fixture(scope="session", autouse=True)
def worked_out() -> None:
    """Work out what every built-in sheet reads under every fault, as a server has it soon after it started."""
    for sheet in all_sheets().values():
        table(sheet)


@pytest.fixture
def empty(browser: Browser, tmp_path: Path) -> Iterator[Visit]:
    context = Context(new_store(tmp_path / "data"))
    with serving(context) as address:
        visit = Visit(browser, address, context)
        yield visit
        for opened in browser.contexts:
            opened.close()
    context.store.close()
    assert visit.errors == []


@pytest.fixture
def demo(empty: Visit) -> Visit:
    with_demo(empty.context, is_now=True)
    return empty
