"""Editing machine sheets: drafts, meanings of codes, kinds of part."""

from __future__ import annotations

from flask import Response, request
from flask_openapi3 import APIBlueprint
from pydantic import BaseModel

from ohmcensus.services.sheet.edit_sheet import DraftRevision, SheetDraft, drop_draft, keep_draft, use_draft
from ohmcensus.services.sheet.keep_meanings import Meanings, import_meanings, keep_meanings
from ohmcensus.services.sheet.list_kinds import Kinds, list_kinds
from ohmcensus.services.sheet.view import SheetView
from ohmcensus.web.answers import answer, context
from ohmcensus.web.paths import SheetPath
from ohmcensus.web.problems import Problem

blueprint = APIBlueprint("sheet_edit", __name__, url_prefix="/api")


class SchemePath(BaseModel):
    """Which scheme of which sheet."""

    sheet_id: str
    scheme_id: str


@blueprint.get("/kinds", responses={200: Kinds}, summary="Kinds of part and their ratings")
def kinds() -> Response:
    """Return every kind of part that a sheet may hold."""
    return answer(list_kinds())


@blueprint.put("/sheets/<sheet_id>/draft", responses={200: SheetView, 409: Problem}, summary="Keep a draft")
def draft(path: SheetPath, body: SheetDraft) -> Response:
    """Keep what the editor holds, be it whole or not."""
    return answer(keep_draft(context(), path.sheet_id, body))


@blueprint.delete("/sheets/<sheet_id>/draft", responses={200: SheetView}, summary="Drop a draft")
def draft_dropped(path: SheetPath) -> Response:
    """Go back to the sheet as it is used."""
    return answer(drop_draft(context(), path.sheet_id))


@blueprint.post(
    "/sheets/<sheet_id>/draft/use", responses={200: SheetView, 409: Problem}, summary="Put a draft into use"
)
def draft_used(path: SheetPath, body: DraftRevision) -> Response:
    """Put a faultless draft in the place of its sheet."""
    return answer(use_draft(context(), path.sheet_id, body))


@blueprint.put("/sheets/<sheet_id>/meanings/<scheme_id>", responses={200: Meanings}, summary="What codes mean")
def meanings(path: SchemePath, body: Meanings) -> Response:
    """Keep the table of a scheme."""
    return answer(keep_meanings(context(), path.sheet_id, path.scheme_id, body))


@blueprint.post("/sheets/<sheet_id>/meanings/<scheme_id>/import", responses={200: Meanings}, summary="Import meanings")
def meanings_import(path: SchemePath) -> Response:
    """Keep a table that is sent as a CSV file, its bytes being the body."""
    return answer(import_meanings(context(), path.sheet_id, path.scheme_id, request.get_data()))
