"""Work beside the answers: done by a thread of its own, one thing at a time, each once."""

from __future__ import annotations

import logging
import threading
import time
from collections.abc import Callable, Hashable

Work = Callable[[], object]
_LOG = logging.getLogger(__name__)
# After each work it rests as long as that took, so that answers have at least half of the time; at most so long.
LONGEST_REST_S = 0.2


class Beside:
    """A thread that does what is asked for, what is due first; what waits already is not asked for twice."""

    def __init__(self) -> None:
        self._waiting: dict[Hashable, tuple[float, Work]] = {}
        self._changed = threading.Condition()
        self._is_over = False
        self._thread = threading.Thread(target=self._run, name="beside", daemon=True)
        self._thread.start()

    def ask(self, key: Hashable, work: Work, after_s: float = 0.0) -> None:
        """Ask for something, not before some seconds have passed; of what waits already the newest is done."""
        with self._changed:
            due = self._waiting[key][0] if key in self._waiting else time.monotonic() + after_s
            self._waiting[key] = (due, work)
            self._changed.notify()

    def waits(self, key: Hashable) -> bool:
        """Tell whether something was asked for and has not begun."""
        with self._changed:
            return key in self._waiting

    def stop(self) -> None:
        """Finish what is being done, leave the rest, and end."""
        with self._changed:
            self._is_over = True
            self._changed.notify()
        self._thread.join(timeout=30)

    def _run(self) -> None:
        while (found := self._next()) is not None:
            key, work = found
            begun = time.monotonic()
            try:
                work()
            except Exception:  # noqa: BLE001 - what is worked out beside is worked out again when it is asked for
                _LOG.warning("work beside failed: %s", key, exc_info=True)
            time.sleep(min(LONGEST_REST_S, time.monotonic() - begun))

    def _next(self) -> tuple[Hashable, Work] | None:
        """Wait for what is due; return None once it is over."""
        with self._changed:
            while not self._is_over:
                key = min(self._waiting, key=lambda name: self._waiting[name][0], default=None)
                wait = None if key is None else self._waiting[key][0] - time.monotonic()
                if key is not None and wait is not None and wait <= 0:
                    return key, self._waiting.pop(key)[1]
                self._changed.wait(wait)
        return None
