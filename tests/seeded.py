"""New stores and the demo, made once a run by the migrations and the stories, and copied from then on."""

from __future__ import annotations

import shutil
import sqlite3
import time
from functools import cache
from pathlib import Path

from ohmcensus.demo.other_types import OTHER_TYPES
from ohmcensus.demo.seed import seed_demo
from ohmcensus.demo.stories import STORIES
from ohmcensus.services.at_hand.context import Context
from ohmcensus.storage.database import FILE_NAME, Store, open_store
from tests.noon import NOON
from tests.run_folder import made_once

# So long a demo that was told now counts as told now.
TOLD_AGAIN_S = 180
DEMO_JOBS = len(STORIES) + len(OTHER_TYPES)


@cache
def _migrated() -> Path:
    """Let the migrations make an empty database."""
    return made_once("migrated", lambda folder: open_store(folder).close()) / FILE_NAME


def new_store(folder: Path) -> Store:
    """Open a new store in a folder, with the tables that the migrations make."""
    folder.mkdir(parents=True, exist_ok=True)
    shutil.copy(_migrated(), folder / FILE_NAME)
    return open_store(folder)


@cache
def _told(now: int = 0) -> Path:
    """Tell the demo at noon, or now; how old its jobs are matters to within a few minutes."""

    def tell(folder: Path) -> None:
        store = new_store(folder)
        seed_demo(Context(store) if now else Context(store, clock=lambda: NOON))
        store.close()

    return made_once(f"told-{now}", tell)


def with_demo(context: Context, *, is_now: bool = False) -> Context:
    """Fill an empty store with the demo, told at noon, or now; return its context."""
    told, folder = _told(int(time.time() // TOLD_AGAIN_S) if is_now else 0), context.store.folder
    with sqlite3.connect(told / FILE_NAME) as here, sqlite3.connect(folder / FILE_NAME) as there:
        here.backup(there)
    here.close()
    there.close()
    shutil.copytree(told / "photos", folder / "photos", dirs_exist_ok=True)
    return context
