"""Settings of the whole data directory, each by name as JSON, and a revision that grows with every change of setup."""

from __future__ import annotations

import json
from typing import Any

from sqlalchemy import ColumnElement, ScalarSelect, literal, select
from sqlmodel import Session, col
from sqlmodel import select as rows

from ohmcensus.storage.tables import SettingRow

_REVISION = "setup_revision"


def all_named(session: Session) -> dict[str, Any]:
    """Return every setting that was ever kept."""
    return {row.name: json.loads(row.body) for row in session.exec(_NAMED)}


def revisions(session: Session) -> dict[str, int]:
    """Return for every setting the revision of the setup at which it was last written."""
    return {row.name: row.revision for row in session.exec(_NAMED)}


def revision(session: Session) -> int:
    """Return the revision of the setup."""
    row = session.get(SettingRow, _REVISION)
    return int(row.body) if row else 0


def keep(session: Session, name: str, value: Any) -> None:
    """Write one setting."""
    count_up(session)
    session.merge(SettingRow(name=name, body=json.dumps(value), revision=revision(session)))


def text(session: Session, name: str) -> str:
    """Return what stands beside the settings under a name with a colon, empty where nothing does."""
    row = session.get(SettingRow, name)
    return row.body if row else ""


def keep_text(session: Session, name: str, body: str) -> None:
    """Write what stands beside the settings: too large to be sent with each of them."""
    count_up(session)
    session.merge(SettingRow(name=name, body=body))


def count_up(session: Session) -> None:
    """Tell every reader that the setup is another one."""
    _count(session, _REVISION)


def count(session: Session, counter: str, of: str) -> None:
    """Count one of the counters up by one: what hangs on it is another one from here on."""
    _count(session, f"{counter}{of}")


def _count(session: Session, name: str) -> None:
    row = session.get(SettingRow, name)
    session.merge(SettingRow(name=name, body=str(int(row.body) + 1 if row else 1)))
    session.flush()


def revision_query() -> ScalarSelect[str]:
    """Return the revision of the setup, as part of another query."""
    return select(col(SettingRow.body)).where(col(SettingRow.name) == _REVISION).scalar_subquery()


def counter_query(counter: str, of: ColumnElement[str]) -> ScalarSelect[str]:
    """Return one of the counters, as part of another query."""
    return select(col(SettingRow.body)).where(col(SettingRow.name) == literal(counter).concat(of)).scalar_subquery()


# Counters have a sign in their names that no setting has.
_NAMED = rows(SettingRow).where(SettingRow.name != _REVISION, col(SettingRow.name).not_like("%:%"))
