"""The label that is stuck on a machine: proved, or not to be used."""

from __future__ import annotations

import io

from reportlab.lib.units import mm
from reportlab.lib.utils import simpleSplit
from reportlab.pdfgen.canvas import Canvas

from ohmcensus.exchange.paper.pictures import qr_square
from ohmcensus.exchange.paper.style import DANGER, INK, QUIET, register_faces
from ohmcensus.exchange.report import Label

SIZE = (80 * mm, 50 * mm)
_MARGIN = 4 * mm
_SQUARE = 20 * mm
_MOST_LINES = 3


def write_label(label: Label) -> bytes:
    """Return the label as a PDF of its own size; the word stands first, the colour only helps."""
    register_faces()
    out = io.BytesIO()
    canvas = Canvas(out, pagesize=SIZE, initialFontName="text")
    canvas.setTitle(f"Label · {label.machine}")
    colour = DANGER if label.is_unsafe else INK
    canvas.setStrokeColor(colour)
    canvas.setLineWidth(2)
    canvas.rect(_MARGIN / 2, _MARGIN / 2, SIZE[0] - _MARGIN, SIZE[1] - _MARGIN)
    canvas.setFillColor(colour)
    canvas.setFont("text-bold", 22 if label.is_unsafe else 18)
    canvas.drawString(_MARGIN, SIZE[1] - 12 * mm, "UNSAFE" if label.is_unsafe else "Proved")
    if label.is_unsafe:
        canvas.setFont("text-bold", 12)
        canvas.drawString(_MARGIN, SIZE[1] - 18 * mm, "Not to be used. Keep it unplugged.")
    canvas.setFillColor(INK)
    canvas.setFont("text-bold", 11)
    canvas.drawString(_MARGIN, SIZE[1] - 24 * mm, label.machine[:36])
    canvas.setFillColor(QUIET)
    canvas.setFont("text", 8)
    rows = (
        *_lines(label.why),
        f"Date {label.date}",
        f"Next {label.next_date}" if label.next_date else "",
        label.tester,
        label.limits,
    )
    for place, row in enumerate(row for row in rows if row):
        canvas.drawString(_MARGIN, SIZE[1] - (29 + 4.2 * place) * mm, row[:46])
    qr_square(label.job_id, _SQUARE).drawOn(canvas, SIZE[0] - _SQUARE - _MARGIN, _MARGIN)
    canvas.save()
    return out.getvalue()


def _lines(why: str) -> tuple[str, ...]:
    """Return why a machine is not safe, on three lines beside the square; the rest stands on the sheet."""
    rows = simpleSplit(why, "text", 8, SIZE[0] - _SQUARE - 3.5 * _MARGIN)
    return tuple(rows) if len(rows) <= _MOST_LINES else (*rows[: _MOST_LINES - 1], f"{rows[_MOST_LINES - 1]} …")
