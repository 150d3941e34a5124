"""Bayes' rule and expected information against pgmpy's variable elimination and scipy.stats.entropy."""

from __future__ import annotations

import logging
import math
import warnings

import numpy as np
import pytest
from scipy.stats import entropy
from tests.tables import table

from ohmcensus.core.diagnosis.outcomes import OutcomeTable
from ohmcensus.core.diagnosis.posterior import SLIP, Observation, diagnose, told_as
from ohmcensus.core.diagnosis.question import Reach
from ohmcensus.core.diagnosis.ranking import questions
from ohmcensus.core.machine.asked import RUN

SEEN = {"heater.pe": 3, "ntc.sensor": 60, "strike.look_strike": 0, "motor.tacho_volts": 1, RUN: 3}


@pytest.fixture(name="table")
def fl7_table() -> OutcomeTable:
    return table("fl7-u")


def test_the_posterior_is_that_of_variable_elimination(table: OutcomeTable) -> None:
    """A discretised sheet as a network of one cause and five outcomes; pgmpy ``VariableElimination``, 1e-9."""
    logging.disable(logging.WARNING)
    with warnings.catch_warnings():
        warnings.simplefilter("ignore")  # it warns of its own next version
        from pgmpy.factors.discrete import TabularCPD  # noqa: PLC0415 - slow to load
        from pgmpy.inference import VariableElimination  # noqa: PLC0415
        from pgmpy.models import DiscreteBayesianNetwork  # noqa: PLC0415

    count = len(table.hypotheses)
    network = DiscreteBayesianNetwork([("H", name) for name in SEEN])
    chances = {name: (1 - SLIP) * table.tests[name].chance + SLIP / table.tests[name].chance.shape[1] for name in SEEN}
    network.add_cpds(
        TabularCPD("H", count, table.prior[:, None].tolist()),
        *(TabularCPD(name, row.shape[1], row.T.tolist(), ["H"], [count]) for name, row in chances.items()),
    )
    theirs = VariableElimination(network).query(["H"], evidence=SEEN, show_progress=False).values
    ours = diagnose(table, [Observation(name, name, np.log(chances[name][:, place])) for name, place in SEEN.items()])
    assert ours.chance == pytest.approx(np.asarray(theirs), abs=1e-9)


def test_expected_information_is_that_of_scipy(table: OutcomeTable) -> None:
    """I = H(repair) + H(outcome) − H(repair, outcome) by ``scipy.stats.entropy``, for questions without a meter."""
    outcomes = table.tests["motor.tacho_volts"]
    known = diagnose(table, [Observation("tacho", "tacho", told_as(outcomes, 1))])
    bits = {row.test: row.bits for row in questions(known, Reach())}
    for name in ("strike.look_strike", "belt.look_belt", "motor.look_commutator"):
        chance = (1 - SLIP) * table.tests[name].chance + SLIP / 2
        joint = (table.in_group * known.chance) @ chance
        repair, outcome = entropy(joint.sum(axis=1)), entropy(joint.sum(axis=0))
        expected = (repair + outcome - entropy(joint.ravel())) / math.log(2)
        assert bits.get(name, 0.0) == pytest.approx(expected, abs=1e-9 if name in bits else 0.01)
