"""Paper as it is set: signatures, labels, photos and the customer's page, by what they draw."""

from __future__ import annotations

import io
from dataclasses import replace
from pathlib import Path

import pytest
from hypothesis import given
from hypothesis import strategies as st
from pypdf import PdfReader
from reportlab.graphics.shapes import PolyLine

from ohmcensus.demo.pictures import drawn
from ohmcensus.exchange.paper.label import write_label
from ohmcensus.exchange.paper.pictures import drawn_signature
from ohmcensus.exchange.paper.sheet import write_report
from ohmcensus.exchange.report import (
    Label,
    Report,
    ReportAfter,
    ReportFirm,
    ReportPhoto,
    ReportReading,
    ReportSection,
    ReportSignature,
)

POINT = st.tuples(st.integers(0, 1000), st.integers(0, 300))
HEATER = ReportReading("Heater, element", "OL", "25.2–29.4 Ω", "open", is_outside=True, position=1.0, band=(0.25, 0.26))
PLAIN = Report(
    title="Job sheet · Washer",
    job_id="4961a6c9-7078-507e-b498-4ca8f556c94a",
    facts=(("Machine", "Washer, front-loader"), ("Place", "Pier"), ("Supply", "230 V 50 Hz")),
    told="No heat.",
    found="Heater: no path.",
    deciding=(HEATER,),
    not_proved=(),
    done=(),
    cured="",
    taken_off=(),
    parts=(),
    costs=(),
    proofs=(),
    testers=(),
    ending="Ended.",
    signed="",
    is_unsafe=False,
    dangers=(),
    advice=(),
    cautions=("Local codes come first.",),
    readings=(HEATER,),
)
LABEL = Label(
    machine="Washer",
    job_id=PLAIN.job_id,
    date="1 Jun 2026",
    next_date="",
    tester="Tester OC-T7, calibrated 2026-03-01",
    limits="",
    is_unsafe=True,
)


def pages(document: bytes) -> list[str]:
    return [" ".join(page.extract_text().split()) for page in PdfReader(io.BytesIO(document)).pages]


@given(st.lists(st.lists(POINT, min_size=1, max_size=12).map(tuple), min_size=1, max_size=6).map(tuple))
def test_a_signature_stays_in_its_field_the_right_way_up(strokes: tuple[tuple[tuple[int, int], ...], ...]) -> None:
    drawing = drawn_signature(ReportSignature("A", "", strokes), 100.0, 30.0)
    lines = [shape for shape in drawing.contents if isinstance(shape, PolyLine)]
    assert len(lines) == len(strokes)
    for line, stroke in zip(lines, strokes, strict=True):
        across, up = line.points[0::2], line.points[1::2]
        # A dot is drawn as a line of one point's length.
        assert all(-1e-9 <= x <= 101.0 for x in across)
        assert all(-1e-9 <= y <= 30.0 + 1e-9 for y in up)
        assert (across[0], up[0]) == pytest.approx((stroke[0][0] / 10, 30 - stroke[0][1] / 10))


@pytest.mark.parametrize(
    ("why", "says"),
    [
        ("", "Date 1 Jun 2026"),
        ("Left bridged.", "Left bridged. Date 1 Jun 2026"),
        (
            "The customer keeps the bypass although it was explained at length, and more than once. " * 4,
            "…",
        ),
    ],
    ids=["no reason", "a short one", "a long one"],
)
def test_a_label_says_why_in_three_lines_at_most_and_keeps_its_date(why: str, says: str) -> None:
    (said,) = pages(write_label(replace(LABEL, why=why)))
    assert "UNSAFE Not to be used. Keep it unplugged. Washer" in said
    assert says in said
    assert "Date 1 Jun 2026" in said
    assert "OC-T7" in said


def test_a_sheet_from_before_there_was_a_customers_page_keeps_its_sentences() -> None:
    costs = (("Work, 60 min at 60.00 an hour", "60.00"), ("Total", "60.00"))
    old = replace(PLAIN, plain=("We found the heater to be at fault.", "It ran through after that."), costs=costs)
    *_, page = pages(write_report(old))
    assert "Work, 60 min at 60.00 an hour 60.00 Total 60.00" in page
    assert "For the customer" in page
    assert "We found the heater to be at fault. It ran through after that." in page


def test_the_customers_page_shows_the_picture_only_where_something_decided_it() -> None:
    page = (ReportSection("What we found", ("We found the heater to be at fault.",), below="reading"),)
    with_picture = pages(write_report(replace(PLAIN, customer=page, shown=HEATER)))[-1]
    without = pages(write_report(replace(PLAIN, customer=page)))[-1]
    assert "Heater, element OL" in with_picture
    assert "100M" in with_picture
    assert "100M" not in without


def test_a_firm_without_a_mark_or_with_nothing_but_a_name_has_its_head() -> None:
    firm = ReportFirm("Quay Electric")
    first, last = pages(write_report(replace(PLAIN, firm=firm)))
    assert "Quay Electric Job sheet · Washer" in first
    assert "Quay Electric For the customer" in last
    assert str(PdfReader(io.BytesIO(write_report(replace(PLAIN, firm=firm)))).metadata.author) == "Quay Electric"  # type: ignore[union-attr]


def test_photos_stand_in_rows_and_a_missing_picture_leaves_no_hole(tmp_path: Path) -> None:
    names = ("cover", "gone", "plug", "mark")
    for name in ("cover", "plug", "mark"):
        (tmp_path / name).write_bytes(drawn(name))
    photos = tuple(ReportPhoto(name, 1200, 800, f"photo of {name}") for name in names)
    document = write_report(replace(PLAIN, photos=photos), lambda name: "" if name == "gone" else str(tmp_path / name))
    said = " ".join(pages(document))
    assert [name for name in names if f"photo of {name}" in said] == ["cover", "plug", "mark"]
    assert sum(len(page.images) for page in PdfReader(io.BytesIO(document)).pages) == 3
    nothing = write_report(replace(PLAIN, photos=photos), lambda _: "")
    assert "Photos" not in " ".join(pages(nothing))


def test_before_and_after_stand_beside_each_other_with_what_is_right() -> None:
    after = (ReportAfter("Heater, element", "OL", "27 Ω", "25.2–29.4 Ω"),)
    said = " ".join(pages(write_report(replace(PLAIN, after=after))))
    assert "Before and after What Before After Should read Heater, element OL 27 Ω 25.2–29.4 Ω" in said
