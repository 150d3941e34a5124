"""Undo after each act, from the window that did it; the next step opens its room at the field that it wants."""

from __future__ import annotations

import re

import pytest
from playwright.sync_api import expect

from ohmcensus.core.event import Changed, Intervention
from tests.journeys.conftest import Visit
from tests.working import happened, prove_dead, shut_up


@pytest.mark.parametrize("size", ["laptop", "phone"])
def test_a_step_that_was_ticked_by_mistake_is_undone(demo: Visit, size: str) -> None:
    job = demo.job("Machine 4")
    prove_dead(demo.context, job)
    page = demo.open(f"/jobs/{job}/repair", size=size)
    due = page.locator("li.is-due .plan-tick")
    step = due.get_attribute("aria-label") or ""
    due.click()
    expect(page.get_by_role("button", name=f"{step}: off")).to_be_visible()
    expect(page.get_by_text(f"Taken off: {step}")).to_be_in_viewport()
    page.get_by_role("button", name="Undo", exact=True).click()
    expect(page.get_by_role("button", name=step, exact=True)).to_be_enabled()
    expect(page.get_by_text(f"Taken off: {step}")).to_have_count(0)


def test_acts_are_undone_by_key_one_after_the_other_and_in_no_other_window(demo: Visit) -> None:
    job = demo.job("Machine 4")
    prove_dead(demo.context, job)
    page, other = (demo.open(f"/jobs/{job}/repair") for _ in range(2))
    ticks = page.locator(".plan-tick[aria-pressed=false]")
    for window in (page, other):
        window.locator("li.is-due .plan-tick").wait_for()
    count = ticks.count()
    for done in (1, 2):
        page.locator("li.is-due .plan-tick").click()
        expect(ticks).to_have_count(count - done)
    other.reload()
    expect(other.locator(".plan-tick[aria-pressed=false]")).to_have_count(count - 2)
    expect(other.get_by_role("button", name="Undo", exact=True)).to_have_count(0)
    for left in (1, 2):
        page.keyboard.press("u")
        expect(ticks).to_have_count(count - 2 + left)


def test_a_danger_that_was_seen_is_not_undone_and_says_why(demo: Visit) -> None:
    page = demo.open(f"/jobs/{demo.job('Machine 4')}/intake")
    cord = page.locator(".checks li").filter(has_text="Cord and plug")
    cord.get_by_role("button", name="Bad").click()
    expect(cord.get_by_role("button", name="Bad")).to_have_attribute("aria-pressed", "true")
    page.get_by_role("button", name="Undo", exact=True).click()
    expect(page.locator(".undo-last")).to_contain_text("tells how the machine stands, and is not undone")


def test_trace_undoes_what_was_answered_in_it(demo: Visit) -> None:
    page = demo.trace("Lock cottage washer")
    page.get_by_text("Skip", exact=True).click()
    asked = page.locator(".ask .big").first.inner_text()
    page.get_by_role("button", name="cannot reach").click()
    expect(page.locator(".ask .big").first).not_to_have_text(asked)
    page.keyboard.press("Escape")
    page.get_by_role("button", name="Undo", exact=True).click()
    expect(page.locator(".ask .big").first).to_have_text(asked)


def test_the_next_step_opens_its_room_at_its_field(demo: Visit) -> None:
    job = demo.job("Machine 1")
    shut_up(demo.context, job)
    happened(demo.context, job, Changed(part="heater", intervention=Intervention.REPLACED, fitted="spare 1"))
    prove_dead(demo.context, job)
    page = demo.open(f"/jobs/{job}/intake")
    page.get_by_role("link", name=re.compile("^Next: ")).click()
    expect(page.get_by_label("Type a part and a reading")).to_be_focused()
    page = demo.open("/jobs", size="phone")
    page.get_by_role("link").filter(has_text="Machine 3").first.tap()
    expect(page.get_by_label("Reads, MΩ")).to_be_focused()
    expect(page.get_by_role("region", name="Keypad")).to_be_visible()
