"""What came off a machine, with its photos, and how it goes back; connectors with their pins; tricks of each part."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Literal

from pydantic import BaseModel

from ohmcensus.core.event import PinMark
from ohmcensus.core.job.case import Case
from ohmcensus.core.job.connector import Connector, connectors
from ohmcensus.core.job.cover_minutes import Timed
from ohmcensus.core.job.strip_down import Stripped, held_words, strip_down
from ohmcensus.core.safety.after_strip import holds_earth, usual_earth
from ohmcensus.services.at_hand.choice import Choice
from ohmcensus.services.job.photo_view import PhotoView


class StrippedView(BaseModel):
    """One step of the strip-down.

    Attributes
    ----------
    words, fasteners
        What came off; its fasteners in print: "4 x cross M5, in the blue lid".
    count, plugs
        How many fasteners, and which plugs with their titles.
    minutes
        How long it took, in print; empty where nobody knows.
    photos
        What it looked like.
    state
        Off, back whole, or back with something missing.
    missing
        What is missing, in words.
    holds_earth
        Whether one of its fasteners holds an earth: that one is never left out.
    """

    id: str
    at: str
    words: str
    fasteners: str
    count: int
    plugs: list[Choice]
    minutes: str
    photos: list[PhotoView]
    state: Literal["off", "whole", "partly"]
    missing: str
    holds_earth: bool


class ConnectorView(BaseModel):
    """One connector on its photo.

    Attributes
    ----------
    pins, ticked
        Its positions, and the numbers of those that sit right again.
    is_whole
        Whether it is on again with every position ticked.
    """

    photo: PhotoView
    words: str
    plug: str
    pins: list[PinMark]
    ticked: list[int]
    is_whole: bool


class PartTricks(BaseModel):
    """How a part comes off and goes back well, what that needs, and what can hurt there."""

    part: str
    tools: list[str]
    tricks: list[str]
    cautions: list[str]


class StripView(BaseModel):
    """The strip-down of a job.

    Attributes
    ----------
    steps
        What came off, the first first; turned round it is the reassembly.
    connectors, loose
        Connectors that were noted, and photos of connectors that nothing was noted on yet.
    panels, plugs
        Covers with the minutes they take, and plugs of the sheet.
    earthed
        Covers and plugs that hold an earth by the sheet.
    tricks
        By part, for the parts that have any.
    spent
        Minutes of all timed steps in print, empty where none was.
    """

    steps: list[StrippedView]
    connectors: list[ConnectorView]
    loose: list[PhotoView]
    panels: list[Choice]
    plugs: list[Choice]
    earthed: list[str]
    tricks: list[PartTricks]
    spent: str


def strip_view(case: Case, photos: Sequence[PhotoView]) -> StripView:
    """Return the strip-down of a case with its photos."""
    rows = strip_down(case)
    marked = [(row, photo) for row in connectors(case) for photo in photos if photo.id == row.noted.photo]
    noted = {photo.id for _, photo in marked}
    spent = sum(row.step.minutes or 0.0 for row in rows)
    return StripView(
        steps=[_stripped(row, case, photos) for row in rows],
        connectors=[_connector(row, photo, case) for row, photo in marked],
        loose=[photo for photo in photos if photo.role == "connector" and photo.id not in noted],
        panels=[Choice(id=name, words=_cover(case, name)) for name in case.sheet.panels],
        plugs=[Choice(id=name, words=plug.title) for name, plug in case.sheet.plugs.items()],
        earthed=[
            *(name for name in case.sheet.panels if usual_earth(case.sheet, "", name, ())),
            *(name for name in case.sheet.plugs if usual_earth(case.sheet, "", "", (name,))),
        ],
        tricks=[_tricks(case, part.id) for part in case.sheet.parts],
        spent=f"{spent:.0f} min" if spent else "",
    )


def _cover(case: Case, name: str) -> str:
    """Return a cover with what it takes, and on how many jobs that was timed."""
    timed = case.timed.get(name, Timed()).jobs
    said = f", timed on {timed} job{'s' if timed > 1 else ''}" if timed else ""
    return f"{case.sheet.panels[name].title} ({case.cover_minutes[name]:.0f} min{said})"


def _stripped(row: Stripped, case: Case, photos: Sequence[PhotoView]) -> StrippedView:
    step = row.step
    missing = [f"{row.missing} of {step.fasteners} fasteners"] if row.missing else []
    missing += [case.sheet.plugs[plug].title for plug in row.plugs_off if plug in case.sheet.plugs]
    return StrippedView(
        id=row.event.id,
        at=row.event.at,
        words=step.words,
        fasteners=held_words(row),
        count=step.fasteners,
        plugs=[Choice(id=plug, words=case.sheet.plugs[plug].title) for plug in step.plugs],
        minutes=f"{step.minutes:.0f} min" if step.minutes else "",
        photos=[photo for photo in photos if photo.event == row.event.id],
        state="off" if not row.is_back else "whole" if row.is_whole else "partly",
        missing=", ".join(missing),
        holds_earth=holds_earth(step, case.sheet),
    )


def _connector(row: Connector, photo: PhotoView, case: Case) -> ConnectorView:
    plug = case.sheet.plugs.get(row.noted.plug)
    return ConnectorView(
        photo=photo,
        words=row.noted.words,
        plug=plug.title if plug else "",
        pins=list(row.noted.pins),
        ticked=sorted(row.ticked),
        is_whole=row.is_whole,
    )


def _tricks(case: Case, name: str) -> PartTricks:
    kind = case.sheet.known_part(name).part_kind
    return PartTricks(part=name, tools=list(kind.tools), tricks=list(kind.tricks), cautions=list(kind.cautions))
