"""Machine sheets: copied, changed, closed half-way, put into use, taken out and in again."""

from __future__ import annotations

from pathlib import Path

from playwright.sync_api import Page, expect

from ohmcensus.services.at_hand.sheets import sheets_in
from tests.journeys.conftest import Visit


def copied(visit: Visit) -> Page:
    page = visit.open("/machines")
    page.get_by_role("link", name="Front-loader, 7 kg").click()
    page.get_by_label("Title of the copy").fill("Quay front-loader")
    page.get_by_role("button", name="Copy").click()
    expect(page.get_by_role("heading", name="Quay front-loader", exact=True)).to_be_visible()
    return page


def watts(visit: Visit) -> float:
    with visit.context.store.read() as session:
        part = sheets_in(session)["quay-front-loader"].part("heater")
    assert part is not None
    return float(part.ratings.model_dump()["watts"])


def test_a_sheet_is_copied_changed_and_put_into_use(demo: Visit) -> None:
    page = copied(demo)
    page.get_by_role("button", name="Heater").first.click()
    page.get_by_label("watts", exact=True).fill("plenty")
    page.get_by_label("watts", exact=True).press("Enter")
    expect(page.get_by_role("region", name="Remarks")).to_contain_text("heater, watts")
    expect(page.get_by_role("button", name="Use this version")).to_be_disabled()
    page.reload()
    page.get_by_role("button", name="Heater").first.click()
    expect(page.get_by_label("watts", exact=True)).to_have_value("plenty")
    page.get_by_label("watts", exact=True).fill("1k8")
    page.get_by_label("watts", exact=True).press("Tab")
    expect(page.get_by_text("Saved as a draft")).to_be_visible()
    expect(page.get_by_label("watts", exact=True)).to_have_value("1800")
    assert watts(demo) == 2000
    page.get_by_role("button", name="Use this version").click()
    expect(page.get_by_text("In use")).to_be_visible()
    assert watts(demo) == 1800


def test_wiring_is_said_pin_by_pin_and_a_loose_pin_is_noticed(demo: Visit) -> None:
    page = copied(demo)
    wiring = page.get_by_role("region", name="Wiring")
    wiring.locator("summary", has_text="Heater").click()
    wiring.get_by_label("tag 2").first.fill("")
    wiring.get_by_label("tag 2").first.press("Enter")
    said = page.get_by_role("region", name="Remarks")
    expect(said).to_contain_text("heater.b is joined to nothing")
    wiring.get_by_label("tag 2").first.fill("neutral_inside")
    wiring.get_by_label("tag 2").first.press("Enter")
    expect(said).to_contain_text("No remarks")
    page.get_by_role("button", name="Discard the draft").click()
    expect(page.get_by_text("In use")).to_be_visible()


def test_a_sheet_goes_out_as_a_file_and_a_bad_file_is_refused(demo: Visit, tmp_path: Path) -> None:
    page = copied(demo)
    with page.expect_download() as download:
        page.get_by_role("link", name="As YAML").click()
    text = Path(download.value.path()).read_text(encoding="utf-8")
    file = tmp_path / "sheet.yaml"
    file.write_text(text.replace("quay-front-loader", "pier-front-loader").replace("Quay", "Pier"), encoding="utf-8")
    page.get_by_label("Import").set_input_files(file)
    expect(page.get_by_role("heading", name="Pier front-loader", exact=True)).to_be_visible()
    file.write_text("format: ohmcensus-sheet/7\n", encoding="utf-8")
    page.get_by_label("Import").set_input_files(file)
    expect(page.get_by_role("alert")).to_contain_text("newer")


def test_a_second_window_is_told_and_nothing_is_lost(demo: Visit) -> None:
    page = copied(demo)
    other = demo.open("/machines/quay-front-loader")
    expect(other.get_by_label("Watts", exact=True)).to_have_value("2200")
    page.get_by_label("Watts", exact=True).fill("2300")
    page.get_by_label("Watts", exact=True).press("Tab")
    expect(page.get_by_text("Saved as a draft")).to_be_visible()
    other.get_by_label("Hertz").fill("60")
    other.get_by_label("Hertz").press("Tab")
    expect(other.get_by_text("this sheet has moved on")).to_be_visible()
    expect(other.get_by_label("Hertz")).to_have_value("60")
    other.get_by_role("button", name="Use theirs").click()
    expect(other.get_by_label("Watts", exact=True)).to_have_value("2300")
    expect(other.get_by_label("Hertz")).to_have_value("50")
