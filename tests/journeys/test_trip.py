"""Isolating a leak at the machine: set up, run, entered, proved; by touch at phone width too."""

from __future__ import annotations

import pytest
from playwright.sync_api import expect

from tests.journeys.conftest import Visit
from tests.working import prove_dead


@pytest.mark.parametrize("size", ["laptop", "phone"])
def test_the_suggested_run_settles_it(demo: Visit, size: str) -> None:
    prove_dead(demo.context, demo.job("Machine 3"))
    page = demo.open(f"/jobs/{demo.job('Machine 3')}/trip", size=size)
    following = page.get_by_role("region", name="Pull next")
    expect(following).to_contain_text("Pull both heater tags; keep everything else as it is")
    form = page.get_by_role("form", name="Make a run")
    expect(form.get_by_role("button", name="Heater")).to_have_attribute("aria-pressed", "false")
    form.get_by_label("Reads, MΩ").fill("nonsense")
    form.get_by_role("button", name="Enter the run").click()
    expect(form.get_by_role("alert")).to_be_visible()
    expect(form.get_by_label("Reads, MΩ")).to_have_value("nonsense")
    form.get_by_label("Reads, MΩ").fill(">299M")
    form.get_by_role("button", name="Enter the run").click()
    expect(page.get_by_role("region", name="Runs", exact=True)).to_contain_text("guilty")
    expect(following).to_contain_text("every part is cleared or guilty")
    assert not page.evaluate("document.documentElement.scrollWidth > innerWidth")
