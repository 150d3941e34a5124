"""What is drawn stands where its value says, read in pixels, whatever rooms were open before."""

from __future__ import annotations

import math
import re
from collections.abc import Sequence
from typing import Any

import pytest
from playwright.sync_api import Locator, Page, expect

from ohmcensus.core.machine import machine_tests
from ohmcensus.services.at_hand.sheets import find_sheet
from tests.journeys.conftest import Visit

# Half a line's width and the rounding of a pixel.
NEAR_PX = 1.6
PREFIX = {"k": 1e3, "M": 1e6, "G": 1e9, "m": 1e-3, "µ": 1e-6, "n": 1e-9}
ROOMS = ("intake", "safe", "codes", "trace", "trip", "repair", "prove", "sheet-out")


def go(page: Page, path: str) -> None:
    """Go to a room without loading the page anew: what the rooms before it brought along stays."""
    page.evaluate("to => { history.pushState({}, '', to); dispatchEvent(new PopStateEvent('popstate')); }", path)
    page.wait_for_url(f"**{path}")
    page.locator("main h1, main h2").first.wait_for()


def walk_all_rooms(page: Page, job_id: str) -> None:
    for room in ROOMS:
        go(page, f"/jobs/{job_id}/{room}")
    for path in ("/machines", "/shelf", "/setup", "/"):
        go(page, path)
    go(page, f"/jobs/{job_id}/trace")
    page.locator("tr[data-line]").first.wait_for()


def choose(page: Page, part: str, key: str) -> None:
    page.locator(f'[data-part="{part}"] > button').click()
    row = page.locator(f'tr[data-line="{key}"]')
    if row.get_attribute("aria-selected") != "true":
        row.click()
    expect(row).to_have_attribute("aria-selected", "true")


def boxes(found: Locator) -> list[Any]:
    """Return where some shapes stand on the screen, everything counted that any style does to them."""
    rows: list[Any] = found.evaluate_all(
        "all => all.map(each => { const b = each.getBoundingClientRect();"
        " return { left: b.left, right: b.right, x: (b.left + b.right) / 2, y: (b.top + b.bottom) / 2,"
        " text: each.textContent, anchor: each.getAttribute('text-anchor') ?? '' } })"
    )
    return rows


def value_of(text: str) -> float:
    """Return the figure of a label: "47k", "25.2 Ω", "> 299 MΩ"."""
    found = re.match(r"[><~ ]*([\d.]+) ?([kMGmµn]?)", text)
    assert found, text
    return float(found[1]) * PREFIX.get(found[2], 1.0)


def scale(ticks: Sequence[Any]) -> Any:
    """Return the place of a resistance by the decades that are written under the ruler."""
    inner = [row for row in ticks if row["anchor"] == "middle"]
    low, high = (min(inner, key=lambda row: row["x"]), max(inner, key=lambda row: row["x"]))
    from_, to = math.log10(value_of(low["text"])), math.log10(value_of(high["text"]))
    per_decade = (high["x"] - low["x"]) / (to - from_)
    return lambda ohms: low["x"] + (math.log10(ohms) - from_) * per_decade


def check_ohm_ruler(page: Page, sheet: str, part: str, chosen: str) -> int:
    """Hold every pin, the chosen window and the ticks of the ruler against their values; return how many pins."""
    choose(page, part, chosen)
    ruler = page.locator(".ruler-strip svg")
    expect(ruler).to_be_visible()
    place = scale(boxes(ruler.locator(".ruler-label")))
    labels = [row.inner_text() for row in page.locator(".ruler table td:first-of-type").all()]
    pins = boxes(ruler.locator(".ruler-pin:not(.ghost) > circle"))
    stems = boxes(ruler.locator(".ruler-pin:not(.ghost) > line"))
    assert len(pins) == len(labels)
    ends = boxes(ruler.locator(".ruler-bar"))[0]
    for label, head, stem in zip(labels, pins, stems, strict=True):
        assert abs(head["x"] - stem["x"]) < NEAR_PX, label
        assert ends["left"] <= head["x"] <= ends["right"], label
        if not label.startswith("OL"):
            assert abs(head["x"] - place(value_of(label))) < NEAR_PX, (label, head["x"])
    test = next(row for row in machine_tests(find_sheet(sheet), None) if row.id == chosen)
    band = boxes(ruler.locator(".ruler-band.chosen"))[0]
    for end, edge in ((test.window.interval.lo, "left"), (test.window.interval.finite_hi, "right")):
        if end and ends["left"] < place(end) < ends["right"]:
            assert abs(band[edge] - place(end)) < NEAR_PX + 1, (chosen, edge)
    return len(labels)


def check_short_ruler(page: Page, part: str, line: str) -> None:
    """Hold a line's own ruler against the two figures under its window, and the pin against what was read."""
    choose(page, part, line)
    drawn = page.locator(".evidence .short-ruler")
    band = boxes(drawn.locator(".ruler-band"))[0]
    low, high = boxes(drawn.locator(".ruler-label"))
    reads = page.locator(f'tr[data-line="{line}"] .reads').inner_text()
    lo, hi, value = value_of(low["text"]), value_of(high["text"]), value_of(reads)
    pin = boxes(drawn.locator("circle"))[0]
    wanted = band["left"] + (value - lo) / (hi - lo) * (band["right"] - band["left"])
    rail = boxes(drawn.locator(".short-rail"))[0]
    assert abs(pin["x"] - min(max(wanted, rail["left"] + 8), rail["right"] - 8)) < NEAR_PX + 1, (reads, pin, band)
    assert abs(low["left"] - band["left"]) < NEAR_PX + 2
    assert abs(high["right"] - band["right"]) < NEAR_PX + 2


def check_ladder(page: Page) -> int:
    """Hold every mark of the ladder against the rails, its rung and its place on it; return how many marks."""
    with page.expect_response(re.compile(r"/rungs")) as told:
        page.keyboard.press("d")
    view = told.value.json()["view"]
    drawing = page.locator(".rung-drawing svg")
    expect(drawing).to_be_visible()
    left, right = (row["x"] for row in boxes(drawing.locator(":scope > .rung-rail")))
    marks = boxes(drawing.locator(".rung-mark:not(.tooth) > .rung-touch"))
    wires = boxes(drawing.locator(".rung-wire"))
    at = 0
    for number, rung in enumerate(view["rungs"]):
        level = wires[sum(len(row["stretches"]) for row in view["rungs"][:number])]["y"]
        for mark in rung["marks"]:
            found = marks[at]
            assert abs(found["x"] - (left + mark["x"] * (right - left))) < NEAR_PX, mark
            # Its touch area reaches from 24 above the wire to 40 below; what is pulled out is lifted by 14.
            assert abs(found["y"] - (level + 8 - (14 if mark["is_pulled"] else 0))) < NEAR_PX, mark
            at += 1
    assert at == len(marks)
    return at


@pytest.mark.parametrize("size", ["laptop", "phone"])
def test_pins_windows_and_ladder_stand_by_their_values_after_a_walk_through_all_rooms(demo: Visit, size: str) -> None:
    page = demo.trace("Machine 3", size=size)
    walk_all_rooms(page, demo.job("Machine 3"))
    assert check_ohm_ruler(page, "fl7-u", "heater", "heater.pe") >= 1
    assert check_ladder(page) > 10
    top_loader = demo.job("Laundry locker")
    go(page, f"/jobs/{top_loader}/trace")
    page.locator("tr[data-line]").first.wait_for()
    check_short_ruler(page, "capacitor", "capacitor.value")
