"""The job sheet as PDF: text that can be copied, fonts that ship with it, plots as vectors."""

from __future__ import annotations

import io
from collections.abc import Callable, Iterator
from functools import partial
from typing import Any

from reportlab.lib.pagesizes import A4
from reportlab.lib.units import mm
from reportlab.pdfgen.canvas import Canvas
from reportlab.platypus import Image, PageBreak, SimpleDocTemplate, Spacer, Table

from ohmcensus.exchange.paper.customer import customer_story, firm_head
from ohmcensus.exchange.paper.pictures import qr_square, rulers
from ohmcensus.exchange.paper.style import (
    DANGER,
    MARGIN,
    QUIET,
    SMALL,
    WIDTH,
    bare,
    bullets,
    heading,
    register_faces,
    style,
    words,
)
from ohmcensus.exchange.paper.tables import (
    SMALLEST_PRINT,
    leak_tests,
    proofs,
    read_again,
    readings,
    two_columns,
)
from ohmcensus.exchange.report import Report, ReportPhoto

# More readings than this go side by side.
MOST_IN_ONE_COLUMN = 12
# The sheet and, on a page of its own, what the customer reads.
MOST_PAGES = 3
PHOTOS_IN_A_ROW = 3
# Gives the file of a picture by the hash of its content, empty where there is none.
PictureOf = Callable[[str], str]


def _no_picture(_content: str) -> str:
    return ""


def write_report(report: Report, picture_of: PictureOf = _no_picture) -> bytes:
    """Return the job sheet as a PDF: a page or two for the trade, in smaller print if need be, and the customer's."""
    register_faces()
    written, pages = _written(report, picture_of, size=7.5)
    if pages > MOST_PAGES:
        written, pages = _written(report, picture_of, size=SMALLEST_PRINT)
    return written


def _written(report: Report, picture_of: PictureOf, *, size: float) -> tuple[bytes, int]:
    """Return the document with its small print of a size, and how many pages it has."""
    out = io.BytesIO()
    document = SimpleDocTemplate(
        out,
        pagesize=A4,
        title=report.title,
        author=report.firm.name if report.firm else "Ohmcensus",
        subject=report.told,
        leftMargin=MARGIN,
        rightMargin=MARGIN,
        topMargin=11 * mm,
        bottomMargin=12 * mm,
        lang="en",
    )
    canvas = partial(Canvas, initialFontName="text")
    story = list(_story(report, picture_of, size=size))
    document.build(story, onFirstPage=_foot, onLaterPages=_foot, canvasmaker=canvas)
    return out.getvalue(), document.page


def _foot(canvas: Any, document: Any) -> None:
    canvas.setViewerPreference("DisplayDocTitle", "true")
    canvas.setFont("text", 9)
    canvas.setFillColor(QUIET)
    canvas.drawRightString(A4[0] - MARGIN, 9 * mm, f"{document.title} · page {document.page}")


def _story(report: Report, picture_of: PictureOf, *, size: float) -> Iterator[Any]:
    yield from firm_head(report.firm)
    yield _top(report)
    if report.is_unsafe:
        yield Spacer(1, 3 * mm)
        yield words("UNSAFE: not to be used. The customer was told.", style(14, bold=True, colour=DANGER))
        yield from (words(row, style(11, bold=True)) for row in report.unsafe_why)
    yield from _findings(report, is_tight=size == SMALLEST_PRINT)
    yield from _work(report, is_tight=size == SMALLEST_PRINT)
    yield from _end(report)
    yield from heading("Every reading that stands")
    is_few = len(report.readings) <= MOST_IN_ONE_COLUMN
    yield readings(report.readings) if is_few else two_columns(report.readings, size)
    yield from _photos(report.photos, picture_of)
    yield PageBreak()
    yield from customer_story(report)


def _photos(rows: tuple[ReportPhoto, ...], picture_of: PictureOf) -> Iterator[Any]:
    """Yield the photos that were chosen, three in a row, each with what it shows."""
    wide = WIDTH / PHOTOS_IN_A_ROW
    found = [(row, file) for row in rows if (file := picture_of(row.content))]
    if not found:
        return
    yield from heading("Photos")
    cells = [
        [Image(file, width=wide - 4 * mm, height=42 * mm, kind="proportional"), words(row.words, style(9))]
        for row, file in found
    ]
    cells += [[] for _ in range(-len(cells) % PHOTOS_IN_A_ROW)]
    rows_of = [cells[at : at + PHOTOS_IN_A_ROW] for at in range(0, len(cells), PHOTOS_IN_A_ROW)]
    yield Table(rows_of, colWidths=[wide] * PHOTOS_IN_A_ROW, style=bare(), hAlign="LEFT")


def _findings(report: Report, *, is_tight: bool) -> Iterator[Any]:
    """Yield what was told and found, with the readings that decided it."""
    yield from heading("What was told")
    yield words(report.told)
    yield from heading("What was found")
    yield words(report.found)
    if report.deciding:
        yield Spacer(1, 2 * mm)
        yield from rulers(report.deciding)
        yield readings(report.deciding, *((SMALL,) if is_tight else ()))
    if report.leak_tests:
        yield from heading("Leak tests")
        yield leak_tests(report.leak_tests, report.zone)
    yield from _section("What that does not prove", report.not_proved)


def _work(report: Report, *, is_tight: bool) -> Iterator[Any]:
    """Yield what was done, what came off, and the proof."""
    yield from heading("What was done")
    yield bullets(report.done) if report.done else words("Nothing was changed.")
    if report.cured:
        yield Spacer(1, 1.5 * mm)
        yield words(report.cured, style(bold=True))
    if report.after:
        yield from heading("Before and after")
        yield read_again(report.after, *((SMALL,) if is_tight else ()))
    if report.taken_off:
        yield from heading("What came off, and is back")
        yield words("; ".join(report.taken_off) + ".", style(SMALL) if is_tight else style())
    yield from _section("Parts", report.parts)
    if report.proofs:
        yield from heading("Proof after repair")
        yield proofs(report.proofs, *((SMALL,) if is_tight else ()))
        yield from (words(row, style(8.5, colour=QUIET)) for row in report.testers)


def _end(report: Report) -> Iterator[Any]:
    """Yield how it ended, who signed it, and what was dangerous."""
    yield from heading("How it ended")
    yield words(report.ending)
    if report.signed:
        yield Spacer(1, 1.5 * mm)
        yield words(report.signed, style(bold=True))
    yield from _section("Dangers and overrides", report.dangers)
    yield from (Spacer(1, 2 * mm), words(" ".join(report.cautions), style(9, colour=QUIET)))


def _section(title: str, rows: tuple[str, ...]) -> Iterator[Any]:
    """Yield a heading with its list, nothing where there is none."""
    if rows:
        yield from heading(title)
        yield bullets(rows)


def _top(report: Report) -> Table:
    facts = [[words(name, style(9.5, colour=QUIET)), words(value)] for name, value in report.facts]
    left = Table(facts, colWidths=[28 * mm, WIDTH - 58 * mm], style=bare(1.0))
    cells = [[[words(report.title, style(20, bold=True)), Spacer(1, 2 * mm), left], qr_square(report.job_id, 24 * mm)]]
    return Table(cells, colWidths=[WIDTH - 26 * mm, 26 * mm], style=bare(), hAlign="LEFT")
