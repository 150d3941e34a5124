"""Whether a machine carries a label out."""

from __future__ import annotations

from ohmcensus.core.job.case import Case
from ohmcensus.core.proof import proofs
from ohmcensus.core.safety import Safety


def is_labelled(case: Case, safety: Safety) -> bool:
    """Tell whether a machine gets a label: its job has ended, and it was proved or is labelled unsafe."""
    end = case.ended
    if end is None:
        return False
    if end.body.not_tested:
        return False
    return end.body.is_labelled_unsafe or all(
        row.is_good or (row.is_good is None and row.criterion.is_optional) for row in proofs(case, safety)
    )
