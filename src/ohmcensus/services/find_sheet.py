"""The built-in machine sheets, read once."""

from __future__ import annotations

from functools import cache
from importlib import resources

from ohmcensus.core.errors import UnknownNameError
from ohmcensus.core.names import nearest
from ohmcensus.core.sheet import Sheet
from ohmcensus.exchange.sheet_yaml import read_sheet


@cache
def all_sheets() -> dict[str, Sheet]:
    """Return every built-in sheet by its id."""
    folder = resources.files("ohmcensus") / "sheets"
    files = sorted((f for f in folder.iterdir() if f.name.endswith(".yaml")), key=lambda f: f.name)
    sheets = [read_sheet(f.read_text(encoding="utf-8"), f.name) for f in files]
    return {sheet.id: sheet for sheet in sheets}


def find_sheet(sheet_id: str) -> Sheet:
    """Return a sheet by its id.

    Raises
    ------
    UnknownNameError
        If there is none; the message names the nearest or all.
    """
    sheets = all_sheets()
    if sheet_id in sheets:
        return sheets[sheet_id]
    close = nearest(sheet_id, sheets)
    hint = f"did you mean {close}?" if close else f"known are {', '.join(sheets)}"
    raise UnknownNameError(what=f"no machine sheet '{sheet_id[:40]}'", remedy=hint, field="sheet")
