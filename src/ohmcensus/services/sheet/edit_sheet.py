"""Machine sheets as their editor sees them: drafts, what is wrong with them, and putting one into use."""

from __future__ import annotations

import json
from typing import Any

from pydantic import BaseModel, ConfigDict, Field
from sqlmodel import Session

from ohmcensus.core.errors import InputError, NotFoundError, StaleRevisionError
from ohmcensus.core.layout.rung_view import rung_view
from ohmcensus.core.machine.netlist import Configuration
from ohmcensus.core.sheet import Sheet, sheet_from
from ohmcensus.exchange.sheet_yaml import LARGEST_SHEET, plain_sheet, write_sheet
from ohmcensus.services.at_hand.context import Context
from ohmcensus.services.at_hand.sheets import all_sheets, chosen, own_sheets, sheets_in
from ohmcensus.services.sheet.typed_figures import with_typed_figures
from ohmcensus.services.sheet.view import SheetView, points_of, read_raw, tests_of
from ohmcensus.storage import sheets


class SheetDraft(BaseModel):
    """What the editor holds, and the revision of the draft that it began from."""

    model_config = ConfigDict(extra="forbid")

    raw: dict[str, Any]
    revision: int = Field(ge=0, strict=True)


class DraftRevision(BaseModel):
    """The draft that the editor shows."""

    model_config = ConfigDict(extra="forbid")

    revision: int = Field(ge=1, strict=True)


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


def _view(session: Session, sheet_id: str) -> SheetView:
    sheet = sheet_in(session, sheet_id)
    kept = sheets.draft(session, sheet_id)
    raw = json.loads(kept[1]) if kept else plain_sheet(sheet)
    read, remarks = read_raw({**raw, "id": sheet_id})
    return SheetView(
        id=sheet_id,
        title=str(raw.get("title") or sheet.title),
        is_own=sheet_id not in all_sheets(),
        revision=kept[0] if kept else 0,
        raw=raw,
        remarks=remarks,
        points=points_of(raw),
        tests=tests_of(raw),
        ladder=rung_view(read, Configuration()) if read is not None and read.nets else None,
    )


def sheet_in(session: Session, sheet_id: str) -> Sheet:
    """Return a sheet, built in or one's own; refuse an id that is none."""
    found = sheets_in(session)
    if sheet_id not in found:
        raise NotFoundError(what=f"no machine sheet '{sheet_id[:40]}'", remedy="choose one from the list")
    return chosen(found, sheet_id)


def _own(session: Session, sheet_id: str) -> None:
    """Refuse to change a built-in sheet."""
    sheet_in(session, sheet_id)
    if sheet_id not in own_sheets(session):
        what = f"{sheet_id} is a built-in sheet"
        raise InputError(what=what, remedy="copy it and change the copy", field="sheet")
