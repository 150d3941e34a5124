"""The demo in a store, told once a process and copied from then on."""

from __future__ import annotations

import atexit
import shutil
import sqlite3
import tempfile
from functools import cache
from pathlib import Path

from ohmcensus.demo.seed import seed_demo
from ohmcensus.services.at_hand.context import Context
from ohmcensus.storage.database import FILE_NAME, open_store
from tests.noon import NOON


@cache
def _told() -> Path:
    """Tell the demo at noon, into a folder that goes with the process."""
    folder = Path(tempfile.mkdtemp(prefix="ohmcensus-demo-"))
    atexit.register(shutil.rmtree, folder, ignore_errors=True)
    store = open_store(folder)
    seed_demo(Context(store, clock=lambda: NOON))
    store.close()
    return folder


def with_demo(context: Context) -> Context:
    """Fill an empty store whose clock stands at noon with the demo; return its context."""
    told, folder = _told(), context.store.folder
    with sqlite3.connect(told / FILE_NAME) as here, sqlite3.connect(folder / FILE_NAME) as there:
        here.backup(there)
    here.close()
    there.close()
    shutil.copytree(told / "photos", folder / "photos", dirs_exist_ok=True)
    return context
