"""Settings of the whole data directory, each by name as JSON, and a revision that grows with every change of setup."""

from __future__ import annotations

import json
from typing import Any

from sqlalchemy import ScalarSelect, select
from sqlmodel import Session, col
from sqlmodel import select as rows

from ohmcensus.storage.tables import SettingRow

_REVISION = "setup_revision"


def all_named(session: Session) -> dict[str, Any]:
    """Return every setting that was ever kept."""
    found = session.exec(rows(SettingRow).where(SettingRow.name != _REVISION))
    return {row.name: json.loads(row.body) for row in found}


def keep(session: Session, name: str, value: Any) -> None:
    """Write one setting."""
    session.merge(SettingRow(name=name, body=json.dumps(value)))
    count_up(session)


def count_up(session: Session) -> None:
    """Tell every reader that the setup is another one."""
    row = session.get(SettingRow, _REVISION)
    session.merge(SettingRow(name=_REVISION, body=str(int(row.body) + 1 if row else 1)))


def revision_query() -> ScalarSelect[str]:
    """Return the revision of the setup, as part of another query."""
    return select(col(SettingRow.body)).where(col(SettingRow.name) == _REVISION).scalar_subquery()
