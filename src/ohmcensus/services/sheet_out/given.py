"""What the store adds to a job for its sheet: parts that it wants, the photos that were chosen, the firm's mark."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from sqlmodel import Session

from ohmcensus.core.event import PhotosChosen
from ohmcensus.core.job.case import Case
from ohmcensus.core.shelf import WantedPart
from ohmcensus.exchange.report import ReportPhoto
from ohmcensus.services.at_hand.settings import mark_in
from ohmcensus.services.at_hand.wanted import wanted_of
from ohmcensus.storage import photos
from ohmcensus.storage.tables import PhotoRow

ROLES = {"plate": "The plate", "found": "As it was found", "step": "While it came apart", "connector": "A plug"}


@dataclass(frozen=True, slots=True)
class Given:
    """Parts that a job wants, photos that were chosen for its sheet, the firm's mark as JPEG in base64."""

    wanted: Sequence[WantedPart] = ()
    photos: tuple[ReportPhoto, ...] = ()
    mark: str = ""


NOTHING_GIVEN = Given()


def given_in(session: Session, job_id: str, case: Case) -> Given:
    """Return what the store adds to a job."""
    kept = {row.id: row for row in photos.of_job(session, job_id)}
    chosen = [kept[photo] for photo in chosen_photos(case) if photo in kept]
    return Given(wanted_of(session, job_id), tuple(_photo(row, case) for row in chosen), mark_in(session))


def chosen_photos(case: Case) -> tuple[str, ...]:
    """Return the photos that were chosen for the sheet, by id."""
    last = case.last(PhotosChosen)
    return last.body.photos if last else ()


def _photo(row: PhotoRow, case: Case) -> ReportPhoto:
    shown = next((event for event in case.events if event.id == row.event_id), None)
    words = getattr(shown.body, "words", "") if shown else ""
    return ReportPhoto(row.content, row.width, row.height, words or ROLES.get(row.role, ""))
