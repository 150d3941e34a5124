"""How long somebody worked on a job, from the moments at which things were written down."""

from __future__ import annotations

from datetime import datetime
from itertools import pairwise

from ohmcensus.core.job.case import Case

# One plug pulled, or put on again (ours).
PLUG_MINUTES = 0.5

# A longer silence is no work: somebody was away, or waited.
LONGEST_SILENCE_MINUTES = 30.0


def worked_minutes(case: Case) -> float:
    """Return the minutes between records, silences of more than half an hour left out."""
    written = sorted(
        [datetime.fromisoformat(row.at) for row in case.readings if row.at]
        + [datetime.fromisoformat(row.at) for row in case.events if row.at]
    )
    spans = [(later - earlier).total_seconds() / 60 for earlier, later in pairwise(written)]
    return sum(span for span in spans if span <= LONGEST_SILENCE_MINUTES)
