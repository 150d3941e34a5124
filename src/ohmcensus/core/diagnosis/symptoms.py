"""How likely each symptom is the one that is told, under every hypothesis."""

from __future__ import annotations

from collections.abc import Mapping, Sequence

import numpy as np
from numpy.typing import NDArray

from ohmcensus.core.diagnosis.hypothesis import Hypothesis
from ohmcensus.core.machine.likely import is_of_earth, symptom_chances
from ohmcensus.core.machine.netlist import PartFault
from ohmcensus.core.sheet import Sheet
from ohmcensus.core.symptom import Symptom

Array = NDArray[np.float64]


def chances_told(sheet: Sheet, supposed: Sequence[Hypothesis]) -> Mapping[Symptom, Array]:
    """Return how likely each symptom is told [hypothesis]; of a sound machine all alike.

    Notes
    -----
    Of a double, by the fault that shows more. Where the earth is broken too it is by that alone: what leaks then does
    not trip.
    """
    known: dict[tuple[str, PartFault | None], Array] = {}

    def of(part_id: str, fault: PartFault | None) -> Array:
        if (part_id, fault) not in known:
            chances = symptom_chances(sheet, sheet.known_part(part_id), fault)
            known[part_id, fault] = np.array([chances[symptom] for symptom in Symptom])
        return known[part_id, fault]

    def of_row(row: Hypothesis) -> Array:
        if not row.parts:
            return np.full(len(Symptom), 1 / len(Symptom))
        earth = next((fault for fault in row.faults if is_of_earth(fault)), None)
        if earth is not None:
            return of(earth.part, earth)
        faults = {fault.part: fault for fault in row.faults}
        return np.asarray(np.max([of(part, faults.get(part)) for part in row.parts], axis=0))

    told = np.array([of_row(row) for row in supposed])
    return {symptom: told[:, at] for at, symptom in enumerate(Symptom)}
