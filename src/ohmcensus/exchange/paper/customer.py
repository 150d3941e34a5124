"""The customer's page: one page in large print, with the picture that decided it, the bill and the signatures."""

from __future__ import annotations

import io
from base64 import b64decode
from collections.abc import Iterator
from typing import Any

from reportlab.lib.units import mm
from reportlab.platypus import Flowable, Image, KeepTogether, Spacer, Table, TableStyle

from ohmcensus.exchange.paper.pictures import drawn_signature, rulers
from ohmcensus.exchange.paper.style import DANGER, INK, QUIET, WIDTH, bare, style, words
from ohmcensus.exchange.paper.tables import costs
from ohmcensus.exchange.report import Report, ReportFirm, ReportSection

_LARGE = 11.5
# The facts that a customer looks for.
_FACTS = ("Customer", "Place", "Machine", "Opened")


def firm_head(firm: ReportFirm | None) -> Iterator[Any]:
    """Yield the firm at the head of a page: its mark, its name, where it is and how it is reached."""
    if firm is None:
        return
    lines = " · ".join(row for row in (*firm.address, firm.contact) if row)
    said = [words(firm.name, style(12, bold=True)), words(lines, style(9, colour=QUIET))]
    if not firm.mark:
        yield from (*said, Spacer(1, 4 * mm))
        return
    mark = Image(io.BytesIO(b64decode(firm.mark)), width=42 * mm, height=14 * mm, kind="proportional", hAlign="LEFT")
    cells = [[mark, said]]
    looks = TableStyle([*bare().getCommands(), ("VALIGN", (0, 0), (-1, -1), "MIDDLE")])
    yield Table(cells, colWidths=[46 * mm, WIDTH - 46 * mm], style=looks, hAlign="LEFT")
    yield Spacer(1, 4 * mm)


def customer_story(report: Report) -> Iterator[Any]:
    """Yield what stands on the customer's page."""
    yield from firm_head(report.firm)
    yield words("For the customer", style(19, bold=True))
    facts = [(name, value) for name, value in report.facts if name in _FACTS]
    yield words(" · ".join(value for _, value in facts), style(10, colour=QUIET))
    yield Spacer(1, 3 * mm)
    if report.is_unsafe:
        yield _do_not_use()
    # A sheet that was signed before the page had headings holds its sentences in a row.
    for section in report.customer or (ReportSection("", report.plain, below="costs"),):
        yield from _section(report, section)
    yield from _signatures(report)


def _do_not_use() -> Table:
    cells = [[words("Do not use this machine. Keep it unplugged.", style(14, bold=True, colour=DANGER))]]
    looks = TableStyle([("BOX", (0, 0), (-1, -1), 1.5, DANGER), ("BOTTOMPADDING", (0, 0), (-1, -1), 8)])
    return Table(cells, colWidths=[WIDTH], style=looks, hAlign="LEFT", spaceAfter=2 * mm)


def _section(report: Report, section: ReportSection) -> Iterator[Any]:
    yield Spacer(1, 3 * mm)
    if section.title:
        yield words(section.title, style(12.5, bold=True))
    yield from (words(row, style(_LARGE)) for row in section.sentences)
    if section.below == "reading" and report.shown is not None:
        yield from (Spacer(1, 2 * mm), *rulers((report.shown,)))
    if section.below == "costs" and report.costs:
        yield costs(report.costs)


def _signatures(report: Report) -> Iterator[Any]:
    """Yield who signed for the firm, and the customer's signature or a line for it."""
    half, high = WIDTH / 2 - 4 * mm, 16 * mm
    drawn = report.signature
    theirs: Flowable = drawn_signature(drawn, high * 10 / 3, high) if drawn else Spacer(1, high)
    named = f"{drawn.name}, {drawn.at}" if drawn else "Customer, date and signature"
    small = style(9, colour=QUIET)
    cells = [
        [Spacer(1, high), "", theirs],
        [words(report.signed or "Not signed off yet.", small), "", words(named, small)],
    ]
    looks = TableStyle(
        [
            *bare().getCommands(),
            ("LEFTPADDING", (2, 0), (2, -1), 0),
            ("VALIGN", (0, 0), (-1, 0), "BOTTOM"),
            ("LINEBELOW", (0, 0), (0, 0), 0.7, INK),
            ("LINEBELOW", (2, 0), (2, 0), 0.7, INK),
        ]
    )
    yield KeepTogether([Spacer(1, 6 * mm), Table(cells, colWidths=[half, 8 * mm, half], style=looks, hAlign="LEFT")])
