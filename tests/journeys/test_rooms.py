"""Jobs, setup, and what every screen owes: no serious barrier, no sideways scrolling."""

from __future__ import annotations

import csv
import io
import json
import re
from collections.abc import Callable
from pathlib import Path
from typing import Literal

import pytest
from playwright.sync_api import Page, expect

from tests.journeys.conftest import SIZES, Visit
from tests.working import every_job, prove_dead

AXE = Path("ui/node_modules/axe-core/axe.min.js")


def test_a_job_of_ones_own_from_an_empty_store(empty: Visit) -> None:
    page = empty.open("/")
    expect(page.get_by_text("No job yet")).to_be_visible()
    page.get_by_role("button", name="New job").click()
    page.get_by_role("button", name="Open the job").click()
    expect(page.get_by_role("alert")).to_contain_text("Give the machine a name and a place")
    page.get_by_role("combobox", name="Machine", exact=True).fill("Laundry 2")
    page.get_by_role("combobox", name="Place").fill("Boathouse")
    page.get_by_label("Complaint").fill("does not heat")
    page.reload()
    page.get_by_role("button", name="New job").click()
    expect(page.get_by_role("combobox", name="Place")).to_have_value("Boathouse")
    page.get_by_role("button", name="Open the job").click()
    expect(page.get_by_role("alert")).to_contain_text("Choose the machine sheet")
    page.get_by_role("radio", name=re.compile("fl7-u")).check()
    page.get_by_role("button", name="Open the job").click()
    expect(page.get_by_role("heading", name="Laundry 2")).to_be_visible()
    expect(page.get_by_text("Not proved dead")).to_be_visible()
    expect(page.get_by_label("In the customer's words")).to_have_value("does not heat")
    assert [job.complaint for job in every_job(empty.context)] == ["does not heat"]


def test_the_job_sheet_downloads_as_csv_and_json(demo: Visit) -> None:
    page = demo.open(f"/jobs/{demo.job('Machine 3')}/sheet-out")
    found = {}
    for ending in ("CSV", "JSON"):
        with page.expect_download() as download:
            page.get_by_role("link", name=re.compile(f", {ending}")).click()
        found[ending] = Path(download.value.path()).read_text(encoding="utf-8")
    rows = list(csv.DictReader(io.StringIO(found["CSV"])))
    assert next(row["verdict"] for row in rows if row["line"] == "heater.pe") == "outside_low"
    assert json.loads(found["JSON"])["machine"] == "Machine 3"


def test_setup_keeps_the_name_the_temperature_and_an_own_meter(demo: Visit) -> None:
    page = demo.open("/setup")
    page.get_by_label("Temperature at the shelf").fill("warm")
    page.get_by_role("button", name="Save", exact=True).click()
    expect(page.get_by_text("ambient_celsius")).to_be_visible()
    page.get_by_label("Temperature at the shelf").fill("60")
    page.get_by_role("button", name="Save", exact=True).click()
    expect(page.get_by_text("Saved")).to_be_visible()
    page.get_by_role("button", name="Copy").first.click()
    page.get_by_role("button", name="Save the meter").click()
    expect(page.get_by_role("alert")).to_contain_text("title")
    page.get_by_label("Name", exact=True).fill("Bench meter")
    page.get_by_label("ohms, %").first.fill("0,5")
    page.get_by_role("button", name="Save the meter").click()
    expect(page.get_by_role("checkbox", name="Bench meter")).to_be_checked()
    page.goto(f"{demo.address}/jobs/{demo.job('Machine 1')}/trace")
    page.get_by_label("Type a part and a reading").fill("ntc loose 2.49k at 60C")
    expect(page.get_by_role("status")).to_contain_text("Bench meter")
    expect(page.get_by_role("status")).to_contain_text("at 60 °C")


def test_jobs_are_found_by_their_words(demo: Visit) -> None:
    page = demo.open("/jobs")
    page.get_by_label("Find a job").fill("shore heron")
    expect(page.locator(".job-list li")).to_have_count(1)
    page.get_by_label("Find a job").fill("submarine")
    expect(page.get_by_text("No job has these words")).to_be_visible()


def test_an_address_that_leads_nowhere_says_so(demo: Visit) -> None:
    expect(demo.open("/nowhere").get_by_text("There is no page at this address")).to_be_visible()
    expect(demo.open("/jobs/none/trace").get_by_text("no job 'none'")).to_be_visible()


Theme = Literal["light", "dark"]


def barriers(page: Page, *, only: str = "", but: str = "") -> list[str]:
    chosen = f", runOnly: ['{only}']" if only else f", rules: {{'{but}': {{enabled: false}}}}" if but else ""
    found = page.evaluate(f"axe.run(document, {{resultTypes: ['violations']{chosen}}})")
    return [f"{row['id']}: {[node['html'][:90] for node in row['nodes'][:3]]}" for row in found["violations"]]


Act = Callable[[Page], object]


def pressed(name: str, *, first: bool = False, region: str = "") -> Act:
    def press(page: Page) -> None:
        within = page.get_by_role("region", name=region) if region else page
        found = within.get_by_role("button", name=name)
        (found.first if first else found).click()

    return press


def ladder(page: Page) -> None:
    pressed("Ladder")(page)
    page.get_by_text("Before every rung").wait_for()


def typed(page: Page) -> None:
    page.get_by_label("Type a part and a reading").fill("heater 33")
    page.get_by_text("outside, high").first.wait_for()


def headed(name: str) -> Act:
    return lambda page: page.get_by_role("heading", name=name, exact=True).wait_for()


SCREENS: tuple[tuple[str, str, Act], ...] = (
    ("", "/jobs", headed("Jobs")),
    ("", "/jobs", pressed("New job")),
    ("", "/setup", headed("Setup")),
    ("", "/setup", pressed("Copy", first=True)),
    ("", "/machines", headed("Machines")),
    ("", "/machines/fl7-u", headed("States of the machine")),
    ("", "/shelf", headed("Add a piece")),
    ("Galley washer", "intake", headed("Earlier visits")),
    ("Galley washer", "safe", headed("What was done")),
    ("Galley washer", "codes", headed("What codes mean here")),
    ("Galley washer", "trip", headed("Pull next")),
    ("Galley washer", "repair", headed("Add a change")),
    ("Galley washer", "prove", headed("Sign off")),
    ("Galley washer", "sheet-out", headed("Export")),
    ("Lock cottage washer", "repair", pressed("Edit", region="Parts wanted")),
    ("Lock cottage washer", "repair", pressed("Edit", region="Connectors")),
    ("Machine 1", "safe", pressed("Work live")),
    ("Machine 3", "trace", typed),
    ("Machine 3", "trace", ladder),
    ("Machine 3", "trace", pressed("Between two points")),
)


def looked_at(page: Page, screen: tuple[str, str], *, only: str = "", but: str = "") -> None:
    """Find no barrier on a screen, and nothing that scrolls sideways."""
    page.wait_for_timeout(250)
    assert barriers(page, only=only, but=but) == [], screen
    assert not page.evaluate("document.documentElement.scrollWidth > innerWidth"), screen


@pytest.mark.parametrize("size", ["laptop", "phone"])
def test_no_screen_has_a_barrier_or_scrolls_sideways(demo: Visit, size: str) -> None:
    """On the laptop everything is looked at by day, on the phone by night; the other theme differs in colours only.

    The phone is then laid on its side, with the colours that it has upright.
    """
    prove_dead(demo.context, demo.job("Machine 3"))
    page = demo.open("/jobs", size=size)
    themes: tuple[Theme, Theme] = ("dark", "light") if size == "phone" else ("light", "dark")
    for machine, path, act in SCREENS:
        page.emulate_media(color_scheme=themes[0])
        page.set_viewport_size(SIZES[size])
        page.goto(demo.address + (f"/jobs/{demo.job(machine)}/{path}" if machine else path))
        act(page)
        page.evaluate(AXE.read_text(encoding="utf-8"))
        looked_at(page, (machine, path))
        if size == "phone":
            page.set_viewport_size(SIZES["sideways"])
            looked_at(page, (machine, path), but="color-contrast")
        else:
            page.emulate_media(color_scheme=themes[1])
            expect(page.locator("html")).to_have_attribute("data-mantine-color-scheme", themes[1])
            looked_at(page, (machine, path), only="color-contrast")


def test_day_and_night_are_changed_by_hand_and_kept(demo: Visit) -> None:
    page = demo.open("/jobs")
    root = page.locator("html")
    expect(root).to_have_attribute("data-mantine-color-scheme", "light")
    page.get_by_role("button", name="Change between day and night").click()
    expect(root).to_have_attribute("data-mantine-color-scheme", "dark")
    page.reload()
    expect(root).to_have_attribute("data-mantine-color-scheme", "dark")


def test_every_sign_is_drawn_in_a_shipped_face_and_nothing_comes_from_elsewhere(demo: Visit) -> None:
    page = demo.trace("Machine 3")
    foreign: list[str] = []
    page.on("request", lambda request: None if request.url.startswith(demo.address) else foreign.append(request.url))
    page.reload()
    page.locator("tr[data-line]").first.wait_for()
    drawn = page.evaluate(
        """async () => {
          await document.fonts.ready;
          return ['16px "Signs Mono"', '16px "Signs"'].map((face) => document.fonts.check(face, 'Ωµ'));
        }"""
    )
    assert drawn == [True, True]
    assert foreign == []
