"""One's own meanings of codes, and sheets of one's own."""

from __future__ import annotations

from pydantic import BaseModel, ConfigDict, Field
from sqlmodel import Session

from ohmcensus.core.codes import Meaning, meanings_from
from ohmcensus.core.errors import UnknownNameError
from ohmcensus.exchange.codes_csv import read_meanings
from ohmcensus.services.at_hand.context import Context
from ohmcensus.services.at_hand.sheets import chosen, sheets_in
from ohmcensus.storage import sheets


class Meanings(BaseModel):
    """The table of one scheme."""

    model_config = ConfigDict(extra="forbid")

    rows: list[Meaning] = Field(max_length=1000)


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
