"""The Repair room: one change and a run, two changes and a run, what the choices cost."""

from __future__ import annotations

import pytest
from playwright.sync_api import Page, Route, expect

from ohmcensus.core.event import Isolated, PluggedIn
from ohmcensus.services.at_hand.context import Context
from ohmcensus.services.at_hand.job import take
from tests.journeys.conftest import Visit
from tests.working import happened, logged, prove_dead, read_what_is_missing, shut_up


def power_again(context: Context, job: str, *readings: str) -> None:
    """Prove it dead, read what was changed, and plug it in."""
    prove_dead(context, job)
    for text in readings:
        logged(context, job, text)
    read_what_is_missing(context, job)
    shut_up(context, job)
    happened(context, job, PluggedIn())


@pytest.mark.parametrize("size", ["laptop", "phone"])
def test_changes_and_runs_are_noted_and_told_conclusive_or_not(demo: Visit, size: str) -> None:
    job, context = demo.job("Machine 1"), demo.context
    page = demo.open(f"/jobs/{job}/repair", size=size)
    steps = page.get_by_role("region", name="What was changed, what ran after")
    run = page.get_by_role("region", name="Add a run")
    run.get_by_role("button", name="fails at heat").click()
    expect(run.get_by_role("alert")).to_contain_text("was this now, or before it was cut off?")
    run.get_by_role("button", name="It was before the plug was pulled").click()
    expect(steps).to_contain_text("fails at heat")
    expect(page.get_by_label("Part", exact=True)).to_have_value("heater")
    page.get_by_role("button", name="Save the change").click()
    expect(page.get_by_role("form", name="Add a change").get_by_role("alert")).to_contain_text("Say what was done")
    page.get_by_label("Part number of the new piece").fill("spare 1")
    page.get_by_role("button", name="Replaced: Heater").click()
    expect(steps).to_contain_text("Heater: another one fitted, spare 1")
    page.get_by_text("Another change", exact=True).click()
    run.get_by_role("button", name="runs through").click()
    run.get_by_role("button", name="It is now, under power").click()
    expect(run.get_by_role("alert")).to_contain_text("the heater was changed and is not read since")
    power_again(context, job, "heater 26")
    run.get_by_role("button", name="runs through").click()
    expect(steps.get_by_role("status")).to_contain_text("Conclusive")
    with page.expect_response(lambda answer: answer.url.endswith("/events")):
        run.get_by_role("button", name="fails at heat").click()
    expect(steps).to_contain_text("fails at heat")
    happened(context, job, Isolated())
    for part in ("harness", "board"):
        another = page.get_by_text("Another change", exact=True)
        if another.is_visible() and not page.get_by_label("Part", exact=True).is_visible():
            another.click()
        page.get_by_label("Part", exact=True).select_option(part)
        page.get_by_label("What was done", exact=True).select_option("reseated")
        page.get_by_role("button", name="Save the change").click()
        expect(page.get_by_role("button", name="Save the change")).to_be_enabled()
    power_again(context, job)
    run.get_by_role("button", name="runs through").click()
    expect(steps.get_by_role("status")).to_contain_text("Not conclusive: 2 changes")
    assert not page.evaluate("document.documentElement.scrollWidth > innerWidth")


def test_the_worth_of_a_repair_follows_the_figures_typed(demo: Visit) -> None:
    page = demo.open(f"/jobs/{demo.job('Machine 1')}/repair")
    worth = page.get_by_role("region", name="Mend, replace, or give up")
    worth.get_by_label("About").select_option("board")
    expect(worth).to_contain_text("Replace the part")
    worth.get_by_text("Use other figures").click()
    worth.get_by_label("Another machine, fitted").fill("cheap")
    worth.get_by_role("button", name="Calculate").click()
    expect(worth.get_by_role("alert")).to_contain_text("not a number")
    worth.get_by_label("Another machine, fitted").fill("90")
    worth.get_by_label("Age, years").fill("14")
    worth.get_by_role("button", name="Calculate").click()
    expect(worth.get_by_role("listitem").first).to_contain_text("Give up the machine")


@pytest.mark.parametrize("size", ["laptop", "phone"])
def test_what_came_off_is_turned_round_and_put_back(demo: Visit, size: str) -> None:
    page = demo.open(f"/jobs/{demo.job('Machine 1')}/repair", size=size)
    card = page.get_by_role("region", name="Strip-down")
    card.get_by_text("Something else came off").click()
    card.get_by_label("What comes off").fill("back panel")
    card.get_by_label("Fasteners", exact=True).fill("six")
    card.get_by_role("button", name="Save the step").click()
    expect(card.get_by_role("alert")).to_contain_text("not a whole number")
    card.get_by_label("Fasteners", exact=True).fill("6")
    card.get_by_label("Size").fill("M4 x 12")
    card.get_by_label("Where it is").fill("blue lid")
    card.get_by_text("Plugs that were pulled").click()
    card.get_by_role("button", name="Both heater tags", exact=True).click()
    card.get_by_role("button", name="Save the step").click()
    expect(card).to_contain_text("0 of 1 refitted")
    expect(card).to_contain_text("6 × M4 x 12, blue lid")
    card.get_by_role("button", name="Show the way back").click()
    card.get_by_label("Fasteners back").fill("5")
    card.get_by_role("button", name="Save as refitted: back panel").click()
    expect(card).to_contain_text("1 of 6 fasteners")
    card.get_by_label("Fasteners back").fill("6")
    card.get_by_role("button", name="Save as refitted: back panel").click()
    expect(card).to_contain_text("1 of 1 refitted")
    assert not page.evaluate("document.documentElement.scrollWidth > innerWidth")


def lose_the_first_answer(page: Page, ending: str) -> None:
    """Let the server store what is sent, and let the first answer that says so be lost on the way."""
    lost: list[bool] = []

    def handle(route: Route) -> None:
        answer = route.fetch()
        if answer.status == 201 and not lost:
            lost.append(True)
            route.abort()
        else:
            route.fulfill(response=answer)

    page.route(f"**/{ending}", handle)


def test_a_lost_answer_and_a_second_press_are_stored_once(demo: Visit) -> None:
    job, context = demo.job("Machine 1"), demo.context
    before = counted(context, job)
    page = demo.open(f"/jobs/{job}/repair")
    lose_the_first_answer(page, "events")
    run = page.get_by_role("region", name="Add a run")
    run.get_by_role("button", name="fails at heat").click()
    run.get_by_role("button", name="It was before the plug was pulled").click()
    expect(run.get_by_role("alert")).to_contain_text("The server does not answer")
    run.get_by_role("button", name="fails at heat").click()
    with page.expect_response(lambda answer: answer.url.endswith("/events") and answer.status == 200):
        run.get_by_role("button", name="It was before the plug was pulled").click()
    page = demo.trace("Machine 1", dead=False)
    lose_the_first_answer(page, "readings")
    field = page.get_by_label("Type a part and a reading")
    field.fill("pump loose 148")
    field.press("Enter")
    expect(page.get_by_text("The server does not answer")).to_be_visible()
    field.press("Enter")
    expect(field).to_have_value("")
    assert counted(context, job) == (before[0] + 1, before[1] + 1)


def counted(context: Context, job: str) -> tuple[int, int]:
    with context.store.read() as session:
        case = take(context, session, job).case
    return sum(row.body.kind == "run_watched" for row in case.events), len(case.readings)
