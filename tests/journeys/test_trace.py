"""Logging readings on one machine, as a technician does it."""

from __future__ import annotations

import re

import pytest
from playwright.sync_api import Locator, Page, Route, expect

from tests.journeys.conftest import Visit

WAYS = [("laptop", False), ("phone", True)]


def line(page: Page, key: str) -> Locator:
    return page.locator(f'tr[data-line="{key}"]')


def opened(page: Page, key: str) -> Locator:
    """Return a line once its part was chosen: what is shown by itself follows the suspects."""
    page.locator(f'[data-part="{key.partition(".")[0]}"] > button').click()
    return line(page, key)


def field(page: Page) -> Locator:
    return page.get_by_label("Type a part and a reading")


def answer(page: Page) -> Locator:
    return page.get_by_role("status")


def log(page: Page, text: str) -> None:
    field(page).fill(text)
    field(page).press("Enter")
    expect(field(page)).to_have_value("")


@pytest.mark.parametrize(("size", "night"), WAYS, ids=["day", "phone at night"])
def test_readings_are_typed_judged_corrected_and_found_again(demo: Visit, size: str, night: bool) -> None:
    page = demo.trace("Machine 1", size=size, night=night)
    field(page).fill("heater 25.9")
    expect(answer(page)).to_contain_text("inside 25.2–29.4 Ω, from the plate: 2000 W at 230 V, +5/−10 %")
    expect(page.locator(".ruler-pin.ghost")).to_be_visible()
    field(page).press("Enter")
    expect(answer(page)).to_contain_text("Heater, element: OL, then 25.9 Ω, comes and goes")
    expect(line(page, "heater.element")).to_contain_text("25.9 Ω")
    expect(page.locator(".ruler-pin.chosen")).to_be_visible()
    for text, key, reads, verdict in (
        ("heater pe OL", "heater.pe", "OL", "inside"),
        ("pump 148", "pump.coil", "148 Ω", "inside"),
        ("lock 1.1k", "lock.ptc", "1.1 kΩ", "inside"),
        ("field 2k2", "motor.field", "2.2 kΩ", "outside, high"),
    ):
        log(page, text)
        expect(line(page, key)).to_contain_text(reads)
        expect(line(page, key).get_by_role("img", name=verdict)).to_be_visible()
    expect(line(page, "motor.field")).to_have_class(re.compile("is-outside"))

    if size == "laptop":
        page.get_by_role("button", name="Edit", exact=True).click()
        expect(field(page)).to_have_value("field 2k2")
        log(page, "field 2.2")
        expect(line(page, "motor.field").get_by_role("img", name="inside", exact=True)).to_be_visible()

    page.reload()
    expect(page.locator('[data-part="pump"] > button')).to_contain_text("148 Ω")
    expect(opened(page, "heater.element")).to_contain_text("25.9 Ω")
    expect(opened(page, "pump.coil")).to_contain_text("148 Ω")
    expect(opened(page, "motor.field")).to_contain_text("2.2 Ω" if size == "laptop" else "2.2 kΩ")
    too_wide = page.evaluate("document.documentElement.scrollWidth > document.documentElement.clientWidth")
    assert not too_wide


def test_a_reading_between_two_points_that_no_test_names(demo: Visit) -> None:
    page = demo.trace("Machine 1")
    page.get_by_role("button", name="Between two points").click()
    dialog = page.get_by_role("dialog")
    for label, point in (("First point", "heater.a"), ("Second point", "pump.b")):
        dialog.get_by_role("combobox", name=label).fill(point)
        page.get_by_role("option", name=point, exact=True).click()
    dialog.get_by_label("Reading").fill("abc")
    dialog.get_by_role("button", name="Log").click()
    expect(dialog).to_contain_text("'abc' is not a reading")
    dialog.get_by_label("Reading").fill("12.3")
    dialog.get_by_role("button", name="Log").click()
    expect(dialog).to_be_hidden()
    page.locator('[data-part=""] > button').click()
    expect(line(page, "heater.a pump.b")).to_contain_text("12.3 Ω")


BAD = [
    ("abc", "no 'abc' on this sheet"),
    ("heater abc", "no test 'abc' on heater"),
    ("heater 12..3", "'12..3' is not a reading"),
    ("heater 1e999", "more than any meter shows"),
    ("heater 230V", "in volts where ohms belong"),
    ("heater -3", "a minus means voltage on the part"),
    ("heeter 25", "no 'heeter' on this sheet: heater?"),
    ("x" * 10_240, "far too long"),
]


def test_bad_lines_get_one_sentence_and_are_not_lost(demo: Visit) -> None:
    page = demo.trace("Machine 1")
    for text, says in BAD:
        field(page).fill(text)
        field(page).press("Enter")
        expect(answer(page)).to_contain_text(says)
        expect(field(page)).to_have_value(text)
    page.reload()
    expect(field(page)).to_have_value("x" * 10_240)
    expect(opened(page, "heater.element").get_by_role("img", name="open")).to_be_visible()


def test_a_server_that_does_not_answer_costs_nothing(demo: Visit) -> None:
    page = demo.trace("Machine 1")
    page.route("**/readings", lambda route: route.abort())
    field(page).fill("pump 148")
    field(page).press("Enter")
    expect(answer(page)).to_contain_text("The server does not answer")
    expect(field(page)).to_have_value("pump 148")
    page.unroute("**/readings")
    field(page).press("Enter")
    expect(line(page, "pump.coil")).to_contain_text("148 Ω")
    expect(page.locator("#evidence li")).to_have_count(1)


def test_a_second_window_is_not_overwritten(demo: Visit) -> None:
    first, second = demo.trace("Machine 1"), demo.trace("Machine 1")
    log(first, "pump 148")
    log(second, "lock 1.1k")
    expect(opened(second, "pump.coil")).to_contain_text("148 Ω")
    first.get_by_label("Note on this line").fill("bright tags")
    first.get_by_role("button", name="Save").click()
    expect(first.locator("#evidence")).to_contain_text("has moved on")
    expect(first.get_by_label("Note on this line")).to_have_value("bright tags")
    first.get_by_role("button", name="Save").click()
    expect(line(first, "pump.coil").get_by_role("img", name="has a note")).to_be_visible()


def test_everything_works_by_keyboard_alone(demo: Visit) -> None:
    page = demo.trace("Machine 1")
    keys = page.keyboard
    keys.press("n")
    expect(field(page)).to_be_focused()
    keys.type("OL")
    keys.press("Enter")
    expect(field(page)).to_have_value("")
    keys.press("Escape")
    keys.press("u")
    expect(answer(page)).to_contain_text("Undone")
    keys.press("/")
    keys.type("hea")
    expect(answer(page).get_by_role("button", name="heater")).to_be_visible()
    keys.press("Tab")
    expect(field(page)).to_have_value("heater ")
    keys.type("26.2")
    keys.press("Enter")
    expect(line(page, "heater.element")).to_contain_text("26.2 Ω")
    keys.press("Escape")
    keys.press("ArrowDown")
    expect(line(page, "heater.pe")).to_have_attribute("aria-selected", "true")
    keys.press("ArrowUp")
    keys.press("Enter")
    expect(field(page)).to_have_value("heater 26.2")
    keys.press("Escape")
    keys.press("?")
    expect(page.get_by_role("dialog")).to_contain_text("undo what was done last")
    keys.press("Escape")
    expect(page.get_by_role("dialog")).to_be_hidden()
    keys.press("r")
    keys.press("j")
    expect(page.get_by_role("heading", name="Jobs", exact=True)).to_be_visible()


def test_the_keypad_logs_a_reading_by_touch_alone(demo: Visit) -> None:
    page = demo.trace("Machine 1", size="phone")
    opened(page, "pump.coil")
    field(page).tap()
    expect(answer(page)).to_contain_text("Drain pump, coil")
    pad = page.get_by_role("region", name="Keypad")
    for sign in "148":
        pad.get_by_role("button", name=sign, exact=True).tap()
    expect(answer(page)).to_contain_text("inside 115–197 Ω")
    pad.get_by_role("button", name="Log").tap()
    expect(line(page, "pump.coil")).to_contain_text("148 Ω")


def test_nothing_moves_under_a_finger_while_an_answer_comes(demo: Visit) -> None:
    """The suspects come late, and open a part above the row on which the finger is by then."""
    page = demo.open("/jobs", size="phone")
    late: list[Route] = []

    def hold(route: Route) -> None:
        late.append(route)

    page.route("**/suspects*", hold)
    page.goto(f"{demo.address}/jobs/{demo.job('Machine 3')}/trace")
    page.locator("tr[data-line]").first.wait_for()
    row = page.locator('[data-part="pump"] > button')
    row.scroll_into_view_if_needed()
    before = row.bounding_box()
    assert before is not None
    page.mouse.move(before["x"] + 40, before["y"] + before["height"] / 2)
    page.mouse.down()
    for route in late:
        route.continue_()
    page.unroute("**/suspects*")
    page.wait_for_timeout(500)
    assert row.bounding_box() == before
    page.mouse.up()
    expect(row).to_have_attribute("aria-pressed", "true")
    expect(page.locator('tr[data-line^="pump."]').first).to_be_visible()


def test_what_safety_refuses_is_said_where_it_is_typed(demo: Visit) -> None:
    page = demo.trace("Machine 1", dead=False)
    strip = page.get_by_role("link", name=re.compile("State of safety"))
    expect(strip).to_contain_text("Not proved dead")
    field(page).fill("heater 25.9")
    expect(answer(page)).to_contain_text("not proved dead: no ohms reading yet")
    expect(answer(page).get_by_role("button", name="Log it with a reason")).to_have_count(0)
    answer(page).get_by_role("link", name="Pull the plug").click()
    page.get_by_role("button", name="Unplugged, plug in sight").click()
    expect(page.get_by_label("L to N, reads").or_(page.get_by_label(re.compile("Known source.*reads")))).to_be_visible()
    page.goto(page.url.partition("/safe")[0] + "/trace")
    field(page).fill("heater 25.9")
    expect(answer(page)).to_contain_text("not proved dead: no ohms reading yet")
    expect(answer(page).get_by_role("link", name="Prove it dead")).to_be_visible()
    answer(page).get_by_role("button", name="Log it with a reason").click()
    page.get_by_label("Why it is safe").fill("heater on the bench")
    page.keyboard.press("Enter")
    expect(line(page, "heater.element")).to_contain_text("25.9 Ω")
    expect(page.locator("#evidence")).to_contain_text("not proved dead: heater on the bench")
    log(page, "pump loose 148")
    page.keyboard.press("Escape")
    page.keyboard.press("m")
    page.get_by_label("What has to be measured").fill("volts at the outlet")
    page.get_by_role("button", name="Start").click()
    expect(strip).to_contain_text("LIVE: volts at the outlet")
    field(page).fill("heater 25.9")
    expect(answer(page)).to_contain_text("live mode: no ohms reading on a machine under voltage")
    with page.expect_response(lambda answer: answer.url.endswith("/readings") and answer.status == 403):
        field(page).press("Enter")
    expect(field(page)).to_have_value("heater 25.9")
    log(page, "outlet 229")
    expect(line(page, "outlet.ln")).to_contain_text("229 V")


def test_the_ladder_chooses_tests_and_follows_the_states(demo: Visit) -> None:
    page = demo.trace("Machine 1")
    opened(page, "heater.element").click()
    page.keyboard.press("d")
    ladder = page.get_by_label("Ladder of the machine")
    expect(ladder.locator(".rung-probe")).to_have_count(2)
    heater = ladder.get_by_role("button", name=re.compile("^Heater, "))
    expect(heater).to_have_attribute("aria-label", "Heater, plug pulled, not reached")
    ladder.get_by_text("Plugs", exact=True).click()
    ladder.get_by_role("button", name="Both heater tags").click()
    expect(heater).to_have_attribute("aria-label", "Heater, reached only from neutral")
    for name, value in (("door", "locked"), ("programme", "heat"), ("heater relay", "closed")):
        ladder.get_by_role("combobox", name=name).select_option(value)
    expect(heater).to_have_attribute("aria-label", "Heater, reached from line")
    ladder.get_by_role("button", name=re.compile("^Drain pump, ")).click()
    expect(answer(page)).to_contain_text("Drain pump, coil")
    with page.expect_download() as download:
        ladder.get_by_role("link", name="Picture").click()
    assert download.value.suggested_filename.endswith(".svg")


def test_the_meter_in_hand_is_stated_or_told_by_the_reading(demo: Visit) -> None:
    page = demo.trace("Machine 1")
    field(page).fill("heater pe OL")
    expect(answer(page)).to_contain_text("Multimeter, 6000 counts")
    expect(answer(page)).to_contain_text("misses most leaks")
    field(page).fill("heater pe >299M")
    expect(answer(page)).to_contain_text("Insulation and appliance tester")
    page.get_by_label("Meter in hand").select_option("multimeter-6000")
    field(page).fill("heater pe 20M")
    expect(answer(page)).to_contain_text("Multimeter, 6000 counts")
    log(page, "heater 25.9")
    expect(page.locator("#evidence")).to_contain_text("at 230 V it draws 8.9 A and takes 2.04 kW")
