"""Pictures for the demo, drawn and not taken: a cover with its screws, a connector with its wires, the firm's mark."""

from __future__ import annotations

import io

from PIL import Image, ImageDraw

SIZE = (1200, 800)
_GROUND, _METAL, _DARK, _HOUSING = "#8d8f92", "#c9ccd0", "#3c3f44", "#f1efe8"
_WIRES = ("#7a4a26", "#4f8a3a", "#2d62a8")


def drawn(name: str) -> bytes:
    """Return a picture as JPEG: "cover", "plug" or "mark"."""
    image = Image.new("RGB", SIZE, "white" if name == "mark" else _GROUND)
    pen = ImageDraw.Draw(image)
    {"cover": _cover, "plug": _plug, "mark": _mark}[name](pen)
    out = io.BytesIO()
    image.save(out, "JPEG", quality=85)
    return out.getvalue()


def _cover(pen: ImageDraw.ImageDraw) -> None:
    """Draw a sheet-metal cover with a screw in each corner and one at each side."""
    pen.rounded_rectangle((130, 90, 1070, 710), 30, fill=_METAL, outline=_DARK, width=5)
    pen.rounded_rectangle((330, 250, 870, 550), 60, outline=_DARK, width=4)
    for x, y in ((190, 150), (1010, 150), (190, 400), (1010, 400), (190, 650), (1010, 650)):
        pen.ellipse((x - 26, y - 26, x + 26, y + 26), fill="#e6e7e9", outline=_DARK, width=4)
        pen.line((x - 14, y, x + 14, y), fill=_DARK, width=6)
        pen.line((x, y - 14, x, y + 14), fill=_DARK, width=6)


def _plug(pen: ImageDraw.ImageDraw) -> None:
    """Draw a three-way housing with its wires going up."""
    for place, colour in zip((350, 600, 850), _WIRES, strict=True):
        pen.line((place, 0, place, 300), fill=colour, width=46)
    pen.rounded_rectangle((210, 250, 990, 620), 36, fill=_HOUSING, outline=_DARK, width=6)
    for place in (350, 600, 850):
        pen.rounded_rectangle((place - 75, 320, place + 75, 520), 12, fill="#d8d4c6", outline=_DARK, width=4)
        pen.rectangle((place - 20, 380, place + 20, 470), fill="#b58a3c", outline=_DARK, width=3)
    pen.rectangle((520, 620, 680, 670), fill=_HOUSING, outline=_DARK, width=6)


def _mark(pen: ImageDraw.ImageDraw) -> None:
    """Draw the firm's mark: a drum half under water, reeds beside it."""
    pen.ellipse((330, 130, 870, 670), outline=_WIRES[2], width=44)
    pen.rectangle((250, 470, 950, 700), fill="white")
    for row in (520, 600):
        for x in range(280, 900, 160):
            pen.arc((x, row, x + 160, row + 90), 180, 360, fill=_WIRES[2], width=26)
    for x, top in ((180, 180), (240, 90), (1010, 140)):
        pen.line((x, 690, x, top), fill=_WIRES[1], width=26)
