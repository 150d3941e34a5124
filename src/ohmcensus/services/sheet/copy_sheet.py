"""A copy of a sheet as one's own."""

from __future__ import annotations

import re

from pydantic import BaseModel, ConfigDict

from ohmcensus.core.errors import InputError
from ohmcensus.core.text.trimmed import Title
from ohmcensus.exchange.sheet_yaml import write_sheet
from ohmcensus.services.at_hand.context import Context
from ohmcensus.services.at_hand.sheets import chosen, sheets_in
from ohmcensus.services.sheet.list_sheets import SheetTitle, title_of
from ohmcensus.storage import sheets


class SheetCopy(BaseModel):
    """A copy of a sheet under a name of one's own."""

    model_config = ConfigDict(extra="forbid")

    of: str
    title: Title


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
    return title_of(copied)
