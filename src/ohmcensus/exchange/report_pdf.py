"""The job sheet as PDF: text that can be copied, fonts that ship with it, plots as vectors."""

from __future__ import annotations

import io
from collections.abc import Iterator
from functools import cache, partial
from importlib import resources
from itertools import groupby
from typing import Any
from xml.sax.saxutils import escape

import segno
from reportlab.graphics.shapes import Drawing, Group, Line, Path, PolyLine, Rect, String
from reportlab.lib.colors import HexColor
from reportlab.lib.enums import TA_RIGHT
from reportlab.lib.pagesizes import A4
from reportlab.lib.styles import ParagraphStyle
from reportlab.lib.units import mm
from reportlab.pdfbase import pdfmetrics
from reportlab.pdfbase.ttfonts import TTFont
from reportlab.pdfgen.canvas import Canvas
from reportlab.platypus import (
    CondPageBreak,
    ListFlowable,
    ListItem,
    PageBreak,
    Paragraph,
    SimpleDocTemplate,
    Spacer,
    Table,
    TableStyle,
)

from ohmcensus.exchange.report import Report, ReportLeakTest, ReportProof, ReportReading

INK, QUIET, RULE = HexColor("#14213A"), HexColor("#4B5870"), HexColor("#D8CFBC")
INSIDE, OUTSIDE, DANGER = HexColor("#1F5F99"), HexColor("#A8480F"), HexColor("#A3160F")
BAND = HexColor("#DCE8F3")
# The two faces lack these; the shipped signs have them.
_SIGNS = ("Ω", "µ")
_FACES = ("text", "text-bold", "mono", "mono-bold", "signs", "signs-bold")
# Between the margins, less the padding of the frame.
WIDTH = A4[0] - 36 * mm - 12
_LANE = 6 * mm
# More readings than this go side by side.
MOST_IN_ONE_COLUMN = 12
MOST_PAGES = 3
SMALLEST_PRINT = 6.5


def write_report(report: Report) -> bytes:
    """Return the job sheet as a PDF of one to three pages; the customer's is its own where that leaves it at three."""
    register_faces()
    written, pages = _written(report, has_own_page=True, size=7.5)
    # The customer's page by itself takes one page: where two are to be saved, only the smaller print does it.
    if pages == MOST_PAGES + 1:
        written, pages = _written(report, has_own_page=False, size=7.5)
    if pages > MOST_PAGES:
        written, pages = _written(report, has_own_page=False, size=SMALLEST_PRINT)
    return written


def _written(report: Report, *, has_own_page: bool, size: float) -> tuple[bytes, int]:
    """Return the document with its small print of a size, and how many pages it has."""
    out = io.BytesIO()
    document = SimpleDocTemplate(
        out,
        pagesize=A4,
        title=report.title,
        author="Ohmcensus",
        subject=report.told,
        leftMargin=18 * mm,
        rightMargin=18 * mm,
        topMargin=16 * mm,
        bottomMargin=16 * mm,
        lang="en",
    )
    canvas = partial(Canvas, initialFontName="text")
    story = list(_story(report, has_own_page=has_own_page, size=size))
    document.build(story, onFirstPage=_foot, onLaterPages=_foot, canvasmaker=canvas)
    return out.getvalue(), document.page


@cache
def register_faces() -> None:
    """Make the shipped faces known to the writer."""
    folder = resources.files("ohmcensus.exchange") / "fonts"
    for face in _FACES:
        with resources.as_file(folder / f"{face}.ttf") as file:
            pdfmetrics.registerFont(TTFont(face, str(file)))
    for family in ("text", "mono", "signs"):
        bold = f"{family}-bold"
        pdfmetrics.registerFontFamily(family, normal=family, bold=bold, italic=family, boldItalic=bold)


def _foot(canvas: Any, document: Any) -> None:
    canvas.setViewerPreference("DisplayDocTitle", "true")
    canvas.setFont("text", 9)
    canvas.setFillColor(QUIET)
    canvas.drawRightString(A4[0] - 18 * mm, 9 * mm, f"{document.title} · page {document.page}")


def _style(size: float = 10.5, *, bold: bool = False, colour: Any = INK, right: bool = False) -> ParagraphStyle:
    font = "text-bold" if bold else "text"
    name = f"{font}{size}{colour}{right}"
    extra = {"alignment": TA_RIGHT} if right else {}
    return ParagraphStyle(name, fontName=font, fontSize=size, leading=size * 1.35, textColor=colour, **extra)


def _words(text: str, style: ParagraphStyle | None = None) -> Paragraph:
    """Return a paragraph whose Greek signs come from the face that has them."""
    face = "signs-bold" if style is not None and "bold" in style.fontName else "signs"
    said = escape(text.replace("≥", "at least "))
    for sign in _SIGNS:
        said = said.replace(sign, f'<font name="{face}">{sign}</font>')
    return Paragraph(said, style or _style())


def _heading(text: str) -> list[Any]:
    return [CondPageBreak(22 * mm), Spacer(1, 4 * mm), _words(text, _style(13, bold=True)), Spacer(1, 1.5 * mm)]


def _list(rows: tuple[str, ...]) -> ListFlowable:
    return ListFlowable(
        [ListItem(_words(row), leftIndent=12) for row in rows], bulletType="bullet", bulletFontName="text", start="·"
    )


def _story(report: Report, *, has_own_page: bool, size: float) -> Iterator[Any]:
    yield _top(report)
    if report.is_unsafe:
        yield Spacer(1, 3 * mm)
        yield _words("UNSAFE: not to be used. The customer was told.", _style(14, bold=True, colour=DANGER))
    yield from _findings(report)
    yield from _work(report)
    yield from _end(report)
    yield from _heading("Every reading that stands")
    is_few = len(report.readings) <= MOST_IN_ONE_COLUMN
    yield _readings(report.readings) if is_few else _two_columns(report.readings, size)
    yield PageBreak() if has_own_page else CondPageBreak(66 * mm)
    yield from _heading("For the customer")
    for row in report.plain:
        yield _words(row, _style(12.5))
        yield Spacer(1, 2 * mm)


def _findings(report: Report) -> Iterator[Any]:
    """Yield what was told and found, with the readings that decided it."""
    yield from _heading("What was told")
    yield _words(report.told)
    yield from _heading("What was found")
    yield _words(report.found)
    if report.deciding:
        yield Spacer(1, 2 * mm)
        yield from _rulers(report.deciding)
        yield _readings(report.deciding)
    if report.leak_tests:
        yield from _heading("Leak tests")
        yield _leak_tests(report.leak_tests)
    yield from _section("What that does not prove", report.not_proved)


def _work(report: Report) -> Iterator[Any]:
    """Yield what was done, what came off, and the proof."""
    yield from _heading("What was done")
    yield _list(report.done) if report.done else _words("Nothing was changed.")
    if report.cured:
        yield Spacer(1, 1.5 * mm)
        yield _words(report.cured, _style(bold=True))
    if report.taken_off:
        yield from _heading("What came off, and is back")
        yield _words("; ".join(report.taken_off) + ".")
    yield from _section("Parts", report.parts)
    if report.proofs:
        yield from _heading("Proof after repair")
        yield _proofs(report.proofs)
        yield from (_words(row, _style(8.5, colour=QUIET)) for row in report.testers)


def _end(report: Report) -> Iterator[Any]:
    """Yield how it ended, who signed it, what it costs, and what is advised."""
    yield from _heading("How it ended")
    yield _words(report.ending)
    if report.signed:
        yield Spacer(1, 1.5 * mm)
        yield _words(report.signed, _style(bold=True))
    if report.costs:
        yield from _heading("Costs")
        yield _costs(report.costs)
    yield from _section("Dangers and overrides", report.dangers)
    yield from _section("Advice", report.advice)
    yield from _section("Cautions", report.cautions)


def _section(title: str, rows: tuple[str, ...]) -> Iterator[Any]:
    """Yield a heading with its list, nothing where there is none."""
    if rows:
        yield from _heading(title)
        yield _list(rows)


def _top(report: Report) -> Table:
    facts = [[_words(name, _style(9.5, colour=QUIET)), _words(value)] for name, value in report.facts]
    left = Table(facts, colWidths=[28 * mm, WIDTH - 58 * mm], style=_plain())
    cells = [
        [[_words(report.title, _style(20, bold=True)), Spacer(1, 2 * mm), left], qr_square(report.job_id, 24 * mm)]
    ]
    return Table(cells, colWidths=[WIDTH - 26 * mm, 26 * mm], style=_plain(), hAlign="LEFT")


def _plain() -> TableStyle:
    return TableStyle([("VALIGN", (0, 0), (-1, -1), "TOP"), ("LEFTPADDING", (0, 0), (0, -1), 0)])


def qr_square(text: str, side: float) -> Drawing:
    """Return a text as a QR code of a side length in points."""
    rows = [list(row) for row in segno.make(text, error="m").matrix]
    size = side / len(rows)
    # One shape of all runs of dark squares: four hundred shapes take a twentieth of a second to draw.
    dark = Path(fillColor=INK, strokeColor=None, strokeWidth=0)
    for y, row in enumerate(rows):
        low, x = side - (y + 1) * size, 0
        for is_dark, run in groupby(row):
            end = x + len(list(run))
            if is_dark:
                dark.moveTo(x * size, low)
                for right, up in ((end, 0), (end, 1), (x, 1)):
                    dark.lineTo(right * size, low + up * size)
                dark.closePath()
            x = end
    drawing = Drawing(side, side)
    drawing.add(dark)
    return drawing


def _rulers(rows: tuple[ReportReading, ...]) -> Iterator[Drawing]:
    """Yield the picture of the deciding readings: ohms on the ohm ruler, every other quantity on one of its own."""
    lanes = [row for row in rows if row.position is not None and row.labels is None]
    if lanes:
        yield _ohm_ruler(lanes)
    yield from (_own_ruler(row, row.labels) for row in rows if row.position is not None and row.labels is not None)


def _own_ruler(row: ReportReading, labels: tuple[str, str]) -> Drawing:
    """Return one reading on a ruler of its own, the ends of its window named below."""
    base, (begin, end) = 6 * mm, row.band or (0.0, 1.0)
    drawing = Drawing(WIDTH, base + 1.5 * _LANE)
    drawing.add(Line(0, base, WIDTH, base, strokeColor=INK, strokeWidth=1))
    for share, name, anchor in ((begin, labels[0], "end"), (end, labels[1], "start")):
        x = min(WIDTH - 14 * mm, max(14 * mm, share * WIDTH))
        drawing.add(_text((x, 1 * mm), name, anchor, font="text", size=7.5, colour=QUIET))
    _lane(drawing, row, base + 1 * mm)
    return drawing


def _ohm_ruler(lanes: list[ReportReading]) -> Drawing:
    """Return readings on the ohm ruler, 0.1 Ω to 1 GΩ: each in its lane, with the band it should be in."""
    base, names = 6 * mm, ("0.1", "1", "10", "100", "1k", "10k", "100k", "1M", "10M", "100M", "1G")
    drawing = Drawing(WIDTH, base + (len(lanes) + 0.5) * _LANE)
    drawing.add(Line(0, base, WIDTH, base, strokeColor=INK, strokeWidth=1))
    for place, name in enumerate(names):
        x = place * WIDTH / (len(names) - 1)
        drawing.add(Line(x, base - 1.5 * mm, x, base, strokeColor=QUIET, strokeWidth=0.7))
        anchor = "start" if place == 0 else "end" if place == len(names) - 1 else "middle"
        drawing.add(String(x, 1 * mm, name, fontName="mono", fontSize=7.5, fillColor=QUIET, textAnchor=anchor))
    for place, row in enumerate(lanes):
        _lane(drawing, row, base + (len(lanes) - place - 1) * _LANE + 1 * mm)
    return drawing


def _lane(drawing: Drawing, row: ReportReading, low: float) -> None:
    """Draw one reading as a pin, and where it should be as a band."""
    top = low + _LANE - 1.5 * mm
    if row.band is not None:
        begin, end = (share * WIDTH for share in row.band)
        drawing.add(
            Rect(begin, low, max(1.5, end - begin), top - low, fillColor=BAND, strokeColor=INSIDE, strokeWidth=0.5)
        )
    x = (row.position or 0.0) * WIDTH
    colour = OUTSIDE if row.is_outside else INSIDE
    drawing.add(PolyLine([x, low - 0.5 * mm, x, top + 0.5 * mm], strokeColor=colour, strokeWidth=2.2))
    is_left_of_band = row.band is not None and row.band[0] * WIDTH > x > WIDTH * 0.3
    is_right = x > WIDTH * 0.6 or is_left_of_band
    said = f"{row.what} {row.reads}".replace(" Ω", "").replace("Ω", "").replace("≥", ">")
    anchor, shift = ("end", -4) if is_right else ("start", 4)
    drawing.add(_text((x + shift, low + 1.3 * mm), said, anchor, font="text-bold", size=8, colour=colour))


def _text(at: tuple[float, float], text: str, anchor: str, *, font: str, size: float, colour: Any) -> Group:
    """Return a text for a picture, its Greek signs from the face that has them."""
    signs = "signs-bold" if "bold" in font else "signs"
    runs = [(signs if is_sign else font, "".join(run)) for is_sign, run in groupby(text, _SIGNS.__contains__)]
    widths = [pdfmetrics.stringWidth(run, face, size) for face, run in runs]
    x, y = at
    x -= sum(widths) if anchor == "end" else 0.0
    group = Group()
    for (face, run), width in zip(runs, widths, strict=True):
        group.add(String(x, y, run, fontName=face, fontSize=size, fillColor=colour))
        x += width
    return group


def _readings(rows: tuple[ReportReading, ...]) -> Table:
    head = [_words(name, _style(9, colour=QUIET)) for name in ("What", "Reads", "Should read", "Says")]
    body = [
        [
            _words(row.what, _style(9.5)),
            _words(row.reads, _style(9.5, bold=True)),
            _words(row.should, _style(9.5)),
            _words(row.verdict, _style(9.5, colour=OUTSIDE if row.is_outside else INK)),
        ]
        for row in rows
    ]
    widths = [WIDTH * share for share in (0.38, 0.19, 0.23, 0.20)]
    return Table([head, *body], colWidths=widths, repeatRows=1, style=_lined(), hAlign="LEFT")


def _two_columns(rows: tuple[ReportReading, ...], size: float) -> Table:
    """Return many readings side by side, in small print, so that a sheet keeps to its pages."""
    half = (len(rows) + 1) // 2
    blank = [""] * 4
    head = [_words(name, _style(8, colour=QUIET)) for name in ("What", "Reads", "Should read", "Says")]
    sides = [[_small(row, size) for row in part] for part in (rows[:half], rows[half:])]
    body = [[*left, "", *(sides[1][at] if at < len(sides[1]) else blank)] for at, left in enumerate(sides[0])]
    widths = [WIDTH * share for share in (0.23, 0.085, 0.105, 0.065)]
    columns = [*widths, WIDTH * 0.03, *widths]
    style = _lined(padding=2.0 if size > SMALLEST_PRINT else 0.8)
    return Table([[*head, "", *head], *body], colWidths=columns, repeatRows=1, style=style, hAlign="LEFT")


def _small(row: ReportReading, size: float) -> list[Any]:
    return [
        _words(row.what, _style(size)),
        _words(row.reads, _style(size, bold=True)),
        _words(row.should, _style(size)),
        _words(row.verdict, _style(size, colour=OUTSIDE if row.is_outside else INK)),
    ]


def _leak_tests(rows: tuple[ReportLeakTest, ...]) -> Table:
    head = [_words(name, _style(9, colour=QUIET)) for name in ("When, UTC", "Connected", "Reads", "Proves")]
    body = [
        [
            _words(row.at, _style(9.5, colour=QUIET)),
            _words(row.connected, _style(9.5)),
            _words(row.reads, _style(9.5, bold=True)),
            _words(row.proved, _style(9.5)),
        ]
        for row in rows
    ]
    widths = [WIDTH * share for share in (0.11, 0.35, 0.14, 0.40)]
    return Table([head, *body], colWidths=widths, repeatRows=1, style=_lined(), hAlign="LEFT")


def _proofs(rows: tuple[ReportProof, ...]) -> Table:
    head = [_words(name, _style(9, colour=QUIET)) for name in ("Shown", "Limit", "Before", "Reads", "Says", "By")]
    body = [
        [
            _words(row.what, _style(9.5)),
            _words(row.limit, _style(9.5)),
            _words(row.before, _style(9.5, colour=QUIET)),
            _words(row.reads, _style(9.5, bold=True)),
            _words(row.state, _style(9.5, colour=INK if row.state == "good" else OUTSIDE)),
            _words(row.shown_by, _style(8.5, colour=QUIET)),
        ]
        for row in rows
    ]
    widths = [WIDTH * share for share in (0.23, 0.15, 0.16, 0.12, 0.11, 0.23)]
    return Table([head, *body], colWidths=widths, repeatRows=1, style=_lined(), hAlign="LEFT")


def _costs(rows: tuple[tuple[str, str], ...]) -> Table:
    """Return the costs, amounts to the right, the total in bold."""
    last = len(rows) - 1
    body = [
        [_words(words, _style(bold=at == last)), _words(amount, _style(bold=at == last, right=True))]
        for at, (words, amount) in enumerate(rows)
    ]
    return Table(body, colWidths=[WIDTH * 0.75, WIDTH * 0.25], style=_lined(), hAlign="LEFT")


def _lined(padding: float = 2.0) -> TableStyle:
    return TableStyle(
        [
            ("LINEBELOW", (0, 0), (-1, -1), 0.5, RULE),
            ("VALIGN", (0, 0), (-1, -1), "TOP"),
            ("LEFTPADDING", (0, 0), (-1, -1), 0),
            ("TOPPADDING", (0, 0), (-1, -1), padding),
            ("BOTTOMPADDING", (0, 0), (-1, -1), padding),
        ]
    )
