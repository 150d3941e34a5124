"""The Prove room: the series in its order, and signing off refused for a bypass."""

from __future__ import annotations

import re

import pytest
from playwright.sync_api import Page, expect

from ohmcensus.core.event import Changed, HandsOff, Hazard, HazardFound, Intervention, PluggedIn, RunWatched, When
from tests.journeys.conftest import Visit
from tests.working import happened, prove_dead, read_what_is_missing, shut_up


def watch_a_warm_run(page: Page) -> None:
    """Note in Prove that the machine ran through, and how its water warmed."""
    step = page.locator('.criterion[aria-current="step"]')
    step.get_by_text("Time the heating").click()
    for field, typed in (
        ("Water, litres", "11"),
        ("Water at the start, °C", "14"),
        ("Water at the end, °C", "40"),
        ("Minutes", "11"),
    ):
        step.get_by_label(field).fill(typed)
    step.get_by_role("button", name="runs through").click()
    expect(page.get_by_text("11 litres from 14 to 40 °C")).to_be_visible()


@pytest.mark.parametrize("size", ["laptop", "phone"])
def test_a_repaired_machine_is_proved_and_signed_off(demo: Visit, size: str) -> None:
    job, context = demo.job("Machine 1"), demo.context
    happened(context, job, RunWatched(outcome="heat", was=When.BEFORE))
    happened(context, job, Changed(part="heater", intervention=Intervention.REPLACED, fitted="spare 1"))
    page = demo.open(f"/jobs/{job}/prove", size=size)
    sign_off = page.get_by_role("region", name="Sign off")
    expect(sign_off).to_contain_text("protective conductor is not shown")
    expect(page.get_by_role("button", name="End the job as safe")).to_be_disabled()
    prove_dead(context, job)
    read_what_is_missing(context, job)
    shut_up(context, job)
    page.reload()
    for name in ("Looked at", "Drum turns free"):
        page.get_by_role("button", name=f"Good: {name}").click()
        expect(sign_off).not_to_contain_text(f"{name.lower()} is not shown")
    for label, reads in (("Protective conductor, Reads", "0.07"), ("Insulation at 500 V, Reads", ">299M")):
        page.get_by_label(label).fill(reads)
        page.get_by_label(label).press("Enter")
        expect(page.get_by_label(label)).to_have_count(0)
    happened(context, job, HandsOff())
    happened(context, job, PluggedIn())
    page.reload()
    for _ in range(2):
        step = page.locator('.criterion[aria-current="step"]')
        step.get_by_label("Reads").fill("0.41 mA")
        step.get_by_label("Tester's number").fill("OC-T7")
        before = step.locator("b").first.inner_text()
        step.get_by_role("button", name="Save").click()
        expect(page.locator('.criterion[aria-current="step"] b').first).not_to_have_text(before)
    watch_a_warm_run(page)
    for name in ("No leak", "Codes cleared and read again"):
        page.get_by_role("button", name=f"Good: {name}").click()
        expect(sign_off).not_to_contain_text(f"{name.lower()} is not shown")
    expect(sign_off).to_contain_text("Nothing blocks it")
    page.get_by_label("What was done, in one sentence").fill("New heater fitted.")
    page.get_by_role("button", name="End the job as safe").click()
    expect(sign_off).to_contain_text("This job has ended.")
    assert not page.evaluate("document.documentElement.scrollWidth > innerWidth")


def test_a_bypassed_lid_switch_is_not_signed_off(demo: Visit) -> None:
    job = demo.job("Laundry locker")
    happened(demo.context, job, HazardFound(hazard=Hazard.BYPASS, words="lid switch wires joined"))
    page = demo.open(f"/jobs/{job}/prove")
    sign_off = page.get_by_role("region", name="Sign off")
    expect(sign_off).to_contain_text("lid switch wires joined")
    expect(page.get_by_role("button", name=re.compile("^End the job( as safe)?$"))).to_be_disabled()
    page.get_by_label("What was done, in one sentence").fill("The owner keeps it so.")
    page.get_by_role("button", name="Label it unsafe and end the job").click()
    expect(sign_off).to_contain_text("This job has ended.")
