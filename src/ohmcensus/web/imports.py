"""Files of jobs that come in."""

from __future__ import annotations

import shutil
import tempfile
from pathlib import Path

from flask import Response, request
from flask_openapi3 import APIBlueprint
from pydantic import BaseModel, Field

from ohmcensus.services.transfer.import_beside import ImportView, show_import, stop_import, take_in
from ohmcensus.web.answers import answer, context
from ohmcensus.web.problems import Problem

blueprint = APIBlueprint("imports", __name__, url_prefix="/api/imports")


class FileQuery(BaseModel):
    """The name of a file that is sent; its ending tells the format."""

    name: str = Field(min_length=1, max_length=200)


class ImportPath(BaseModel):
    """Which import."""

    import_id: str


@blueprint.post("", responses={201: ImportView, 202: ImportView, 413: Problem}, summary="Bring in the jobs of a file")
def new_import(query: FileQuery) -> Response:
    """Bring in the jobs of the body, as they were exported: .json or .zip; many of them beside the answers."""
    with tempfile.TemporaryDirectory(dir=context().store.folder, prefix=".import-") as folder:
        file = Path(folder) / "import"
        with file.open("wb") as out:
            shutil.copyfileobj(request.stream, out)
        view = take_in(context(), file, query.name)
    return answer(view, 201 if view.is_over else 202)


@blueprint.get("/<import_id>", responses={200: ImportView}, summary="How far an import is")
def one_import(path: ImportPath) -> Response:
    """Return how far an import is, and what came of it."""
    return answer(show_import(context(), path.import_id))


@blueprint.delete("/<import_id>", responses={200: ImportView}, summary="Stop an import")
def no_import(path: ImportPath) -> Response:
    """Stop an import: nothing of it stays."""
    return answer(stop_import(context(), path.import_id))
