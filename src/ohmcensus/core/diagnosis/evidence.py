"""Everything observed on a job as evidence, each piece with its likelihood under every hypothesis."""

from __future__ import annotations

import numpy as np

from ohmcensus.core.diagnosis.hypothesis import Hypothesis
from ohmcensus.core.diagnosis.outcomes import OutcomeTable
from ohmcensus.core.diagnosis.posterior import Observation
from ohmcensus.core.machine.likely import symptom_chances
from ohmcensus.core.sheet import Sheet
from ohmcensus.core.symptom import Symptom

# One customer in so many tells something that has nothing to do with the fault.
STRAY = 0.1


def symptom_told(table: OutcomeTable, symptom: Symptom) -> Observation:
    """Return what a symptom says."""
    sheet, even = table.sheet, 1 / len(Symptom)
    chance = [_chance_told(sheet, row, symptom) if row.parts else even for row in table.hypotheses]
    log = np.log((1 - STRAY) * np.array(chance) + STRAY * even)
    return Observation(f"symptom {symptom.value}", symptom.words, log)


def _chance_told(sheet: Sheet, row: Hypothesis, symptom: Symptom) -> float:
    """Return how likely a symptom is told of a hypothesis; of a double, by the fault that shows more."""
    parts = [part for part in sheet.parts if part.id in row.parts]
    faults = {fault.part: fault for fault in row.faults}
    return max(symptom_chances(sheet, part, faults.get(part.id))[symptom] for part in parts)
