"""One's own meanings of codes, and sheets of one's own."""

from __future__ import annotations

import re

from pydantic import BaseModel, ConfigDict, Field
from sqlmodel import Session

from ohmcensus.core.codes import Meaning, meanings_from
from ohmcensus.core.errors import InputError, UnknownNameError
from ohmcensus.core.sheet import Sheet
from ohmcensus.exchange.codes_csv import read_meanings
from ohmcensus.exchange.sheet_yaml import write_sheet
from ohmcensus.services.at_hand.context import Context
from ohmcensus.services.at_hand.sheets import all_sheets, chosen, sheets_in
from ohmcensus.services.job.open_job import Line
from ohmcensus.storage import sheets


class Meanings(BaseModel):
    """The table of one scheme."""

    model_config = ConfigDict(extra="forbid")

    rows: list[Meaning] = Field(max_length=1000)


class SheetCopy(BaseModel):
    """A copy of a sheet under a name of one's own."""

    model_config = ConfigDict(extra="forbid")

    of: str
    title: Line


class SheetTitle(BaseModel):
    """A sheet in the list."""

    id: str
    title: str
    supply: str
    watts: float
    is_own: bool
    has_draft: bool = False


def list_sheets(context: Context) -> list[SheetTitle]:
    """Return every sheet: the built-in ones, then one's own."""
    with context.store.read() as session:
        found, drafts = sheets_in(session), sheets.drafts(session)
    return [_title(sheet, has_draft=sheet.id in drafts) for sheet in found.values()]


def keep_meanings(context: Context, sheet_id: str, scheme_id: str, wanted: Meanings) -> Meanings:
    """Keep the table of a scheme, checked against scheme and parts.

    Raises
    ------
    InputError
        If a row cannot be; the message names it, and the old table stands.
    """
    with context.store.write() as session:
        return _keep(session, sheet_id, scheme_id, tuple(wanted.rows))


def import_meanings(context: Context, sheet_id: str, scheme_id: str, body: bytes) -> Meanings:
    """Keep a table that came as CSV.

    Raises
    ------
    InputError
        If the file or a row cannot be read; the old table stands.
    """
    rows = read_meanings(body)
    with context.store.write() as session:
        return _keep(session, sheet_id, scheme_id, rows)


def copy_sheet(context: Context, wanted: SheetCopy) -> SheetTitle:
    """Copy a sheet; its id is made of the title.

    Raises
    ------
    InputError
        If the title gives no id, or one that is taken.
    """
    sheet_id = re.sub(r"[^a-z0-9]+", "-", wanted.title.lower()).strip("-")[:40].strip("-")
    with context.store.write() as session:
        found = sheets_in(session)
        if not sheet_id or sheet_id in found:
            what = f"'{wanted.title}' gives the id '{sheet_id}', which is {'taken' if sheet_id else 'empty'}"
            raise InputError(what=what, remedy="choose another title", field="title")
        copied = chosen(found, wanted.of).model_copy(update={"id": sheet_id, "title": wanted.title})
        sheets.keep(session, sheet_id, write_sheet(copied))
    return _title(copied)


def _keep(session: Session, sheet_id: str, scheme_id: str, rows: tuple[Meaning, ...]) -> Meanings:
    sheet = chosen(sheets_in(session), sheet_id)
    scheme = sheet.service.scheme(scheme_id)
    if scheme is None:
        known = ", ".join(row.id for row in sheet.service.schemes) or "none"
        what = f"no scheme '{scheme_id[:40]}' on this sheet"
        raise UnknownNameError(what=what, remedy=f"known are {known}", field="scheme")
    checked = meanings_from(rows, scheme, [part.id for part in sheet.parts])
    sheets.keep_meanings(session, sheet_id, scheme_id, checked)
    return Meanings(rows=list(checked))


def _title(sheet: Sheet, *, has_draft: bool = False) -> SheetTitle:
    return SheetTitle(
        id=sheet.id,
        title=sheet.title,
        supply=sheet.supply,
        watts=sheet.watts,
        is_own=sheet.id not in all_sheets(),
        has_draft=has_draft,
    )
