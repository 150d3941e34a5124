"""From an empty store to the first reading: intake, first look, codes, making safe."""

from __future__ import annotations

import io
import re
from pathlib import Path

import pytest
from PIL import Image
from playwright.sync_api import Locator, Page, Route, expect

from tests.core.case_of import PROOF
from tests.journeys.conftest import Visit
from tests.working import every_job

# The clicks are timed in the page itself: what lies between it and this test is no part of the rhythm.
CLICKS = """async (keys) => {
  for (const key of keys) {
    document.querySelector('.pad').dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true }));
    await new Promise((done) => setTimeout(done, 600));
  }
}"""


def kept(page: Page) -> None:
    expect(page.get_by_role("status").filter(has_text=re.compile("^Saved$"))).to_be_visible()


def strip(page: Page) -> Locator:
    return page.get_by_role("link", name=re.compile("State of safety"))


def values_of_the_proof() -> list[str]:
    return [line.split()[-1] for line in PROOF]


def new_job_by_keys(page: Page) -> None:
    keys = page.keyboard
    keys.press("n")
    for text in ("Laundry 2", "Boathouse"):
        keys.type(text)
        keys.press("Tab")
    # None of the types is chosen: an arrow chooses the one after the first.
    keys.press("ArrowDown")
    expect(page.get_by_role("radio", name=re.compile("fl7-u"))).to_be_checked()
    keys.press("Tab")
    keys.type("stops while filling")


def test_from_nothing_to_the_first_reading_by_keyboard_alone(empty: Visit) -> None:
    page = empty.open("/")
    page.get_by_text("No job yet").wait_for()
    keys = page.keyboard
    new_job_by_keys(page)
    page.get_by_label("Complaint").press("Enter")
    expect(page.get_by_role("heading", name="Laundry 2")).to_be_visible()
    page.get_by_role("button", name="stops mid-cycle").focus()
    keys.press("Space")
    expect(page.get_by_text("Harness")).to_have_count(0)
    expect(page.get_by_label("Take along")).to_contain_text("Control board")
    kept(page)

    for line, reading in (("line to neutral", "231"), ("line to earth", "230"), ("neutral to earth", "1.1")):
        page.get_by_label(f"Outlet, {line}").focus()
        keys.type(reading)
        keys.press("Enter")
        expect(page.get_by_label("First look outside")).to_contain_text(f"{reading} V")
    expect(page.get_by_text("Line, neutral and earth are where they should be")).to_be_visible()
    page.get_by_label("Drain filter").get_by_role("button", name="Good").focus()
    keys.press("Enter")
    expect(page.get_by_label("Drain filter").get_by_role("button", name="Good")).to_have_attribute(
        "aria-pressed", "true"
    )

    read_codes_by_keys(page)
    prove_dead_by_keys(page)
    keys.press("r")
    keys.press("4")
    page.locator("tr[data-line]").first.wait_for()
    keys.press("/")
    keys.type("heater 25.9")
    keys.press("Enter")
    expect(page.locator('tr[data-line="heater.element"]')).to_contain_text("25.9 Ω")


def read_codes_by_keys(page: Page) -> None:
    keys = page.keyboard
    page.locator("h1").first.click()
    keys.press("r")
    keys.press("3")
    expect(page.get_by_text("Read the codes before any test")).to_be_visible()
    for lamp in ("Wash 1 64", "Rinse 2 8", "Spin 2"):
        page.get_by_role("button", name=lamp).focus()
        keys.press("Space")
    expect(page.get_by_label("What the lamps say")).to_contain_text("Water did not get warmer")
    page.get_by_role("button", name="Add to the list").focus()
    keys.press("Enter")
    page.get_by_role("button", name="Write them down").focus()
    keys.press("Enter")
    expect(page.get_by_text(re.compile(r"^Read at \d\d:\d\d$"))).to_be_visible()


def prove_dead_by_keys(page: Page) -> None:
    page.keyboard.press("r")
    page.keyboard.press("2")
    page.get_by_role("button", name="Unplugged, plug in sight").focus()
    page.keyboard.press("Enter")
    for step in ("Shut the taps", "Drain the sump", "Dry the area", "Discharge: Mains filter, X-capacitor"):
        expect(page.get_by_role("button", name=f"{step}: done")).to_be_focused()
        page.keyboard.press("Enter")
    for number, value in enumerate(values_of_the_proof()):
        row = page.get_by_label("Make it safe").locator("tr").nth(number)
        expect(row.get_by_role("textbox")).to_be_focused()
        page.keyboard.type(value)
        page.keyboard.press("Enter")
        expect(row.get_by_role("textbox")).to_have_count(0)
    expect(strip(page)).to_contain_text("Dead, proved at")


def test_from_nothing_to_the_first_reading_by_touch(empty: Visit) -> None:
    page = empty.open("/", size="phone")
    page.get_by_role("button", name="New job").tap()
    page.get_by_role("combobox", name="Machine", exact=True).fill("Laundry 2")
    page.get_by_role("combobox", name="Place").fill("Boathouse")
    page.get_by_role("radio", name=re.compile("fl7-u")).check()
    page.get_by_role("button", name="Open the job").tap()
    page.get_by_role("button", name="trips").tap()
    page.get_by_label("Which device went").select_option("rcd")
    kept(page)
    expect(page.get_by_role("link", name="No power")).to_be_visible()
    page.get_by_label("Outlet, line to neutral").fill("230")
    page.get_by_label("First look outside").get_by_role("button", name="Log").first.tap()
    page.get_by_label("Breaker, RCD, plug fuse").get_by_role("button", name="Bad").tap()
    expect(page.get_by_label("What you saw: Breaker, RCD, plug fuse")).to_be_visible()

    room(page, "Codes")
    expect(page.get_by_role("alert")).to_contain_text("No power yet")
    page.get_by_role("button", name="None stored").tap()
    expect(page.get_by_text("none stored", exact=True)).to_be_visible()

    make_safe_by_touch(page)
    expect(page.get_by_role("link", name="No power")).to_have_count(0)
    assert not page.evaluate("document.documentElement.scrollWidth > innerWidth")
    room(page, "Trace")
    page.locator('[data-part="pump"] > button').tap()
    page.get_by_label("Type a part and a reading").tap()
    for sign in "148":
        page.locator(".keypad").get_by_role("button", name=sign, exact=True).tap()
    page.locator(".keypad").get_by_role("button", name="Log").tap()
    expect(page.locator('tr[data-line="pump.coil"]')).to_contain_text("148 Ω")


def room(page: Page, name: str) -> None:
    """Go to a room by the list of the phone's bar."""
    page.get_by_label("Rooms of the firm").get_by_role("button").tap()
    page.get_by_role("menuitem", name=re.compile(f"^{name}")).tap()


def make_safe_by_touch(page: Page) -> None:
    room(page, "Safe")
    page.get_by_role("button", name="Plug in, panels shut").tap()
    expect(page.get_by_role("alert").first).to_contain_text("no power: tripped a protective device")
    page.get_by_role("button", name="Unplugged, plug in sight").tap()
    page.get_by_role("button", name="Shut the taps: done").tap()
    for number, value in enumerate(values_of_the_proof()):
        row = page.get_by_label("Make it safe").locator("tr").nth(number)
        row.get_by_role("textbox").fill(value)
        row.get_by_role("button", name="Log").tap()
        expect(row.get_by_role("textbox")).to_have_count(0)
    expect(strip(page)).to_contain_text("Dead until")
    lift_what_stands(page)


def lift_what_stands(page: Page) -> None:
    """Type a good reading into the first field under Dangers until none is left."""
    fields = page.get_by_label("Dangers").get_by_role("textbox")
    expect(fields.first).to_be_visible()
    for _ in range(20):
        if fields.count() == 0:
            return
        label = fields.first.get_attribute("aria-label") or ""
        fields.first.fill(">299M" if ">" in label else "OL" if "OL" in label or "over" in label else "0.07")
        with page.expect_response(re.compile(r"/safe(\?|$)")):
            fields.first.press("Enter")
        page.wait_for_timeout(200)
    pytest.fail(f"still asked: {label}")


def test_a_second_tab_is_told_and_nothing_is_lost(demo: Visit) -> None:
    path = f"/jobs/{demo.job('Machine 1')}/intake"
    first, second = demo.open(path), demo.open(path)
    words = "In the customer's words"
    second.get_by_label(words).wait_for()
    # From here on the second tab hears nothing of the first.
    second.route(re.compile("/intake$"), _unless_get)
    first.get_by_label(words).fill("cold water, and it smells")
    kept(first)
    second.get_by_label(words).fill("cold only since Sunday")
    expect(second.get_by_role("alert")).to_contain_text("Someone else changed this page")
    second.unroute_all()
    second.reload()
    expect(second.get_by_label(words)).to_have_value("cold only since Sunday")
    second.get_by_role("button", name="Save mine").click()
    kept(second)
    first.reload()
    expect(first.get_by_label(words)).to_have_value("cold only since Sunday")


def _unless_get(route: Route) -> None:
    if route.request.method == "GET":
        route.abort()
    else:
        route.continue_()


def test_a_plate_that_cannot_be_and_one_that_does_not_fit(demo: Visit) -> None:
    page = demo.open(f"/jobs/{demo.job('Machine 1')}/intake")
    page.get_by_label("Volts").fill("2300")
    expect(page.get_by_role("status").first).to_contain_text("2300 V on the plate is not that of a household machine")
    expect(page.get_by_label("Volts")).to_have_value("2300")
    page.get_by_label("Volts").fill("120")
    expect(page.get_by_label("Data plate")).to_contain_text("The plate says 120 V, sheet fl7-u is for 230 V")
    page.get_by_label("Watts").fill("1500")
    expect(page.get_by_label("Data plate")).to_contain_text("less than the heater of 2000 W alone")


def test_a_photo_of_the_plate_and_files_that_are_none(demo: Visit, tmp_path: Path) -> None:
    page = demo.open(f"/jobs/{demo.job('Machine 1')}/intake")
    picture = io.BytesIO()
    Image.new("RGB", (60, 40), "white").save(picture, "PNG")
    chooser = page.locator("input[type=file]")
    for name, body, says in (
        ("plate.jpg", b"not a picture at all", "plate.jpg is not a picture that can be read"),
        ("IMG_1.HEIC", b"\x00\x00\x00\x18ftypheic" + b"\x00" * 20, "IMG_1.HEIC is a HEIC photo"),
    ):
        (tmp_path / name).write_bytes(body)
        chooser.set_input_files(tmp_path / name)
        expect(page.get_by_role("alert")).to_contain_text(says)
    (tmp_path / "plate.png").write_bytes(picture.getvalue())
    chooser.set_input_files(tmp_path / "plate.png")
    photo = page.get_by_role("img", name="Photo of the plate, 60 by 40 pixels")
    expect(photo).to_be_visible()
    assert photo.evaluate("image => image.decode().then(() => image.naturalWidth)") == 60
    page.get_by_role("button", name="Remove the photo").click()
    expect(photo).to_have_count(0)


def test_a_dead_socket_ends_the_job_and_it_can_be_reopened(demo: Visit) -> None:
    page = demo.open(f"/jobs/{demo.job('Galley washer')}/intake")
    for line in ("line to neutral", "line to earth"):
        page.get_by_label(f"Outlet, {line}").fill("0.4")
        page.get_by_label(f"Outlet, {line}").press("Enter")
    look = page.get_by_label("First look outside")
    expect(look).to_contain_text("The outlet is dead")
    look.get_by_role("button", name="End the job here").first.click()
    expect(page.get_by_label("Why it ends")).to_have_value("The outlet is dead.")
    page.get_by_role("button", name="End the job").first.click()
    expect(page.locator(".ended-mark")).to_be_visible()
    page.get_by_role("link", name="Jobs").click()
    page.get_by_role("button", name=re.compile("Show ended")).click()
    page.get_by_role("link", name="Galley washer").click()
    page.get_by_role("button", name="Reopen the job").click()
    expect(page.locator(".ended-mark")).to_have_count(0)


def test_the_words_of_a_line_have_room_whether_it_was_read_or_not(demo: Visit) -> None:
    page = demo.open(f"/jobs/{demo.job('Machine 1')}/intake")
    words = page.locator(".outside-lines li > div:first-child")
    words.first.wait_for()
    read = page.locator(".outside-lines li:has(.now)").count()
    assert read < words.count()
    assert min(row["width"] for row in (word.bounding_box() for word in words.all()) if row) > 250


def test_the_coach_follows_the_rhythm(demo: Visit) -> None:
    page = demo.open(f"/jobs/{demo.job('Galley washer')}/codes")
    page.get_by_text("Click 1 of 8: to the left").wait_for()
    pad = page.get_by_role("button", name="Left", exact=True)
    pad.click()
    page.wait_for_timeout(1800)
    pad.click()
    expect(page.get_by_text("at most 1.5 s: faster. Begin again.")).to_be_visible()
    page.get_by_role("button", name="Try again").click()
    page.get_by_text("Click 1 of 8").wait_for()
    page.evaluate(CLICKS, ["ArrowLeft"] * 2 + ["ArrowRight"] * 4 + ["ArrowLeft"] * 2)
    expect(page.get_by_text("All 8 clicks in time. The lamps fill from the right, one by one.")).to_be_visible()
    page.get_by_role("button", name="Yes, it is in").click()
    expect(page.get_by_text(re.compile("3 attempts logged"))).to_be_visible()
    page.get_by_role("button", name="Just plugged in").click()
    expect(page.get_by_role("timer").filter(has_text="The board starts up: wait")).to_be_visible()


def test_meanings_are_imported_and_bad_tables_refused(demo: Visit, tmp_path: Path) -> None:
    page = demo.open(f"/jobs/{demo.job('Galley washer')}/codes")
    chooser = page.get_by_label("What codes mean here").locator("input[type=file]")
    for body, says in (
        (b"code,words,suspects\n5,a,\n5,b,\n", "row 2: code 5 stands twice"),
        ("code,words\n5,Wärme\n".encode("latin-1"), "line 2: not in UTF-8"),
        (b"code,words,suspects\n999,a,\n", "row 1: code 999 cannot be shown"),
    ):
        (tmp_path / "codes.csv").write_bytes(body)
        chooser.set_input_files(tmp_path / "codes.csv")
        expect(page.get_by_role("alert")).to_contain_text(says)
    (tmp_path / "codes.csv").write_text("code,words,suspects\n88,Sump is warm,heater:0.4\n")
    chooser.set_input_files(tmp_path / "codes.csv")
    expect(page.get_by_text("Sump is warm")).to_be_visible()
    page.get_by_placeholder("type a code").fill("88")
    page.get_by_role("button", name="Show the lamps").click()
    expect(page.get_by_label("What the lamps say")).to_contain_text("Sump is warm · points at Heater")


def test_a_repeat_visit_brings_the_history_along(demo: Visit) -> None:
    before = len(every_job(demo.context))
    page = demo.open("/jobs")
    page.get_by_role("button", name="New job").click()
    page.get_by_role("combobox", name="Machine", exact=True).fill("Machine 3")
    page.get_by_role("option", name="Machine 3 · Wash house").click()
    expect(page.get_by_text("Known at Wash house")).to_be_visible()
    page.get_by_role("button", name="Open the job").click()
    expect(page.get_by_label("Earlier visits")).to_contain_text("Heater, to earth: 47 kΩ")
    expect(page.get_by_label("Serial number")).to_have_value("OC-0114")
    assert len(every_job(demo.context)) == before + 1
    page.goto(f"{demo.address}/jobs")
    page.get_by_label("Find a job").fill("machine 3 wash house keeper")
    expect(page.locator(".job-list li")).to_have_count(1)


@pytest.mark.parametrize("kind", ["customer", "place", "technician"])
def test_the_address_book_is_kept_and_archived(demo: Visit, kind: str) -> None:
    page = demo.open("/setup")
    page.get_by_role("button", name=f"Add a {kind}").click()
    page.get_by_label("Name of the entry").fill("Upper basin")
    page.get_by_role("button", name="Save the entry").click()
    entry = page.get_by_label("Customers, places, technicians").locator("li").filter(has_text="Upper basin")
    entry.get_by_role("button", name="Edit").click()
    page.get_by_label(re.compile("^Archived")).check()
    page.get_by_role("button", name="Save the entry").click()
    expect(entry).to_have_count(0)
    page.get_by_label("Show archived entries").check()
    expect(entry).to_contain_text("archived")
