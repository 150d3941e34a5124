"""Unpacking a zip that somebody sent: its sizes, names and kinds are looked at before a byte is written."""

from __future__ import annotations

import shutil
import stat
import zipfile
from dataclasses import dataclass
from pathlib import Path

from ohmcensus.core.errors import InputError
from ohmcensus.files.durable import fsync_file, fsync_folder

_SMALL = 1_000_000
_CHUNK = 1 << 20
_KNOWN_METHODS = (zipfile.ZIP_STORED, zipfile.ZIP_DEFLATED)
_ANOTHER = "take another copy of it"


@dataclass(frozen=True, slots=True)
class Limits:
    """What a zip may hold.

    Parameters
    ----------
    most_bytes, most_files
        Unpacked, all together.
    most_picture
        Bytes of one picture.
    most_ratio
        How many times larger than packed.
    """

    most_bytes: int
    most_files: int
    most_picture: int
    most_ratio: int


def refuse_hostile(archive: zipfile.ZipFile, name: str, limits: Limits, place: Path | None = None) -> None:
    """Refuse a zip whose directory tells of what none of ours holds.

    Parameters
    ----------
    archive, name
        The zip and its name, for messages.
    limits
        What it may hold.
    place
        Where it is to be unpacked, None where it is read in place.

    Raises
    ------
    InputError
        With what is wrong.
    """
    rows = archive.infolist()
    total = sum(row.file_size for row in rows)
    why = ""
    if len(rows) > limits.most_files or total > limits.most_bytes:
        why = f"{len(rows)} files of {total / 1e6:.0f} MB together"
    elif len({row.filename for row in rows}) != len(rows):
        why = "a name twice"
    for row in rows:
        why = why or _strange(row, limits)
    if why:
        raise InputError(what=f"{name} holds what none of ours does: {why}", remedy=_ANOTHER, field="file")
    if place is not None and shutil.disk_usage(place).free < total * 1.05:
        free = shutil.disk_usage(place).free
        what = f"{name} needs {total / 1e6:.0f} MB, {free / 1e6:.0f} MB are free"
        raise InputError(what=what, remedy="make room, or choose another disk with --data", field="data")


def _strange(row: zipfile.ZipInfo, limits: Limits) -> str:
    said = row.filename[:60]
    if row.flag_bits & 1:
        return f"'{said}' is encrypted"
    if row.compress_type not in _KNOWN_METHODS:
        return f"'{said}' is packed in a way that is not read here"
    if stat.S_ISLNK(row.external_attr >> 16) or row.is_dir():
        return f"'{said}' is not a file"
    if row.filename.endswith(".jpg") and row.file_size > limits.most_picture:
        return f"'{said}' has {row.file_size / 1e6:.0f} MB"
    if row.file_size > _SMALL and row.file_size > limits.most_ratio * max(row.compress_size, 1):
        return f"'{said}' unpacks to more than {limits.most_ratio} times its size"
    return ""


def unpack(archive: zipfile.ZipFile, place: Path, limits: Limits) -> None:
    """Unpack a zip that was looked at; each file is flushed, and none grows beyond what was stated.

    Raises
    ------
    InputError
        If one does.
    """
    for row in archive.infolist():
        target = place / row.filename
        target.parent.mkdir(parents=True, exist_ok=True, mode=0o700)
        left = min(row.file_size, limits.most_bytes)
        with archive.open(row) as packed, target.open("xb") as out:
            while chunk := packed.read(_CHUNK):
                left -= len(chunk)
                if left < 0:
                    what = f"'{row.filename[:60]}' is larger than it states"
                    raise InputError(what=what, remedy=_ANOTHER, field="file")
                out.write(chunk)
        fsync_file(target)
    for folder in {place, *(path for path in place.rglob("*") if path.is_dir())}:
        fsync_folder(folder)
