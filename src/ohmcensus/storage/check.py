"""Whether the data are whole: the database, the pictures that its rows name, the last backup."""

from __future__ import annotations

import hashlib
import sqlite3
from contextlib import closing
from pathlib import Path

from ohmcensus.core.errors import InputError
from ohmcensus.storage.database import FILE_NAME, NEWEST_MIGRATION
from ohmcensus.storage.photos import path_of


def damage_of(database: Path, *, is_quick: bool = False) -> str:
    """Return what is damaged about a database in a few words, empty where it is whole.

    Parameters
    ----------
    database
        The file; it is only read.
    is_quick
        Leaves out whether the indexes agree with their tables.
    """
    if not database.is_file() or database.stat().st_size == 0:
        return "there is none"
    pragma = "quick_check" if is_quick else "integrity_check"
    try:
        with closing(sqlite3.connect(f"{database.resolve().as_uri()}?mode=ro", uri=True)) as opened:
            found = opened.execute(f"PRAGMA {pragma}(1)").fetchone()[0]
            tables = {name for (name,) in opened.execute("SELECT name FROM sqlite_master")}
    except sqlite3.DatabaseError as error:
        return str(error)
    if found != "ok":
        return str(found)
    return "" if "alembic_version" in tables else "it is none of Ohmcensus"


def newest_known(database: Path, file: Path) -> None:
    """Refuse a database that a newer version wrote.

    Raises
    ------
    InputError
        With what to do.
    """
    with closing(sqlite3.connect(database)) as opened:
        row = opened.execute("SELECT version_num FROM alembic_version").fetchone()
    at = str(row[0]) if row else ""
    if not at or at > NEWEST_MIGRATION:
        what = f"{file} was written by a newer Ohmcensus (migration {at or 'none'}, this one knows {NEWEST_MIGRATION})"
        raise InputError(what=what, remedy="update Ohmcensus", field="file")


def pictures_of(database: Path) -> list[tuple[str, str]]:
    """Return the pictures that rows name, by the hash of their content, each with a job that shows it."""
    with closing(sqlite3.connect(f"{database.resolve().as_uri()}?mode=ro", uri=True)) as opened:
        return opened.execute("SELECT content, min(job_id) FROM photo GROUP BY content").fetchall()


def missing_pictures(folder: Path, *, is_quick: bool = False) -> list[str]:
    """Return a sentence for each picture that a row names and that is not there, or is not what it was."""
    found = []
    for content, job in pictures_of(folder / FILE_NAME):
        file = path_of(folder, content)
        if not file.is_file():
            found.append(f"Photo {content[:12]} of job {job} is missing: take it from a backup.")
        elif not is_quick and hashlib.sha256(file.read_bytes()).hexdigest() != content:
            found.append(f"Photo {content[:12]} of job {job} is damaged: take it from a backup.")
    return found
