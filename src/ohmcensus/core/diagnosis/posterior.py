"""From observations to suspects: chances, what each observation weighs, and the guards before a part is named."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass, field
from functools import cached_property

import numpy as np

from ohmcensus.core.diagnosis.outcomes import LEAST, LEAST_OF_ALL, Array, Outcomes, OutcomeTable
from ohmcensus.core.machine.asked import RUN
from ohmcensus.core.quantity import Interval

# One reading in so many is a slip of the hand: it says nothing. Two that agree are a slip far more rarely.
SLIP, SLIP_TWICE = 0.02, 0.002
# Of the faults of a part so many are none of those that are listed, and may read anything outside its window (ours).
UNTHOUGHT = 0.15
# What reads outside its window twice, with the meter's whole error, is hardly a sound part's far end (ours).
STILL_SOUND = 0.05
# A slip may read anything: never less likely than this.
LEAST_EVEN = 1e-9
NAMED_FROM = 0.95
# Without any one reading the leader must stay at least here.
STAYS_FROM = 0.9
# A set of readings that chance makes this rarely fits no suspect.
SURPRISING = 0.01
# A culprit that is this unlikely is ruled out.
RULED_OUT = 0.005


@dataclass(frozen=True)
class Observation:
    """One piece of evidence.

    Parameters
    ----------
    id
        Of the line, check, code or symptom that it is about; readings of one test in one configuration are one.
    title
        In words, with what was read: "Heater, to earth: 0.20 MΩ".
    log
        Logarithm of its likelihood [hypothesis], up to a constant.
    outcome
        Of a test: how rare so odd a reading is under each hypothesis is worked out from it.
    interval
        What a measured test may have read, SI.
    is_confirmed
        Whether a second reading agrees.
    is_inside
        Whether a good part may read so: never a surprise.
    convicts
        Parts that it speaks against by itself where it is no value: bad to eye and hand, proved by leak tests.
    """

    id: str
    title: str
    log: Array
    outcome: Outcomes | None = None
    interval: Interval | None = None
    is_confirmed: bool = False
    is_inside: bool = False
    convicts: frozenset[str] = frozenset()

    @property
    def may_be_repeated(self) -> bool:
        """Whether it is a test or a look, of which some are false: once is not enough to name a part by it alone."""
        return self.outcome is not None and self.id != RUN


@dataclass(frozen=True)
class Diagnosis:
    """The suspects after some observations.

    Parameters
    ----------
    table
        Hypotheses and outcomes.
    observations
        What was taken into account, in any order.
    log
        Logarithm of likelihood and prior [hypothesis], up to a constant.
    """

    table: OutcomeTable
    observations: tuple[Observation, ...]
    log: Array = field(repr=False)

    @cached_property
    def chance(self) -> Array:
        """Chance of every hypothesis; they add up to one."""
        return normalised(self.log)

    @cached_property
    def of_part(self) -> Array:
        """Chance that a part is involved [part]."""
        return np.asarray(self.table.involves @ self.chance)

    @cached_property
    def of_group(self) -> Array:
        """Chance of every repair [group]; they add up to one."""
        return np.asarray(self.table.in_group @ self.chance)

    @property
    def nothing(self) -> float:
        """Chance that nothing is found."""
        return float(self.chance[-1])

    @cached_property
    def leader(self) -> str:
        """The likeliest part; empty where the machine is more likely sound."""
        at = int(self.of_part.argmax())
        return self.table.parts[at] if self.of_part[at] >= self.nothing else ""

    @cached_property
    def without(self) -> Array:
        """Chance of every hypothesis with one observation left out [observation, hypothesis]."""
        if not self.observations:
            return np.empty((0, self.chance.size))
        rest = self.log[None, :] - np.stack([row.log for row in self.observations])
        return normalised(rest)

    @cached_property
    def weight(self) -> Array:
        """Weight of evidence of every observation for every part [observation, part], in powers of ten.

        The odds of the part with the observation over its odds without: 1 is ten times likelier by it.
        """
        before = self.without @ self.table.involves.T
        return np.asarray((_logit(self.of_part)[None, :] - _logit(before)) / math.log(10))

    @cached_property
    def bits(self) -> float:
        """What is still unknown of the repair, in bits."""
        from scipy.special import entr  # noqa: PLC0415 - a third of a second to load, and no page needs it before its first suspects

        return float(entr(self.of_group).sum() / math.log(2))

    def settles(self, joint: Array) -> float:
        """Return what outcomes settle of the repair, in bits, by their chance along with each hypothesis.

        Parameters
        ----------
        joint
            Chance of hypothesis and outcome together [hypothesis, outcome].
        """
        from scipy.special import entr  # noqa: PLC0415 - a third of a second to load, and no page needs it before its first suspects

        of_group = self.table.in_group @ joint
        known = entr(self.of_group).sum() + entr(of_group.sum(axis=0)).sum() - entr(of_group).sum()
        return float(known / math.log(2))

    @cached_property
    def surprises(self) -> tuple[tuple[str, float], ...]:
        """How rarely each test would read so oddly under what is believed, the oddest first."""
        rows = [(row.id, _oddness(row, self.chance)) for row in self.observations if row.outcome is not None]
        return tuple(sorted(rows, key=lambda row: row[1]))

    @cached_property
    def unfit(self) -> str:
        """The likeliest mistake where the readings fit no single suspect, else empty."""
        if not self.surprises or self.surprises[0][1] * len(self.surprises) >= SURPRISING:
            return ""
        return self.surprises[0][0]

    @cached_property
    def rests_on(self) -> str:
        """The one unconfirmed reading or look without which the leader would not lead, else empty."""
        if not self.leader:
            return ""
        at = self.table.parts.index(self.leader)
        left = self.without @ self.table.involves[at]
        weak = [
            (float(left[index]), row.id)
            for index, row in enumerate(self.observations)
            if row.may_be_repeated and not row.is_confirmed and left[index] < STAYS_FROM
        ]
        return min(weak)[1] if weak else ""


def normalised(log: Array) -> Array:
    """Return chances that add up to one from their logarithms [..., hypothesis], up to a constant."""
    chance = np.exp(log - log.max(axis=-1, keepdims=True))
    return np.asarray(chance / chance.sum(axis=-1, keepdims=True))


def diagnose(table: OutcomeTable, observations: Sequence[Observation]) -> Diagnosis:
    """Return the suspects by Bayes' rule.

    Parameters
    ----------
    table
        Hypotheses with their priors, and outcomes.
    observations
        Each independent of the others once the fault is known; repeats merged before.

    Notes
    -----
    Likelihoods that are zero everywhere leave the prior as it is: no observation rules out everything.
    """
    log = np.log(table.prior)
    for row in observations:
        log = log + row.log
    return Diagnosis(table, tuple(observations), log)


def read_as(test: Outcomes, interval: Interval, *, is_confirmed: bool = False) -> Array:
    """Return the logarithm of the likelihood of a reading [hypothesis], slips of the hand allowed for.

    Parameters
    ----------
    test
        Outcomes of a measured test.
    interval
        All SI values the reading may stand for; unbounded where it was over-range.
    is_confirmed
        Whether a second reading agrees.
    """
    share, even = test.mass(interval)
    slip = SLIP_TWICE if is_confirmed else SLIP
    if test.own is not None and test.is_outside(interval):
        # No list of faults is whole: a part that reads outside its window may have one that nobody thought of.
        if is_confirmed:
            share = share * np.maximum(1 - test.like_sound, STILL_SOUND)
        share = share + UNTHOUGHT * test.own * (even - share)
    return np.asarray(np.log((1 - slip) * share + slip * max(even, LEAST_EVEN)))


def told_as(test: Outcomes, outcome: int) -> Array:
    """Return the logarithm of the likelihood of an outcome that is no value [hypothesis].

    Of a test that no circuit answers 1 is *not inside*, of a check by eye *bad*; of a watched run its place.
    """
    return np.asarray(np.log(test.chance[:, outcome]))


def _oddness(row: Observation, chance: Array) -> float:
    """Return the chance of an outcome at least as rare as the one seen, under the predictive distribution."""
    outcome = row.outcome
    if outcome is None or row.interval is None or row.is_inside or not outcome.is_measured:
        return 1.0
    # What another variant would read is no riddle: its stamp is asked.
    if outcome.is_near(row.interval):
        return 1.0
    expected = chance @ outcome.chance
    width = np.append(np.diff(outcome.edges), 1.0)
    if outcome.own is not None and outcome.is_outside(row.interval):
        spread = UNTHOUGHT * float(chance @ outcome.own)
        expected = (1 - spread) * expected + spread * outcome.even
    density = expected / width
    share, _ = outcome.mass(row.interval)
    is_over = math.isinf(row.interval.hi)
    seen = float(chance @ share) if is_over else float(density[_bin(outcome, row.interval)])
    return float(expected[density <= seen * (1 + 1e-9)].sum()) if seen > 0 else 0.0


def _bin(outcome: Outcomes, interval: Interval) -> int:
    """Return the bin in which the middle of an interval lies, of those it covers the likeliest under any fault."""
    least = LEAST.get(outcome.function, LEAST_OF_ALL) if outcome.function else LEAST_OF_ALL
    lo, hi = (math.log(max(end, least)) for end in (interval.lo, interval.hi))
    first, last = outcome.place(lo), outcome.place(hi)
    best = outcome.chance[:, first : last + 1].max(axis=0)
    return first + int(best.argmax())


def _logit(chance: Array) -> Array:
    kept = np.clip(chance, 1e-12, 1 - 1e-12)
    return np.asarray(np.log(kept) - np.log1p(-kept))
