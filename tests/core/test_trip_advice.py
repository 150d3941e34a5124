"""What an isolation advises, what it calls healthy, and one leak test wherever it is typed."""

from __future__ import annotations

import pytest
from tests.core.case_of import Log

from ohmcensus.core.event import Isolated, RunMade, Tripped
from ohmcensus.core.job.case import Case
from ohmcensus.core.judgement import Verdict, census_lines
from ohmcensus.core.meter import generic_meter
from ohmcensus.core.quantity import Interval
from ohmcensus.core.safety.evidence import leak_tests_as_lines
from ohmcensus.core.sheet import Sheet
from ohmcensus.core.symptom import Device, Moment
from ohmcensus.core.trip.advice import Advice, AdviceKind, advice
from ohmcensus.core.trip.isolate import State, isolate
from ohmcensus.core.trip.of_case import convicted, leaky_parts, problem_of, run_records
from ohmcensus.core.trip.problem import LeakyPart, Method, Polarity, Problem, Run
from ohmcensus.services.at_hand.sheets import all_sheets

TESTER = generic_meter("appliance-tester")


def megohm(run: str, connected: str, value: float, spread: float = 0.03) -> Run:
    return Run(run, frozenset(connected), Interval(1 / (value * (1 + spread)), 1 / (value * (1 - spread))))


def problem(*runs: Run, method: Method = Method.INSULATION, limit: float = 1.0) -> Problem:
    parts = tuple(LeakyPart(name, limit, healthy=0.5) for name in "CFHM")
    return Problem(method, parts, runs)


def told(sheet: Sheet, *runs: Run, method: Method = Method.INSULATION) -> Advice:
    base = problem_of(Case(sheet), method)
    found = Problem(method, base.parts, runs, base.panels)
    return advice(sheet, found, isolate(found))


def whole(case: Case) -> tuple[str, ...]:
    return tuple(part.id for part in leaky_parts(case.sheet, Method.INSULATION))


def test_a_part_that_keeps_its_limit_and_carries_an_unhealthy_whole_is_named() -> None:
    """Whole and heater read 0.50 MΩ at a limit of 0.3 MΩ; a healthy one reads over 20 MΩ."""
    found = isolate(problem(megohm("A", "CFHM", 0.50), megohm("B", "H", 0.50), limit=1 / 0.3))
    assert found.parts["H"].state is State.CLEARED
    assert found.unhealthy == ("H",)
    assert isolate(problem(megohm("A", "CFHM", 45.0))).unhealthy == ()
    over = isolate(problem(megohm("A", "CFHM", 0.05), megohm("B", "H", 0.05)))
    assert (over.parts["H"].state, over.unhealthy) == (State.GUILTY, ())


def test_drift_far_above_the_limit_is_no_contradiction_and_one_near_it_is() -> None:
    drifted = isolate(problem(megohm("A", "CFHM", 90.0), megohm("B", "HM", 40.0)))
    assert drifted.conflict == ()
    assert {row.state for row in drifted.parts.values()} == {State.CLEARED}
    assert isolate(problem(megohm("A", "CFHM", 3.0), megohm("B", "HM", 1.5))).conflict == ("A", "B")


def test_no_leak_test_is_proposed_where_the_rest_cannot_be_asked_before_a_part_is_replaced() -> None:
    sheet = all_sheets()["tl4-c"]
    names = frozenset(part.id for part in leaky_parts(sheet, Method.INSULATION))
    runs = (Run("A", names, Interval(7.9, 8.3)), Run("B", frozenset({"filter"}), Interval(7.7, 8.3)))
    assert told(sheet, *runs) == Advice(AdviceKind.REPLACE, ("filter",))


def test_a_current_read_one_way_asks_for_the_turned_plug_and_never_where_it_cannot_be_turned() -> None:
    for sheet_id, kind in (("fl7-u", AdviceKind.TURN_PLUG), ("tl4-c", AdviceKind.INSULATION)):
        sheet = all_sheets()[sheet_id]
        names = frozenset(part.id for part in leaky_parts(sheet, Method.LEAKAGE))
        runs = [Run("A", names, Interval(0.38, 0.42), polarity=Polarity.NORMAL)]
        runs += [Run(f"B{name}", frozenset({name}), Interval(0.0, 0.02), polarity=Polarity.NORMAL) for name in names]
        base = problem_of(Case(sheet), Method.LEAKAGE)
        found = Problem(Method.LEAKAGE, base.parts, tuple(runs), base.panels)
        answer = isolate(found)
        if answer.next is None:
            assert advice(sheet, found, answer).kind is kind


@pytest.mark.parametrize("way", ["line", "leak test"])
def test_one_test_of_the_whole_machine_is_one_wherever_it_is_typed(fl7: Sheet, way: str) -> None:
    log = Log(fl7)
    if way == "line":
        log.read("cord insulation 0.05M")
    else:
        log.did(RunMade(method="insulation", connected=whole(log.case), text="0.05", instrument=TESTER))
    records = run_records(log.case, Method.INSULATION)
    assert [(set(row.body.connected), row.shows) for row in records] == [(set(whole(log.case)), "50 kΩ")]
    lines = census_lines(log.case, leak_tests=leak_tests_as_lines(log.case))
    line = next(row for row in lines if row.test and row.test.id == "cord.insulation")
    assert (line.verdict, line.reads) == (Verdict.OUTSIDE_LOW, "50 kΩ")


def test_the_same_test_typed_both_ways_counts_once(fl7: Sheet) -> None:
    log = Log(fl7).read("cord insulation 0.05M")
    log.did(RunMade(method="insulation", connected=whole(log.case), text="0.05M", instrument=TESTER))
    assert len(problem_of(log.case, Method.INSULATION).counted) == 1


def test_a_parts_own_insulation_typed_as_a_line_settles_it_in_the_isolation(fl7: Sheet) -> None:
    log = Log(fl7).read("cord insulation 0.05M", "heater pe 0.05M")
    assert isolate(problem_of(log.case, Method.INSULATION)).parts["heater"].state is State.GUILTY
    assert run_records(Log(fl7).read("heater pe loose 0.05M").case, Method.INSULATION) == ()


def test_a_part_read_by_itself_does_not_spare_the_test_of_the_whole_machine(fl7: Sheet) -> None:
    case = Log(fl7).read("heater pe 0.5M").case
    found = isolate(problem_of(case, Method.INSULATION))
    assert found.next is not None
    assert set(found.next.connected) == set(whole(case))


def test_where_it_goes_on_plugging_in_cord_and_filter_weigh_more(fl7: Sheet) -> None:
    weights = []
    for moment in (Moment.PLUGGING_IN, Moment.HEATING):
        log = Log(fl7).did(Tripped(device=Device.RCD, moment=moment), Isolated(how="unplugged"))
        weights.append({part.id: part.weight for part in problem_of(log.case, Method.INSULATION).parts})
    assert weights[0]["filter"] > 5 * weights[1]["filter"]
    assert weights[0]["heater"] == weights[1]["heater"]


@pytest.mark.parametrize(
    ("how", "convicts", "kind"),
    [
        (("line", "line"), False, AdviceKind.CONFIRM),
        (("line", "leak test"), True, AdviceKind.REPLACE),
        (("leak test", "line"), True, AdviceKind.REPLACE),
        (("leak test", "leak test"), True, AdviceKind.REPLACE),
    ],
)
def test_lines_alone_convict_nobody_and_are_confirmed_by_a_leak_test(
    fl7: Sheet, how: tuple[str, str], *, convicts: bool, kind: AdviceKind
) -> None:
    """The whole machine and then the heater alone read 50 kΩ, the rest over 299 MΩ, each typed one way or the other."""
    log = Log(fl7)
    rest = tuple(name for name in whole(log.case) if name != "heater")
    for way, connected, line in zip(how, (whole(log.case), ("heater",)), ("cord insulation", "heater pe"), strict=True):
        if way == "line":
            log.read(f"{line} 0.05M")
        else:
            log.did(RunMade(method="insulation", connected=connected, text="0.05M", instrument=TESTER))
    log.did(RunMade(method="insulation", connected=rest, text=">299M", instrument=TESTER))
    problem, records = problem_of(log.case, Method.INSULATION), run_records(log.case, Method.INSULATION)
    found = isolate(problem)
    assert found.guilty == ("heater",)
    sure = convicted(log.case, Method.INSULATION, found.guilty, records)
    assert sure == (frozenset({"heater"}) if convicts else frozenset())
    assert advice(fl7, problem, found, convicted=sure) == Advice(kind, ("heater",))
    assert advice(fl7, problem, found).kind is AdviceKind.REPLACE
