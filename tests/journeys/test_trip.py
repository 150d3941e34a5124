"""Isolating a leak at the machine: set up, run, entered, proved; by touch at phone width too."""

from __future__ import annotations

import pytest
from playwright.sync_api import Page, expect

from tests.journeys.conftest import Visit
from tests.working import prove_dead


@pytest.mark.parametrize("size", ["laptop", "phone"])
def test_the_suggested_run_settles_it(demo: Visit, size: str) -> None:
    prove_dead(demo.context, demo.job("Machine 3"))
    page = demo.open(f"/jobs/{demo.job('Machine 3')}/trip", size=size)
    following = page.get_by_role("region", name="Pull next")
    expect(following).to_contain_text("Pull both heater tags, earths stay on; keep everything else as it is")
    form = page.get_by_role("form", name="Make a leak test")
    expect(form.get_by_role("button", name="Heater", exact=True)).to_have_attribute("aria-pressed", "false")
    form.get_by_label("Reads, MΩ").fill("nonsense")
    form.get_by_role("button", name="Save the leak test").click()
    expect(form.get_by_role("alert")).to_be_visible()
    expect(form.get_by_label("Reads, MΩ")).to_have_value("nonsense")
    form.get_by_label("Reads, MΩ").fill(">299M")
    form.get_by_role("button", name="Save the leak test").click()
    expect(page.get_by_role("region", name="Leak tests", exact=True)).to_contain_text("guilty")
    expect(following).to_contain_text("Heater: mend or replace it in Repair")
    assert not page.evaluate("document.documentElement.scrollWidth > innerWidth")


def enter(page: Page, line: str) -> None:
    field = page.get_by_label("Leak test in one line").last
    field.fill(line)
    page.get_by_role("form", name="Leak test in one line").get_by_role("button", name="Save the leak test").click()
    expect(field).to_have_value("")


def test_two_leaks_that_hide_behind_each_other(demo: Visit) -> None:
    prove_dead(demo.context, demo.job("Machine 3"))
    page = demo.open(f"/jobs/{demo.job('Machine 3')}/trip")
    runs = page.get_by_role("region", name="Leak tests", exact=True)
    for line in ("run only heater 0.047M", "only motor 0.10M", "-heater -motor >299M"):
        enter(page, line)
    expect(runs.get_by_text("guilty", exact=True)).to_have_count(2)
    expect(runs.get_by_text("cleared", exact=True)).to_have_count(6)
    expect(page.get_by_role("region", name="Could be the only fault")).to_contain_text("Heater + Motor")
    page.get_by_text("What each leak test proved").click()
    expect(page.get_by_role("region", name="What each leak test proved")).to_contain_text("Motor: guilty")
    page.get_by_role("region", name="After the repair").get_by_role("link", name="Go to Repair").click()
    page.get_by_label("Plan for the part").select_option("heater")
    page.get_by_role("group", name="Did you see it fail yourself?").get_by_role("button", name="No").click()
    page.get_by_role("button", name="Replaced: Heater").click()
    expect(page.get_by_role("region", name="What was changed, what ran after")).to_contain_text("another one fitted")
    page.go_back()
    expect(page.get_by_role("region", name="Pull next")).to_contain_text("The whole machine again")


def test_a_spread_leak_is_told_with_shares(demo: Visit) -> None:
    prove_dead(demo.context, demo.job("Galley washer"))
    page = demo.open(f"/jobs/{demo.job('Galley washer')}/trip")
    enter(page, "whole 0.25M")
    for part in ("cord", "filter", "heater", "motor", "valve", "prewash", "pump", "harness"):
        enter(page, f"only {part} 2.0M")
    expect(page.get_by_role("region", name="Pull next")).to_contain_text("the leak is spread")
    expect(page.get_by_role("region", name="Leak tests", exact=True).get_by_text("cleared", exact=True)).to_have_count(
        8
    )


def test_a_contradiction_is_seen_and_resolved(demo: Visit) -> None:
    prove_dead(demo.context, demo.job("Machine 3"))
    page = demo.open(f"/jobs/{demo.job('Machine 3')}/trip")
    enter(page, "-heater >299M")
    enter(page, "only motor 0.02M")
    following = page.get_by_role("region", name="Pull next")
    expect(following).to_contain_text("contradict each other")
    page.keyboard.press("u")
    expect(following).to_contain_text("Heater: mend or replace it in Repair")


def test_the_circuit_of_the_house_is_kept(demo: Visit) -> None:
    page = demo.open(f"/jobs/{demo.job('Machine 3')}/trip")
    house = page.get_by_role("region", name="Circuit of the house")
    expect(house).to_contain_text("It must hold 15 mA")
    house.get_by_role("button", name="Edit the circuit").click()
    house.get_by_label("Leaks, mA").first.fill("14")
    house.get_by_role("button", name="Save the circuit").click()
    expect(house).to_contain_text("Only the sum may trip it")
    expect(page.get_by_role("region", name="Which device, which moment")).to_contain_text("RCD")
