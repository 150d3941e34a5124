"""Stories of safety through the browser: what the core refuses is refused there, in its words; what lifts it does."""

from __future__ import annotations

import re
from typing import Any
from uuid import uuid4

import pytest
from playwright.sync_api import Page, expect

from ohmcensus.core.intake import Complaint
from ohmcensus.services.intake.keep_intake import NewIntake, keep_intake
from ohmcensus.services.intake.show_intake import show_intake
from ohmcensus.services.job.open_job import NewJob, open_job
from tests.journeys.conftest import Visit
from tests.stories.table import TABLE
from tests.stories.told import Told

STRIP = re.compile("State of safety")
TOLD = (
    "loose readings lift no shock",
    "a shock is lifted with the plug in the hand",
    "volts of a powered board end the proof",
)
STATES: dict[str, str | re.Pattern[str]] = {
    "dead": re.compile("Dead, proved at|Dead until"),
    "under_voltage": re.compile("UNDER VOLTAGE|Plugged in, panels shut"),
    "not_proved": "Not proved dead",
    "live": "LIVE",
}


def story(name: str) -> Told:
    return next(row for row in TABLE if row.name == name)


def opened(visit: Visit, told: Told) -> str:
    """Open a job on the sheet of a story, with its complaint."""
    new = NewJob(id=uuid4(), machine="Machine 9", place="Pier", sheet=told.sheet)
    job = open_job(visit.context, new).id
    view = show_intake(visit.context, job)
    kept = {"machine": "Machine 9", "place": "Pier", "sheet": told.sheet, "plate": view.plate}
    complaint = Complaint.model_validate(told.more.get("complaint", {}))
    keep_intake(
        visit.context,
        job,
        NewIntake.model_validate({**kept, "complaint": complaint, "intake_revision": view.intake_revision}),
    )
    return job


class Player:
    """A technician who tells a story to the screens: readings in Trace, everything else in Safe."""

    def __init__(self, visit: Visit, job: str, *, size: str = "laptop") -> None:
        self.page, self.at = visit.open(f"/jobs/{job}/safe", size=size), f"{visit.address}/jobs/{job}"

    def room(self, name: str) -> Page:
        if not self.page.url.endswith(f"/{name}"):
            self.page.goto(f"{self.at}/{name}")
        return self.page

    def step(self, told: dict[str, Any], refusal: str | None) -> None:
        if "read" in told:
            self.read(told["read"], refusal)
        else:
            self.do(told["do"], refusal)

    def read(self, line: str, refusal: str | None) -> None:
        field = self.room("trace").get_by_label("Type a part and a reading")
        field.fill(line)
        field.press("Enter")
        if refusal is None:
            expect(field).to_have_value("")
        else:
            expect(self.page.get_by_text(refusal).first).to_be_visible()
            expect(field).to_have_value(line)

    def do(self, body: dict[str, Any], refusal: str | None) -> None:
        page = self.room("safe")
        buttons = {
            "unplugged": "Unplugged, plug in sight",
            "plug_in_hand": "Pulled plug in the hand, covers on",
            "plugged_in": "Plug in, panels shut",
            "hands_off": "My hands are off it",
        }
        again = page.get_by_role("button", name="Cut off again")
        if body["kind"] == "isolated" and again.count():
            again.click()
        name = buttons[body.get("how", "unplugged") if body["kind"] == "isolated" else body["kind"]]
        with page.expect_response(re.compile("/events$")):
            page.get_by_role("button", name=name).click()
        if refusal is not None:
            expect(page.get_by_role("alert")).to_contain_text(refusal)


@pytest.mark.parametrize("name", TOLD)
def test_a_story_comes_to_the_same_on_the_screens(empty: Visit, name: str) -> None:
    told = story(name)
    player = Player(empty, opened(empty, told))
    for place, step in enumerate(told.steps):
        is_refused = place - len(told.steps) in told.refused
        player.step(step, told.says if is_refused else None)
    state = told.state or ("not_proved" if told.refused else "under_voltage")
    expect(player.page.get_by_role("link", name=STRIP)).to_contain_text(STATES[state])


def test_another_window_follows_within_two_seconds(demo: Visit) -> None:
    page, job = demo.trace("Machine 1"), demo.job("Machine 1")
    expect(page.get_by_role("link", name=STRIP)).to_contain_text("Dead, proved at")
    other = demo.open(f"/jobs/{job}/safe")
    other.get_by_role("button", name="It was under voltage anyway").click()
    other.get_by_role("button", name="Save").click()
    expect(other.get_by_role("link", name=STRIP)).to_contain_text("UNDER VOLTAGE")
    expect(page.get_by_role("link", name=STRIP)).to_contain_text("UNDER VOLTAGE", timeout=4_000)


def test_a_silent_server_is_no_proof(demo: Visit) -> None:
    page = demo.trace("Machine 1")
    expect(page.get_by_role("link", name=STRIP)).to_contain_text("Dead, proved at")
    page.route("**/api/**", lambda route: route.abort())
    expect(page.get_by_role("link", name=STRIP)).to_contain_text("State not known")
    expect(page.get_by_role("alert").first).to_contain_text("take the machine for live")
    page.unroute("**/api/**")
    expect(page.get_by_role("link", name=STRIP)).to_contain_text("Dead, proved at")
