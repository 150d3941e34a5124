"""Pictures on paper, as vectors: readings on their rulers, the square of a job, a signature."""

from __future__ import annotations

from collections.abc import Iterator
from itertools import groupby
from typing import Any

import segno
from reportlab.graphics.shapes import Drawing, Group, Line, Path, PolyLine, Rect, String
from reportlab.lib.units import mm
from reportlab.pdfbase import pdfmetrics

from ohmcensus.core.event.ending import SIGNATURE_HIGH, SIGNATURE_WIDE
from ohmcensus.exchange.paper.style import BAND, INK, INSIDE, OUTSIDE, QUIET, SIGNS, WIDTH
from ohmcensus.exchange.report import ReportReading, ReportSignature

_LANE = 6 * mm


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


def rulers(rows: tuple[ReportReading, ...]) -> Iterator[Drawing]:
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
        drawing.add(text((x, 1 * mm), name, anchor, font="text", size=7.5, colour=QUIET))
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
    drawing.add(text((x + shift, low + 1.3 * mm), said, anchor, font="text-bold", size=8, colour=colour))


def text(at: tuple[float, float], text: str, anchor: str, *, font: str, size: float, colour: Any) -> Group:
    """Return a text for a picture, its Greek signs from the face that has them."""
    signs = "signs-bold" if "bold" in font else "signs"
    runs = [(signs if is_sign else font, "".join(run)) for is_sign, run in groupby(text, SIGNS.__contains__)]
    widths = [pdfmetrics.stringWidth(run, face, size) for face, run in runs]
    x, y = at
    x -= sum(widths) if anchor == "end" else 0.0
    group = Group()
    for (face, run), width in zip(runs, widths, strict=True):
        group.add(String(x, y, run, fontName=face, fontSize=size, fillColor=colour))
        x += width
    return group


def drawn_signature(signature: ReportSignature, wide: float, high: float) -> Drawing:
    """Return the strokes of a signature in a field of a size in points."""
    drawing = Drawing(wide, high)
    for stroke in signature.strokes:
        points = [(across / SIGNATURE_WIDE * wide, high - down / SIGNATURE_HIGH * high) for across, down in stroke]
        (x, y), *_ = points
        # One touch is a dot, and a line of one point draws nothing.
        line = [value for point in points for value in point] if len(points) > 1 else [x, y, x + 1, y]
        drawing.add(PolyLine(line, strokeColor=INK, strokeWidth=1.4, strokeLineCap=1, strokeLineJoin=1))
    return drawing
