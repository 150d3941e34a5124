"""What was dangerous on a job, as it stands on its sheet: every danger with how it ended, every override."""

from __future__ import annotations

from collections.abc import Iterator

from ohmcensus.core.event import FoundPowered
from ohmcensus.core.job.case import Case
from ohmcensus.core.safety import Safety
from ohmcensus.core.safety.danger import Found
from ohmcensus.core.safety.words import DangerId


def danger_rows(case: Case, safety: Safety) -> tuple[str, ...]:
    """Return the dangers and the overrides of a job, a sentence each."""
    return tuple(dict.fromkeys(_rows(case, safety)))


def open_rows(safety: Safety) -> tuple[str, ...]:
    """Return the dangers that stand, a sentence each."""
    return tuple(dict.fromkeys(f"{_said(found)}." for found in safety.walk.found))


def altered_rows(safety: Safety) -> tuple[str, ...]:
    """Return what was found altered on a job, whether it stands or was put right, in few words each."""
    walk = safety.walk
    found = (*walk.found, *(row.found for row in walk.lifted))
    closed = {row for row, _ in walk.closed}
    altered = (row for row in found if row.id is DangerId.BYPASS and row not in closed)
    return tuple(dict.fromkeys(row.words or row.id.words for row in altered))


def _rows(case: Case, safety: Safety) -> Iterator[str]:
    walk = safety.walk
    for found in walk.found:
        yield f"{_said(found)}: {'comes and goes' if found.is_intermittent else 'stands'}."
    for lifted in walk.lifted:
        yield f"{_said(lifted.found)}: lifted by later readings."
    for found, why in walk.closed:
        yield f"{_said(found)}: noted in error, because {why}."
    for shout in walk.shouts:
        yield f"Voltage found: {shout.words}."
    for reading in case.standing:
        if reading.override:
            yield f"Read although not proved dead, because {reading.override}: {reading.text}. It proves nothing."
    for event in case.events:
        if isinstance(event.body, FoundPowered):
            yield f"Stood under voltage although that was refused{f': {event.body.words}' if event.body.words else ''}."


def _said(found: Found) -> str:
    words = found.title
    return f"{words[:1].upper()}{words[1:]}{f': {found.words}' if found.words else ''}"
