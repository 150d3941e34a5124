"""Pictures of every main view from the demo data: ``python -m scripts.shots FOLDER``."""

from __future__ import annotations

import sys
import tempfile
from pathlib import Path
from typing import Literal

from playwright.sync_api import Browser, Page, ViewportSize, sync_playwright

from ohmcensus.demo.seed import seed_demo
from ohmcensus.services.at_hand.context import Context
from ohmcensus.services.job.list_jobs import JobsQuery, ListedJob, list_jobs
from ohmcensus.storage.database import open_store
from ohmcensus.web.serve import serving
from scripts.chromium import launch

LAPTOP: ViewportSize = {"width": 1280, "height": 800}
PHONE: ViewportSize = {"width": 390, "height": 844}
SCHEMES: dict[str, Literal["light", "dark"]] = {"day": "light", "night": "dark"}


def jobs_in(context: Context) -> list[ListedJob]:
    """Return the jobs of the demo, those that go on first."""
    return [*list_jobs(context).jobs, *list_jobs(context, JobsQuery(ended=True)).jobs]


def take(browser: Browser, address: str, context: Context, folder: Path) -> None:
    """Take every picture."""
    job = jobs_in(context)[0].id
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
    take_rooms(browser, address, context, folder)


def take_rooms(browser: Browser, address: str, context: Context, folder: Path) -> None:
    """Take every room but the trace."""
    job = jobs_in(context)[0].id
    ids = {row.machine: row.id for row in jobs_in(context) if row.ended is None}
    signed = next(row.id for row in jobs_in(context) if row.machine == "Machine 2")
    codes, safe = f"/jobs/{ids['Galley washer']}/codes", f"/jobs/{ids['Machine 1']}/safe"
    for name, path in (
        ("jobs-day", "/jobs"),
        ("setup-day", "/setup"),
        ("intake-day", f"/jobs/{job}/intake"),
        ("safe-day", safe),
        ("safe-phone", safe),
        ("ladder-day", f"/jobs/{job}/trace"),
        ("machines-day", "/machines/fl9-t"),
        ("trip-day", f"/jobs/{job}/trip"),
        ("repair-day", f"/jobs/{ids['Lock cottage washer']}/repair"),
        ("sheet-out-day", f"/jobs/{signed}/sheet-out"),
        ("shelf-day", "/shelf"),
        ("prove-day", f"/jobs/{job}/prove"),
        ("suspects-day", f"/jobs/{ids['Galley washer']}/trace"),
        ("codes-day", codes),
        ("codes-phone-night", codes),
    ):
        page = browser.new_page(
            viewport=PHONE if "phone" in name else LAPTOP,
            color_scheme="dark" if "night" in name else "light",
            reduced_motion="reduce",
            has_touch="phone" in name,
        )
        page.goto(f"{address}{path}")
        page.get_by_role("heading", level=1).first.wait_for()
        _begin(page, name)
        page.wait_for_timeout(500)
        page.screenshot(path=folder / f"{name}.png")
        page.close()


def _begin(page: Page, name: str) -> None:
    """Bring a view to the point at which it says most."""
    if name.startswith("codes"):
        for lamp in ("Wash 1 64", "Rinse 2 8", "Spin 2"):
            page.get_by_role("button", name=lamp).click()
    if name == "ladder-day":
        page.locator('[data-part="heater"] > button').click()
        page.get_by_role("button", name="Ladder").click()
        page.get_by_text("Before every rung").wait_for()
    if name == "suspects-day":
        page.get_by_role("region", name="Do next").wait_for()
        page.locator(".suspects summary").first.click()
        page.locator(".suspects").scroll_into_view_if_needed()
    if name == "safe-day":
        again = page.get_by_role("button", name="Cut off again")
        if again.count():
            again.click()
        page.get_by_role("button", name="Unplugged, plug in sight").click()
        page.get_by_label("Known source, before, reads").fill("231")
        page.get_by_label("Known source, before, reads").press("Enter")
        page.get_by_label("L to N, reads").wait_for()
        page.get_by_label("Make it safe").locator("li").last.scroll_into_view_if_needed()


def _ask(page: Page) -> None:
    """Choose the line that says most and type the next reading; the suspects are worked out by then."""
    page.get_by_role("region", name="Suspects").wait_for()
    page.locator('[data-part="heater"] > button').click()
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
