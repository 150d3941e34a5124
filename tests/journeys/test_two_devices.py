"""Two people at one machine, each at a screen of their own: what one may not do while the other has the hands in."""

from __future__ import annotations

import re
from typing import Any

import pytest
from playwright.sync_api import Page, expect

from tests.journeys.conftest import Visit
from tests.journeys.test_stories import STATES, STRIP, Player, opened
from tests.stories.told import INS, OUTLET, PE, PLUG_IN, Told, complaint, do, proof, read

PHONE = "phone"
HANDS_OFF = do("hands_off")
FOUND = read("board relay_on 231")


def by_phone(*steps: dict[str, Any]) -> list[dict[str, Any]]:
    return [{**step, "device": PHONE} for step in steps]


STORIES = (
    Told(
        "power from the phone waits for hands off on the laptop",
        [*proof(), *by_phone(PLUG_IN), HANDS_OFF, *by_phone(PLUG_IN)],
        refused=(-3,),
        says="may have the hands in it",
        state="under_voltage",
    ),
    Told(
        "proved by the phone too, the laptop's hands are in still",
        [*proof(), *by_phone(*proof(), PLUG_IN)],
        refused=(-1,),
        says="may have the hands in it",
        state="dead",
    ),
    Told(
        "cut off by the phone it is not proved for the laptop",
        [*proof(), *by_phone(do("isolated")), *read("heater 26")],
        refused=(-1,),
        says="not proved dead",
        state="not_proved",
    ),
    Told(
        "a voltage that the phone finds ends the laptop's proof",
        [*proof(), *by_phone(*FOUND), *read("heater 26")],
        refused=(-1,),
        says="UNDER VOLTAGE",
        state="under_voltage",
    ),
    Told(
        "a shock is lifted by what both read, and who proved it plugs in",
        [*proof(), *read(PE), *by_phone(*read(INS, *OUTLET), PLUG_IN), PLUG_IN],
        refused=(-2,),
        says="may have the hands in it",
        state="under_voltage",
        more=complaint("shock"),
    ),
    Told(
        "a danger that the phone finds stops the laptop",
        [*proof(), *by_phone(*read("cord pe >20")), PLUG_IN],
        refused=(-1,),
        says="no power",
        state="dead",
    ),
)


class Two:
    """A laptop and a phone on one job."""

    def __init__(self, visit: Visit, job: str) -> None:
        self.players = {"": Player(visit, job), PHONE: Player(visit, job, size=PHONE)}

    def step(self, told: dict[str, Any], refusal: str | None) -> None:
        self.players[told.get("device", "")].step(told, refusal)

    @property
    def pages(self) -> list[Page]:
        return [player.page for player in self.players.values()]


@pytest.mark.parametrize("told", STORIES, ids=lambda told: told.name)
def test_two_at_one_machine(empty: Visit, told: Told) -> None:
    both = Two(empty, opened(empty, told))
    refused = {place % len(told.steps) for place in told.refused}
    for place, step in enumerate(told.steps):
        both.step(step, told.says if place in refused else None)
    for page in both.pages:
        expect(page.get_by_role("link", name=STRIP)).to_contain_text(STATES[told.state])


def test_the_phone_is_not_offered_to_say_hands_off_for_the_laptop(empty: Visit) -> None:
    told = Told("proved on the laptop", proof())
    both = Two(empty, opened(empty, told))
    for step in told.steps:
        both.step(step, None)
    laptop, phone = (player.room("safe") for player in both.players.values())
    expect(laptop.get_by_role("button", name="My hands are off it")).to_be_visible()
    expect(phone.get_by_text(re.compile("hands in it")).first).to_be_visible()
    expect(phone.get_by_role("button", name="My hands are off it")).to_have_count(0)
