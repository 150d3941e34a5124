"""The tree of our errors: each says what happened, with values, and then what to do.

``OhmcensusError`` is the root. The web maps each branch by its type to one problem answer, the command
line prints ``str(error)`` in one line.
"""

from __future__ import annotations

from enum import StrEnum

from ohmcensus.core.acts import Act


class OhmcensusError(Exception):
    """Something a person can put right; reads as one sentence.

    Parameters
    ----------
    what
        What happened, with the value that was met.
    remedy
        What to do about it; may be empty where ``what`` already says it.
    field
        Name of the input that is at fault, empty where it is no single one.
    acts
        The ways on, the one thing to do first; none where the sentence says enough.
    """

    def __init__(self, *, what: str, remedy: str = "", field: str = "", acts: tuple[Act, ...] = ()) -> None:
        super().__init__(f"{what}: {remedy}" if remedy else what)
        self.what = what
        self.remedy = remedy
        self.field = field
        self.acts = acts


class InputError(OhmcensusError):
    """What was typed or sent cannot be taken as it stands."""


class ReadingTextError(InputError):
    """A reading cannot be understood."""


class UnknownNameError(InputError):
    """A name that is not on the sheet, or not in the store's lists."""


class SheetError(InputError):
    """A machine sheet has faults; the message names file, line and remedy of each."""


class SafetyRefusalError(OhmcensusError):
    """A rule of safety forbids this now; there is always a way on, and be it the unsafe label."""

    def __str__(self) -> str:
        """Return what was found, and in a sentence of its own what to do."""
        end = "" if self.what.endswith("?") else "."
        return f"{self.what}{end} {self.remedy[:1].upper()}{self.remedy[1:]}" if self.remedy else self.what


class NotFoundError(OhmcensusError):
    """The thing asked for does not exist."""


class StaleRevisionError(OhmcensusError):
    """The writer worked from an older state than the stored one.

    Parameters
    ----------
    stated
        Revision the writer had seen.
    current
        Revision that is stored.
    thing
        What was written.
    field
        Which field both wrote, where it is one.
    both
        What stands there and what was sent, in words.
    """

    def __init__(
        self, *, stated: int, current: int, thing: str = "job", field: str = "revision", both: str = ""
    ) -> None:
        super().__init__(
            what=both or f"this {thing} has moved on from revision {stated} to {current}",
            remedy="look at what changed, then save again",
            field=field,
        )
        self.stated = stated
        self.current = current


class Trouble(StrEnum):
    """What keeps the data from being read or written."""

    FULL = "full"
    BUSY = "busy"
    READ_ONLY = "read_only"
    DAMAGED = "damaged"


class StoreError(OhmcensusError):
    """The data cannot be read or written now.

    Parameters
    ----------
    what, remedy
        As ever.
    trouble
        Which trouble it is.
    """

    def __init__(self, *, what: str, remedy: str, trouble: Trouble) -> None:
        super().__init__(what=what, remedy=remedy, field="data")
        self.trouble = trouble
