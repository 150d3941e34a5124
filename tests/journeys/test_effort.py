"""How many touches the work takes on a phone, beside words and figures: counted here, printed in docs/effort.md."""

from __future__ import annotations

import re
from collections.abc import Callable
from pathlib import Path

import pytest
from playwright.sync_api import Locator, Page, expect

from ohmcensus.core.event import Changed, HandsOff, Intervention, PluggedIn, RunWatched, When
from ohmcensus.services.at_hand.job import take
from tests.journeys.conftest import Visit
from tests.working import good, happened, prove_dead, read_what_is_missing, shut_up

TOLD = Path("docs/effort.md")
# A choice from a list of the phone: opened, and chosen.
CHOICE = 2


class Thumb:
    """A thumb on a page: touches are counted, and changes of room; words and figures are not."""

    def __init__(self, page: Page) -> None:
        self.page = page
        self.touches = self.rooms = 0

    def tap(self, found: Locator) -> None:
        found.tap()
        self.touches += 1

    def choose(self, found: Locator, value: str) -> None:
        found.select_option(value)
        self.touches += CHOICE

    def press(self, name: str | re.Pattern[str], within: Locator | None = None) -> None:
        self.tap((within or self.page).get_by_role("button", name=name, exact=isinstance(name, str)).first)

    def go(self, room: str) -> None:
        """Go to a room by the list of the bar."""
        self.tap(self.page.get_by_label("Rooms of the firm").get_by_role("button"))
        self.tap(self.page.get_by_role("menuitem", name=re.compile(f"^{room}")))
        self.rooms += 1

    def types(self, text: str) -> None:
        self.page.keyboard.type(text)


def new_job(demo: Visit) -> Thumb:
    thumb = Thumb(demo.open("/jobs", size="phone"))
    thumb.press("New job")
    thumb.types("Laundry 2")
    thumb.tap(thumb.page.get_by_role("combobox", name="Place"))
    thumb.types("Boathouse")
    thumb.tap(thumb.page.get_by_role("radio", name=re.compile("fl7-u")))
    thumb.press("Open the job")
    expect(thumb.page.get_by_label("The complaint")).to_be_visible()
    return thumb


def known_machine(demo: Visit) -> Thumb:
    thumb = Thumb(demo.open("/jobs", size="phone"))
    thumb.press("New job")
    thumb.types("Machine 3")
    thumb.tap(thumb.page.get_by_role("option", name=re.compile("Machine 3 · Wash house")))
    thumb.press("Open the job")
    expect(thumb.page.get_by_label("Earlier visits")).to_be_visible()
    return thumb


def proved_dead(machine: str) -> Callable[[Visit], Thumb]:
    def prove(demo: Visit) -> Thumb:
        job = demo.job(machine)
        thumb = Thumb(demo.open(f"/jobs/{job}/safe", size="phone"))
        if thumb.page.get_by_role("button", name="Cut off again").count():
            thumb.press("Cut off again")
        thumb.press("Unplugged, plug in sight")
        for name in thumb.page.locator(".safe-steps > li button.step-mark").all():
            step = name.get_attribute("aria-label") or ""
            if "Move it with help" not in step:
                expect(name).to_be_focused()
                thumb.tap(name)
                expect(name).to_have_attribute("aria-pressed", "true")
        with demo.context.store.read() as session:
            volts = take(demo.context, session, job).case.sheet.volts
        rows = thumb.page.get_by_label("Make it safe").locator("tr")
        for number in range(rows.count()):
            title = rows.nth(number).get_by_role("rowheader").inner_text()
            expect(rows.nth(number).get_by_role("textbox")).to_be_focused()
            thumb.types("9.3" if "DC" in title else f"{volts:g}" if "source" in title else "0.2")
            thumb.press("Log", rows.nth(number))
            expect(rows.nth(number).get_by_role("textbox")).to_have_count(0)
        expect(thumb.page.get_by_role("link", name=re.compile("State of safety"))).to_contain_text("Dead until")
        return thumb

    return prove


def ten_readings(demo: Visit) -> Thumb:
    job = demo.job("Machine 3")
    prove_dead(demo.context, job)
    thumb = Thumb(demo.open(f"/jobs/{job}/trace", size="phone"))
    with demo.context.store.read() as session:
        terms = take(demo.context, session, job).case.terms
    field = thumb.page.get_by_label("Type a part and a reading")
    thumb.tap(thumb.page.locator('[data-part="pump"] > button'))
    thumb.tap(field)
    for _ in range(10):
        asked = thumb.page.locator(".in-question")
        key = asked.get_attribute("data-key") or ""
        thumb.types(good(key, terms))
        thumb.press("Log", thumb.page.get_by_role("region", name="Keypad"))
        expect(field).to_have_value("")
        expect(asked).not_to_have_attribute("data-key", key)
    return thumb


def leak_test(demo: Visit) -> Thumb:
    job = demo.job("Machine 3")
    prove_dead(demo.context, job)
    thumb = Thumb(demo.open("/jobs", size="phone"))
    thumb.page.get_by_role("link").filter(has_text="Machine 3").first.tap()
    field = thumb.page.get_by_label("Reads, MΩ")
    expect(field).to_be_focused()
    thumb.types(">299")
    thumb.press("Log", thumb.page.get_by_role("region", name="Keypad"))
    expect(field).to_have_value("")
    return thumb


def four_steps(demo: Visit) -> Thumb:
    job = demo.job("Machine 3")
    prove_dead(demo.context, job)
    thumb = Thumb(demo.open(f"/jobs/{job}/repair", size="phone"))
    thumb.choose(thumb.page.get_by_label("Plan for the part"), "board")
    expect(thumb.page.get_by_role("heading", name="Take it out: Control board")).to_be_visible()
    for _ in range(4):
        due = thumb.page.locator("li.is-due .plan-tick")
        step = due.get_attribute("aria-label") or ""
        thumb.tap(due)
        expect(thumb.page.get_by_role("button", name=f"{step}: off")).to_be_visible()
    return thumb


def signed_off(demo: Visit) -> Thumb:
    job, context = demo.job("Machine 1"), demo.context
    happened(context, job, RunWatched(outcome="heat", was=When.BEFORE))
    happened(context, job, Changed(part="heater", intervention=Intervention.REPLACED, fitted="spare 1"))
    prove_dead(context, job)
    read_what_is_missing(context, job)
    shut_up(context, job)
    happened(context, job, HandsOff())
    thumb = Thumb(demo.open(f"/jobs/{job}/repair", size="phone"))
    page = thumb.page
    thumb.go("Prove")
    sign_off = page.get_by_role("region", name="Sign off")
    for name in ("Looked at", "Drum turns free"):
        thumb.press(f"Good: {name}")
        expect(sign_off).not_to_contain_text(f"{name.lower()} is not shown")
    for label, reads in (("Protective conductor, Reads", "0.07"), ("Insulation at 500 V, Reads", ">299M")):
        expect(page.get_by_label(label)).to_be_focused()
        thumb.types(reads)
        thumb.press("Log", page.get_by_role("region", name="Keypad"))
        expect(page.get_by_label(label)).to_have_count(0)
    thumb.press("It is plugged in, panels shut")
    step = page.locator('.criterion[aria-current="step"]')
    for typed in (("0.41 mA", "OC-T7"), ("0.38 mA", "")):
        before = step.locator("b").first.inner_text()
        for label, text in zip(("Reads", "Tester's number"), typed, strict=True):
            if text:
                thumb.tap(step.get_by_label(label))
                thumb.types(text)
        thumb.press("Save", step)
        expect(step.locator("b").first).not_to_have_text(before)
    expect(page.get_by_role("region", name="Keypad")).to_have_count(0)
    thumb.press("runs through", step)
    for name in ("No leak", "Codes cleared and read again"):
        thumb.press(f"Good: {name}")
        expect(sign_off).not_to_contain_text(f"{name.lower()} is not shown")
    expect(page.get_by_label("What was done, in one sentence")).to_have_value("Heater: another one fitted, spare 1.")
    thumb.press("End the job as safe")
    expect(sign_off).to_contain_text("This job has ended.")
    return thumb


WORK: dict[str, Callable[[Visit], Thumb]] = {
    "a new job on a new machine": new_job,
    "a new job on a known machine": known_machine,
    "proved dead": proved_dead("Machine 1"),
    "proved dead, a DC point in it": proved_dead("Laundry locker"),
    "ten readings": ten_readings,
    "a leak test as proposed": leak_test,
    "four steps of a strip-down": four_steps,
    "signed off after a change": signed_off,
}


@pytest.mark.parametrize("work", WORK)
def test_it_takes_as_many_touches_as_are_told(demo: Visit, work: str) -> None:
    if work.startswith("proved dead"):
        for machine in ("Machine 1", "Laundry locker"):
            shut_up(demo.context, demo.job(machine))
            happened(demo.context, demo.job(machine), PluggedIn())
    thumb = WORK[work](demo)
    row = next(line for line in TOLD.read_text(encoding="utf-8").splitlines() if line.startswith(f"| {work} |"))
    told = [cell.strip() for cell in row.strip("|").split("|")]
    assert (thumb.touches, thumb.rooms) == (int(told[1]), int(told[2])), "docs/effort.md tells another count"
