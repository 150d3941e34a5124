"""Photos: rows of a job, and the pictures under the hash of their content.

A picture is written beside its place, flushed, and only then moved there: a power cut leaves no half
picture under a name that a row knows.
"""

from __future__ import annotations

import hashlib
import os
import secrets
import time
from collections.abc import Collection
from pathlib import Path

from sqlmodel import Session, col, select

from ohmcensus.files.durable import fsync_folder
from ohmcensus.storage.tables import PhotoRow

FOLDER = "photos"
SMALL = "-small"
LEFT_AFTER_S = 3600


def keep_picture(folder: Path, picture: bytes, small: bytes) -> str:
    """Keep a JPEG and its thumbnail; return the hash of the picture. The same picture is kept once."""
    content = content_of(picture)
    for file, body in ((path_of(folder, content), picture), (path_of(folder, content, small=True), small)):
        if not file.exists():
            file.parent.mkdir(parents=True, exist_ok=True)
            _write(file, body)
    return content


def content_of(picture: bytes) -> str:
    """Return the hash under which a picture is kept."""
    return hashlib.sha256(picture).hexdigest()


def path_of(folder: Path, content: str, *, small: bool = False) -> Path:
    """Return where a picture lies."""
    return folder / FOLDER / content[:2] / f"{content}{SMALL if small else ''}.jpg"


def append(session: Session, row: PhotoRow) -> None:
    """Write the row of a photo."""
    session.add(row)


def of_job(session: Session, job_id: str) -> list[PhotoRow]:
    """Return the photos of a job that were not removed, oldest first."""
    wanted = select(PhotoRow).where(PhotoRow.job_id == job_id, col(PhotoRow.is_removed).is_(False))
    return list(session.exec(wanted.order_by(col(PhotoRow.revision))).all())


def of_records(session: Session, records: Collection[str]) -> dict[str, PhotoRow]:
    """Return the first photo of each of some records that has one and was not removed, by record."""
    if not records:
        return {}
    wanted = select(PhotoRow).where(col(PhotoRow.event_id).in_(records), col(PhotoRow.is_removed).is_(False))
    return {row.event_id: row for row in session.exec(wanted.order_by(col(PhotoRow.at).desc())).all()}


def same(session: Session, row: PhotoRow) -> bool:
    """Tell whether the job shows this picture for this already: the same photo taken in twice."""
    wanted = select(PhotoRow.id).where(
        PhotoRow.job_id == row.job_id,
        PhotoRow.content == row.content,
        PhotoRow.role == row.role,
        PhotoRow.event_id == row.event_id,
        col(PhotoRow.is_removed).is_(False),
    )
    return session.exec(wanted).first() is not None


def get(session: Session, photo_id: str) -> PhotoRow | None:
    """Return the row of a photo, None where there is none."""
    return session.get(PhotoRow, photo_id)


def forget_picture(folder: Path, content: str) -> None:
    """Take a picture and its thumbnail away; no row may name it any more."""
    for small in (False, True):
        path_of(folder, content, small=small).unlink(missing_ok=True)


def sweep(folder: Path) -> None:
    """Take away what a power cut left half written an hour ago and more; no row knows of it."""
    for left in (folder / FOLDER).glob("*/*.part"):
        if time.time() - left.stat().st_mtime > LEFT_AFTER_S:
            left.unlink(missing_ok=True)


def _write(file: Path, body: bytes) -> None:
    """Write a file whole or not at all."""
    beside = file.with_suffix(f".{secrets.token_hex(8)}.part")
    with beside.open("wb") as out:
        out.write(body)
        out.flush()
        os.fsync(out.fileno())
    beside.replace(file)
    fsync_folder(file.parent)
