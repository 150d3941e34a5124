"""What many paths name."""

from __future__ import annotations

from pydantic import BaseModel


class JobPath(BaseModel):
    """Which job."""

    job_id: str


class SheetPath(BaseModel):
    """Which sheet."""

    sheet_id: str
