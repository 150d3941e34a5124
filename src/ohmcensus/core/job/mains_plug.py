"""Which plug the machine hangs on: the circuit that was noted on the job says so, else its type."""

from __future__ import annotations

from ohmcensus.core.event import CircuitNoted
from ohmcensus.core.job.case import Case


def is_plug_turned_freely(case: Case) -> bool:
    """Tell whether the plug goes in either way round; nobody is asked to turn one that does not."""
    noted = case.last(CircuitNoted)
    if noted is not None and noted.body.plug is not None:
        return noted.body.plug == "reversible"
    return case.sheet.is_plug_reversible
