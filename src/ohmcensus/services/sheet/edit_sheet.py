"""Machine sheets as their editor sees them: drafts, what is wrong with them, and putting one into use."""

from __future__ import annotations

import json
from collections.abc import Iterator
from typing import Any

from pydantic import BaseModel, ConfigDict, Field
from sqlmodel import Session

from ohmcensus.core.errors import InputError, NotFoundError, StaleRevisionError
from ohmcensus.core.layout.rung_view import RungView, rung_view
from ohmcensus.core.machine.lint import lint
from ohmcensus.core.machine.netlist import REFERENCE_CELSIUS, Configuration, PartFault
from ohmcensus.core.parts import part_kinds
from ohmcensus.core.parts.kind import PartKind
from ohmcensus.core.sheet import Sheet, SheetFaultsError, sheet_from
from ohmcensus.exchange.sheet_yaml import LARGEST_SHEET, plain_sheet, read_sheet, write_sheet
from ohmcensus.services.at_hand.context import Context
from ohmcensus.services.at_hand.sheets import all_sheets, chosen, own_sheets, sheets_in
from ohmcensus.services.sheet.typed_figures import with_typed_figures
from ohmcensus.storage import sheets
from ohmcensus.storage.dictionaries import kept_dictionary


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


class SheetDraft(BaseModel):
    """What the editor holds, and the revision of the draft that it began from."""

    model_config = ConfigDict(extra="forbid")

    raw: dict[str, Any]
    revision: int = Field(ge=0, strict=True)


class DraftRevision(BaseModel):
    """The draft that the editor shows."""

    model_config = ConfigDict(extra="forbid")

    revision: int = Field(ge=1, strict=True)


class BlindPart(BaseModel):
    """Faults of one part that no listed test sees, in words."""

    part: str
    faults: list[str]


class BlindSpots(BaseModel):
    """What no listed test sees, and pairs of faults that none tells apart, as PART:MODE."""

    unseen: list[BlindPart]
    inseparable: list[list[str]]


class SheetId(BaseModel):
    """A sheet that was taken in."""

    id: str
    title: str


def show_sheet(context: Context, sheet_id: str) -> SheetView:
    """Return a sheet, its draft where it has one.

    Raises
    ------
    NotFoundError
        If there is no such sheet.
    """
    with context.store.read() as session:
        return _view(session, sheet_id)


def keep_draft(context: Context, sheet_id: str, new: SheetDraft) -> SheetView:
    """Keep what an editor holds, be it whole or not.

    Raises
    ------
    InputError
        If the sheet is a built-in one, or the draft is far larger than any sheet.
    StaleRevisionError
        If somebody else wrote it meanwhile.
    """
    with context.store.write() as session:
        _own(session, sheet_id)
        body = json.dumps(with_typed_figures(new.raw), ensure_ascii=False)
        if len(body) > LARGEST_SHEET:
            what = f"the draft has {len(body) // 1000} kB, at most {LARGEST_SHEET // 1000} are taken"
            raise InputError(what=what, remedy="remove what does not belong on it", field="raw")
        sheets.keep_draft(session, sheet_id, new.revision, body)
        return _view(session, sheet_id)


def use_draft(context: Context, sheet_id: str, shown: DraftRevision) -> SheetView:
    """Put a draft in the place of its sheet.

    Raises
    ------
    InputError
        If there is no draft, or it has faults: all of them are named, and the old sheet stands.
    StaleRevisionError
        If the draft is not the one that the editor shows.
    """
    with context.store.write() as session:
        _own(session, sheet_id)
        kept = sheets.draft(session, sheet_id)
        if kept is None:
            raise InputError(what="there is no draft", remedy="change something first", field="raw")
        if kept[0] != shown.revision:
            raise StaleRevisionError(stated=shown.revision, current=kept[0], thing="sheet")
        sheet = sheet_from({**json.loads(kept[1]), "id": sheet_id})
        sheets.keep(session, sheet_id, write_sheet(sheet))
        sheets.drop_draft(session, sheet_id)
        return _view(session, sheet_id)


def drop_draft(context: Context, sheet_id: str) -> SheetView:
    """Go back to the sheet as it is used."""
    with context.store.write() as session:
        _own(session, sheet_id)
        sheets.drop_draft(session, sheet_id)
        return _view(session, sheet_id)


def import_sheet(context: Context, body: bytes) -> SheetId:
    """Take in a sheet from YAML or JSON.

    Raises
    ------
    InputError
        If it cannot be read, with line and remedy of every fault, or its id is taken; nothing is stored.
    """
    try:
        text = body.decode("utf-8")
    except UnicodeDecodeError:
        raise InputError(what="the file is no text", remedy="send a sheet in YAML or JSON", field="file") from None
    sheet = read_sheet(text, "the file")
    with context.store.write() as session:
        if sheet.id in sheets_in(session):
            what = f"a sheet '{sheet.id}' is here already"
            raise InputError(what=what, remedy="give the file's sheet another id", field="id")
        sheets.keep(session, sheet.id, write_sheet(sheet))
    return SheetId(id=sheet.id, title=sheet.title)


def export_sheet(context: Context, sheet_id: str, form: str) -> str:
    """Return the sheet as it is used, as YAML or JSON.

    Raises
    ------
    NotFoundError
        If there is no such sheet.
    """
    with context.store.read() as session:
        sheet = _found(session, sheet_id)
    if form == "json":
        return json.dumps(plain_sheet(sheet), ensure_ascii=False, indent=2) + "\n"
    return write_sheet(sheet)


def show_blind_spots(context: Context, sheet_id: str) -> BlindSpots:
    """Return what the tests of a sheet cannot see, from its fault dictionary.

    Raises
    ------
    NotFoundError
        If there is no such sheet.
    """
    from ohmcensus.core.machine.separable import fault_names, inseparable, unseen  # noqa: PLC0415 - loads scipy

    with context.store.read() as session:
        sheet = _found(session, sheet_id)
    if not sheet.nets:
        return BlindSpots(unseen=[], inseparable=[])
    found = kept_dictionary(context.store.folder, sheet)
    names = fault_names(found.faults)
    pairs = [[names[a], names[b]] for a, b in inseparable(sheet, found)]
    hidden = [found.faults[place] for place in unseen(sheet, found)]
    parts = [
        BlindPart(part=part.title, faults=_in_words([fault for fault in hidden if fault.part == part.id]))
        for part in sheet.parts
    ]
    return BlindSpots(unseen=[part for part in parts if part.faults], inseparable=pairs)


def _in_words(faults: list[PartFault]) -> list[str]:
    """Return each mode once, with the elements that may have it: "a bad joint (relay, pump)"."""
    found: dict[str, list[str]] = {}
    for fault in faults:
        found.setdefault(fault.mode.words, []).append(fault.element.removeprefix("out_").replace("_", " "))
    return [f"{mode} ({', '.join(elements)})" for mode, elements in found.items()]


def _view(session: Session, sheet_id: str) -> SheetView:
    sheet = _found(session, sheet_id)
    kept = sheets.draft(session, sheet_id)
    raw = json.loads(kept[1]) if kept else plain_sheet(sheet)
    read, remarks = _read({**raw, "id": sheet_id})
    return SheetView(
        id=sheet_id,
        title=str(raw.get("title") or sheet.title),
        is_own=sheet_id not in all_sheets(),
        revision=kept[0] if kept else 0,
        raw=raw,
        remarks=remarks,
        points=_points(raw),
        tests=_tests(raw),
        ladder=rung_view(read, Configuration()) if read is not None and read.nets else None,
    )


def _read(raw: dict[str, Any]) -> tuple[Sheet | None, list[SheetRemark]]:
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


def _points(raw: dict[str, Any]) -> list[SheetPoint]:
    return [
        SheetPoint(name=f"{part}.{pin.name}", label=f"{title}, {pin.label}", may_be_free=pin.may_be_free)
        for part, title, kind, ratings in _parts(raw)
        for pin in kind.pins(ratings)
    ]


def _tests(raw: dict[str, Any]) -> list[SheetTest]:
    rows = [(part, spec) for part, _, kind, ratings in _parts(raw) for spec in kind.tests(ratings)]
    windows = [(part, spec, spec.expect(REFERENCE_CELSIUS)) for part, spec in rows]
    return [
        SheetTest(part=part, name=spec.name, title=spec.title, unit=window.unit.value, should=window.shown)
        for part, spec, window in windows
    ]


def _found(session: Session, sheet_id: str) -> Sheet:
    found = sheets_in(session)
    if sheet_id not in found:
        raise NotFoundError(what=f"no machine sheet '{sheet_id[:40]}'", remedy="choose one from the list")
    return chosen(found, sheet_id)


def _own(session: Session, sheet_id: str) -> None:
    """Refuse to change a built-in sheet."""
    _found(session, sheet_id)
    if sheet_id not in own_sheets(session):
        what = f"{sheet_id} is a built-in sheet"
        raise InputError(what=what, remedy="copy it and change the copy", field="sheet")
