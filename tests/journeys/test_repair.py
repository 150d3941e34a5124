"""The Repair room: one change and a run, two changes and a run, what the choices cost."""

from __future__ import annotations

import pytest
from playwright.sync_api import expect

from tests.journeys.conftest import Visit


@pytest.mark.parametrize("size", ["laptop", "phone"])
def test_changes_and_runs_are_noted_and_told_conclusive_or_not(demo: Visit, size: str) -> None:
    page = demo.open(f"/jobs/{demo.job('Machine 1')}/repair", size=size)
    steps = page.get_by_role("region", name="What was changed, what ran after")
    run = page.get_by_role("region", name="Note a run")
    run.get_by_role("button", name="fails at heat").click()
    expect(steps).to_contain_text("fails at heat")
    page.get_by_label("Part", exact=True).select_option("heater")
    page.get_by_label("What was done").select_option("replaced")
    page.get_by_label("Which piece sits there now").fill("spare 1")
    page.get_by_role("button", name="Note the change").click()
    expect(steps).to_contain_text("Heater: another one fitted, spare 1")
    run.get_by_role("button", name="runs through").click()
    expect(steps.get_by_role("status")).to_contain_text("Conclusive")
    run.get_by_role("button", name="fails at heat").click()
    for part in ("harness", "board"):
        page.get_by_label("Part", exact=True).select_option(part)
        page.get_by_role("button", name="Note the change").click()
        expect(page.get_by_role("button", name="Note the change")).to_be_enabled()
    run.get_by_role("button", name="runs through").click()
    expect(steps.get_by_role("status")).to_contain_text("Not conclusive: 2 changes")
    assert not page.evaluate("document.documentElement.scrollWidth > innerWidth")


def test_the_worth_of_a_repair_follows_the_figures_typed(demo: Visit) -> None:
    page = demo.open(f"/jobs/{demo.job('Machine 1')}/repair")
    worth = page.get_by_role("region", name="Mend, replace, or give up")
    worth.get_by_label("About").select_option("board")
    expect(worth).to_contain_text("Replace the part")
    worth.get_by_text("Reckon with other figures").click()
    worth.get_by_label("Another machine, fitted").fill("cheap")
    worth.get_by_role("button", name="Reckon").click()
    expect(worth.get_by_role("alert")).to_contain_text("that is no number")
    worth.get_by_label("Another machine, fitted").fill("90")
    worth.get_by_label("Age, years").fill("14")
    worth.get_by_role("button", name="Reckon").click()
    expect(worth.get_by_role("listitem").first).to_contain_text("Give up the machine")
