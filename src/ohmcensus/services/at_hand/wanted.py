"""Parts that a job wants, as they are stored."""

from __future__ import annotations

from sqlmodel import Session

from ohmcensus.core.shelf import WantedPart
from ohmcensus.storage import shelf


def wanted_of(session: Session, job_id: str) -> list[WantedPart]:
    """Return what a job wants, for its sheet."""
    return [wanted for _, wanted in shelf.wanted_parts(session, job_id).values()]
