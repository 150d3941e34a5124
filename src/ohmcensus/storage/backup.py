"""Everything in one file: the database and the photos in a zip, with a note of what it is."""

from __future__ import annotations

import json
import re
import sqlite3
import tempfile
import zipfile
import zlib
from contextlib import closing
from dataclasses import dataclass
from datetime import UTC, datetime
from pathlib import Path

from ohmcensus.core.errors import InputError
from ohmcensus.files.durable import fsync_file, fsync_folder
from ohmcensus.files.unpack import Limits, refuse_hostile, unpack
from ohmcensus.files.whole_file import written_whole
from ohmcensus.storage.check import damage_of, newest_known, pictures_of
from ohmcensus.storage.database import FILE_NAME
from ohmcensus.storage.photos import FOLDER, path_of

FORMAT = "ohmcensus-backup/1"
NOTE = "backup.json"
_PICTURE = re.compile(rf"{FOLDER}/[0-9a-f]{{2}}/[0-9a-f]{{64}}(-small)?\.jpg")
# A photo of 30 MB is refused when it is taken; a database of text packs about ten times.
LIMITS = Limits(most_bytes=32 * 2**30, most_files=1_000_000, most_picture=30_000_000, most_ratio=200)
MOST_NOTE = 10_000_000
_ANOTHER = "name a file that 'ohmcensus backup' wrote"


@dataclass(frozen=True, slots=True)
class Backup:
    """What was written: how many pictures, and the pictures that rows name but nobody has, by hash and job."""

    files: int
    lacking: tuple[tuple[str, str], ...]


def write_backup(folder: Path, file: Path, *, at: str) -> Backup:
    """Write a whole data directory; the database is copied as of one moment, whoever writes meanwhile.

    The database first, then the pictures that its rows name: what arrives later is not missed. The copy is checked
    before it takes the place of a former backup.

    Parameters
    ----------
    folder
        Data directory.
    file
        Zip to write; it appears whole or not at all.
    at
        Moment, ISO 8601, UTC.

    Raises
    ------
    InputError
        If there is no database, it is damaged, or the file cannot be written.
    """
    database = folder / FILE_NAME
    if not database.exists():
        raise InputError(what=f"no data in {folder}", remedy="name the data directory with --data", field="data")
    with written_whole(file) as beside:
        copied = beside / FILE_NAME
        _copy(database, copied)
        damage = damage_of(copied)
        if damage:
            what = f"the database in {folder} is damaged ({damage}): no backup was written, the former one is kept"
            raise InputError(what=what, remedy="run 'ohmcensus check', then restore the last good backup", field="data")
        found, lacking = _sorted_out(folder, copied)
        whole = beside / "whole.zip"
        with zipfile.ZipFile(whole, "w", zipfile.ZIP_DEFLATED, compresslevel=4) as out:
            note = {"format": FORMAT, "at": at, "files": len(found), "lacking": [content for content, _ in lacking]}
            out.writestr(NOTE, json.dumps(note, indent=2))
            out.write(copied, FILE_NAME)
            for path in found:
                out.write(path, path.relative_to(folder).as_posix(), zipfile.ZIP_STORED)
        _refuse_unreadable(whole, file)
        fsync_file(whole)
        whole.replace(file)
        fsync_folder(file.resolve().parent)
    return Backup(len(found), tuple(lacking))


def read_backup(file: Path, folder: Path, *, aside: bool = False, at: datetime | None = None) -> int:
    """Bring a whole data directory back; nothing is written unless all of it can be, the database last.

    Parameters
    ----------
    file
        What ``write_backup`` wrote.
    folder
        Where to.
    aside
        Whether data that are there are set aside first; they are refused otherwise.
    at
        Moment that the directory set aside is named by, now where None.

    Returns
    -------
    int
        Number of files besides the database.

    Raises
    ------
    InputError
        If the folder holds data, the file is no backup, was written by a newer version, or is damaged, or there is no
        room for it.
    """
    left = _data_in(folder)
    if left and not aside:
        what = f"{folder} holds data already ({', '.join(left)})"
        remedy = "restore into an empty directory with --data DIR, or set these aside with --aside"
        raise InputError(what=what, remedy=remedy, field="data")
    try:
        folder.parent.mkdir(parents=True, exist_ok=True)
        with tempfile.TemporaryDirectory(dir=folder.parent, prefix=f".{folder.name}-restore-") as beside:
            whole = Path(beside) / "whole"
            whole.mkdir(mode=0o700)
            with zipfile.ZipFile(file) as archive:
                count = _unpacked(archive, file, whole)
            if left:
                moment = at or datetime.now(UTC)
                folder.rename(folder.with_name(f"{folder.name}-aside-{moment:%Y%m%d-%H%M%S}"))
            _put_in_place(whole, folder)
    except (OSError, *BROKEN) as error:
        raise InputError(what=f"{file} cannot be read ({_short(error)})", remedy=_ANOTHER, field="file") from error
    damage = damage_of(folder / FILE_NAME)
    if damage:
        what = f"the data are in {folder}, and the disk gives them back damaged ({damage})"
        raise InputError(what=what, remedy="restore into a directory on another disk", field="data")
    return count


# What the zip library raises for an archive that is damaged, encrypted, or packed in a way it does not know.
BROKEN = (
    zipfile.BadZipFile,
    zipfile.LargeZipFile,
    zlib.error,
    RuntimeError,
    NotImplementedError,
    EOFError,
    ValueError,
)


def _unpacked(archive: zipfile.ZipFile, file: Path, whole: Path) -> int:
    """Unpack a backup beside its place and hold it against what a backup is."""
    _refuse_foreign(archive, file)
    refuse_hostile(archive, file.name, LIMITS, whole)
    unpack(archive, whole, LIMITS)
    database = whole / FILE_NAME
    damage = damage_of(database)
    if damage:
        raise InputError(
            what=f"the data in {file} are damaged ({damage})", remedy="take another copy of it", field="file"
        )
    newest_known(database, file)
    (whole / NOTE).unlink()
    return len(archive.namelist()) - 2


def _put_in_place(whole: Path, folder: Path) -> None:
    """Move what was unpacked into its place, all at once where nothing is there; else the database last."""
    if not folder.exists() or not any(folder.iterdir()):
        whole.replace(folder)
    else:
        for name in sorted(path.name for path in whole.iterdir() if path.name != FILE_NAME):
            (whole / name).replace(folder / name)
        fsync_folder(folder)
        (whole / FILE_NAME).replace(folder / FILE_NAME)
        fsync_folder(folder)
    fsync_folder(folder.parent)


def _data_in(folder: Path) -> list[str]:
    """Return what lies in a folder that a database there would be read with."""
    names = (FILE_NAME, f"{FILE_NAME}-wal", f"{FILE_NAME}-shm", f"{FILE_NAME}-journal", FOLDER)
    return [name for name in names if (folder / name).exists()]


def _sorted_out(folder: Path, database: Path) -> tuple[list[Path], list[tuple[str, str]]]:
    """Return the pictures that the rows name, and those that are not there."""
    found, lacking = [], []
    for content, job in pictures_of(database):
        here = [path for path in (path_of(folder, content), path_of(folder, content, small=True)) if path.is_file()]
        found += here
        if not path_of(folder, content).is_file():
            lacking.append((content, job))
    return found, lacking


def _copy(source: Path, target: Path) -> None:
    """Copy a database as of one moment."""
    try:
        with closing(sqlite3.connect(source)) as here, closing(sqlite3.connect(target)) as there:
            here.backup(there)
    except sqlite3.DatabaseError as error:
        what = f"{source} cannot be copied ({error})"
        raise InputError(what=what, remedy="run 'ohmcensus check'", field="data") from error


def _refuse_unreadable(whole: Path, file: Path) -> None:
    with zipfile.ZipFile(whole) as archive:
        damaged = archive.testzip()
    if damaged is not None:
        what = f"{file} was written damaged at {damaged}"
        raise InputError(what=what, remedy="choose another place: this disk may be failing", field="file")


def _refuse_foreign(archive: zipfile.ZipFile, file: Path) -> None:
    names = archive.namelist()
    stated = ""
    if NOTE in names and FILE_NAME in names and archive.getinfo(NOTE).file_size < MOST_NOTE:
        try:
            stated = str(json.loads(archive.read(NOTE)).get("format", ""))
        except (ValueError, AttributeError, RecursionError):
            stated = ""
    if stated.rpartition("/")[0] != FORMAT.rpartition("/")[0]:
        raise InputError(what=f"{file} is not a backup of Ohmcensus", remedy=_ANOTHER, field="file")
    if stated != FORMAT:
        what = f"{file} is of a newer kind ({stated}, this one knows {FORMAT})"
        raise InputError(what=what, remedy="update Ohmcensus", field="file")
    strange = [name for name in names if name not in {NOTE, FILE_NAME} and not _PICTURE.fullmatch(name)]
    if strange:
        what = f"{file} holds what no backup does ({', '.join(name[:60] for name in strange[:3])})"
        raise InputError(what=what, remedy=_ANOTHER, field="file")


def _short(error: BaseException) -> str:
    """Return what an error says, without paths of ours."""
    return (getattr(error, "strerror", None) or str(error) or type(error).__name__)[:120]
