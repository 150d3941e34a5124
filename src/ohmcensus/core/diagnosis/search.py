"""How far the search of a case is and what to ask next: of one fault, and of a second one where one is not enough."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, replace

import numpy as np

from ohmcensus.core.diagnosis.again import concluded
from ohmcensus.core.diagnosis.conclusion import Conclusion, Standing
from ohmcensus.core.diagnosis.outcomes import Array
from ohmcensus.core.diagnosis.posterior import Diagnosis, Observation
from ohmcensus.core.diagnosis.question import Objective, Question, Reach
from ohmcensus.core.diagnosis.ranking import ask
from ohmcensus.core.diagnosis.second import beside, disturbed, first_of, left_over


@dataclass(frozen=True)
class Search:
    """How far a search is.

    Parameters
    ----------
    known
        What is believed where the machine has one fault.
    found
        What may be said: of the one fault, or of the second where a first is certain.
    first
        The part that is certain, where it does not explain everything; else empty.
    questions
        What to ask next, the best first.
    left
        What the first part leaves unexplained.
    """

    known: Diagnosis
    found: Conclusion
    questions: tuple[Question, ...]
    first: str = ""
    left: tuple[Observation, ...] = ()

    @property
    def standing(self) -> Standing:
        """How far it is."""
        own = self.found.standing
        if own is Standing.NAMED:
            return Standing.TWO_NAMED if self.first else own
        if own is not Standing.NOTHING_FOUND and self.questions:
            return own
        # No second fault is found, or nothing that is left tells the rest apart: what is certain stands by itself.
        if self.first:
            return Standing.NAMED
        return own if own is Standing.NOTHING_FOUND else Standing.NOTHING_SEPARATES

    @property
    def named(self) -> tuple[str, ...]:
        """Parts that are named as the fault, the certain one first."""
        first = (self.first,) if self.first else ()
        if self.standing is Standing.TWO_NAMED:
            return (*first, *self.found.named)
        return first or self.found.named if self.standing is Standing.NAMED else ()

    @property
    def believed(self) -> Diagnosis:
        """What the questions are about: the one fault, or the second beside the first."""
        return self.found.known

    @property
    def of_part(self) -> Array:
        """Chance that a part is faulty [part]."""
        if not self.first:
            return self.known.of_part
        certain = np.array([float(part == self.first) for part in self.known.table.parts])
        return np.asarray(np.maximum(certain, self.believed.of_part))


def search(
    known: Diagnosis,
    reach: Reach,
    objective: Objective = Objective.SOONEST,
    *,
    prices: Mapping[str, float] | None = None,
) -> Search:
    """Return how far a search is and what to ask next.

    Parameters
    ----------
    known
        What is believed where the machine has one fault.
    reach
        Where the machine stands.
    objective
        What is wanted.
    prices
        Price of a part where it is not the sheet's own, by part.
    """
    found = concluded(known, reach)
    first = next(iter(found.named), "") or first_of(known)
    left = left_over(known, first) if first else ()
    if first and not left and not found.named:
        return Search(known, found, (), first)
    if not left:
        return Search(known, found, ask(known, reach, objective, prices=prices))
    other = beside(known, first)
    away = disturbed(known, first)
    narrowed = replace(reach, left_out=reach.left_out | away, barred=reach.barred | (away - reach.left_out))
    return Search(known, concluded(other, narrowed), ask(other, narrowed, objective, prices=prices), first, left)
