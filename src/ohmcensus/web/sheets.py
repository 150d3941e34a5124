"""Machine sheets, copies of one's own, and what their codes mean."""

from __future__ import annotations

from flask import Response, request
from flask_openapi3 import APIBlueprint
from pydantic import BaseModel

from ohmcensus.services.keep_meanings import (
    Meanings,
    SheetCopy,
    SheetTitle,
    copy_sheet,
    import_meanings,
    keep_meanings,
    list_sheets,
)
from ohmcensus.web.answers import answer, context
from ohmcensus.web.problems import Problem

blueprint = APIBlueprint(
    "sheets", __name__, url_prefix="/api/sheets", abp_responses={400: Problem, 404: Problem, 415: Problem, 422: Problem}
)


class SheetList(BaseModel):
    """All sheets."""

    sheets: list[SheetTitle]


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


@blueprint.put("/<sheet_id>/meanings/<scheme_id>", responses={200: Meanings}, summary="What codes mean")
def meanings(path: SchemePath, body: Meanings) -> Response:
    """Keep the table of a scheme."""
    return answer(keep_meanings(context(), path.sheet_id, path.scheme_id, body))


@blueprint.post("/<sheet_id>/meanings/<scheme_id>/import", responses={200: Meanings}, summary="Import meanings")
def meanings_import(path: SchemePath) -> Response:
    """Keep a table that is sent as a CSV file, its bytes being the body."""
    return answer(import_meanings(context(), path.sheet_id, path.scheme_id, request.get_data()))
