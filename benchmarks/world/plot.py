"""A reliability plot as SVG: what was stated against what was right, with how many jobs each point stands for."""

from __future__ import annotations

from collections.abc import Sequence
from itertools import pairwise

SIZE, MARGIN = 360, 44
EDGES = (0.0, 0.2, 0.4, 0.6, 0.8, 0.9, 0.95, 0.99, 1.000001)


def reliability(rows: Sequence[tuple[float, bool]]) -> str:
    """Return the plot of what was stated, and whether it was right."""
    dots = []
    for lo, hi in pairwise(EDGES):
        inside = [row for row in rows if lo <= row[0] < hi]
        if inside:
            stated = sum(row[0] for row in inside) / len(inside)
            right = sum(row[1] for row in inside) / len(inside)
            dots.append(_dot(stated, right, len(inside), len(rows)))
    low, high = _at(0.0), _at(1.0)
    ticks = "".join(_tick(value) for value in (0.0, 0.25, 0.5, 0.75, 1.0))
    return (
        f'<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 {SIZE} {SIZE}" font-family="sans-serif" font-size="12">'
        f'<rect width="{SIZE}" height="{SIZE}" fill="#fffdf6"/>'
        f'<line x1="{low}" y1="{SIZE - low}" x2="{high}" y2="{SIZE - high}" stroke="#8a8f99" stroke-dasharray="4 4"/>'
        f"{ticks}{''.join(dots)}"
        f'<text x="{SIZE / 2}" y="{SIZE - 6}" text-anchor="middle">stated</text>'
        f'<text x="12" y="{SIZE / 2}" text-anchor="middle" transform="rotate(-90 12 {SIZE / 2})">right</text></svg>\n'
    )


def _at(value: float) -> float:
    return round(MARGIN + value * (SIZE - 2 * MARGIN), 1)


def _tick(value: float) -> str:
    at = _at(value)
    return (
        f'<text x="{at}" y="{SIZE - MARGIN + 18}" text-anchor="middle">{value:g}</text>'
        f'<text x="{MARGIN - 8}" y="{SIZE - at + 4}" text-anchor="end">{value:g}</text>'
    )


def _dot(stated: float, right: float, count: int, total: int) -> str:
    radius = round(4 + 14 * (count / total) ** 0.5, 1)
    x, y = _at(stated), SIZE - _at(right)
    return (
        f'<circle cx="{x}" cy="{y}" r="{radius}" fill="#2f6fb0" fill-opacity="0.55"/>'
        f'<text x="{x}" y="{y - radius - 3}" text-anchor="middle">{count}</text>'
    )
