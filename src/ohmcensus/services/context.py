"""What every use case needs: the open store, a clock, and the jobs it has at hand."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, field
from datetime import UTC, datetime
from threading import RLock
from typing import Any

from ohmcensus.storage.database import Store


def _now() -> datetime:
    return datetime.now(UTC)


@dataclass(frozen=True, slots=True)
class Context:
    """An open data directory and the time of day.

    Parameters
    ----------
    store
        The data.
    clock
        Time of day.
    at_hand
        Jobs built from rows before, by id (see ``at_hand.py``); never older than the store says.
    lock
        Held while one of the caches is looked at or changed: several threads answer at once.
    """

    store: Store
    clock: Callable[[], datetime] = _now
    at_hand: dict[str, Any] = field(default_factory=dict)
    lock: RLock = field(default_factory=RLock)

    def now(self) -> str:
        """Return the moment, ISO 8601 in UTC to the second."""
        return self.clock().astimezone(UTC).isoformat(timespec="seconds").replace("+00:00", "Z")
