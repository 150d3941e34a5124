"""What voids something that was read or shown: which record, when, in words."""

from __future__ import annotations

from collections.abc import Set
from dataclasses import dataclass

from ohmcensus.core.event import Changed
from ohmcensus.core.job.case import Case
from ohmcensus.core.job.record_words import record_words


@dataclass(frozen=True, slots=True)
class Voided:
    """The record that voids what stood before it.

    Parameters
    ----------
    words
        What was done.
    at
        When.
    """

    words: str
    at: str


def voided_by(case: Case, shown: float, since: float) -> Voided | None:
    """Return the record by which something counts no more; None where it was never shown, or counts.

    Parameters
    ----------
    case
        Sheet and everything observed.
    shown
        Order of the record that showed it; negative where none did.
    since
        Order of the record from which on it had to be shown.
    """
    if not 0 <= shown <= since:
        return None
    event = next((row for row in case.events if row.order == since), None)
    return Voided(record_words(case, event.body), event.at) if event is not None else None


def reading_voided(case: Case, parts: Set[str], order: float) -> Voided | None:
    """Return the change of one of the parts that move a reading by which it counts no more."""
    changes = [event.order for event in case.of(Changed) if event.body.part in parts]
    return voided_by(case, order, changes[-1]) if changes else None
