"""What every room says of a job after every step: one next step, one name, nothing of its own."""

from __future__ import annotations

import re
from collections.abc import Callable
from dataclasses import dataclass
from uuid import uuid4

import pytest
from playwright.sync_api import Page, expect

from ohmcensus.core.event import (
    Body,
    BypassRemoved,
    Changed,
    Ended,
    Hazard,
    HazardFound,
    InterlockTried,
    Intervention,
    PluggedIn,
    RunMade,
    RunWatched,
    Tried,
    When,
)
from ohmcensus.core.intake import Complaint
from ohmcensus.core.symptom import Symptom
from ohmcensus.core.trip.of_case import leaky_parts
from ohmcensus.core.trip.problem import Method
from ohmcensus.services.at_hand.job import take
from ohmcensus.services.at_hand.sheets import find_sheet
from ohmcensus.services.intake.keep_intake import NewIntake, keep_intake
from ohmcensus.services.job.open_job import NewJob, open_job
from ohmcensus.services.sheet.copy_sheet import SheetCopy, copy_sheet
from tests.journeys.conftest import Visit
from tests.working import every_job, happened, logged, prove_dead, read_what_is_missing, show_all, shut_up

MACHINE = "Washer of the thread"
LONG = "Washer of the crew, third from the slipway door"
ROOMS = ("intake", "safe", "codes", "repair", "prove", "sheet-out", "trip", "trace")
# Every room ends with the same bar; between the first step and the last only those that say more than that.
BETWEEN = ("repair", "trip", "trace")
NEXT = re.compile(r"(?:Next(?:, here)?: |(?=Ended: ))(.*?)(?:\s+n next · \? keys)?$")

Act = str | Body | Callable[[Visit, str], None]
Step = Act | tuple[Act, ...]


def leak(text: str, *off: str, sheet: str = "fl7-u", only: str = "") -> RunMade:
    inside = tuple(part.id for part in leaky_parts(find_sheet(sheet), Method.INSULATION))
    connected = (only,) if only else tuple(part for part in inside if part not in off)
    return RunMade(method="insulation", connected=connected, text=text)


def fitted(part: str) -> Changed:
    return Changed(part=part, intervention=Intervention.REPLACED, fitted="spare", saw_fail=True)


def everything_read(visit: Visit, job: str) -> None:
    read_what_is_missing(visit.context, job)


def everything_shown(visit: Visit, job: str) -> None:
    shut_up(visit.context, job)
    show_all(visit.context, job)


def shut_and_tried(visit: Visit, job: str) -> None:
    shut_up(visit.context, job)
    happened(visit.context, job, InterlockTried(open="lid", outcome=Tried.STOPS, was=When.NOW))


@dataclass(frozen=True)
class Story:
    """A job: its symptoms, what is done one after the other, the sheet, and on which screen."""

    symptoms: tuple[Symptom, ...]
    steps: tuple[Step, ...]
    sheet: str = "fl7-u"
    size: str = "laptop"
    # What the signed sheet says.
    says: tuple[str, ...] = ()


STORIES: dict[str, Story] = {
    "an open heater on a sheet of one's own": Story(
        (Symptom.NO_HEAT,),
        (
            ("heater OL", "heater OL"),
            fitted("heater"),
            "heater 26",
            everything_read,
            (PluggedIn(), RunWatched(outcome="through")),
            everything_shown,
            Ended(why="New heater fitted, washes warm."),
        ),
        sheet=LONG,
        says=("We found the heater to be at fault.", "all 11 tests are good"),
    ),
    "two faults": Story(
        (Symptom.NO_HEAT, Symptom.STOPS),
        (
            ("heater OL", "heater OL"),
            ("lock locked 38", "lock locked 0.4", "lock locked 39"),
            fitted("lock"),
            "lock locked 0.2",
        ),
    ),
    "trips on plugging in, by the filter": Story(
        (Symptom.TRIPS,),
        (
            leak("0.041M", sheet="wd8-h"),
            leak("0.041M", sheet="wd8-h", only="filter"),
            leak(">299M", "filter", sheet="wd8-h"),
            fitted("filter"),
            everything_read,
            everything_shown,
            Ended(why="New mains filter fitted."),
        ),
        sheet="wd8-h",
        says=("We found the mains filter to be at fault.", "tests are good"),
    ),
    "hums and does not turn, by its capacitor": Story(
        (Symptom.HUMS, Symptom.NO_TURN),
        (
            ("capacitor 31u", "capacitor 31u"),
            fitted("capacitor"),
            "capacitor 52u",
            everything_read,
            everything_shown,
            Ended(why="New motor capacitor fitted."),
        ),
        sheet="tl4-c",
        size="phone",
        says=("We found the motor capacitor to be at fault.", "tests are good"),
    ),
    "a lid switch that was bypassed": Story(
        (Symptom.NO_SPIN,),
        (
            HazardFound(hazard=Hazard.BYPASS, words="lid wires joined"),
            BypassRemoved(words="wires parted, lid tried: stops"),
            ("lid unlocked OL", "lid locked 0.3", shut_and_tried, everything_shown),
            Ended(why="Lid wires parted, lid works."),
        ),
        sheet="tl6-s",
        says=("We found it altered: lid wires joined.", "put right: wires parted, lid tried: stops"),
    ),
    "nothing that reads": Story((Symptom.NO_DRAIN,), (("pump 160", "pump 900k"), "pump 160")),
    "left unsafe": Story((Symptom.TRIPS,), (leak("0.05M"), Ended(why="No part to be had.", is_labelled_unsafe=True))),
}


class Thread:
    """One window on a job, which reads what its rooms say."""

    def __init__(self, visit: Visit, job: str, size: str = "laptop") -> None:
        self.visit, self.job, self.size = visit, job, size
        self.page = visit.open("/setup", size=size)
        with visit.context.store.read() as session:
            self.machine = take(visit.context, session, job).stored.machine

    def agrees(self, rooms: tuple[str, ...] = ROOMS) -> None:
        """Compare what rooms say at this moment, and Jobs, and the cards of Trace and Trip."""
        page = self.page
        page.goto(f"{self.visit.address}/jobs/{self.job}/{rooms[0]}")
        said = {room: self._bar(room) for room in rooms}
        named, following = said["trace"]
        assert all(text == said["trace"] for text in said.values()), said
        side = page.locator(".side")
        for part in named:
            expect(side).to_contain_text(part)
        if following.startswith(("Measure: ", "Look at ", "Run it ", "Leak test. ")):
            expect(side.locator(".card").first).to_contain_text(following.removeprefix("Measure: "))
        if following.startswith("Ended: "):
            return
        self._go("jobs")
        own = page.get_by_role("link").filter(has_text=self.machine)
        expect(own).to_contain_text(following)
        for part in named:
            expect(own).to_contain_text(part)

    def _go(self, room: str) -> Page:
        to = "/jobs" if room == "jobs" else f"/jobs/{self.job}/{room}"
        if self.size == "phone":
            self.page.get_by_label("Rooms of the firm").get_by_role("button").click()
            self.page.locator(f'[role="menu"] a[href="{to}"]').click()
        else:
            self.page.locator(f'nav a[href="{to}"]').first.click()
        return self.page

    def _bar(self, room: str) -> tuple[tuple[str, ...], str]:
        """Return whom a room names at its end, and what it says is next; Trip has what is to be pulled in its card."""
        here = self.page.url.endswith(f"/{room}")
        bar = (self.page if here else self._go(room)).get_by_role("region", name="Next", exact=True)
        expect(bar).to_contain_text(NEXT)
        text = bar.inner_text().replace("\n", " ").strip()
        named = re.search(r"Named: (.*?)\. ", text)
        found = NEXT.search(text)
        assert found is not None, text
        pull = found[1].strip().removeprefix("Leak test. ")
        if room == "trip" and pull != found[1].strip():
            expect(self.page.get_by_role("region", name="Pull next")).to_contain_text(pull)
        return tuple(named[1].split(" and ")) if named else (), found[1].strip()


def opened(visit: Visit, story: Story) -> str:
    context = visit.context
    sheet = story.sheet
    if sheet == LONG:
        sheet = copy_sheet(context, SheetCopy(of="fl7-u", title=LONG)).id
    job = open_job(context, NewJob(id=uuid4(), machine=MACHINE, place="Pier", sheet=sheet)).id
    with context.store.read() as session:
        stored = take(context, session, job)
    new = NewIntake(
        intake_revision=stored.stored.intake_revision,
        machine=MACHINE,
        place="Pier",
        sheet=sheet,
        complaint=Complaint(symptoms=story.symptoms),
        plate=stored.case.plate,
    )
    keep_intake(context, job, new)
    return job


def done(visit: Visit, job: str, act: Act) -> None:
    if isinstance(act, str):
        logged(visit.context, job, act)
    elif callable(act):
        act(visit, job)
    else:
        happened(visit.context, job, act)


@pytest.mark.parametrize("name", STORIES)
def test_after_every_step_of_a_story_every_room_says_the_same(empty: Visit, name: str) -> None:
    story = STORIES[name]
    job = opened(empty, story)
    thread = Thread(empty, job, story.size)
    thread.agrees()
    prove_dead(empty.context, job)
    for step in story.steps:
        for act in step if isinstance(step, tuple) else (step,):
            done(empty, job, act)
        thread.agrees(ROOMS if step == story.steps[-1] else BETWEEN)
    if story.says:
        thread.page.goto(f"{empty.address}/jobs/{job}/sheet-out")
        said = thread.page.get_by_role("region", name="What the sheet says")
        for words in story.says:
            expect(said).to_contain_text(words)


def test_every_room_of_the_demo_says_the_same_of_each_job(demo: Visit) -> None:
    for row in every_job(demo.context):
        if row.ended is None:
            thread = Thread(demo, row.id)
            thread.agrees(BETWEEN)
            thread.page.close()
