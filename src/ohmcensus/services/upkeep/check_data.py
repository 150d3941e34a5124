"""Whether a data directory is whole: database, photos, last backup; asked on the command line."""

from __future__ import annotations

import sqlite3
import zipfile
from contextlib import closing
from dataclasses import dataclass
from pathlib import Path

from ohmcensus.core.errors import InputError
from ohmcensus.services.upkeep.look_after import newest_backup
from ohmcensus.storage.check import damage_of, missing_pictures, pictures_of
from ohmcensus.storage.database import FILE_NAME


@dataclass(frozen=True, slots=True)
class CheckFound:
    """What was found.

    Parameters
    ----------
    problems
        A sentence each; none where all is whole.
    photos
        How many pictures were looked at.
    backup
        The newest backup in the data directory, empty where there is none.
    """

    problems: tuple[str, ...]
    photos: int
    backup: str


def check_data(folder: Path, *, is_compact: bool = False) -> CheckFound:
    """Look at a data directory; only a wish to compact it changes anything.

    Raises
    ------
    InputError
        If there are no data.
    """
    database = folder / FILE_NAME
    if not database.exists():
        raise InputError(what=f"no data in {folder}", remedy="name the data directory with --data", field="data")
    problems = list[str]()
    damage = damage_of(database)
    if damage:
        remedy = "stop the server and run 'ohmcensus restore --aside' with the last good backup"
        problems.append(f"The database is damaged ({damage}): {remedy}.")
    else:
        problems += missing_pictures(folder)
    newest = newest_backup(folder)
    if newest is not None and not _is_whole(newest[0]):
        problems.append(f"The backup {newest[0].name} is damaged: run 'ohmcensus backup FILE'.")
    if is_compact and not damage:
        with closing(sqlite3.connect(database)) as opened:
            opened.execute("VACUUM")
    photos = 0 if damage else len(pictures_of(database))
    return CheckFound(tuple(problems), photos, newest[0].name if newest else "")


def _is_whole(file: Path) -> bool:
    try:
        with zipfile.ZipFile(file) as archive:
            return archive.testzip() is None
    except (OSError, zipfile.BadZipFile, ValueError, RuntimeError):
        return False
