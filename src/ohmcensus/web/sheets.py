"""Machine sheets."""

from __future__ import annotations

from flask import Response
from flask_openapi3 import APIBlueprint
from pydantic import BaseModel

from ohmcensus.services.find_sheet import all_sheets
from ohmcensus.web.answers import answer

blueprint = APIBlueprint("sheets", __name__, url_prefix="/api/sheets")


class SheetTitle(BaseModel):
    """A sheet in the list."""

    id: str
    title: str
    supply: str
    watts: float


class SheetList(BaseModel):
    """All built-in sheets."""

    sheets: list[SheetTitle]


@blueprint.get("", responses={200: SheetList}, summary="All machine sheets")
def sheets() -> Response:
    """Return all built-in sheets."""
    found = [SheetTitle(id=s.id, title=s.title, supply=s.supply, watts=s.watts) for s in all_sheets().values()]
    return answer(SheetList(sheets=found))
