"""Settings of the whole data directory, each by name as JSON."""

from __future__ import annotations

import json
from typing import Any

from sqlmodel import Session, select

from ohmcensus.storage.tables import SettingRow


def all_named(session: Session) -> dict[str, Any]:
    """Return every setting that was ever kept."""
    return {row.name: json.loads(row.body) for row in session.exec(select(SettingRow))}


def keep(session: Session, name: str, value: Any) -> None:
    """Write one setting."""
    session.merge(SettingRow(name=name, body=json.dumps(value)))
