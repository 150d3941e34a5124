"""Two faults on one machine: both named, changed one at a time, and settled, as every room tells it."""

from __future__ import annotations

from uuid import uuid4

import pytest
from playwright.sync_api import Page, expect

from ohmcensus.core.event import Isolated
from ohmcensus.core.intake import Complaint
from ohmcensus.core.symptom import Symptom
from ohmcensus.services.at_hand.job import take
from ohmcensus.services.intake.keep_intake import NewIntake, keep_intake
from ohmcensus.services.job.open_job import NewJob, open_job
from tests.journeys.conftest import Visit
from tests.journeys.test_repair import power_again
from tests.working import happened, prove_dead

MACHINE = "Washer of the two faults"


def machine_of_two(demo: Visit) -> str:
    """Open a job of which two symptoms are told, on a machine that is proved dead."""
    context = demo.context
    job_id = open_job(context, NewJob(id=uuid4(), machine=MACHINE, place="Pier", sheet="fl7-u")).id
    with context.store.read() as session:
        job = take(context, session, job_id)
    told = Complaint(symptoms=(Symptom.NO_HEAT, Symptom.STOPS))
    new = NewIntake(
        intake_revision=job.stored.intake_revision,
        machine=MACHINE,
        place="Pier",
        sheet="fl7-u",
        complaint=told,
        plate=job.case.plate,
    )
    keep_intake(context, job_id, new)
    prove_dead(context, job_id)
    return job_id


def log(page: Page, *lines: str) -> None:
    field = page.get_by_label("Type a part and a reading")
    for text in lines:
        field.fill(text)
        field.press("Enter")
        expect(field).to_have_value("")


def change(page: Page, part: str) -> None:
    another = page.get_by_text("Another change", exact=True)
    if another.is_visible():
        another.click()
    page.get_by_label("Part", exact=True).select_option(part)
    page.get_by_label("What was done", exact=True).select_option("replaced")
    page.get_by_label("Which piece is fitted now").fill("spare")
    page.get_by_role("button", name="Save the change").click()


def both_are_named(page: Page) -> None:
    """Read the heater open and the lock as one that comes and goes, until both are named."""
    suspects = page.get_by_role("region", name="Suspects")
    log(page, "heater OL", "heater OL")
    expect(page.get_by_role("region", name="Named", exact=True)).to_contain_text("Heater")
    log(page, "lock locked 38")
    expect(page.get_by_role("region", name="Named", exact=True)).to_have_count(0)
    expect(page.get_by_role("region", name="Do next")).to_contain_text("Door lock")
    log(page, "lock locked 0.4", "lock locked 39")
    ended = page.get_by_role("region", name="Two faults named")
    expect(ended).to_contain_text("Heater and Door lock")
    expect(suspects).to_contain_text("Heater: element reads OL; it should read 25.2–29.4 Ω. Explains no heat.")
    expect(suspects).to_contain_text("Door lock: contact, locked reads 0.4 Ω, then 39 Ω")
    ended.get_by_role("link", name="Repair it").click()


@pytest.mark.parametrize("size", ["laptop", "phone"])
def test_both_are_named_changed_one_at_a_time_and_settled(demo: Visit, size: str) -> None:
    job, context = machine_of_two(demo), demo.context
    page = demo.open(f"/jobs/{job}/trace", size=size)
    both_are_named(page)
    page.wait_for_url("**/repair")
    expect(page.get_by_label("Part", exact=True)).to_have_value("lock")
    change(page, "lock")
    expect(page.get_by_role("alert")).to_contain_text("Say first whether you saw it fail yourself.")
    asked = page.get_by_role("group", name="Did you see it fail yourself?")
    asked.get_by_role("button", name="No").click()
    change(page, "lock")
    expect(asked).to_have_count(0)
    page.goto(page.url.replace("/repair", "/trace"))
    expect(page.get_by_role("region", name="Do next")).to_contain_text("New part fitted")
    log(page, "lock ptc 1.1k")
    expect(page.get_by_role("region", name="Do next")).to_contain_text("Needed before power")
    power_again(context, job)
    page.goto(page.url.replace("/trace", "/repair"))
    run = page.get_by_role("region", name="Add a run")
    run.get_by_role("button", name="fails at heat").click()
    steps = page.get_by_role("region", name="What was changed, what ran after")
    expect(steps).to_contain_text("fails at heat")
    page.goto(page.url.replace("/repair", "/trace"))
    expect(page.get_by_role("region", name="Named", exact=True)).to_contain_text("Heater")

    page.goto(page.url.replace("/trace", "/repair"))
    happened(context, job, Isolated())
    change(page, "heater")
    expect(steps).to_contain_text("Heater: another one fitted, spare")
    power_again(context, job, "heater 26")
    run.get_by_role("button", name="runs through").click()
    expect(steps.get_by_role("status")).to_contain_text("Conclusive")
    page.goto(page.url.replace("/repair", "/trace"))
    settled = page.get_by_role("region", name="Settled")
    expect(settled).to_contain_text("Door lock and Heater")
    expect(page.get_by_role("region", name="Do next")).to_have_count(0)
    assert not page.evaluate("document.documentElement.scrollWidth > innerWidth")
