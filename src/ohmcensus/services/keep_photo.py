"""Photos of a job: taken in, looked up, taken out."""

from __future__ import annotations

from pathlib import Path
from typing import Annotated
from uuid import UUID

from pydantic import BaseModel, StringConstraints

from ohmcensus.core.errors import NotFoundError
from ohmcensus.services.at_hand import refuse_ended, take
from ohmcensus.services.context import Context
from ohmcensus.storage import jobs, photos
from ohmcensus.storage.tables import PhotoRow

Role = Annotated[str, StringConstraints(pattern=r"^(plate|found)$")]


class PhotoView(BaseModel):
    """A photo: where it is served, and its size in pixels."""

    id: str
    role: str
    address: str
    small: str
    width: int
    height: int
    at: str


def photo_view(row: PhotoRow) -> PhotoView:
    """Return the view of a stored photo."""
    return PhotoView(
        id=row.id,
        role=row.role,
        address=f"/api/photos/{row.content}.jpg",
        small=f"/api/photos/{row.content}-small.jpg",
        width=row.width,
        height=row.height,
        at=row.at,
    )


def keep_photo(context: Context, job_id: str, photo_id: UUID, role: str, name: str, body: bytes) -> list[PhotoView]:
    """Keep a photo of a job and return all of them.

    Parameters
    ----------
    context, job_id
        Where.
    photo_id
        UUID made by the writer: sent twice it is stored once.
    role
        What it shows: "plate" or "found".
    name, body
        Name of the file, for messages, and its content in any usual picture format.

    Raises
    ------
    InputError
        If the content is no picture that can be read; nothing is stored.
    """
    from ohmcensus.exchange.photo import prepared  # noqa: PLC0415 - nothing else needs the picture library

    picture = prepared(body, name)
    with context.store.write() as session:
        job = take(context, session, job_id)
        refuse_ended(job)
        if not photos.exists(session, str(photo_id)):
            content = photos.keep_picture(context.store.folder, picture.jpeg, picture.small)
            stored = jobs.advance(session, job.stored, job.stored.revision, context.now())
            photos.append(
                session,
                PhotoRow(
                    id=str(photo_id),
                    job_id=job_id,
                    revision=stored.revision,
                    role=role,
                    content=content,
                    width=picture.width,
                    height=picture.height,
                    at=stored.changed_at,
                    who=job.settings.technician,
                ),
            )
            session.flush()
        return [photo_view(row) for row in photos.of_job(session, job_id)]


def remove_photo(context: Context, job_id: str, photo_id: str) -> list[PhotoView]:
    """Take a photo out of a job; its content stays in the data directory.

    Raises
    ------
    NotFoundError
        If the job has no such photo.
    """
    with context.store.write() as session:
        job = take(context, session, job_id)
        row = photos.get(session, photo_id)
        if row is None or row.job_id != job_id:
            raise NotFoundError(what="no such photo on this job", remedy="look at the job again", field="photo")
        row.is_removed = True
        jobs.advance(session, job.stored, job.stored.revision, context.now())
        session.flush()
        return [photo_view(kept) for kept in photos.of_job(session, job_id)]


def find_picture(context: Context, name: str) -> Path:
    """Return the file of a picture by the name it is served under.

    Raises
    ------
    NotFoundError
        If there is none.
    """
    content, small = name.removesuffix(".jpg"), False
    if content.endswith(photos.SMALL):
        content, small = content.removesuffix(photos.SMALL), True
    is_hash = len(content) == _HASH_SIGNS and set(content) <= set("0123456789abcdef")
    file = photos.path_of(context.store.folder, content, small=small)
    if not is_hash or not file.is_file():
        raise NotFoundError(what="no such picture", remedy="look at the job again", field="photo")
    return file


_HASH_SIGNS = 64
