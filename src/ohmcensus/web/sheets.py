"""Machine sheets, copies of one's own, and what their codes mean."""

from __future__ import annotations

from typing import Literal

from flask import Response, request
from flask_openapi3 import APIBlueprint
from pydantic import BaseModel

from ohmcensus.services.sheet.copy_sheet import SheetCopy, copy_sheet
from ohmcensus.services.sheet.edit_sheet import show_sheet
from ohmcensus.services.sheet.import_sheet import SheetId, export_sheet, import_sheet
from ohmcensus.services.sheet.list_sheets import SheetTitle, list_sheets
from ohmcensus.services.sheet.show_blind_spots import BlindSpots, show_blind_spots
from ohmcensus.services.sheet.view import SheetView
from ohmcensus.web.answers import answer, context
from ohmcensus.web.downloads import describes, download
from ohmcensus.web.paths import SheetPath

blueprint = APIBlueprint("sheets", __name__, url_prefix="/api")


class SheetList(BaseModel):
    """All sheets."""

    sheets: list[SheetTitle]


class FormPath(BaseModel):
    """Which sheet, in which form."""

    sheet_id: str
    form: Literal["yaml", "json"]


@blueprint.get("/sheets", responses={200: SheetList}, summary="All machine sheets")
def sheets() -> Response:
    """Return all sheets, the built-in ones first."""
    return answer(SheetList(sheets=list_sheets(context())))


@blueprint.post("/sheets", responses={201: SheetTitle}, summary="Copy a sheet")
def new_sheet(body: SheetCopy) -> Response:
    """Copy a sheet under a title of one's own."""
    return answer(copy_sheet(context(), body), 201)


@blueprint.post("/sheet-imports", responses={201: SheetId}, summary="Take in a sheet")
def sheet_import() -> Response:
    """Take in a sheet that is sent as YAML or JSON, its bytes being the body."""
    return answer(import_sheet(context(), request.get_data()), 201)


@blueprint.get("/sheets/<sheet_id>", responses={200: SheetView}, summary="A sheet in its editor")
def sheet(path: SheetPath) -> Response:
    """Return a sheet, its draft where it has one, and what is wrong with it."""
    return answer(show_sheet(context(), path.sheet_id))


@blueprint.get("/sheets/<sheet_id>/blind-spots", responses={200: BlindSpots}, summary="What the tests cannot see")
def blind_spots(path: SheetPath) -> Response:
    """Return faults that no listed test sees, and pairs that none tells apart."""
    return answer(show_blind_spots(context(), path.sheet_id))


@blueprint.get(
    "/sheets/<sheet_id>/export.<form>",
    responses=describes("application/yaml", "application/json"),
    summary="A sheet as a file",
)
def sheet_export(path: FormPath) -> Response:
    """Return the sheet as it is used, as YAML or JSON."""
    text = export_sheet(context(), path.sheet_id, path.form)
    kind = "application/json" if path.form == "json" else "application/yaml"
    return download(text, f"{path.sheet_id}.{path.form}", kind)
