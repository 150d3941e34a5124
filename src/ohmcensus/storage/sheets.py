"""Machine sheets of one's own, and one's own meanings of codes."""

from __future__ import annotations

import json

from sqlmodel import Session, select

from ohmcensus.core.codes import Meaning
from ohmcensus.storage import settings
from ohmcensus.storage.tables import MeaningsRow, SheetRow


def all_own(session: Session) -> dict[str, str]:
    """Return the YAML of every own sheet by its id."""
    return {row.id: row.body for row in session.exec(select(SheetRow)).all()}


def keep(session: Session, sheet_id: str, body: str) -> None:
    """Write one own sheet."""
    session.merge(SheetRow(id=sheet_id, body=body))
    settings.count_up(session)


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
