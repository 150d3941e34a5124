"""How far a search is: what may be said of the suspects, and the one thing that a guard asks for first."""

from __future__ import annotations

import math
from collections.abc import Iterator, Set
from dataclasses import dataclass
from enum import StrEnum
from functools import cached_property

import numpy as np

from ohmcensus.core.diagnosis.outcomes import Outcomes
from ohmcensus.core.diagnosis.posterior import NAMED_FROM, Diagnosis, Observation
from ohmcensus.core.machine.separable import LEAST_VARIATION
from ohmcensus.core.machine.stamped import rating_of
from ohmcensus.core.parts.kind import Role

# A finding speaks for a part where it is so much likelier than on a sound machine, as a natural logarithm.
SPEAKS = math.log(3)


class Standing(StrEnum):
    """How far the search is."""

    UNDECIDED = "undecided"
    REPEAT = "repeat"
    ANOTHER_VARIANT = "another_variant"
    NAMED = "named"
    TWO_NAMED = "two_named"
    NOTHING_SEPARATES = "nothing_separates"
    NOTHING_FOUND = "nothing_found"
    SERVICE_DATA = "service_data"
    SETTLED = "settled"


@dataclass(frozen=True)
class Conclusion:
    """What may be said of the suspects.

    Parameters
    ----------
    known
        What is believed.
    barred
        Tests that cannot be made or are not to be made again: left out, out of reach, without a meter, without power.
    stamped
        Parts of which plate or stamp was read.
    """

    known: Diagnosis
    barred: frozenset[str] = frozenset()
    stamped: frozenset[str] = frozenset()

    @cached_property
    def standing(self) -> Standing:
        """How far it is: a part is named only where no guard speaks against it."""
        known = self.known
        if self._unfit:
            return Standing.REPEAT
        if known.nothing >= NAMED_FROM:
            return Standing.NOTHING_FOUND
        if self.plate:
            return Standing.ANOTHER_VARIANT
        if known.of_part.max() < NAMED_FROM:
            return Standing.UNDECIDED
        if self._guarded:
            return Standing.REPEAT
        return Standing.NAMED if self.is_shown and not self._is_in_doubt else Standing.UNDECIDED

    @cached_property
    def is_shown(self) -> bool:
        """Whether any test or look speaks for the leader.

        Nobody is named by what the customer told alone, nor by a line that read one thing and then another, once each.
        """
        at = self.known.table.parts.index(self.known.leader)
        rows = self.known.chance * self.known.table.involves[at]
        best = int(rows.argmax())
        return any(
            (row.may_be_repeated and row.log[best] - row.log[-1] >= SPEAKS) or self.known.leader in row.convicts
            for row in self.known.observations
            if not _is_one_against_one(row)
        )

    @cached_property
    def _is_in_doubt(self) -> bool:
        """Whether a line of the leader read one thing and then another, and no other of its own speaks against it."""
        leader = self.known.leader
        own = [row for row in self.known.observations if row.outcome is not None and row.outcome.of == leader]
        told = [row for row in own if not _is_one_against_one(row)]
        others = [row for row in self.known.observations if leader in row.convicts and row not in own]
        is_bad = any(row.outcome is not None and _is_bad(row, row.outcome) for row in told)
        return len(told) < len(own) and not is_bad and not others

    @property
    def named(self) -> tuple[str, ...]:
        """Parts that are named as the fault."""
        return (self.known.leader,) if self.standing is Standing.NAMED else ()

    @cached_property
    def again(self) -> str:
        """The test that a guard asks for before anything else, mostly a second time; empty where none does."""
        return (self._unfit or self._guarded) if self.standing is Standing.REPEAT else ""

    @cached_property
    def plate(self) -> str:
        """What to read on a part of which all that speaks against it may be another variant: "heater.watts"."""
        sheet = self.known.table.sheet
        order = sorted(self.known.table.parts, key=lambda part: part != self.known.leader)
        for part in order:
            test = self._near(part)
            found = f"{part}.{rating_of(sheet, part, test)}" if test else ""
            if found and found not in self.barred:
                return found
        return ""

    def _near(self, part: str) -> str:
        """Return the test of a part that read just outside its window, empty where a stamp would not explain it."""
        if part in self.stamped or any(part in row.convicts for row in self.known.observations):
            return ""
        against = [
            (row, row.outcome.is_near(row.interval))
            for row in self.known.observations
            if row.outcome and row.interval and row.outcome.of == part and row.outcome.is_outside(row.interval)
        ]
        if not all(is_near for _, is_near in against):
            return ""
        own = (row.id for row, _ in against if row.id.partition(".")[0] == part)
        return next(own, "").partition(".")[2]

    @property
    def is_unmeasured(self) -> bool:
        """Whether the test that is asked for first is one that nobody made yet."""
        return bool(self.again) and self.again not in {row.id for row in self.known.observations}

    @cached_property
    def _unfit(self) -> str:
        """A reading that fits no suspect and was made once only; made twice it is what it is."""
        row = self._seen(self.known.unfit)
        return row.id if row is not None and not row.is_confirmed and row.id not in self.barred else ""

    @cached_property
    def _guarded(self) -> str:
        asked = (self._supply(), self._own(), self.known.rests_on)
        return next((test for test in asked if test and test not in self.barred), "")

    def _seen(self, test: str) -> Observation | None:
        return next((row for row in self.known.observations if row.id == test), None)

    def _supply(self) -> str:
        """Return the volts of the outlet where a part of the supply path leads and nobody has read them, else empty."""
        sheet = self.known.table.sheet
        path = {part.id for part in sheet.with_role(Role.CORD, Role.FUSE, Role.FILTER)}
        volts = [f"{part.id}.ln" for part in sheet.with_role(Role.OUTLET)]
        wanted = [name for name in volts if name in self.known.table.tests and self._seen(name) is None]
        return wanted[0] if wanted and self.known.leader in path else ""

    def _own(self) -> str:
        """Return the leader's own test where none spoke against it yet, though one that was not made would show it."""
        if not self.known.leader:
            return ""
        if any(self.known.leader in row.convicts for row in self.known.observations):
            return ""
        own = dict(self._tests_of_leader())
        if any(_is_bad(row, test) for name, test in own.items() if (row := self._seen(name))):
            return ""
        at = self.known.table.parts.index(self.known.leader)
        rows = self.known.chance * self.known.table.involves[at]
        shows = {
            name: _variation(test, rows / rows.sum())
            for name, test in own.items()
            if self._seen(name) is None and name not in self.barred
        }
        # At the part itself first: through its lead the reading is the lead's as well.
        found = [name for name, share in shows.items() if share >= LEAST_VARIATION]
        return max(found, key=lambda name: (name.partition(".")[0] == self.known.leader, shows[name]), default="")

    def _tests_of_leader(self) -> Iterator[tuple[str, Outcomes]]:
        at = self.known.table.parts.index(self.known.leader)
        for name, test in self.known.table.tests.items():
            is_own = bool((test.own * self.known.table.involves[at]).any()) if test.own is not None else False
            if is_own or name.partition(".")[0] == self.known.leader:
                yield name, test


def conclude(known: Diagnosis, barred: Set[str] = frozenset(), stamped: Set[str] = frozenset()) -> Conclusion:
    """Return what may be said.

    Parameters
    ----------
    known
        What is believed.
    barred
        Tests that cannot be made.
    stamped
        Parts of which plate or stamp was read.
    """
    return Conclusion(known, frozenset(barred), frozenset(stamped))


def _is_one_against_one(row: Observation) -> bool:
    """Tell whether a line read one thing and then another, once each: one of both is a slip as likely as a finding."""
    is_flicker = row.outcome is not None and row.outcome.is_measured and row.interval is None
    return is_flicker and not row.is_confirmed


def _is_bad(row: Observation, test: Outcomes) -> bool:
    """Tell whether what was found speaks against the part: outside its window, or bad to eye and hand."""
    if row.interval is not None:
        return test.is_outside(row.interval)
    return bool(row.convicts)


def _variation(test: Outcomes, rows: np.ndarray) -> float:
    """Return the share of outcomes in which the suspected faults differ from a sound machine."""
    return float(np.abs(rows @ test.chance - test.chance[-1]).sum() / 2)
