"""The sheet that a firm sends: head, clock, tax, photos, signature, before and after, why a machine is not safe."""

from __future__ import annotations

import io
import re
from dataclasses import replace
from uuid import uuid4

import pytest
from PIL import Image
from pypdf import PdfReader
from tests.services.test_report import measured, repaired, text_of
from tests.working import happened, logged, prove_dead

from ohmcensus.core.errors import InputError, NotFoundError
from ohmcensus.core.event import (
    Changed,
    CostsNoted,
    Ended,
    Hazard,
    HazardFound,
    Intervention,
    Isolated,
    PhotosChosen,
    Signature,
)
from ohmcensus.core.firm import Firm
from ohmcensus.demo.pictures import drawn
from ohmcensus.services.at_hand.context import Context
from ohmcensus.services.at_hand.settings import Settings
from ohmcensus.services.job.open_job import NewJob, open_job
from ohmcensus.services.photo.keep_photo import NewPhoto, keep_photo, remove_photo
from ohmcensus.services.setup.change_settings import keep_settings, show_settings
from ohmcensus.services.setup.keep_mark import keep_mark, remove_mark, show_mark
from ohmcensus.services.sheet_out.show_sheet_out import show_sheet_out
from ohmcensus.services.sheet_out.write_report import label_pdf, report_pdf

FIRM = Firm(
    name="Quay Electric",
    address="Slipway 2\nReedmere",
    contact="desk@quay.example",
    currency="EUR",
    tax_name="VAT",
    tax_percent=20.0,
    zone="Asia/Kolkata",
)
SIGNED = Signature(name="H. Marsh", strokes=(((50, 150), (300, 60)), ((400, 100),)))


@pytest.fixture
def job(context: Context) -> str:
    keep_settings(context, Settings(technician="Duty technician", firm=FIRM))
    return open_job(context, NewJob(id=uuid4(), machine="Machine 9", place="Pier", sheet="fl7-u")).id


def last_page(document: bytes) -> str:
    """Return the customer's page, its foot left out (pypdf)."""
    said = " ".join(PdfReader(io.BytesIO(document)).pages[-1].extract_text().split())
    return re.sub(r"^Job sheet · .*? · page \d+ ", "", said)


def test_head_clock_tax_and_signature_stand_on_the_customers_page(context: Context, job: str) -> None:
    repaired(context, job)
    logged(context, job, "heater 27")
    measured(context, job)
    costs = show_sheet_out(context, job).costs
    assert (costs.currency, costs.tax_name, costs.tax_percent) == ("EUR", "VAT", 20.0)
    happened(context, job, replaced(costs, minutes=60.0, hour=60.0, call_out=40.0))
    happened(context, job, Ended(why="New heater fitted.", signature=SIGNED))
    document = report_pdf(context, job)
    page, everything = last_page(document), text_of(document)
    assert page.startswith("Quay Electric Slipway 2 · Reedmere · desk@quay.example")
    for words in (
        "We found the heater to be at fault.",
        "We measured it (Heater, element): no connection at all. It should be 25.2–29.4 Ω.",
        "all 11 tests are good",
        "Before tax 138.00",
        "VAT 20 % 27.60",
        "Total 165.60 EUR",
        "Together that comes to 165.60 EUR.",
        "H. Marsh, 1 Jun 2026, 17:30 IST",
        "Signed off by Duty technician, 1 Jun 2026, 17:30 IST",
    ):
        assert words in page, words
    assert "Before and after What Before After Should read Heater, element OL 27 Ω 25.2–29.4 Ω" in everything
    assert " UTC" not in everything
    assert show_sheet_out(context, job).signature == "H. Marsh"


def replaced(costs: CostsNoted, **other: float) -> CostsNoted:
    return costs.model_copy(update=other)


def test_a_sheet_without_a_firm_has_no_head_and_goes_by_utc(context: Context, job: str) -> None:
    keep_settings(context, Settings(technician="Duty technician"))
    page = last_page(report_pdf(context, job))
    assert page.startswith("For the customer Machine 9")
    assert "12:00 UTC" in page
    assert "Customer, date and signature" in page


def test_what_was_found_altered_and_why_it_is_not_safe_stands_on_sheet_and_label(context: Context, job: str) -> None:
    happened(context, job, HazardFound(hazard=Hazard.BYPASS, words="lid wires joined"))
    happened(context, job, Isolated())
    happened(context, job, Ended(why="The customer keeps the bypass.", is_labelled_unsafe=True))
    document = report_pdf(context, job)
    page = last_page(document)
    for said in (page, text_of(document), text_of(label_pdf(context, job))):
        assert "The customer keeps the bypass." in said
        assert "lid wires joined" in said
    assert "Date 1 Jun 2026" in text_of(label_pdf(context, job))
    assert "Do not use this machine. Keep it unplugged." in page
    assert "We found it altered: lid wires joined." in page


def test_a_safety_that_was_not_tested_is_never_called_safe(context: Context, job: str) -> None:
    happened(context, job, Ended(why="The socket was dead."))
    page = last_page(report_pdf(context, job))
    assert "Its safety was not tested on this visit." in page
    assert "good" not in page.partition("Is it safe?")[2].partition("Good to know")[0]


def test_photos_that_were_chosen_stand_on_the_sheet_in_their_order(context: Context, job: str) -> None:
    ids = [uuid4() for _ in range(3)]
    for photo, picture in zip(ids, ("cover", "plug", "mark"), strict=True):
        keep_photo(context, job, NewPhoto(photo, "found", f"{picture}.jpg", drawn(picture)))
    pictures = count_pictures(report_pdf(context, job))
    happened(context, job, PhotosChosen(photos=(str(ids[2]), str(ids[0]))))
    view = show_sheet_out(context, job)
    assert view.chosen == [str(ids[2]), str(ids[0])]
    assert count_pictures(report_pdf(context, job)) == pictures + 2
    remove_photo(context, job, str(ids[2]))
    assert show_sheet_out(context, job).chosen == [str(ids[0])]
    assert count_pictures(report_pdf(context, job)) == pictures + 1
    with pytest.raises(NotFoundError, match="no such photo on this job"):
        happened(context, job, PhotosChosen(photos=(str(uuid4()),)))


def count_pictures(document: bytes) -> int:
    return sum(len(page.images) for page in PdfReader(io.BytesIO(document)).pages)


def test_a_signed_sheet_keeps_the_firm_of_its_day(context: Context, job: str) -> None:
    keep_mark(context, "mark.jpg", drawn("mark"))
    happened(context, job, Ended(why="The socket was dead.", signature=SIGNED))
    keep_settings(context, Settings(technician="Duty technician", firm=Firm(name="Another firm", zone="UTC")))
    remove_mark(context)
    document = report_pdf(context, job)
    assert last_page(document).startswith("Quay Electric")
    assert count_pictures(document) == 2
    assert "Another firm" not in text_of(document)


@pytest.mark.parametrize("mode", ["RGB", "RGBA", "LA", "P"])
def test_a_mark_is_made_small_and_what_is_clear_in_it_is_paper(context: Context, mode: str) -> None:
    out = io.BytesIO()
    clear = Image.new("RGBA", (3000, 900), (0, 0, 0, 0))
    clear.paste((20, 60, 150, 255), (0, 0, 1500, 900))
    clear.convert(mode).save(out, "PNG", **({"transparency": 0} if mode == "P" else {}))
    keep_mark(context, "mark.png", out.getvalue())
    with Image.open(io.BytesIO(show_mark(context, show_settings(context).mark))) as kept:
        assert (kept.format, kept.size) == ("JPEG", (480, 144))
        if mode not in {"RGB", "P"}:
            assert kept.convert("L").getpixel((400, 70)) == 255
    named = show_settings(context).mark
    assert len(named) == 12
    remove_mark(context)
    assert show_settings(context).mark == ""
    with pytest.raises(NotFoundError, match="no such mark"):
        show_mark(context, named)


def test_a_mark_that_is_no_picture_is_refused_and_nothing_is_stored(context: Context) -> None:
    with pytest.raises(InputError, match=r"mark\.svg is not a picture that can be read"):
        keep_mark(context, "mark.svg", b"<svg/>")
    assert show_settings(context).mark == ""


def test_what_read_outside_and_was_not_read_again_claims_no_after(context: Context, job: str) -> None:
    prove_dead(context, job)
    logged(context, job, "heater OL")
    logged(context, job, "heater OL")
    assert "Before and after" not in text_of(report_pdf(context, job))
    happened(context, job, Changed(part="heater", intervention=Intervention.REPLACED))
    assert "Before and after" not in text_of(report_pdf(context, job))
    later = replace(context)
    prove_dead(later, job)
    logged(later, job, "heater 27")
    assert "Before and after" in text_of(report_pdf(context, job))
