"""Jobs out of one database into another: all of them in one transaction, or none."""

from __future__ import annotations

import sqlite3
from collections.abc import Sequence
from contextlib import closing
from pathlib import Path

from ohmcensus.storage import cover_times
from ohmcensus.storage.database import BUSY_MILLISECONDS

# Whole rows by their own ids; what is there already of address, machine, sheet and meter stays as it is.
_SHARED = ("address", "machine", "sheet", "meter_version")
_CUSTOMERS = (
    "UPDATE main.address SET customer_id = (SELECT customer_id FROM came.address AS there WHERE there.id = address.id)"
    " WHERE customer_id IS NULL AND id IN (SELECT id FROM came.address WHERE customer_id IS NOT NULL)"
)
_OF_JOBS = ("job", "reading", "event", "photo", "note", "wanted_part", "signed_sheet", "cover_time")


def merge(source: Path, target: Path) -> None:
    """Copy every job of a database into another one of the same form.

    Raises
    ------
    sqlite3.IntegrityError
        If an id is there already.
    sqlite3.DatabaseError
        If the disk is full, or somebody else writes for too long. Nothing was copied then.
    """
    with closing(sqlite3.connect(target, isolation_level=None)) as database:
        for setting in (f"busy_timeout={BUSY_MILLISECONDS}", "synchronous=FULL", "foreign_keys=ON"):
            database.execute(f"PRAGMA {setting}")
        database.execute("ATTACH ? AS came", (str(source),))
        database.execute("BEGIN IMMEDIATE")
        try:
            for table in (*_SHARED, *_OF_JOBS):
                _copy(database, table, or_ignore=table in _SHARED)
            database.execute(_CUSTOMERS)
            _copy_numbered(database)
            database.execute("COMMIT")
        except sqlite3.Error:
            if database.in_transaction:
                database.execute("ROLLBACK")
            raise


def copy_tables(source: Path, target: Path, tables: Sequence[str]) -> None:
    """Copy whole tables of a database into one that has none of their rows yet."""
    with closing(sqlite3.connect(target, isolation_level=None)) as database:
        database.execute("ATTACH ? AS came", (str(source),))
        database.execute("BEGIN")
        for table in tables:
            _copy(database, table, or_ignore=False, is_whole=True)
        database.execute("COMMIT")


def _copy(database: sqlite3.Connection, table: str, *, or_ignore: bool, is_whole: bool = False) -> None:
    rows = database.execute(f"PRAGMA main.table_info({table})")
    columns = ", ".join(f'"{row[1]}"' for row in rows)
    verb = "INSERT OR IGNORE" if or_ignore else "INSERT"
    where = " WHERE id IN (SELECT machine_id FROM came.job)" if table == "machine" and not is_whole else ""
    database.execute(f"{verb} INTO main.{table} ({columns}) SELECT {columns} FROM came.{table}{where}")  # noqa: S608


def _copy_numbered(database: sqlite3.Connection) -> None:
    """Copy what is numbered anew here: frames, summaries with what they are found by, and the counters that follow."""
    database.execute(
        "INSERT INTO main.frame (job_id, revision, body)"
        " SELECT job_id, revision, body FROM came.frame ORDER BY came.frame.id"
    )
    database.execute(
        "INSERT INTO main.job_summary (job_id, asked, outside, card, version)"
        " SELECT job_id, asked, outside, '', '' FROM came.job_summary"
    )
    database.execute(
        "INSERT INTO main.job_search (rowid, head, log) SELECT here.number, searched.head, searched.log"
        " FROM came.job_search AS searched JOIN came.job_summary AS there ON there.number = searched.rowid"
        " JOIN main.job_summary AS here ON here.job_id = there.job_id"
    )
    database.execute(
        "INSERT INTO main.setting (name, body, revision)"
        " SELECT ? || sheet_id, '1', 1 FROM came.cover_time WHERE true GROUP BY sheet_id"
        " ON CONFLICT (name) DO UPDATE SET body = CAST(body AS INTEGER) + 1",
        (cover_times.COUNTER,),
    )
    database.execute(
        "INSERT INTO main.setting (name, body, revision) VALUES ('setup_revision', '1', 1)"
        " ON CONFLICT (name) DO UPDATE SET body = CAST(body AS INTEGER) + 1"
    )
