"""In which machine a piece sits now: it follows from the changes that were noted, so that nobody says it twice."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from dataclasses import dataclass


@dataclass(frozen=True, slots=True)
class Fitting:
    """One part of one machine had another piece fitted.

    Parameters
    ----------
    job, machine, machine_title
        On which job; the machine's id and name.
    part
        Part of the sheet.
    spare
        The piece, empty where it did not come from the shelf.
    at
        Moment, ISO 8601, UTC.
    """

    job: str
    machine: str
    machine_title: str
    part: str
    spare: str
    at: str


@dataclass(frozen=True, slots=True)
class Whereabouts:
    """Where a piece was fitted last, and whether it sits there still."""

    fitting: Fitting
    is_in: bool


def whereabouts(fittings: Iterable[Fitting]) -> Mapping[str, Whereabouts]:
    """Return where each piece is, by its id; a piece that was never fitted lies on the shelf and is not named.

    Parameters
    ----------
    fittings
        Every fitting, oldest first.
    """
    found: dict[str, Whereabouts] = {}
    sits: dict[tuple[str, str], str] = {}
    for row in fittings:
        place = row.machine, row.part
        former = sits.get(place, "")
        if former and former != row.spare:
            found[former] = Whereabouts(found[former].fitting, is_in=False)
        sits[place] = row.spare
        if row.spare:
            for other in [where for where, piece in sits.items() if piece == row.spare and where != place]:
                del sits[other]
            found[row.spare] = Whereabouts(row, is_in=True)
    return found
