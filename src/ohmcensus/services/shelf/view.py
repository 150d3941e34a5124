"""Spares as they are shown, each with its acceptance and where it is."""

from __future__ import annotations

from datetime import datetime

from pydantic import BaseModel

from ohmcensus.core.intake import DataPlate
from ohmcensus.core.job.case import terms_of
from ohmcensus.core.judgement import choose_use
from ohmcensus.core.limits.profile import chosen_profile
from ohmcensus.core.limits.terms import Terms
from ohmcensus.core.machine import MachineTest
from ohmcensus.core.quantity import Indication, show_indication
from ohmcensus.core.sheet import Sheet
from ohmcensus.core.shelf import (
    Acceptance,
    AcceptanceReading,
    Soundness,
    Spare,
    Whereabouts,
    acceptance,
)
from ohmcensus.services.at_hand.choice import Choice
from ohmcensus.services.at_hand.described import Described
from ohmcensus.services.at_hand.settings import Settings


class AcceptanceRow(BaseModel):
    """One test of a piece.

    Attributes
    ----------
    test, title, should
        Its name, in print, and what it should read.
    advice
        How it is made, and what can hurt.
    reads, verdict, remark, by
        What it read, judged, in a few words, and with which meter; empty where it was not made.
    """

    test: str
    title: str
    should: str
    advice: str
    reads: str
    verdict: str
    remark: str
    by: str


class SpareView(BaseModel):
    """A piece on the shelf.

    Attributes
    ----------
    title, sheet_title
        Part and machine type in print.
    soundness, soundness_words
        What is known of it.
    where, job
        Where it is, in words; the job on which it was fitted last, empty for none.
    is_in
        Whether it sits in a machine now.
    """

    id: str
    revision: int
    spare: Spare
    title: str
    sheet_title: str
    mark: str
    soundness: Soundness
    soundness_words: str
    rows: list[AcceptanceRow]
    where: str
    job: str
    is_in: bool


class ShelfView(Described):
    """All pieces, the parts that can be written down by machine type, and the marks.

    Attributes
    ----------
    spares
        By machine type and part; scrapped ones last.
    parts
        By machine type: parts that are spares.
    """

    spares: list[SpareView]
    sheets: list[Choice]
    parts: dict[str, list[Choice]]
    marks: list[Choice]


def terms_on_shelf(sheet: Sheet, settings: Settings) -> Terms:
    """Return what a piece of a machine type is held to: the limits that the firm has chosen."""
    profile = chosen_profile(settings.profile, tuple(settings.own_profiles), sheet.volts)
    return terms_of(sheet, DataPlate(), profile)


def spare_view(
    spare_id: str, revision: int, spare: Spare, sheet: Sheet, settings: Settings, where: Whereabouts | None
) -> SpareView:
    """Return the view of a piece."""
    found = acceptance(spare, terms_on_shelf(sheet, settings), settings.ambient_celsius)
    part = sheet.part(spare.part)
    return SpareView(
        id=spare_id,
        revision=revision,
        spare=spare,
        title=part.title if part else spare.part,
        sheet_title=sheet.title,
        mark=spare.mark.words,
        soundness=found.soundness,
        soundness_words=found.soundness.words,
        rows=_rows(found),
        where=_where(spare, where),
        job=where.fitting.job if where else "",
        is_in=bool(where and where.is_in),
    )


def _rows(found: Acceptance) -> list[AcceptanceRow]:
    return [
        AcceptanceRow(
            test=test.name,
            title=test.title,
            should=test.window.shown,
            advice=test.advice,
            reads=show_indication(_shown(reading, test)) if reading else "",
            verdict=judged.verdict.value if judged else "not_asked",
            remark=judged.remark if judged else "",
            by=f"{reading.meter.title}, {_day(reading.at)}" if reading else "",
        )
        for test, reading, judged in found.rows
    ]


def _shown(reading: AcceptanceReading, test: MachineTest) -> Indication:
    return choose_use(reading.text, test, [reading.meter], function=test.function, is_stored=True).indication


def _where(spare: Spare, where: Whereabouts | None) -> str:
    shelf_words = spare.place or "on the shelf"
    if where is None:
        return shelf_words
    moment = _day(where.fitting.at)
    if where.is_in:
        return f"fitted in {where.fitting.machine_title} since {moment}"
    return f"{shelf_words}; was in {where.fitting.machine_title}"


def _day(moment: str) -> str:
    return datetime.fromisoformat(moment).date().isoformat()


def part_choices(sheet: Sheet) -> list[Choice]:
    """Return the parts of a sheet that can be had as spares."""
    return [Choice(id=part.id, words=part.title) for part in sheet.parts if part.part_kind.is_spare]
