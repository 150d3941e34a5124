"""Machine sheets of one's own, and one's own meanings of codes."""

from __future__ import annotations

import json

from sqlmodel import Session, select

from ohmcensus.core.codes import Meaning
from ohmcensus.core.errors import StaleRevisionError
from ohmcensus.storage import settings
from ohmcensus.storage.tables import MeaningsRow, SheetDraftRow, SheetRow


def all_own(session: Session) -> dict[str, str]:
    """Return the YAML of every own sheet by its id."""
    return {row.id: row.body for row in session.exec(select(SheetRow)).all()}


def keep(session: Session, sheet_id: str, body: str) -> None:
    """Write one own sheet."""
    session.merge(SheetRow(id=sheet_id, body=body))
    settings.count_up(session)


def draft(session: Session, sheet_id: str) -> tuple[int, str] | None:
    """Return revision and JSON of a draft, None where there is none."""
    row = session.get(SheetDraftRow, sheet_id)
    return None if row is None else (row.revision, row.body)


def keep_draft(session: Session, sheet_id: str, stated: int, body: str) -> int:
    """Write a draft and return its new revision.

    Raises
    ------
    StaleRevisionError
        If somebody else wrote it meanwhile.
    """
    row = session.get(SheetDraftRow, sheet_id) or SheetDraftRow(id=sheet_id, revision=0, body="")
    if row.revision != stated:
        raise StaleRevisionError(stated=stated, current=row.revision, thing="sheet")
    row.revision, row.body = stated + 1, body
    session.add(row)
    return row.revision


def drop_draft(session: Session, sheet_id: str) -> None:
    """Forget a draft."""
    row = session.get(SheetDraftRow, sheet_id)
    if row is not None:
        session.delete(row)


def drafts(session: Session) -> frozenset[str]:
    """Return the ids of sheets that have a draft."""
    return frozenset(session.exec(select(SheetDraftRow.id)).all())


def all_meanings(session: Session) -> dict[tuple[str, str], tuple[Meaning, ...]]:
    """Return every own table of meanings by sheet and scheme."""
    rows = session.exec(select(MeaningsRow)).all()
    return {
        (row.sheet_id, row.scheme): tuple(Meaning.model_validate(entry) for entry in json.loads(row.body))
        for row in rows
    }


def keep_meanings(session: Session, sheet_id: str, scheme: str, rows: tuple[Meaning, ...]) -> None:
    """Write one table of meanings."""
    body = json.dumps([row.model_dump(mode="json") for row in rows], ensure_ascii=False)
    session.merge(MeaningsRow(sheet_id=sheet_id, scheme=scheme, body=body))
    settings.count_up(session)
