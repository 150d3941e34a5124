"""The firm's mark."""

from __future__ import annotations

from flask import Response
from flask_openapi3 import APIBlueprint, FileStorage
from pydantic import BaseModel, ConfigDict

from ohmcensus.services.setup.change_settings import KeptSettings, show_settings
from ohmcensus.services.setup.keep_mark import keep_mark, remove_mark, show_mark
from ohmcensus.web.answers import answer, context
from ohmcensus.web.downloads import describes, download
from ohmcensus.web.problems import Problem

blueprint = APIBlueprint("firm", __name__, url_prefix="/api/firm")


class MarkForm(BaseModel):
    """The firm's mark as it is sent."""

    model_config = ConfigDict(arbitrary_types_allowed=True, extra="forbid")

    file: FileStorage


class MarkPath(BaseModel):
    """Which mark: what the settings call the one that stands."""

    name: str


@blueprint.get("/mark/<name>", responses=describes("image/jpeg"), summary="The firm's mark")
def mark(path: MarkPath) -> Response:
    """Return the picture at the head of what goes out."""
    return download(show_mark(context(), path.name), "mark.jpg", "image/jpeg", is_inline=True)


@blueprint.put("/mark", responses={200: KeptSettings, 413: Problem}, summary="Keep the firm's mark")
def new_mark(form: MarkForm) -> Response:
    """Keep a picture as the firm's mark: made small, everything but the picture left out."""
    keep_mark(context(), form.file.filename or "", form.file.read())
    return answer(show_settings(context()))


@blueprint.delete("/mark", responses={200: KeptSettings}, summary="Remove the firm's mark")
def no_mark() -> Response:
    """Take the firm's mark out."""
    remove_mark(context())
    return answer(show_settings(context()))
