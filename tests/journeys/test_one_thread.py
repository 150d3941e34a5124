"""What every room says of a job after every step: one next step, one name, nothing of its own."""

from __future__ import annotations

import re
from collections.abc import Callable
from uuid import uuid4

import pytest
from playwright.sync_api import Page, expect

from ohmcensus.core.event import Body, Changed, Ended, Intervention, PluggedIn, RunMade, RunWatched
from ohmcensus.core.intake import Complaint
from ohmcensus.core.symptom import Symptom
from ohmcensus.core.trip.of_case import leaky_parts
from ohmcensus.core.trip.problem import Method
from ohmcensus.services.at_hand.job import take
from ohmcensus.services.at_hand.sheets import find_sheet
from ohmcensus.services.intake.keep_intake import NewIntake, keep_intake
from ohmcensus.services.job.open_job import NewJob, open_job
from tests.journeys.conftest import Visit
from tests.working import every_job, happened, logged, prove_dead, read_what_is_missing

MACHINE = "Washer of the thread"
ROOMS = ("intake", "safe", "codes", "trace", "trip", "repair", "prove", "sheet-out")
NEXT = re.compile(r"Next(?:, here)?: (.*?)(?:\s+n next · \? keys)?$")
INSIDE = tuple(part.id for part in leaky_parts(find_sheet("fl7-u"), Method.INSULATION))

Step = str | Body | Callable[[Visit, str], None]


def leak(text: str, *off: str) -> RunMade:
    return RunMade(method="insulation", connected=tuple(part for part in INSIDE if part not in off), text=text)


def fitted(part: str) -> Changed:
    return Changed(part=part, intervention=Intervention.REPLACED, fitted="spare", saw_fail=True)


def everything_read(visit: Visit, job: str) -> None:
    read_what_is_missing(visit.context, job)


STORIES: dict[str, tuple[tuple[Symptom, ...], tuple[Step, ...]]] = {
    "an open heater": (
        (Symptom.NO_HEAT,),
        (
            "heater OL",
            "heater OL",
            fitted("heater"),
            "heater 26",
            everything_read,
            PluggedIn(),
            RunWatched(outcome="through"),
        ),
    ),
    "two faults": (
        (Symptom.NO_HEAT, Symptom.STOPS),
        (
            "heater OL",
            "heater OL",
            "lock locked 38",
            "lock locked 0.4",
            "lock locked 39",
            fitted("lock"),
            "lock locked 0.2",
        ),
    ),
    "a leak": (
        (Symptom.TRIPS,),
        (leak("0.05M"), leak(">299M", "heater"), fitted("heater"), "heater 26", leak(">299M")),
    ),
    "nothing that reads": ((Symptom.NO_DRAIN,), ("pump 160", "pump 900k", "pump 160")),
    "left unsafe": ((Symptom.TRIPS,), (leak("0.05M"), Ended(why="No part to be had.", is_labelled_unsafe=True))),
}


class Thread:
    """One window on a job, which reads what its rooms say."""

    def __init__(self, visit: Visit, job: str) -> None:
        self.visit, self.job = visit, job
        self.page = visit.open(f"/jobs/{job}/trace")

    def agrees(self) -> None:
        """Compare what every room says at this moment."""
        page = self.page
        page.goto(f"{self.visit.address}/jobs/{self.job}/trace")
        said = {room: self._bar(room) for room in ROOMS}
        bar = said["safe"]
        assert all(text == bar for text in said.values()), said
        named, following = bar
        trip = page.get_by_role("region", name="Pull next")
        self._go("trip")
        if following.startswith("Leak test. "):
            expect(trip).to_contain_text(following.removeprefix("Leak test. "))
        self._go("trace")
        side = page.locator(".side")
        for part in named:
            expect(side).to_contain_text(part)
        if following.startswith(("Measure: ", "Look at ", "Run it ", "Leak test. ")):
            expect(side.locator(".card").first).to_contain_text(following.removeprefix("Measure: "))
        if following.startswith("Ended: "):
            return
        self._go("jobs")
        own = page.get_by_role("link").filter(has_text=self._machine())
        expect(own).to_contain_text(following)
        for part in named:
            expect(own).to_contain_text(part)

    def _machine(self) -> str:
        return next(row.machine for row in every_job(self.visit.context) if row.id == self.job)

    def _go(self, room: str) -> Page:
        to = "/jobs" if room == "jobs" else f"/jobs/{self.job}/{room}"
        self.page.locator(f'nav a[href="{to}"]').first.click()
        return self.page

    def _bar(self, room: str) -> tuple[tuple[str, ...], str]:
        """Return whom a room names at its end, and what it says is next."""
        bar = self._go(room).get_by_role("region", name="Next", exact=True)
        expect(bar).to_contain_text(NEXT)
        text = bar.inner_text().replace("\n", " ").strip()
        named = re.search(r"Named: (.*?)\. ", text)
        found = NEXT.search(text)
        assert found is not None, text
        return tuple(named[1].split(" and ")) if named else (), found[1].strip()


def opened(visit: Visit, symptoms: tuple[Symptom, ...]) -> str:
    context = visit.context
    job = open_job(context, NewJob(id=uuid4(), machine=MACHINE, place="Pier", sheet="fl7-u")).id
    with context.store.read() as session:
        stored = take(context, session, job)
    new = NewIntake(
        intake_revision=stored.stored.intake_revision,
        machine=MACHINE,
        place="Pier",
        sheet="fl7-u",
        complaint=Complaint(symptoms=symptoms),
        plate=stored.case.plate,
    )
    keep_intake(context, job, new)
    return job


@pytest.mark.parametrize("name", STORIES)
def test_after_every_step_of_a_story_every_room_says_the_same(empty: Visit, name: str) -> None:
    symptoms, steps = STORIES[name]
    job = opened(empty, symptoms)
    thread = Thread(empty, job)
    thread.agrees()
    prove_dead(empty.context, job)
    for step in steps:
        if isinstance(step, str):
            logged(empty.context, job, step)
        elif callable(step):
            step(empty, job)
        else:
            happened(empty.context, job, step)
        thread.agrees()


def test_every_room_of_the_demo_says_the_same_of_each_job(demo: Visit) -> None:
    for row in every_job(demo.context):
        thread = Thread(demo, row.id)
        if row.ended is None:
            thread.agrees()
            prove_dead(demo.context, row.id)
            thread.agrees()
        thread.page.close()
