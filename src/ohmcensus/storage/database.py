"""Opening a data directory: one SQLite file, write-ahead log, every commit on the disk before it is acknowledged."""

from __future__ import annotations

import sqlite3
from collections.abc import Iterator
from contextlib import closing, contextmanager
from contextvars import ContextVar
from pathlib import Path

from sqlalchemy import Connection, Engine, StaticPool, create_engine, event, func, select, text
from sqlalchemy.exc import DBAPIError
from sqlmodel import Session

from ohmcensus.core.errors import InputError, StoreError, Trouble
from ohmcensus.files.durable import fsync_file
from ohmcensus.storage.summaries import SEARCHED
from ohmcensus.storage.tables import metadata
from ohmcensus.storage.trouble import told

FILE_NAME = "ohmcensus.db"
NEWEST_MIGRATION = "0007"
BUSY_MILLISECONDS = 5000


# Rows that this connection has ever written (SQLite).
_CHANGES = select(func.total_changes())
_ROWS: ContextVar[int] = ContextVar("rows_written", default=0)


def rows_written() -> int:
    """Return how many rows this thread has written so far; two that are the same: nothing was written between."""
    return _ROWS.get()


class Store:
    """An open data directory."""

    def __init__(self, folder: Path) -> None:
        self.folder = folder
        self.file = folder / FILE_NAME
        self._engine = _engine(folder / FILE_NAME)
        self._writing = self._engine.execution_options(begin="IMMEDIATE")
        _migrate(self._engine, folder / FILE_NAME)

    @contextmanager
    def read(self) -> Iterator[Session]:
        """Yield a session that sees one state of the data and changes nothing."""
        with told(self.folder), Session(self._engine) as session:
            yield session

    @contextmanager
    def write(self) -> Iterator[Session]:
        """Yield a session that is the only writer; commits at the end, rolls back on any error."""
        with told(self.folder), Session(self._writing, expire_on_commit=False) as session:
            before = session.scalar(_CHANGES) or 0
            yield session
            session.flush()
            _ROWS.set(_ROWS.get() + (session.scalar(_CHANGES) or 0) - before)
            session.commit()

    def close(self) -> None:
        """Let go of the file."""
        self._engine.dispose()


def memory_store(folder: Path) -> Store:
    """Open a store that lives in memory and is gone with it; what is kept beside it lies in a folder."""
    store = Store.__new__(Store)
    store.folder, store.file = folder, folder / FILE_NAME
    store._engine = _settled(create_engine("sqlite://", poolclass=StaticPool))  # noqa: SLF001 - another way to make one
    store._writing = store._engine.execution_options(begin="IMMEDIATE")  # noqa: SLF001
    _make(store._engine)  # noqa: SLF001
    return store


def scratch_store(file: Path, folder: Path) -> Store:
    """Open a new store in a file of its own, without a flush to the disk; what is kept beside it lies in a folder."""
    store = Store.__new__(Store)
    store.folder, store.file = folder, file
    store._engine = _settled(create_engine(f"sqlite:///{file}"), "synchronous=OFF")  # noqa: SLF001 - as above
    store._writing = store._engine.execution_options(begin="IMMEDIATE")  # noqa: SLF001
    _make(store._engine)  # noqa: SLF001
    return store


def _make(engine: Engine) -> None:
    """Make the tables of now, without the migrations that led to them."""
    metadata.create_all(engine)
    with engine.begin() as connection:
        connection.exec_driver_sql(SEARCHED)


def open_store(folder: Path) -> Store:
    """Open a data directory, making it where it does not exist.

    Raises
    ------
    InputError
        If the folder cannot be made or its database was written by a newer version.
    """
    try:
        with told(folder):
            if not folder.exists():
                folder.mkdir(parents=True, mode=0o700)
            return Store(folder)
    except StoreError as error:
        remedy = error.remedy if error.trouble is Trouble.DAMAGED else "choose another with --data"
        what = f"the data directory {folder} cannot be used ({error.what})"
        raise InputError(what=what, remedy=remedy, field="data") from error
    except (OSError, DBAPIError) as error:
        what = f"the data directory {folder} cannot be used ({getattr(error, 'orig', error)})"
        raise InputError(what=what, remedy="choose another with --data", field="data") from error


def _engine(file: Path) -> Engine:
    """Return an engine with our settings on every connection."""
    return _settled(create_engine(f"sqlite:///{file}"))


def _settled(engine: Engine, *more: str) -> Engine:
    """Return an engine with our settings on every connection."""

    @event.listens_for(engine, "connect")
    def _settings(connection: sqlite3.Connection, _record: object) -> None:
        connection.isolation_level = None
        for setting in (
            f"busy_timeout={BUSY_MILLISECONDS}",
            "journal_mode=WAL",
            "synchronous=FULL",
            "foreign_keys=ON",
            *more,
        ):
            connection.execute(f"PRAGMA {setting}")

    @event.listens_for(engine, "begin")
    def _begin(connection: Connection) -> None:
        connection.exec_driver_sql(f"BEGIN {connection.get_execution_options().get('begin', 'DEFERRED')}")

    return engine


def _migrate(engine: Engine, file: Path) -> None:
    """Bring the tables to the newest form; opening a current file does not even load the tool."""
    at = _migration_of(engine)
    if at == NEWEST_MIGRATION:
        return
    if at is not None and at > NEWEST_MIGRATION:
        what = f"{file} was written by a newer Ohmcensus (migration {at}, this one knows {NEWEST_MIGRATION})"
        raise InputError(what=what, remedy="update Ohmcensus", field="data")
    from ohmcensus.storage.migrate import upgrade  # noqa: PLC0415 - a third of a second, needed once

    if at is not None:
        _copy_before(file)
    upgrade(engine)


def _copy_before(file: Path) -> None:
    """Keep a copy of a file that is about to be brought to a newer form; the copy of the time before goes."""
    copy = file.with_name(f"before-{NEWEST_MIGRATION}.db")
    with closing(sqlite3.connect(file)) as here, closing(sqlite3.connect(copy)) as there:
        here.backup(there)
    fsync_file(copy)
    for older in file.parent.glob("before-*.db"):
        if older != copy:
            older.unlink()


def _migration_of(engine: Engine) -> str | None:
    """Return the migration that the file is at, None for a new one."""
    with engine.connect() as connection:
        tables = connection.execute(text("SELECT name FROM sqlite_master WHERE name = 'alembic_version'")).all()
        if not tables:
            return None
        version = connection.execute(text("SELECT version_num FROM alembic_version")).scalar()
        return None if version is None else str(version)
