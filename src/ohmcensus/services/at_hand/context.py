"""What every use case needs: the open store, a clock, and the jobs it has at hand."""

from __future__ import annotations

from collections.abc import Callable, Hashable
from dataclasses import dataclass, field
from datetime import UTC, datetime
from threading import RLock
from typing import Any

from ohmcensus.services.at_hand.beside import Beside
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
    printing, picturing, importing, listing
        Held while a PDF is written, a picture is read, a file comes in, cards are worked out: one at a time, the rest
        of the answers go on.
    cards
        Cards of the list that were worked out for an answer, by job; one for each job that changed since the start.
    imports
        The file that came in last, by its id.
    warnings
        What is wrong with the data, a sentence each, by what was looked at.
    beside
        Does work beside the answers, None where nothing runs beside: then it is done when it is asked for.
    """

    store: Store
    clock: Callable[[], datetime] = _now
    at_hand: dict[str, Any] = field(default_factory=dict)
    lock: RLock = field(default_factory=RLock)
    printing: RLock = field(default_factory=RLock)
    picturing: RLock = field(default_factory=RLock)
    importing: RLock = field(default_factory=RLock)
    listing: RLock = field(default_factory=RLock)
    beside: Beside | None = None
    warnings: dict[str, str] = field(default_factory=dict)
    cards: dict[str, Any] = field(default_factory=dict)
    imports: dict[str, Any] = field(default_factory=dict)

    def later(self, key: Hashable, work: Callable[[], object], after_s: float = 0.0) -> None:
        """Have something done beside the answers, once however often it is asked for before it begins."""
        if self.beside is not None:
            self.beside.ask(key, work, after_s)

    def now(self) -> str:
        """Return the moment, ISO 8601 in UTC to the second."""
        return self.clock().astimezone(UTC).isoformat(timespec="seconds").replace("+00:00", "Z")
