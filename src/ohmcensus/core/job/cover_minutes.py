"""What a cover takes to come off: the sheet's figure, drawn towards what was timed on jobs."""

from __future__ import annotations

from typing import NamedTuple

# So many jobs does the figure of a sheet count for, against those that were timed (our choice).
SHEET_COUNTS_AS = 2


class Timed(NamedTuple):
    """What a cover took on jobs: all their minutes together, and how many they were."""

    minutes: float = 0.0
    jobs: int = 0


def learned_minutes(stated: float, timed: Timed) -> float:
    """Return the minutes that a cover takes.

    Parameters
    ----------
    stated
        The sheet's figure in minutes.
    timed
        Minutes on jobs.

    Notes
    -----
    (2 s + sum of t) / (2 + n): the sheet counts as two jobs (our choice).
    """
    return (SHEET_COUNTS_AS * stated + timed.minutes) / (SHEET_COUNTS_AS + timed.jobs)
