"""Pictures of every main view from the demo data: ``python -m scripts.shots FOLDER``."""

from __future__ import annotations

import sys
import tempfile
from pathlib import Path
from typing import Literal

from playwright.sync_api import Browser, Page, ViewportSize, sync_playwright

from ohmcensus.services.context import Context
from ohmcensus.services.seed_demo import seed_demo
from ohmcensus.services.show_job import list_jobs
from ohmcensus.storage.database import open_store
from ohmcensus.web.serve import serving
from scripts.chromium import launch

LAPTOP: ViewportSize = {"width": 1280, "height": 800}
PHONE: ViewportSize = {"width": 390, "height": 844}
SCHEMES: dict[str, Literal["light", "dark"]] = {"day": "light", "night": "dark"}


def take(browser: Browser, address: str, context: Context, folder: Path) -> None:
    """Take every picture."""
    job = list_jobs(context)[0].id
    for name, size, theme in (
        ("trace-day", LAPTOP, "day"),
        ("trace-night", LAPTOP, "night"),
        ("trace-phone", PHONE, "day"),
        ("trace-phone-night", PHONE, "night"),
    ):
        page = browser.new_page(
            viewport=size, color_scheme=SCHEMES[theme], reduced_motion="reduce", has_touch=size is PHONE
        )
        page.goto(f"{address}/jobs/{job}/trace")
        page.get_by_text("Ohm ruler").first.wait_for()
        _ask(page)
        page.screenshot(path=folder / f"{name}.png")
        page.close()
    for name, path in (("jobs-day", "/jobs"), ("setup-day", "/setup")):
        page = browser.new_page(viewport=LAPTOP, color_scheme="light", reduced_motion="reduce")
        page.goto(f"{address}{path}")
        page.get_by_role("heading", level=1).wait_for()
        page.wait_for_timeout(400)
        page.screenshot(path=folder / f"{name}.png")
        page.close()


def _ask(page: Page) -> None:
    """Choose the line that says most and type the next reading."""
    page.locator('tr[data-line="heater.pe"]').click()
    page.get_by_label("Type a part and a reading").fill("heater 25.9")
    page.get_by_text("inside 25.2–29.4 Ω").first.wait_for()
    page.wait_for_timeout(300)


def main() -> None:
    """Take the pictures into the folder named."""
    folder = Path(sys.argv[1])
    folder.mkdir(parents=True, exist_ok=True)
    with tempfile.TemporaryDirectory() as data, sync_playwright() as play:
        context = Context(open_store(Path(data)))
        seed_demo(context)
        browser = launch(play)
        with serving(context) as address:
            take(browser, address, context, folder)
        browser.close()


if __name__ == "__main__":
    main()
