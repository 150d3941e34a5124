"""Any history of a job against SAFETY's tables, written out the long way."""

from __future__ import annotations

import random

from hypothesis import given, settings
from hypothesis import strategies as st
from tests.second.log import latest
from tests.second.rules import RULES, counts_of
from tests.second.scenes import told

from ohmcensus.core.safety import safety_at, walk_of

seeds = st.integers(0, 2**32).map(random.Random)


# The same histories each time: ten thousand others are the benchmark's, which prints where the two part still.
@settings(max_examples=300, derandomize=True)
@given(seeds)
def test_what_is_taken_and_what_stands_is_what_the_definition_says(chance: random.Random) -> None:
    history = told(chance)
    assert history.differs() == "", [said.what for said in history.said]


@given(seeds)
def test_a_log_read_step_by_step_is_the_log_read_at_once(chance: random.Random) -> None:
    history = told(chance)
    assert walk_of(history.case) == history.walk


@given(seeds, st.integers(601, 90_000))
def test_nothing_stays_dead_or_live_by_itself(chance: random.Random, seconds: int) -> None:
    history = told(chance)
    # Minutes run from the latest moment of the log: a clock that crept back has it still before it.
    history.log.now = latest(history.past, history.log.now)
    history.wait(seconds)
    assert safety_at(history.case, history.log.now).state in {"not_proved", "under_voltage"}


def test_a_rule_is_counted_by_what_it_decided() -> None:
    counts = counts_of([frozenset({"shock: opens", "9 override: away for ten minutes"}), frozenset({"shock: opens"})])
    assert counts["shock: opens"] == 2
    assert counts["9 overrides"] == 1
    assert counts["22 an arrester"] == 0
    assert counts.keys() == RULES.keys()
