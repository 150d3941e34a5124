"""Proof after repair: what was measured or seen, and by which method."""

from __future__ import annotations

from enum import StrEnum
from typing import ClassVar, Literal

from pydantic import StrictBool

from ohmcensus.core.event.record import Name, Record, Said
from ohmcensus.core.event.safety import When
from ohmcensus.core.meter import Meter
from ohmcensus.core.text.trimmed import Words


class Way(StrEnum):
    """How a current to earth is measured."""

    DIRECT = "direct"
    DIFFERENTIAL = "differential"
    ALTERNATIVE = "alternative"

    @property
    def words(self) -> str:
        """The method, and when it may be used."""
        return _WAY_WORDS[self]


_WAY_WORDS = {
    Way.DIRECT: "direct: machine standing insulated, no metal hoses",
    Way.DIFFERENTIAL: "differential: water connected",
    Way.ALTERNATIVE: "alternative: dead, after insulation passed, not behind relays",
}


class ProofMade(Record):
    """One criterion was measured or looked at.

    Attributes
    ----------
    criterion
        Which.
    text
        The reading as typed, empty where it is seen and not measured.
    is_good
        What was seen; None where it is measured.
    way
        Method of a current.
    instrument
        Tester as it was; filled in when it is stored.
    serial, calibrated
        The tester's number, and the date of its calibration.
    words
        What there is to say.
    """

    kind: Literal["proof_made"] = "proof_made"
    filled_in: ClassVar[tuple[str, ...]] = ("instrument",)
    criterion: Name
    text: Words = ""
    is_good: StrictBool | None = None
    way: Way | None = None
    instrument: Meter | None = None
    was: When | None = None
    serial: Words = ""
    calibrated: Words = ""
    words: Words = ""


class InsulationNotAllowed(Record):
    """Insulation may not be tested on this machine: why; the current with heat on becomes mandatory."""

    kind: Literal["insulation_not_allowed"] = "insulation_not_allowed"
    words: Said
