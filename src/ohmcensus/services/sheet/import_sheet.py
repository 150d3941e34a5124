"""Sheets in and out of files."""

from __future__ import annotations

import json

from pydantic import BaseModel

from ohmcensus.core.errors import InputError
from ohmcensus.exchange.sheet_yaml import plain_sheet, read_sheet, write_sheet
from ohmcensus.services.at_hand.context import Context
from ohmcensus.services.at_hand.sheets import sheets_in
from ohmcensus.services.sheet.edit_sheet import sheet_in
from ohmcensus.storage import sheets


class SheetId(BaseModel):
    """A sheet that was taken in."""

    id: str
    title: str


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
        raise InputError(what="the file is not text", remedy="send a sheet in YAML or JSON", field="file") from None
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
        sheet = sheet_in(session, sheet_id)
    if form == "json":
        return json.dumps(plain_sheet(sheet), ensure_ascii=False, indent=2) + "\n"
    return write_sheet(sheet)
