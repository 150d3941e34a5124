"""The moment at which the clock of most tests stands."""

from __future__ import annotations

from datetime import UTC, datetime

NOON = datetime(2026, 6, 1, 12, 0, tzinfo=UTC)
