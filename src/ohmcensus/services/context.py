"""What every use case needs: the open store and a clock."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from datetime import UTC, datetime

from ohmcensus.storage.database import Store


def _now() -> datetime:
    return datetime.now(UTC)


@dataclass(frozen=True, slots=True)
class Context:
    """An open data directory and the time of day."""

    store: Store
    clock: Callable[[], datetime] = _now

    def now(self) -> str:
        """Return the moment, ISO 8601 in UTC to the second."""
        return self.clock().astimezone(UTC).isoformat(timespec="seconds").replace("+00:00", "Z")
