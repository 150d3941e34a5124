"""Job sheets against readers that nobody here wrote: ``pypdf``, PDFium as ``pypdfium2`` brings it, and pdftotext.

A PDF/UA-minded reader wants a title and a language; ISO 32000-1, 9.9 (from memory): an embedded font has a FontFile2.
"""

from __future__ import annotations

import io
import shutil
import subprocess
from collections.abc import Iterator
from typing import Any
from uuid import uuid4

import pypdfium2
import pytest
from pypdf import PdfReader
from tests.core.case_of import proof_of
from tests.seeded import with_demo
from tests.working import every_job, happened, logged

from ohmcensus.core.event import Isolated
from ohmcensus.core.judgement import Verdict
from ohmcensus.services.at_hand.context import Context
from ohmcensus.services.at_hand.sheets import find_sheet
from ohmcensus.services.job.open_job import NewJob, open_job
from ohmcensus.services.reading.show_trace import show_trace
from ohmcensus.services.sheet_out.write_report import report_pdf


@pytest.fixture
def sheets(context: Context) -> dict[str, bytes]:
    with_demo(context)
    return {job.id: report_pdf(context, job.id) for job in every_job(context)}


def by_pypdf(document: bytes) -> str:
    return _single(page.extract_text() for page in PdfReader(io.BytesIO(document)).pages)


def by_pdfium(document: bytes) -> str:
    with pypdfium2.PdfDocument(document) as found:
        return _single([page.get_textpage().get_text_range() for page in found])


def by_pdftotext(document: bytes) -> str:
    program = shutil.which("pdftotext")
    assert program is not None
    found = subprocess.run([program, "-", "-"], input=document, capture_output=True, check=True)
    return _single([found.stdout.decode()])


def _single(pages: Iterator[str] | list[str]) -> str:
    return " ".join(" ".join(pages).split())


@pytest.mark.parametrize("text_of", [by_pypdf, by_pdfium, pytest.param(by_pdftotext, marks=pytest.mark.system)])
def test_every_reading_stands_in_it_with_its_unit_and_its_verdict(
    context: Context, sheets: dict[str, bytes], text_of: object
) -> None:
    assert callable(text_of)
    for job, document in sheets.items():
        said = text_of(document)
        for line in show_trace(context, job).lines:
            if line.reads and line.verdict not in {None, Verdict.NOT_JUDGED} and line.part not in {"source", "dead"}:
                assert line.reads in said, (job, line.key)
                verdict = "comes and goes" if line.comes_and_goes else str(line.verdict).replace("_", " ")
                assert verdict in said


def test_a_sheet_has_one_to_three_pages_a_title_and_a_language(sheets: dict[str, bytes]) -> None:
    for document in sheets.values():
        reader = PdfReader(io.BytesIO(document))
        assert 1 <= len(reader.pages) <= 3
        assert reader.metadata is not None
        assert str(reader.metadata.title).startswith("Job sheet · ")
        assert str(reader.root_object["/Lang"]) == "en"
        assert "DisplayDocTitle" in str(reader.root_object["/ViewerPreferences"])


def test_every_font_that_draws_a_word_is_embedded(sheets: dict[str, bytes]) -> None:
    """Each piece of text with the font that draws it, by pypdf."""
    drawn: list[tuple[str, Any]] = []
    for document in sheets.values():
        for page in PdfReader(io.BytesIO(document)).pages:
            page.extract_text(visitor_text=lambda text, _a, _b, font, _c: drawn.append((text, font)))
    fonts = {str(font["/BaseFont"]): font for text, font in drawn if text.strip()}
    assert len(fonts) > 3
    assert [name for name, font in fonts.items() if "/FontFile2" not in font.get("/FontDescriptor", {})] == []


def test_a_capacitance_has_its_picture_in_its_own_unit(context: Context) -> None:
    """A finding in µF stands on a ruler of its own, its window named at both ends, and on no empty ohm ruler."""
    job = open_job(context, NewJob(id=uuid4(), machine="Locker", place="Pier", sheet="tl4-c")).id
    happened(context, job, Isolated())
    for line in (*proof_of(find_sheet("tl4-c")), "capacitor 31u"):
        logged(context, job, line)
    text = by_pdfium(report_pdf(context, job))
    found = text.partition("What was found")[2].partition("What that does not prove")[0]
    assert all(words in found for words in ("Motor capacitor, value 31 µF", "47.8 µF", "56.2 µF"))
    assert "100M" not in found
