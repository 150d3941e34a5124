"""What a cover takes to come off: the sheet's figure, drawn towards what was timed on jobs."""

from __future__ import annotations

from collections.abc import Sequence

# So many jobs does the figure of a sheet count for, against those that were timed (our choice).
SHEET_COUNTS_AS = 2


def learned_minutes(stated: float, timed: Sequence[float]) -> float:
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
    return (SHEET_COUNTS_AS * stated + sum(timed)) / (SHEET_COUNTS_AS + len(timed))
