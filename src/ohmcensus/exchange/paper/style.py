"""Faces, colours and small pieces that every paper is set with: text that can be copied, fonts that ship with it."""

from __future__ import annotations

from functools import cache
from importlib import resources
from typing import Any
from xml.sax.saxutils import escape

from reportlab.lib.colors import HexColor
from reportlab.lib.enums import TA_RIGHT
from reportlab.lib.pagesizes import A4
from reportlab.lib.styles import ParagraphStyle
from reportlab.lib.units import mm
from reportlab.pdfbase import pdfmetrics
from reportlab.pdfbase.ttfonts import TTFont
from reportlab.platypus import CondPageBreak, ListFlowable, ListItem, Paragraph, Spacer, TableStyle

INK, QUIET, RULE = HexColor("#14213A"), HexColor("#4B5870"), HexColor("#D8CFBC")
INSIDE, OUTSIDE, DANGER = HexColor("#1F5F99"), HexColor("#A8480F"), HexColor("#A3160F")
BAND = HexColor("#DCE8F3")
# The two faces lack these; the shipped signs have them.
SIGNS = ("Ω", "µ")
_FACES = ("text", "text-bold", "mono", "mono-bold", "signs", "signs-bold")
MARGIN = 18 * mm
# Print below this size, in points, is set close: what is looked up, not read.
SMALL = 8.0
# Between the margins, less the padding of the frame.
WIDTH = A4[0] - 2 * MARGIN - 12


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


def style(size: float = 10.5, *, bold: bool = False, colour: Any = INK, right: bool = False) -> ParagraphStyle:
    """Return how a paragraph looks."""
    font = "text-bold" if bold else "text"
    name = f"{font}{size}{colour}{right}"
    extra = {"alignment": TA_RIGHT} if right else {}
    leading = size * (1.2 if size < SMALL else 1.35)
    return ParagraphStyle(name, fontName=font, fontSize=size, leading=leading, textColor=colour, **extra)


def words(text: str, looks: ParagraphStyle | None = None) -> Paragraph:
    """Return a paragraph whose Greek signs come from the face that has them."""
    face = "signs-bold" if looks is not None and "bold" in looks.fontName else "signs"
    said = escape(text.replace("≥", "at least "))
    for sign in SIGNS:
        said = said.replace(sign, f'<font name="{face}">{sign}</font>')
    return Paragraph(said, looks or style())


def heading(text: str) -> list[Any]:
    """Return a heading that does not stand alone at the end of a page."""
    return [CondPageBreak(22 * mm), Spacer(1, 3 * mm), words(text, style(13, bold=True)), Spacer(1, 1 * mm)]


def bullets(rows: tuple[str, ...]) -> ListFlowable:
    """Return sentences as a list."""
    return ListFlowable(
        [ListItem(words(row), leftIndent=12) for row in rows], bulletType="bullet", bulletFontName="text", start="·"
    )


def bare(padding: float = 3.0) -> TableStyle:
    """Return the look of a table that only sets things side by side."""
    return TableStyle(
        [
            ("TOPPADDING", (0, 0), (-1, -1), padding),
            ("BOTTOMPADDING", (0, 0), (-1, -1), padding),
            ("VALIGN", (0, 0), (-1, -1), "TOP"),
            ("LEFTPADDING", (0, 0), (0, -1), 0),
        ]
    )


def lined(padding: float = 2.0) -> TableStyle:
    """Return the look of a table with a line under each row."""
    return TableStyle(
        [
            ("LINEBELOW", (0, 0), (-1, -1), 0.5, RULE),
            ("VALIGN", (0, 0), (-1, -1), "TOP"),
            ("LEFTPADDING", (0, 0), (-1, -1), 0),
            ("TOPPADDING", (0, 0), (-1, -1), padding),
            ("BOTTOMPADDING", (0, 0), (-1, -1), padding),
        ]
    )
