"""Everything in one file: the database and the photos in a zip, with a note of what it is."""

from __future__ import annotations

import json
import shutil
import sqlite3
import tempfile
import zipfile
from pathlib import Path

from ohmcensus.core.errors import InputError
from ohmcensus.storage.database import FILE_NAME
from ohmcensus.storage.photos import FOLDER

FORMAT = "ohmcensus-backup/1"
NOTE = "backup.json"
# A photo of 30 MB is refused when it is taken; nothing larger than this belongs into a backup.
MOST_BYTES = 8 * 2**30


def write_backup(folder: Path, file: Path, *, at: str) -> int:
    """Write a whole data directory; the database is copied as of one moment, whoever writes meanwhile.

    Parameters
    ----------
    folder
        Data directory.
    file
        Zip to write; it appears whole or not at all.
    at
        Moment, ISO 8601, UTC.

    Returns
    -------
    int
        Number of files besides the database.

    Raises
    ------
    InputError
        If there is no database, or the file cannot be written.
    """
    database = folder / FILE_NAME
    if not database.exists():
        raise InputError(what=f"no data in {folder}", remedy="name the data directory with --data", field="data")
    pictures = sorted(path for path in (folder / FOLDER).rglob("*") if path.is_file())
    try:
        with tempfile.TemporaryDirectory(dir=file.resolve().parent) as beside:
            whole, copied = Path(beside) / "whole.zip", Path(beside) / FILE_NAME
            _copy(database, copied)
            with zipfile.ZipFile(whole, "w", zipfile.ZIP_DEFLATED) as out:
                out.writestr(NOTE, json.dumps({"format": FORMAT, "at": at, "files": len(pictures)}, indent=2))
                out.write(copied, FILE_NAME)
                for path in pictures:
                    out.write(path, path.relative_to(folder).as_posix())
            whole.replace(file)
    except OSError as error:
        what = f"{file} cannot be written ({error.strerror})"
        raise InputError(what=what, remedy="choose another place", field="file") from error
    return len(pictures)


def read_backup(file: Path, folder: Path) -> int:
    """Bring a whole data directory back; nothing is written unless all of it can be.

    Parameters
    ----------
    file
        What ``write_backup`` wrote.
    folder
        Where to; it must hold no data yet.

    Returns
    -------
    int
        Number of files besides the database.

    Raises
    ------
    InputError
        If the folder holds data, the file is no backup, was written by a newer version, or is damaged.
    """
    if (folder / FILE_NAME).exists():
        what = f"{folder} holds data already"
        raise InputError(what=what, remedy="restore into an empty directory: --data DIR", field="data")
    try:
        with zipfile.ZipFile(file) as archive, tempfile.TemporaryDirectory() as beside:
            _refuse_foreign(archive, file)
            archive.extractall(beside)
            _refuse_damaged(Path(beside) / FILE_NAME, file)
            folder.mkdir(parents=True, exist_ok=True)
            if (Path(beside) / FOLDER).exists():
                shutil.copytree(Path(beside) / FOLDER, folder / FOLDER, dirs_exist_ok=True)
            shutil.copy2(Path(beside) / FILE_NAME, folder / FILE_NAME)
            return len(archive.namelist()) - 2
    except (OSError, zipfile.BadZipFile) as error:
        raise InputError(what=f"{file} cannot be read ({error})", remedy=_ANOTHER, field="file") from error


_ANOTHER = "name a file that 'ohmcensus backup' wrote"


def _copy(source: Path, target: Path) -> None:
    """Copy a database as of one moment."""
    with sqlite3.connect(source) as here, sqlite3.connect(target) as there:
        here.backup(there)
    there.close()
    here.close()


def _refuse_foreign(archive: zipfile.ZipFile, file: Path) -> None:
    names = archive.namelist()
    if NOTE not in names or FILE_NAME not in names:
        raise InputError(what=f"{file} is no backup of Ohmcensus", remedy=_ANOTHER, field="file")
    try:
        stated = str(json.loads(archive.read(NOTE)).get("format", ""))
    except (ValueError, AttributeError):
        stated = ""
    if stated.rpartition("/")[0] != FORMAT.rpartition("/")[0]:
        raise InputError(what=f"{file} is no backup of Ohmcensus", remedy=_ANOTHER, field="file")
    if stated != FORMAT:
        what = f"{file} is of a newer kind ({stated}, this one knows {FORMAT})"
        raise InputError(what=what, remedy="update Ohmcensus", field="file")
    own = (NOTE, FILE_NAME)
    strange = [name for name in names if name not in own and (not name.startswith(f"{FOLDER}/") or ".." in name)]
    if strange or sum(row.file_size for row in archive.infolist()) > MOST_BYTES:
        what = f"{file} holds what no backup does ({', '.join(strange[:3]) or 'too much'})"
        raise InputError(what=what, remedy=_ANOTHER, field="file")
    damaged = archive.testzip()
    if damaged is not None:
        raise InputError(what=f"{file} is damaged at {damaged}", remedy="take another copy of it", field="file")


def _refuse_damaged(database: Path, file: Path) -> None:
    connection = sqlite3.connect(database)
    try:
        is_whole = connection.execute("PRAGMA integrity_check").fetchone() == ("ok",)
    except sqlite3.DatabaseError:
        is_whole = False
    finally:
        connection.close()
    if not is_whole:
        raise InputError(what=f"the data in {file} are damaged", remedy="take another copy of it", field="file")
