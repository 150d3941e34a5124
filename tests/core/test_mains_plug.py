"""Which plug the machine hangs on: nobody is asked to turn one that goes in one way only."""

from __future__ import annotations

import pytest
from tests.core.case_of import Log

from ohmcensus.core.diagnosis.of_case import reach_of
from ohmcensus.core.errors import InputError
from ohmcensus.core.event import CircuitNoted, LiveBegun, PluggedIn, RunMade
from ohmcensus.core.job.first_look import OutletFinding, outlet_verdict
from ohmcensus.core.judgement import Verdict, census_lines
from ohmcensus.core.meter import generic_meter
from ohmcensus.core.safety import safety_at
from ohmcensus.core.safety.leak_test import taken_leak_test
from ohmcensus.core.sheet import Sheet

TURNED = "filter.leakage_turned"
VOLTS = ("outlet 231", "outlet le 0.4", "outlet ne 230")


def noted(fl7: Sheet, plug: str | None) -> Log:
    return Log(fl7).did(CircuitNoted.model_validate({"kind": "circuit_noted", "plug": plug}))


@pytest.mark.parametrize(
    ("plug", "can_turn"), [(None, True), ("reversible", True), ("polarised", False), ("fixed", False)]
)
def test_the_circuit_that_was_noted_says_whether_the_plug_can_be_turned(
    fl7: Sheet, plug: str | None, can_turn: bool
) -> None:
    log = noted(fl7, plug).read(*VOLTS)
    lines = census_lines(log.case)
    by_id = {line.test.id: line for line in lines if line.test}
    assert (TURNED in by_id) is can_turn
    assert by_id["outlet.le"].verdict is (Verdict.INSIDE if can_turn else Verdict.OUTSIDE_LOW)
    finding = OutletFinding.TURNED if can_turn else OutletFinding.CHANGED_OVER
    assert outlet_verdict(log.case).finding is finding
    reach = reach_of(log.case, lines, safety_at(log.case, log.now))
    assert (TURNED in reach.left_out) is not can_turn


def test_a_current_with_the_plug_turned_is_refused_where_it_cannot_be(fl7: Sheet) -> None:
    log = noted(fl7, "polarised").did(PluggedIn(), LiveBegun(reason="leakage by step", minutes=10))
    body = RunMade(method="leakage", connected=("heater",), text="0.1", polarity="reversed")
    with pytest.raises(InputError, match="goes in one way only"):
        taken_leak_test(log.case, body, safety_at(log.case, log.now), [generic_meter("appliance-tester")])
