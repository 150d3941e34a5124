"""What the readings of a piece in the hand say, by the same judgement as on a machine."""

from __future__ import annotations

from dataclasses import dataclass
from enum import StrEnum

from ohmcensus.core.judgement import Judgement, Use, Verdict, choose_use, judge, limited
from ohmcensus.core.limits.terms import Terms
from ohmcensus.core.machine import MachineTest, is_proof, machine_tests
from ohmcensus.core.machine.expected import EARTH
from ohmcensus.core.parts.kind import MachineState
from ohmcensus.core.sheet import Sheet
from ohmcensus.core.shelf.spare import AcceptanceReading, Spare


class Soundness(StrEnum):
    """What is known of a piece."""

    UNKNOWN = "unknown"
    PARTLY = "partly"
    GOOD = "good"
    BAD = "bad"

    @property
    def words(self) -> str:
        """The soundness in words."""
        return _SOUNDNESS_WORDS[self]


_SOUNDNESS_WORDS = {
    Soundness.UNKNOWN: "never measured: it may be the next fault",
    Soundness.PARTLY: "measured in part, or not surely inside",
    Soundness.GOOD: "measured, every reading inside",
    Soundness.BAD: "reads outside: not to be fitted",
}


@dataclass(frozen=True, slots=True)
class Acceptance:
    """Soundness of a piece, and each of its tests with the newest reading of it.

    Parameters
    ----------
    soundness
        What is known of it.
    rows
        Test, reading and judgement; both None where it was not made. A piece is good only when the proper instrument
        has shown all of it surely inside: OL on an ohmmeter proves no insulation.
    """

    soundness: Soundness
    rows: tuple[tuple[MachineTest, AcceptanceReading | None, Judgement | None], ...]


def acceptance_tests(sheet: Sheet, part: str, celsius: float) -> tuple[MachineTest, ...]:
    """Return the tests that a piece in the hand can be put to: none that needs a machine, or power."""
    return tuple(
        test
        for test in machine_tests(sheet, celsius)
        if test.part == part
        and test.name != EARTH
        and test.state is not MachineState.LIVE
        and test.function.needs_dead_circuit
        and not is_proof(test.id)
    )


def acceptance(spare: Spare, terms: Terms, celsius: float) -> Acceptance:
    """Return what is known of a piece.

    Parameters
    ----------
    spare
        The piece.
    terms
        Sheet of its machine type, and the limits that hold.
    celsius
        Temperature for the tests that were not made; a reading keeps its own.
    """
    newest = {row.test: row for row in spare.readings}
    rows, shown = [], []
    for plain in acceptance_tests(terms.sheet, spare.part, celsius):
        test = limited(plain, terms)
        reading = newest.get(test.name)
        use = _use(reading, terms, spare.part)
        judged = judge(*use) if use else None
        rows.append((test, reading, judged))
        shown.append(bool(use and judged and judged.verdict is Verdict.INSIDE and use[0].weaker is None))
    judgements = [judged for _, _, judged in rows if judged is not None]
    if any(judged.verdict.is_outside for judged in judgements):
        return Acceptance(Soundness.BAD, tuple(rows))
    if not judgements:
        return Acceptance(Soundness.UNKNOWN, tuple(rows))
    return Acceptance(Soundness.GOOD if all(shown) else Soundness.PARTLY, tuple(rows))


def _use(reading: AcceptanceReading | None, terms: Terms, part: str) -> tuple[Use, MachineTest] | None:
    """Return how a reading was taken and the test that it answers, at the temperature of its day."""
    if reading is None:
        return None
    tests = acceptance_tests(terms.sheet, part, reading.celsius)
    test = next((limited(row, terms) for row in tests if row.name == reading.test), None)
    if test is None:
        return None
    return choose_use(reading.text, test, [reading.meter], function=test.function, is_stored=True), test
