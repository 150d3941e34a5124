"""Machine sheets, copies of one's own, and what their codes mean."""

from __future__ import annotations

from typing import Literal

from flask import Response, request
from flask_openapi3 import APIBlueprint
from pydantic import BaseModel

from ohmcensus.services.sheet.edit_sheet import (
    BlindSpots,
    DraftRevision,
    SheetDraft,
    SheetId,
    SheetView,
    drop_draft,
    export_sheet,
    import_sheet,
    keep_draft,
    show_blind_spots,
    show_sheet,
    use_draft,
)
from ohmcensus.services.sheet.keep_meanings import (
    Meanings,
    SheetCopy,
    SheetTitle,
    copy_sheet,
    import_meanings,
    keep_meanings,
    list_sheets,
)
from ohmcensus.services.sheet.list_kinds import Kinds, list_kinds
from ohmcensus.web.answers import answer, context
from ohmcensus.web.problems import Problem

blueprint = APIBlueprint(
    "sheets", __name__, url_prefix="/api/sheets", abp_responses={400: Problem, 404: Problem, 415: Problem, 422: Problem}
)


class SheetList(BaseModel):
    """All sheets."""

    sheets: list[SheetTitle]


class SheetPath(BaseModel):
    """Which sheet."""

    sheet_id: str


class FormPath(BaseModel):
    """Which sheet, in which form."""

    sheet_id: str
    form: Literal["yaml", "json"]


class SchemePath(BaseModel):
    """Which scheme of which sheet."""

    sheet_id: str
    scheme_id: str


@blueprint.get("", responses={200: SheetList}, summary="All machine sheets")
def sheets() -> Response:
    """Return all sheets, the built-in ones first."""
    return answer(SheetList(sheets=list_sheets(context())))


@blueprint.post("", responses={201: SheetTitle}, summary="Copy a sheet")
def new_sheet(body: SheetCopy) -> Response:
    """Copy a sheet under a title of one's own."""
    return answer(copy_sheet(context(), body), 201)


@blueprint.get("/new/kinds", responses={200: Kinds}, summary="Kinds of part and their ratings")
def kinds() -> Response:
    """Return every kind of part that a sheet may hold."""
    return answer(list_kinds())


@blueprint.post("/new/import", responses={201: SheetId}, summary="Take in a sheet")
def sheet_import() -> Response:
    """Take in a sheet that is sent as YAML or JSON, its bytes being the body."""
    return answer(import_sheet(context(), request.get_data()), 201)


@blueprint.get("/<sheet_id>", responses={200: SheetView}, summary="A sheet in its editor")
def sheet(path: SheetPath) -> Response:
    """Return a sheet, its draft where it has one, and what is wrong with it."""
    return answer(show_sheet(context(), path.sheet_id))


@blueprint.put("/<sheet_id>/draft", responses={200: SheetView, 409: Problem}, summary="Keep a draft")
def draft(path: SheetPath, body: SheetDraft) -> Response:
    """Keep what the editor holds, be it whole or not."""
    return answer(keep_draft(context(), path.sheet_id, body))


@blueprint.delete("/<sheet_id>/draft", responses={200: SheetView}, summary="Drop a draft")
def draft_dropped(path: SheetPath) -> Response:
    """Go back to the sheet as it is used."""
    return answer(drop_draft(context(), path.sheet_id))


@blueprint.post("/<sheet_id>/draft/use", responses={200: SheetView, 409: Problem}, summary="Put a draft into use")
def draft_used(path: SheetPath, body: DraftRevision) -> Response:
    """Put a faultless draft in the place of its sheet."""
    return answer(use_draft(context(), path.sheet_id, body))


@blueprint.get("/<sheet_id>/blind-spots", responses={200: BlindSpots}, summary="What the tests cannot see")
def blind_spots(path: SheetPath) -> Response:
    """Return faults that no listed test sees, and pairs that none tells apart."""
    return answer(show_blind_spots(context(), path.sheet_id))


@blueprint.get("/<sheet_id>/export.<form>", summary="A sheet as a file")
def sheet_export(path: FormPath) -> Response:
    """Return the sheet as it is used, as YAML or JSON."""
    text = export_sheet(context(), path.sheet_id, path.form)
    response = Response(text, mimetype="application/json" if path.form == "json" else "application/yaml")
    response.headers["Content-Disposition"] = f'attachment; filename="{path.sheet_id}.{path.form}"'
    return response


@blueprint.put("/<sheet_id>/meanings/<scheme_id>", responses={200: Meanings}, summary="What codes mean")
def meanings(path: SchemePath, body: Meanings) -> Response:
    """Keep the table of a scheme."""
    return answer(keep_meanings(context(), path.sheet_id, path.scheme_id, body))


@blueprint.post("/<sheet_id>/meanings/<scheme_id>/import", responses={200: Meanings}, summary="Import meanings")
def meanings_import(path: SchemePath) -> Response:
    """Keep a table that is sent as a CSV file, its bytes being the body."""
    return answer(import_meanings(context(), path.sheet_id, path.scheme_id, request.get_data()))
