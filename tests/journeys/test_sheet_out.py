"""From the suspect to the signed sheet: shelf, photos, proof, costs, and the PDF looked at as pictures."""

from __future__ import annotations

import io
import re
from pathlib import Path

import pypdfium2
import pytest
from PIL import Image
from playwright.sync_api import Page, expect
from pypdf import PdfReader

from ohmcensus.core.event import HandsOff
from ohmcensus.demo.pictures import drawn
from ohmcensus.services.at_hand.job import take
from tests.journeys.conftest import Visit
from tests.journeys.test_prove import watch_a_warm_run
from tests.working import happened, logged, prove_dead, read_what_is_missing, shut_up


def test_a_demo_job_goes_from_suspect_to_signed_pdf(demo: Visit, tmp_path: Path) -> None:
    job = demo.job("Machine 3")
    page = demo.open(f"/jobs/{job}/trace")
    expect(page.get_by_role("region", name="Suspects")).to_contain_text("Heater")
    _put_a_heater_on_the_shelf(page, demo)
    page.goto(f"{demo.address}/jobs/{job}/repair")
    _take_off(page, tmp_path)
    _fit_from_the_shelf(page)
    _put_back(page)
    _prove(page, demo, job)
    page.goto(f"{demo.address}/jobs/{job}/sheet-out")
    page.get_by_label("Minutes of work").fill("50")
    page.get_by_role("button", name="Save the costs").click()
    expect(page.get_by_role("button", name="Save the costs again")).to_be_visible()
    page.goto(f"{demo.address}/jobs/{job}/prove")
    page.get_by_label("What was done, in one sentence").fill("Heater leaked, another one fitted.")
    page.get_by_role("button", name="End the job as safe").click()
    page.goto(f"{demo.address}/jobs/{job}/sheet-out")
    expect(page.get_by_role("region", name="Signed")).to_contain_text("Signed off by Duty technician")
    expect(page.get_by_role("link", name="Label for the machine")).to_be_visible()
    _look_at_the_sheet(page, demo, job)


def _put_a_heater_on_the_shelf(page: Page, demo: Visit) -> None:
    page.goto(f"{demo.address}/shelf")
    form = page.get_by_role("form", name="Add a piece")
    form.get_by_label("Machine type").select_option("fl7-u")
    form.get_by_label("Part", exact=True).select_option("heater")
    form.get_by_label("Type number").fill("FL7-U/2")
    form.get_by_label("Plug form").fill("two tags")
    form.get_by_label("Mark").select_option("spare_2")
    form.get_by_role("button", name="Save on the shelf").click()
    piece = page.get_by_role("region", name="Heater, spare 2")
    expect(piece).to_contain_text("never measured")
    for test, reading in (("element", "26.3"), ("to earth", ">299M")):
        piece.get_by_label(f"Reading: {test}").fill(reading)
        piece.get_by_role("listitem").filter(has_text=test).get_by_role("button", name="Log").click()
        expect(piece.get_by_role("listitem").filter(has_text=test)).not_to_contain_text("not measured")
    expect(piece).to_contain_text("every reading inside")


def _take_off(page: Page, folder: Path) -> None:
    card = page.get_by_role("region", name="Strip-down")
    card.get_by_text("Something else came off").click()
    card.get_by_label("What comes off").fill("heater")
    card.get_by_label("Fasteners", exact=True).fill("1")
    card.get_by_text("Plugs that were pulled").click()
    card.get_by_role("button", name="Both heater tags", exact=True).click()
    card.get_by_role("button", name="Save the step").click()
    photo = folder / "plug.jpg"
    photo.write_bytes(drawn("plug"))
    card.get_by_label("Photo of this step").set_input_files(photo)
    expect(card.get_by_role("img", name="Photo: heater")).to_be_visible()
    connectors = page.get_by_role("region", name="Connectors")
    connectors.get_by_label("Photo of a connector").set_input_files(photo)
    connectors.get_by_role("img", name="Photo of the connector").click(position={"x": 180, "y": 210})
    connectors.get_by_label("Label of pin 1").fill("L")
    connectors.get_by_label("Colour of pin 1").fill("brown")
    connectors.get_by_label("Connector", exact=True).fill("heater tags")
    connectors.get_by_role("button", name="Save the connector").click()
    expect(connectors).to_contain_text("0 of 1 pins ticked")


def _fit_from_the_shelf(page: Page) -> None:
    parts = page.get_by_role("region", name="Parts wanted")
    parts.get_by_role("button", name="Add a wanted part").click()
    form = parts.get_by_role("form")
    form.get_by_label("Part", exact=True).select_option("heater")
    form.get_by_label("Plug form").fill("two tags")
    form.get_by_label("Where").fill("Quay store")
    form.get_by_label("Price").fill("forty")
    form.get_by_role("button", name="Save").click()
    expect(form.get_by_role("alert")).to_contain_text("'forty' is not a price")
    form.get_by_label("Price").fill("38,50")
    form.get_by_role("button", name="Save").click()
    parts.get_by_role("button", name="Fit it: spare 2").click()
    expect(parts.get_by_role("alert")).to_contain_text("Say first whether you saw it fail yourself.")
    page.get_by_role("group", name="Did you see it fail yourself?").get_by_role("button", name="No").click()
    parts.get_by_role("button", name="Fit it: spare 2").click()
    changes = page.get_by_role("region", name="What was changed, what ran after")
    expect(changes).to_contain_text("Heater: another one fitted, spare 2")


def _put_back(page: Page) -> None:
    card = page.get_by_role("region", name="The way back")
    expect(card.get_by_role("img", name="Photo: heater")).to_be_visible()
    tags = card.get_by_role("button", name="Both heater tags on", exact=True)
    tags.click()
    expect(tags).to_have_attribute("aria-pressed", "true")
    connectors = page.get_by_role("region", name="Connectors")
    connectors.get_by_role("button", name="Pin 1: L, brown").first.click()
    expect(connectors).to_contain_text("on, every pin right")


def _prove(page: Page, demo: Visit, job: str) -> None:
    context = demo.context
    prove_dead(context, job)
    read_what_is_missing(context, job)
    shut_up(context, job)
    logged(context, job, "cord pe 0.07")
    logged(context, job, "cord insulation >299M")
    happened(context, job, HandsOff())
    page.goto(f"{demo.address}/jobs/{job}/prove")
    for name in ("Looked at", "Drum turns free"):
        page.get_by_role("button", name=f"Good: {name}").click()
        expect(page.get_by_role("region", name="Sign off")).not_to_contain_text(name.lower())
    page.goto(f"{demo.address}/jobs/{job}/safe")
    page.get_by_role("button", name="Plug in, panels shut").click()
    expect(page.get_by_role("link", name=re.compile("State of safety"))).to_contain_text("Plugged in, panels shut")
    page.goto(f"{demo.address}/jobs/{job}/prove")
    for name in ("Protective conductor current", "Protective conductor current, plug turned"):
        step = page.locator('.criterion[aria-current="step"]')
        expect(step.locator("b").first).to_have_text(name)
        step.get_by_label("Reads").fill("0.41 mA")
        step.get_by_role("button", name="Save").click()
    expect(page.locator('.criterion[aria-current="step"] b').first).to_have_text("Runs through")
    watch_a_warm_run(page)
    for name in ("No leak", "Codes cleared and read again"):
        page.get_by_role("button", name=f"Good: {name}").click()
        expect(page.get_by_role("region", name="Sign off")).not_to_contain_text(f"{name.lower()} is not shown")


def _look_at_the_sheet(page: Page, demo: Visit, job: str) -> None:
    """Every page as a picture: ink on it, none in the margins; and the words that a customer looks for."""
    document = page.request.get(f"{demo.address}/api/jobs/{job}/report.pdf").body()
    with pypdfium2.PdfDocument(document) as found:
        assert 2 <= len(found) <= 3
        for sheet in found:
            picture = sheet.render(scale=1).to_pil().convert("L")
            ink = picture.point(lambda shade: 255 if shade < 200 else 0).getbbox()
            assert ink is not None
            assert ink[0] > 20
            assert ink[2] < picture.width - 20
            assert (ink[3] - ink[1]) > picture.height / 4
        said = " ".join(" ".join(sheet.get_textpage().get_text_range() for sheet in found).split())
    for words in ("47 kΩ", "spare 2", "Signed off by Duty technician", "Total", "11 min", "0.41 mA", "trips"):
        assert words in said, words


@pytest.mark.parametrize("size", ["laptop", "phone"])
def test_a_job_goes_out_as_an_archive_and_comes_back(demo: Visit, tmp_path: Path, size: str) -> None:
    job = demo.job("Lock cottage washer")
    page = demo.open(f"/jobs/{job}/sheet-out", size=size)
    with page.expect_download() as download:
        page.get_by_role("link", name="Archive, ZIP").click()
    file = tmp_path / "job.zip"
    download.value.save_as(file)
    page.goto(f"{demo.address}/jobs")
    page.get_by_label("Import").set_input_files(file)
    expect(page.get_by_role("status")).to_contain_text("1 already here")
    assert not page.evaluate("document.documentElement.scrollWidth > innerWidth")
    with Image.open(io.BytesIO(drawn("cover"))) as picture:
        assert picture.size == (1200, 800)


@pytest.mark.parametrize("size", ["laptop", "phone"])
def test_the_customer_signs_with_a_finger_and_the_sheet_holds_it(demo: Visit, size: str) -> None:
    """By the mouse here, which goes the same way as a finger; the paper is read by pypdf."""
    job = demo.job("Lighthouse washer")
    page = demo.open(f"/jobs/{job}/prove", size=size)
    page.get_by_label("What was done, in one sentence").fill("Looked at it, nothing done.")
    page.get_by_label("Customer's name").fill("H. Marsh")
    page.get_by_role("button", name="End the job", exact=True).click()
    expect(page.get_by_role("alert")).to_contain_text("signs with a name and a signature")
    field = page.get_by_role("img", name="Field to sign in")
    field.scroll_into_view_if_needed()
    box = field.bounding_box()
    assert box is not None
    page.mouse.move(box["x"] + 30, box["y"] + box["height"] / 2)
    page.mouse.down()
    for across in range(40, 200, 20):
        page.mouse.move(box["x"] + across, box["y"] + box["height"] * (0.3 if across % 40 else 0.7))
    page.mouse.up()
    expect(page.get_by_role("img", name="The customer's signature").locator("polyline")).to_have_count(1)
    page.get_by_role("button", name="End the job", exact=True).click()
    expect(page.get_by_role("region", name="Sign off")).to_contain_text("This job has ended.")
    with demo.context.store.read() as session:
        ended = take(demo.context, session, job).case.ended
    assert ended is not None
    assert ended.body.signature is not None
    (stroke,) = ended.body.signature.strokes
    assert len(stroke) == 9
    page.goto(f"{demo.address}/jobs/{job}/sheet-out")
    expect(page.get_by_text("Signed by H. Marsh.")).to_be_visible()
    pdf = page.request.get(f"{demo.address}/api/jobs/{job}/report.pdf").body()
    assert "H. Marsh" in PdfReader(io.BytesIO(pdf)).pages[-1].extract_text()
