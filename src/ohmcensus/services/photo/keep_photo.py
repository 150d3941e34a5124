"""Photos of a job: taken in, looked up, taken out."""

from __future__ import annotations

from dataclasses import dataclass
from pathlib import Path
from typing import Annotated
from uuid import UUID

from pydantic import StringConstraints
from sqlmodel import Session

from ohmcensus.core.errors import InputError, NotFoundError
from ohmcensus.core.event import StripStep
from ohmcensus.core.job.connector import connectors
from ohmcensus.services.at_hand.context import Context
from ohmcensus.services.at_hand.job import JobAtHand, refuse_ended, take, used_id
from ohmcensus.services.job.photo_view import PhotoView, photo_view
from ohmcensus.storage import jobs, photos
from ohmcensus.storage.tables import PhotoRow

Role = Annotated[str, StringConstraints(pattern=r"^(plate|found|step|connector)$")]
# One job never needs more; a folder of a phone dropped by mistake has.
MOST_PHOTOS = 300


@dataclass(frozen=True, slots=True)
class NewPhoto:
    """A photo as it is sent.

    Parameters
    ----------
    id
        UUID made by the writer: sent twice it is stored once.
    role, event
        What it is of; the step that it shows, empty for every other.
    name, body
        Name of the file, for messages, and its content in any usual picture format.
    """

    id: UUID
    role: str
    name: str
    body: bytes
    event: str = ""


def keep_photo(context: Context, job_id: str, new: NewPhoto) -> list[PhotoView]:
    """Keep a photo of a job and return all of them; the same picture of the same thing is kept once.

    Raises
    ------
    InputError
        If the content is no picture that can be read, it shows a record that the job does not have, or the job
        has as many photos as it may; nothing is stored.
    """
    from ohmcensus.exchange.photo import prepared  # noqa: PLC0415 - nothing else needs the picture library

    with context.picturing:
        picture = prepared(new.body, new.name)
    with context.store.write() as session:
        job = take(context, session, job_id)
        refuse_ended(job)
        before = photos.get(session, str(new.id))
        if before is not None:
            content = photos.content_of(picture.jpeg)
            if (before.job_id, before.role, before.event_id, before.content) != (job_id, new.role, new.event, content):
                raise used_id(str(new.id), "photo")
        else:
            _refuse(job, new, len(photos.of_job(session, job_id)))
            row = PhotoRow(
                id=str(new.id),
                job_id=job_id,
                revision=job.stored.revision + 1,
                role=new.role,
                event_id=new.event,
                content=photos.keep_picture(context.store.folder, picture.jpeg, picture.small),
                width=picture.width,
                height=picture.height,
                at=context.now(),
                who=job.settings.technician,
            )
            if not photos.same(session, row):
                jobs.advance(session, job.stored, job.stored.revision, row.at)
                photos.append(session, row)
                session.flush()
        return [photo_view(row) for row in photos.of_job(session, job_id)]


def _refuse(job: JobAtHand, new: NewPhoto, kept: int) -> None:
    """Refuse a photo too many, and one of a step that was not noted."""
    if kept >= MOST_PHOTOS:
        what = f"{new.name[:60] or 'the photo'}: this job has {kept} photos already"
        raise InputError(what=what, remedy="take some out first", field="photo")
    steps = [event.id for event in job.case.of(StripStep)]
    if (new.role == "step") != bool(new.event) or (new.event and new.event not in steps):
        what = "this photo is of no step of the job"
        raise InputError(what=what, remedy="note the step first, then its photo", field="event")


def refuse_unknown_photo(session: Session, job_id: str, photo_id: str) -> None:
    """Refuse a photo that the job does not have.

    Raises
    ------
    NotFoundError
        With what to do.
    """
    row = photos.get(session, photo_id)
    if row is None or row.job_id != job_id or row.is_removed:
        raise NotFoundError(what="no such photo on this job", remedy="take the photo first", field="photo")


def remove_photo(context: Context, job_id: str, photo_id: str) -> list[PhotoView]:
    """Take a photo out of a job; its picture goes after a month, unless something signed shows it.

    Raises
    ------
    NotFoundError
        If the job has no such photo.
    InputError
        If pins of a connector are marked on it.
    """
    with context.store.write() as session:
        job = take(context, session, job_id)
        row = photos.get(session, photo_id)
        if row is None or row.job_id != job_id:
            raise NotFoundError(what="no such photo on this job", remedy="look at the job again", field="photo")
        if any(found.noted.photo == photo_id for found in connectors(job.case)):
            what = "a connector is marked on this photo"
            raise InputError(what=what, remedy="take the connector back first", field="photo")
        row.is_removed, row.removed_at = True, context.now()
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
