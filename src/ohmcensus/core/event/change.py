"""Changes to the machine: what was done to which part."""

from __future__ import annotations

from enum import StrEnum
from typing import ClassVar, Literal

from ohmcensus.core.event.record import Name, Record, RowId
from ohmcensus.core.text.trimmed import Words


class Intervention(StrEnum):
    """What is done to a part."""

    RESEATED = "reseated"
    CLEANED = "cleaned"
    ADJUSTED = "adjusted"
    MENDED = "mended"
    REPLACED = "replaced"

    @property
    def words(self) -> str:
        """The intervention in words."""
        return _INTERVENTION_WORDS[self]


# What the first word of a usual repair asks for; another piece for all others.
_BY_VERB = {"reseat": Intervention.RESEATED, "clear": Intervention.CLEANED, "mend": Intervention.MENDED}


def usual_intervention(repair: str) -> Intervention:
    """Return what the usual repair of a part is, by how it is told: "reseat the link", "replace the heater"."""
    return _BY_VERB.get(repair.partition(" ")[0], Intervention.REPLACED)


_INTERVENTION_WORDS = {
    Intervention.RESEATED: "plug or tag reseated",
    Intervention.CLEANED: "cleaned or dried",
    Intervention.ADJUSTED: "adjusted",
    Intervention.MENDED: "mended",
    Intervention.REPLACED: "another one fitted",
}


class Changed(Record):
    """A part is not as it was: what it leaked before says nothing of it now.

    Attributes
    ----------
    part, intervention
        Which, and what was done.
    fitted
        Which piece sits there now: original, spare 1; empty where the piece is the same.
    spare
        Id of that piece on the shelf, empty where it does not come from there.
    words
        What there is to say.
    saw_fail
        Whether whoever changed it had seen the machine fail, before the first change.
    """

    kind: Literal["changed"] = "changed"
    filled_in: ClassVar[tuple[str, ...]] = ("fitted",)
    part: Name
    intervention: Intervention
    fitted: Words = ""
    spare: RowId | Literal[""] = ""
    words: Words = ""
    saw_fail: bool = False
