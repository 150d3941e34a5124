"""What keeps a machine from going out as safe."""

from __future__ import annotations

from collections.abc import Iterator

from ohmcensus.core.case import Case
from ohmcensus.core.errors import SafetyRefusalError
from ohmcensus.core.event import Ended
from ohmcensus.core.proof.state import is_asked, proofs
from ohmcensus.core.safety import open_hazards
from ohmcensus.core.strip_down import unfinished


def blocking(case: Case) -> tuple[str, ...]:
    """Return everything that blocks signing off, a sentence each; empty where the machine may go out as safe.

    Open dangers always do. Proof is asked of a machine on which something was changed or came off: a job that ends
    at the outlet, or with nothing done, needs none.
    """
    return tuple(_blocking(case))


def refuse_sign_off(case: Case, body: Ended) -> None:
    """Refuse to end a job as safe while something blocks it.

    Raises
    ------
    SafetyRefusalError
        With the list of it; a machine that goes out labelled unsafe is not refused.
    """
    found = () if body.is_labelled_unsafe else blocking(case)
    if found:
        remedy = "show what is missing; or label the machine unsafe and tell the customer"
        raise SafetyRefusalError(what=f"not signed off: {'; '.join(found)}", remedy=remedy, field="hazard")


def _blocking(case: Case) -> Iterator[str]:
    for hazard in open_hazards(case):
        yield f"{hazard.words} ({hazard.remedy})"
    yield from unfinished(case)
    if is_asked(case):
        for row in proofs(case):
            if row.is_good is None:
                yield f"{row.criterion.title.lower()} is not shown"
            elif not row.is_good:
                yield f"{row.criterion.title.lower()} failed"
