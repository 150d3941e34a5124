"""A piece on the shelf."""

from __future__ import annotations

from enum import StrEnum

from pydantic import BaseModel, ConfigDict, Field, StrictBool

from ohmcensus.core.event.record import Name, RowId
from ohmcensus.core.meter import Meter
from ohmcensus.core.sheet.model import SheetId
from ohmcensus.core.text.trimmed import Caption, Words


class Origin(StrEnum):
    """Where a piece comes from."""

    NEW = "new"
    SALVAGED = "salvaged"


class Mark(StrEnum):
    """What is written on a piece, so that it is never mistaken for another of its kind."""

    ORIGINAL = "original"
    SPARE_1 = "spare_1"
    SPARE_2 = "spare_2"
    SPARE_3 = "spare_3"

    @property
    def words(self) -> str:
        """The mark as it is written."""
        return self.value.replace("_", " ")


class AcceptanceReading(BaseModel):
    """One reading of a piece in the hand, before it is fitted; the newest of a test counts.

    Attributes
    ----------
    test
        Test of the part by its name: "element".
    text, meter
        As typed; the instrument as it was.
    """

    model_config = ConfigDict(frozen=True, extra="forbid")

    id: RowId
    test: Name
    text: Words
    meter: Meter
    celsius: float = Field(ge=-40, le=120, allow_inf_nan=False)
    at: str
    who: str = ""


class Spare(BaseModel):
    """A piece on the shelf.

    Attributes
    ----------
    sheet, part
        Of which machine type and which part it is one.
    type_number, variant
        What it fits exactly; the form of its plug.
    origin, salvaged_from, tested
        New or salvaged; from which machine; how it was tested there.
    mark
        What is written on it.
    place
        Where it lies while it is fitted nowhere.
    is_scrapped
        Whether it is no longer kept.
    readings
        Acceptance readings, oldest first.
    """

    model_config = ConfigDict(frozen=True, extra="forbid")

    sheet: SheetId
    part: Name
    type_number: Caption = ""
    variant: Caption = ""
    origin: Origin = Origin.NEW
    salvaged_from: Caption = ""
    tested: Words = ""
    mark: Mark = Mark.SPARE_1
    place: Caption = ""
    words: Words = ""
    is_scrapped: StrictBool = False
    readings: tuple[AcceptanceReading, ...] = ()
