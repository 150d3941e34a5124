"""A sheet as its editor shows it."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Any

from pydantic import BaseModel, ConfigDict

from ohmcensus.core.layout.rung_view import RungView
from ohmcensus.core.machine.lint import lint
from ohmcensus.core.parts import part_kinds
from ohmcensus.core.parts.kind import PartKind
from ohmcensus.core.physics.temperature import REFERENCE_CELSIUS
from ohmcensus.core.sheet import Sheet, SheetFaultsError, sheet_from


class SheetRemark(BaseModel):
    """A fault, which keeps the sheet from being used, or a notice, which does not."""

    path: list[str | int]
    message: str
    refused: bool


class SheetPoint(BaseModel):
    """A point that a probe can touch, and whether nothing need be joined to it."""

    name: str
    label: str
    may_be_free: bool


class SheetTest(BaseModel):
    """A test of a part, its unit, and what it should read by itself."""

    __test__ = False

    part: str
    name: str
    title: str
    unit: str
    should: str


class SheetView(BaseModel):
    """A sheet in the editor.

    Attributes
    ----------
    raw
        The sheet as plain data; the draft where there is one.
    revision
        Of the draft, 0 where there is none.
    remarks
        Faults and notices.
    points, tests
        Of all parts that can be read.
    ladder
        The machine at rest, None while it cannot be drawn.
    """

    model_config = ConfigDict(arbitrary_types_allowed=True)

    id: str
    title: str
    is_own: bool
    revision: int
    raw: dict[str, Any]
    remarks: list[SheetRemark]
    points: list[SheetPoint]
    tests: list[SheetTest]
    ladder: RungView | None


def read_raw(raw: dict[str, Any]) -> tuple[Sheet | None, list[SheetRemark]]:
    """Return the sheet where it can be read, and what there is to say."""
    try:
        sheet = sheet_from(raw)
    except SheetFaultsError as error:
        return None, [SheetRemark(path=list(f.path), message=f.message, refused=True) for f in error.faults]
    return sheet, [SheetRemark(path=list(n.path), message=n.message, refused=False) for n in lint(sheet)]


def _parts(raw: dict[str, Any]) -> Iterator[tuple[str, str, PartKind[Any], Any]]:
    """Yield id, title, kind and ratings of every part that can be read by itself, be the rest as it may."""
    kinds = part_kinds()
    entries = raw.get("parts")
    for entry in entries if isinstance(entries, list) else ():
        kind = kinds.get(str(entry.get("kind"))) if isinstance(entry, dict) else None
        if kind is None:
            continue
        try:
            ratings = kind.ratings.model_validate(entry.get("ratings") or {})
        except ValueError:
            continue
        yield str(entry.get("id")), str(entry.get("title") or kind.title), kind, ratings


def points_of(raw: dict[str, Any]) -> list[SheetPoint]:
    """Return every point of the parts that can be read."""
    return [
        SheetPoint(name=f"{part}.{pin.name}", label=f"{title}, {pin.label}", may_be_free=pin.may_be_free)
        for part, title, kind, ratings in _parts(raw)
        for pin in kind.pins(ratings)
    ]


def tests_of(raw: dict[str, Any]) -> list[SheetTest]:
    """Return every test of the parts that can be read."""
    rows = [(part, spec) for part, _, kind, ratings in _parts(raw) for spec in kind.tests(ratings)]
    windows = [(part, spec, spec.expect(REFERENCE_CELSIUS)) for part, spec in rows]
    return [
        SheetTest(part=part, name=spec.name, title=spec.title, unit=window.unit.value, should=window.shown)
        for part, spec, window in windows
    ]
