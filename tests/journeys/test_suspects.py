"""Ask next and Suspects beside the census sheet: take it, answer it, leave it out, see why."""

from __future__ import annotations

import pytest
from playwright.sync_api import expect

from tests.journeys.conftest import Visit
from tests.working import prove_dead


@pytest.mark.parametrize("size", ["laptop", "phone"])
def test_the_next_question_is_taken_answered_and_left_out(demo: Visit, size: str) -> None:
    page = demo.open(f"/jobs/{demo.job('Lock cottage washer')}/trace", size=size)
    ask, suspects = page.get_by_role("region", name="Do next"), page.get_by_role("region", name="Suspects")
    # What the lock shows forbids a cycle: the current of its drain step is not asked.
    expect(ask).to_contain_text("pump load")
    expect(suspects.locator("summary").first).to_contain_text("Drain pump")
    ask.get_by_text("Skip").click()
    for asked in ("pump load", "contact, unlocked"):
        expect(ask.locator(".big")).to_contain_text(asked, ignore_case=True)
        ask.get_by_role("button", name="no such meter").click()
        expect(ask.locator(".big")).not_to_contain_text(asked, ignore_case=True)
    expect(ask.locator(".big")).to_contain_text("Drain filter")
    ask.get_by_role("button", name="bad", exact=True).click()
    filter_row = suspects.locator("summary", has_text="Drain filter")
    filter_row.click()
    expect(suspects).to_contain_text("Drain filter and sump: bad")
    assert not page.evaluate("document.documentElement.scrollWidth > innerWidth")


def test_a_leader_that_rests_on_one_reading_is_read_again(demo: Visit) -> None:
    job = demo.job("Lock cottage washer")
    prove_dead(demo.context, job)
    page = demo.open(f"/jobs/{job}/trace")
    ask = page.get_by_role("region", name="Do next")
    page.get_by_label("Choose tests for").select_option("likeliest_first")
    expect(ask).to_contain_text("Drain pump")
    page.get_by_label("Type a part and a reading").fill("pump OL")
    page.keyboard.press("Enter")
    expect(page.get_by_role("region", name="Suspects").locator("summary").first).to_contain_text("%")


def test_a_heater_of_another_variant_is_sound_once_its_stamp_is_typed(demo: Visit) -> None:
    """34.4 ohms are 1540 W at 230 V: outside on a sheet of 2 kW, right by the stamp."""
    job = demo.job("Lock cottage washer")
    prove_dead(demo.context, job)
    page = demo.open(f"/jobs/{job}/trace")
    ask, line = page.get_by_role("region", name="Do next"), page.get_by_label("Type a part and a reading")
    line.fill("heater 34.4")
    page.keyboard.press("Enter")
    expect(ask).to_contain_text("Heater: read the watts stamped on it")
    ask.get_by_label("Stamped, in W").fill("none")
    expect(ask).to_contain_text("Type a number above 0")
    ask.get_by_label("Stamped, in W").fill("1540")
    ask.get_by_role("button", name="Save").click()
    expect(ask).not_to_contain_text("stamped on it")
