"""The rung view as an SVG picture that stands by itself, for the job sheet and for printing."""

from __future__ import annotations

from collections.abc import Iterator
from xml.sax.saxutils import escape

from ohmcensus.core.layout.rung_view import Ink, Rung, RungMark, RungView

WIDTH, LEFT, RIGHT, STEP, TOP = 1000, 60, 940, 64, 90
_STROKES = {Ink.LINE: ("#14213A", 3.5), Ink.NEUTRAL: ("#4B5870", 2.0), Ink.NONE: ("#B9B19F", 1.5)}


def write_svg(view: RungView, title: str) -> str:
    """Return the picture; every thing carries its label as text."""
    height = TOP + STEP * len(view.rungs) + 70
    head = (
        f'<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 {WIDTH} {height}" width="{WIDTH}" height="{height}" '
        f'font-family="sans-serif" font-size="15" fill="#14213A"><title>{escape(title)}</title>'
        f'<rect width="{WIDTH}" height="{height}" fill="#FFFCF5"/>'
    )
    return "\n".join([head, *_rails(view, height), *_rungs(view), *_comb(view, height), "</svg>", ""])


def _rails(view: RungView, height: int) -> Iterator[str]:
    bottom = height - 70
    names = ", ".join(mark.label for mark in view.trunk)
    yield f'<text x="{LEFT}" y="28">{escape(names)}</text>'
    for x, letter in ((LEFT, "L"), (RIGHT, "N")):
        yield f'<line x1="{x}" y1="50" x2="{x}" y2="{bottom}" stroke="#14213A" stroke-width="4"/>'
        yield f'<text x="{x}" y="46" text-anchor="middle" font-weight="700">{letter}</text>'


def _rungs(view: RungView) -> Iterator[str]:
    for index, rung in enumerate(view.rungs):
        yield from _rung(rung, TOP + STEP * index)


def _rung(rung: Rung, y: int) -> Iterator[str]:
    for stretch in rung.stretches:
        colour, width = _STROKES[stretch.ink]
        x0, x1 = _x(stretch.x0), _x(stretch.x1)
        yield f'<line x1="{x0:.0f}" y1="{y}" x2="{x1:.0f}" y2="{y}" stroke="{colour}" stroke-width="{width}"/>'
    for mark in rung.marks:
        yield from _mark(mark, y)


def _mark(mark: RungMark, y: int) -> Iterator[str]:
    x, (colour, width) = _x(mark.x), _STROKES[mark.ink]
    at = f'stroke="{colour}" stroke-width="{width}" fill="#FFFCF5"'
    y = y - 14 if mark.is_pulled else y
    if mark.kind == "load":
        yield f'<rect x="{x - 26:.0f}" y="{y - 12}" width="52" height="24" rx="4" {at}/>'
    elif mark.kind == "capacitor":
        yield f'<path d="M{x - 5:.0f} {y - 12}v24M{x + 5:.0f} {y - 12}v24" {at}/>'
    elif mark.kind == "junction":
        yield f'<path d="M{x - 7:.0f} {y - 8}l14 8l-14 8zM{x + 7:.0f} {y - 8}v16" {at}/>'
    elif mark.kind == "contact":
        yield f'<rect x="{x - 14:.0f}" y="{y - 8}" width="28" height="16" fill="#FFFCF5" stroke="none"/>'
        end = f"{x + 12:.0f} {y - 13}" if mark.is_open else f"{x + 14:.0f} {y}"
        yield f'<path d="M{x - 14:.0f} {y}L{end}" {at}/>'
    else:
        yield f'<circle cx="{x:.0f}" cy="{y}" r="4" {at}/>'
    said = f"{mark.label}, open" if mark.is_open else f"{mark.label}, pulled" if mark.is_pulled else mark.label
    yield f'<text x="{x:.0f}" y="{y + 30}" text-anchor="middle" font-size="13">{escape(said)}</text>'


def _comb(view: RungView, height: int) -> Iterator[str]:
    y = height - 44
    yield f'<line x1="{LEFT}" y1="{y}" x2="{RIGHT}" y2="{y}" stroke="#14213A" stroke-width="3"/>'
    for index, tooth in enumerate(view.comb):
        x = _x((index + 1) / (len(view.comb) + 1))
        yield f'<line x1="{x:.0f}" y1="{y}" x2="{x:.0f}" y2="{y - 14}" stroke="#14213A" stroke-width="3"/>'
        yield f'<text x="{x:.0f}" y="{y + 22}" text-anchor="middle" font-size="13">{escape(tooth.label)}</text>'


def _x(fraction: float) -> float:
    return LEFT + (RIGHT - LEFT) * fraction
