"""Photos of jobs."""

from __future__ import annotations

from typing import Annotated
from uuid import UUID

from flask import Response, send_file
from flask_openapi3 import APIBlueprint, FileStorage
from pydantic import BaseModel, ConfigDict, StringConstraints

from ohmcensus.services.job.photo_view import PhotoView
from ohmcensus.services.photo.keep_photo import NewPhoto, Role, find_picture, keep_photo, remove_photo
from ohmcensus.web.answers import answer, context, made
from ohmcensus.web.downloads import describes
from ohmcensus.web.problems import Problem

blueprint = APIBlueprint("photos", __name__, url_prefix="/api")
_KEPT_FOREVER = 365 * 24 * 3600


class JobPath(BaseModel):
    """Which job."""

    job_id: str


class PhotoPath(JobPath):
    """Which photo of which job."""

    photo_id: str


class PictureName(BaseModel):
    """Name under which a picture is served."""

    name: Annotated[str, StringConstraints(pattern=r"^[0-9a-f]{64}(-small)?[.]jpg$")]


class PhotoForm(BaseModel):
    """A photo as it is sent: its id, what it shows, the step that it is of, and the file."""

    model_config = ConfigDict(arbitrary_types_allowed=True, extra="forbid")

    id: UUID
    role: Role
    event: Annotated[str, StringConstraints(max_length=60)] = ""
    file: FileStorage


class PhotoList(BaseModel):
    """All photos of a job."""

    photos: list[PhotoView]


@blueprint.post(
    "/jobs/<job_id>/photos",
    responses={200: PhotoList, 201: PhotoList, 413: Problem, 409: Problem},
    summary="Keep a photo of a job",
)
def new_photo(path: JobPath, form: PhotoForm) -> Response:
    """Keep a photo: turned upright, shrunk, stripped of position data."""
    new = NewPhoto(form.id, form.role, form.file.filename or "", form.file.read(), form.event)
    found = keep_photo(context(), path.job_id, new)
    return made(PhotoList(photos=found))


@blueprint.delete("/jobs/<job_id>/photos/<photo_id>", responses={200: PhotoList}, summary="Take a photo out")
def old_photo(path: PhotoPath) -> Response:
    """Take a photo out of a job."""
    return answer(PhotoList(photos=remove_photo(context(), path.job_id, path.photo_id)))


@blueprint.get("/photos/<name>", responses=describes("image/jpeg"), summary="A picture")
def picture(path: PictureName) -> Response:
    """Return a picture; its name is the hash of its content, so that it never changes."""
    return send_file(find_picture(context(), path.name), mimetype="image/jpeg", max_age=_KEPT_FOREVER)
