"""The end of a job."""

from __future__ import annotations

from enum import StrEnum
from typing import Annotated, Literal

from pydantic import Field, StrictBool

from ohmcensus.core.event.record import Name, Record, RowId, Said
from ohmcensus.core.text.trimmed import Trimmed

# A signature is drawn on a field of so many steps, whatever the screen.
SIGNATURE_WIDE, SIGNATURE_HIGH = 1000, 300
_Along = Annotated[int, Field(ge=0, le=SIGNATURE_WIDE, strict=True)]
_Down = Annotated[int, Field(ge=0, le=SIGNATURE_HIGH, strict=True)]
_Stroke = Annotated[tuple[tuple[_Along, _Down], ...], Field(min_length=1, max_length=600)]


class Signature(Record):
    """What the customer signed with: a name in letters, and the strokes of a finger.

    Attributes
    ----------
    name
        Who signs.
    strokes
        Every stroke as points across and down a field of 1000 by 300 steps.
    """

    name: Annotated[str, Trimmed(80, 1)]
    strokes: Annotated[tuple[_Stroke, ...], Field(min_length=1, max_length=60)]


class LeftAs(StrEnum):
    """How a machine is left behind."""

    UNPLUGGED = "unplugged"
    LOCKED_OFF = "locked_off"
    CUSTOMER_REFUSED = "customer_refused"

    @property
    def words(self) -> str:
        """The same in words."""
        return {"unplugged": "unplugged", "locked_off": "locked off", "customer_refused": "the customer refused"}[
            self.value
        ]


class Ended(Record):
    """The job is over; a machine that is not safe is labelled so, and the customer told.

    Attributes
    ----------
    why
        How it ended.
    is_labelled_unsafe
        Whether the machine goes out with the unsafe label.
    left_as
        How the machine is left.
    not_tested
        Lines of the proof that were not shown, where the customer was told so: no label, and never the word safe.
    outlet_reported
        Whether the outlet has no earth, was reported, and the machine stays unplugged.
    signature
        The customer's, None where nobody signed.
    """

    kind: Literal["ended"] = "ended"
    why: Said
    is_labelled_unsafe: StrictBool = False
    left_as: LeftAs = LeftAs.UNPLUGGED
    not_tested: tuple[Name, ...] = Field(default=(), max_length=20)
    outlet_reported: StrictBool = False
    signature: Signature | None = None


class Reopened(Record):
    """The job goes on after all."""

    kind: Literal["reopened"] = "reopened"


# More pictures than these make a sheet of the customer's an album (ours).
MOST_ON_SHEET = 6


class PhotosChosen(Record):
    """Which photos of the job stand on its sheet; the newest record stands.

    Attributes
    ----------
    photos
        Their ids, in the order in which they stand.
    """

    kind: Literal["photos_chosen"] = "photos_chosen"
    photos: tuple[RowId, ...] = Field(max_length=MOST_ON_SHEET)
