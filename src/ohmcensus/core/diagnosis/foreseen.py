"""What a question would read under the leading suspects, and who would lead after each answer."""

from __future__ import annotations

import math
from dataclasses import dataclass

from ohmcensus.core.diagnosis.outcomes import Array, Outcomes
from ohmcensus.core.diagnosis.posterior import Diagnosis, Observation, diagnose, read_as, told_as
from ohmcensus.core.diagnosis.question import is_look
from ohmcensus.core.diagnosis.words import chance_words
from ohmcensus.core.machine.asked import RUN
from ohmcensus.core.machine.tests import MachineTest
from ohmcensus.core.meter import Function
from ohmcensus.core.quantity import Interval, show_value


@dataclass(frozen=True, slots=True)
class Expected:
    """What a test is expected to read under one suspect.

    Parameters
    ----------
    part, title
        The suspect.
    value
        The middle of its readings in the unit of the test, infinite for over-range.
    reads
        The same in print.
    """

    part: str
    title: str
    value: float
    reads: str


@dataclass(frozen=True, slots=True)
class WhatIf:
    """An answer that a question may have, and who would lead then; ``leader`` is that part, empty for none."""

    reads: str
    leads: str
    leader: str = ""


def expects(known: Diagnosis, outcomes: Outcomes) -> list[Expected]:
    """Return what a test would read under the leading suspects: the middle of its readings."""
    order = sorted(range(len(known.table.parts)), key=lambda at: -known.of_part[at])[:3]
    found = []
    for at in order:
        part = known.table.sheet.part(known.table.parts[at])
        weights = known.chance * known.table.involves[at]
        if part is None or weights.sum() <= 0 or outcomes.function is None:
            continue
        share = weights @ outcomes.chance / weights.sum()
        best = int(share.argmax())
        is_over = best == share.size - 1
        value = math.inf if is_over else math.exp(float(outcomes.edges[best] + outcomes.edges[best + 1]) / 2)
        reads = "over-range" if is_over else show_value(value, outcomes.function.unit, figures=2)
        found.append(Expected(part.id, part.title, value, reads))
    return found


def what_ifs(known: Diagnosis, outcomes: Outcomes, test: MachineTest | None) -> list[WhatIf]:
    """Return who leads after each plain answer: over-range, inside and nearly nothing, or good and bad.

    Parameters
    ----------
    known
        What is believed.
    outcomes
        Of the question.
    test
        The test behind it, None for a look or the run.
    """
    if outcomes.test == RUN:
        return []
    if not outcomes.is_measured or test is None:
        said = ("good", "bad") if is_look(outcomes.test) else ("inside", "outside")
        return [_what_if(known, word, told_as(outcomes, at)) for at, word in enumerate(said)]
    window = test.window.interval
    cases = [(test.window.shown, window)] if test.window.shown != "OL" else []
    if test.function in {Function.OHM, Function.CONTINUITY, Function.INSULATION}:
        end = 1e9 if test.function is Function.INSULATION else 3e7
        cases += [("OL" if end < 1e9 else "over-range", Interval(end)), ("nearly nothing", Interval(0.0, 0.5))]  # noqa: PLR2004
    if test.function in {Function.AMPERE, Function.VOLTS_AC}:
        cases += [("nothing", Interval(0.0, 1e-2))]
    return [_what_if(known, words, read_as(outcomes, span)) for words, span in cases]


def _what_if(known: Diagnosis, reads: str, log: Array) -> WhatIf:
    """Return who would lead with one more observation."""
    after = diagnose(known.table, (*known.observations, Observation("what if", "what if", log)))
    part = known.table.sheet.part(after.leader)
    chance = float(after.of_part.max()) if part else after.nothing
    leads = f"{part.title if part else 'nothing found'}, {chance_words(chance)}"
    return WhatIf(reads=reads, leads=leads, leader=part.id if part else "")
