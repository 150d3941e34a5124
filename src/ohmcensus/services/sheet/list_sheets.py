"""Every sheet by its title."""

from __future__ import annotations

from pydantic import BaseModel

from ohmcensus.core.sheet import Sheet
from ohmcensus.services.at_hand.context import Context
from ohmcensus.services.at_hand.sheets import all_sheets, sheets_in
from ohmcensus.storage import sheets


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
    return [title_of(sheet, has_draft=sheet.id in drafts) for sheet in found.values()]


def title_of(sheet: Sheet, *, has_draft: bool = False) -> SheetTitle:
    """Return a sheet by its title."""
    return SheetTitle(
        id=sheet.id,
        title=sheet.title,
        supply=sheet.supply,
        watts=sheet.watts,
        is_own=sheet.id not in all_sheets(),
        has_draft=has_draft,
    )
