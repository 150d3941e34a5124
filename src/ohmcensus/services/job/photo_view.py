"""Photos as every room shows them."""

from __future__ import annotations

from pydantic import BaseModel

from ohmcensus.storage.tables import PhotoRow


class PhotoView(BaseModel):
    """A photo: what it shows, where it is served, and its size in pixels.

    Attributes
    ----------
    role, event
        What it is of; the record of the job that it shows, empty for none.
    """

    id: str
    role: str
    event: str
    address: str
    small: str
    width: int
    height: int
    at: str


def photo_view(row: PhotoRow) -> PhotoView:
    """Return the view of a stored photo."""
    return PhotoView(
        id=row.id,
        role=row.role,
        event=row.event_id,
        address=f"/api/photos/{row.content}.jpg",
        small=f"/api/photos/{row.content}-small.jpg",
        width=row.width,
        height=row.height,
        at=row.at,
    )
