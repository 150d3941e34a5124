"""Machine sheets: the built-in ones, read once, and one's own."""

from __future__ import annotations

from collections.abc import Mapping
from functools import cache, lru_cache
from importlib import resources
from pathlib import Path

from sqlmodel import Session

from ohmcensus.core.codes import Meaning
from ohmcensus.core.errors import InputError, UnknownNameError
from ohmcensus.core.sheet import Sheet
from ohmcensus.core.text.names import nearest
from ohmcensus.exchange.sheet_yaml import read_sheet
from ohmcensus.storage import sheets


@cache
def all_sheets() -> dict[str, Sheet]:
    """Return every built-in sheet by its id."""
    folder = resources.files("ohmcensus") / "sheets"
    files = sorted((f for f in folder.iterdir() if f.name.endswith(".yaml")), key=lambda f: f.name)
    found = [read_sheet(f.read_text(encoding="utf-8"), f.name) for f in files]
    return {sheet.id: sheet for sheet in found}


def find_sheet(sheet_id: str) -> Sheet:
    """Return a built-in sheet by its id, or the one in a file that is named by its path.

    For the command line alone: whoever asks over HTTP names a sheet of the store.

    Raises
    ------
    UnknownNameError
        If there is none; the message names the nearest or all.
    InputError
        If the file cannot be read.
    """
    if not sheet_id.endswith(FILES):
        return chosen(all_sheets(), sheet_id)
    try:
        text = Path(sheet_id).read_text(encoding="utf-8")
    except (OSError, UnicodeDecodeError) as error:
        why = getattr(error, "strerror", None) or "no text"
        raise InputError(what=f"{sheet_id} cannot be read ({why})", remedy="name a sheet file", field="sheet") from None
    return read_sheet(text, Path(sheet_id).name)


# A sheet that ends so is the path of a file.
FILES = (".yaml", ".yml", ".json")


def sheets_in(session: Session) -> dict[str, Sheet]:
    """Return the sheets of a store: the built-in ones and one's own, each with one's own meanings of its codes."""
    own = own_sheets(session)
    tables = sheets.all_meanings(session)
    return {sheet_id: _with_meanings(sheet, tables) for sheet_id, sheet in {**all_sheets(), **own}.items()}


def own_sheets(session: Session) -> dict[str, Sheet]:
    """Return the sheets of one's own in a store."""
    return {sheet_id: _read(body, sheet_id) for sheet_id, body in sheets.all_own(session).items()}


def chosen(found: Mapping[str, Sheet], sheet_id: str) -> Sheet:
    """Return one of the sheets.

    Raises
    ------
    UnknownNameError
        If it is not among them.
    """
    if sheet_id in found:
        return found[sheet_id]
    close = nearest(sheet_id, found)
    hint = f"did you mean {close}?" if close else f"known are {', '.join(found)}"
    raise UnknownNameError(what=f"no machine sheet '{sheet_id[:40]}'", remedy=hint, field="sheet")


@lru_cache(maxsize=64)
def _read(body: str, sheet_id: str) -> Sheet:
    return read_sheet(body, sheet_id)


def _with_meanings(sheet: Sheet, tables: Mapping[tuple[str, str], tuple[Meaning, ...]]) -> Sheet:
    """Put one's own tables in the place of the sheet's."""
    own = {scheme: rows for (sheet_id, scheme), rows in tables.items() if sheet_id == sheet.id}
    if not own:
        return sheet
    service = sheet.service.model_copy(update={"meanings": {**sheet.service.meanings, **own}})
    return sheet.model_copy(update={"service": service})
