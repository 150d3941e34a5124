"""A folder that all workers of one run share: what takes seconds is made by one of them."""

from __future__ import annotations

import atexit
import os
import shutil
import tempfile
import time
from collections.abc import Callable
from pathlib import Path

# Workers inherit it from the process that started the run, which clears up.
_OWNER = os.environ.setdefault("OHMCENSUS_TESTS", str(os.getpid()))
RUN = Path(tempfile.gettempdir()) / f"ohmcensus-tests-{_OWNER}"
if str(os.getpid()) == _OWNER:
    # A run that was killed may have had the same number.
    shutil.rmtree(RUN, ignore_errors=True)
    atexit.register(shutil.rmtree, RUN, ignore_errors=True)


def made_once(name: str, fill: Callable[[Path], None]) -> Path:
    """Return a folder of the run, filled by whoever asks first; the others wait."""
    ready, making = RUN / name, RUN / f"{name}.making"
    RUN.mkdir(exist_ok=True)
    while not ready.exists():
        try:
            making.mkdir()
        except FileExistsError:
            time.sleep(0.1)
            continue
        try:
            if not ready.exists():
                fill(making)
                making.rename(ready)
        finally:
            shutil.rmtree(making, ignore_errors=True)
    return ready
