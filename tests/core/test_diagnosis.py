"""Suspects: properties of the posterior, its guards, and chains of practitioners (common practice, our own numbers)."""

from __future__ import annotations

import math

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from tests.core.case_of import Log
from tests.tables import table

from ohmcensus.core.diagnosis.apart import alike
from ohmcensus.core.diagnosis.changes import cure
from ohmcensus.core.diagnosis.conclusion import Standing, conclude
from ohmcensus.core.diagnosis.evidence import observations, symptom_told
from ohmcensus.core.diagnosis.posterior import Diagnosis, Observation, diagnose, read_as, told_as
from ohmcensus.core.diagnosis.question import Objective, Reach
from ohmcensus.core.diagnosis.ranking import ask, questions
from ohmcensus.core.diagnosis.repeat import repeats
from ohmcensus.core.event import Body, Changed, Checked, CheckOutcome, Intervention, RunWatched, Skipped, WhySkipped
from ohmcensus.core.intake import Complaint
from ohmcensus.core.judgement import census_lines
from ohmcensus.core.machine.asked import RUN, run_outcomes
from ohmcensus.core.machine.likely import likely_faults
from ohmcensus.core.machine.run_through import run_through
from ohmcensus.core.parts.fault import FaultMode
from ohmcensus.core.quantity import Interval
from ohmcensus.core.sheet import Sheet
from ohmcensus.core.symptom import Symptom
from ohmcensus.services.at_hand.sheets import find_sheet


def read(name: str, lo: float, hi: float, *, twice: bool = False, of: str = "fl7-u") -> Observation:
    outcomes, interval = table(of).tests[name], Interval(lo, hi)
    return Observation(name, name, read_as(outcomes, interval, is_confirmed=twice), outcomes, interval, twice)


def believed(log: Log) -> Diagnosis:
    case = log.case
    return diagnose(table(case.sheet.id), observations(case, census_lines(case), table(case.sheet.id)))


def complaint(sheet: Sheet, *symptoms: Symptom) -> Log:
    return Log(sheet).complains(Complaint(symptoms=symptoms))


READINGS = (
    read("heater.element", 25.7, 26.3),
    read("heater.pe", 45e3, 49e3),
    read("ntc.sensor", 1.15e4, 1.25e4),
    read("pump.coil", 4e7, math.inf),
    symptom_told(table(), Symptom.NO_HEAT),
    Observation(RUN, RUN, told_as(table().tests[RUN], 3), table().tests[RUN]),
)


@given(st.permutations(READINGS))
def test_chances_add_to_one_in_any_order(rows: list[Observation]) -> None:
    known = diagnose(table(), rows)
    assert known.chance.sum() == pytest.approx(1, abs=1e-12)
    assert known.of_group.sum() == pytest.approx(1, abs=1e-12)
    assert known.chance == pytest.approx(diagnose(table(), READINGS).chance, abs=1e-12)


@given(st.floats(-300, 300))
def test_what_is_alike_under_all_suspects_moves_nothing(log: float) -> None:
    even = Observation("even", "even", np.full(len(table().hypotheses), log))
    before, after = diagnose(table(), READINGS), diagnose(table(), (*READINGS, even))
    assert after.chance == pytest.approx(before.chance, abs=1e-9)
    assert after.weight[-1] == pytest.approx(np.zeros(len(table().parts)), abs=1e-9)


@given(st.sampled_from(sorted(table().tests)), st.floats(0, 1e9), st.floats(0, 1e9))
def test_every_reading_leaves_every_suspect_alive(name: str, one: float, other: float) -> None:
    outcomes = table().tests[name]
    if outcomes.is_measured:
        known = diagnose(table(), [read(name, min(one, other), max(one, other))])
        assert known.chance.min() > 0
        assert known.chance.sum() == pytest.approx(1)


def test_outcomes_of_every_test_add_to_one(any_sheet: Sheet) -> None:
    rows = table(any_sheet.id).tests
    assert all(row.chance.sum(axis=1) == pytest.approx(np.ones(len(row.chance))) for row in rows.values())
    run = run_through(any_sheet)
    assert run.chance.sum(axis=1) == pytest.approx(np.ones(len(likely_faults(any_sheet)) + 1))
    assert run.outcomes == run_outcomes(any_sheet)


def test_a_motor_behind_the_relay_of_its_board_is_seen_where_it_should_turn() -> None:
    sheet = find_sheet("tl6-s")
    run = run_through(sheet)
    rows = {
        (row.part, row.fault.element): run.outcomes[chance.argmax()]
        for row, chance in zip(likely_faults(sheet), run.chance[:-1], strict=True)
        if row.fault is not None and row.fault.mode is FaultMode.OPEN
    }
    assert {rows["motor", "run"], rows["board", "relay"], rows["harness", "motor"]} == {"wash"}
    board = sheet.known_part("board")
    assert not [spec.title for spec in board.tests() if "heat" in spec.title]
    assert not [pin.label for pin in board.pins() if "heat" in pin.label]


def test_repeats_of_a_test_are_one_piece_of_evidence(fl7: Sheet) -> None:
    once = believed(Log(fl7).read("ntc 10k at 25C"))
    thrice = believed(Log(fl7).read("ntc 10k at 25C", "ntc 10.01k at 25C", "ntc 10k at 25C"))
    assert len(thrice.observations) == len(once.observations) == 1
    assert thrice.observations[0].is_confirmed
    assert thrice.of_part == pytest.approx(once.of_part, abs=0.02)


def test_a_reading_is_moved_to_the_temperature_of_the_outcomes(fl7: Sheet) -> None:
    cold, warm = (believed(Log(fl7).read(line)) for line in ("ntc 10k at 25C", "ntc 2.49k at 60C"))
    assert cold.chance == pytest.approx(warm.chance, abs=0.01)


def test_one_reading_alone_names_nobody_until_it_is_repeated() -> None:
    open_heater = ("heater.element", 4e7, math.inf)
    told = symptom_told(table(), Symptom.NO_HEAT)
    once = diagnose(table(), [told, read(*open_heater)])
    assert (once.leader, conclude(once).standing, once.rests_on) == ("heater", Standing.REPEAT, "heater.element")
    twice = diagnose(table(), [told, read(*open_heater, twice=True)])
    assert (twice.leader, conclude(twice).standing) == ("heater", Standing.NAMED)


def test_readings_that_fit_no_single_suspect_veto_the_verdict() -> None:
    known = diagnose(
        table(), [read("heater.element", 4e7, math.inf, twice=True), read("valve.coil", 9.9, 10.1), READINGS[3]]
    )
    assert conclude(known).standing is Standing.REPEAT
    assert conclude(known).again == known.unfit
    assert known.unfit in {"valve.coil", "pump.coil"}


def test_nobody_is_named_without_a_test_of_its_own_where_there_is_one() -> None:
    """Common practice, no source: what was found by leaving out the others is measured itself before it is named."""
    draws = [read("outlet.amps_heat", 0.0, 0.3, twice=True), read("harness.heater", 0.1, 0.3, twice=True)]
    fed = read("board.relay_on", 228.0, 232.0, twice=True)
    known = diagnose(table(), [symptom_told(table(), Symptom.NO_HEAT), *draws, fed])
    assert (known.leader, known.of_part.max() > 0.95) == ("heater", True)
    assert (conclude(known).standing, conclude(known).again) == (Standing.REPEAT, "heater.element")
    proved = diagnose(table(), [*known.observations, read("heater.element", 4e7, math.inf, twice=True)])
    assert conclude(proved).named == ("heater",)


def test_a_test_that_cannot_be_made_is_not_asked_for() -> None:
    told = symptom_told(table(), Symptom.NO_HEAT)
    known = diagnose(table(), [told, read("heater.element", 4e7, math.inf)])
    assert conclude(known, {"heater.element"}).standing is Standing.NAMED
    assert "heater.element" not in {row.test for row in ask(known, Reach(barred=frozenset({"heater.element"})))}


def test_the_next_question_is_the_one_that_settles_most_a_minute() -> None:
    known = diagnose(table(), [symptom_told(table(), Symptom.TRIPS)])
    rows = questions(known, Reach(has_power=False))
    assert rows[0].test in {"cord.insulation", "heater.pe"}
    assert not any(row.test == RUN or row.test.startswith("outlet.") for row in rows)
    assert all(row.bits <= known.bits for row in rows)
    shut = next(row for row in rows if row.test == "heater.pe")
    opened = next(row for row in questions(known, Reach(frozenset({"back"}))) if row.test == "heater.pe")
    assert shut.reach_minutes - opened.reach_minutes == pytest.approx(4)
    assert opened.score > shut.score


@pytest.mark.parametrize("objective", list(Objective))
def test_every_objective_asks_and_leaves_out_what_it_is_told_to(objective: Objective) -> None:
    known = diagnose(table(), [symptom_told(table(), Symptom.NO_DRAIN)])
    first = questions(known, Reach(), objective)[0]
    assert first.test not in {row.test for row in questions(known, Reach(left_out=frozenset({first.test})), objective)}


# Common practice, no source; the numbers are ours.
CHAINS = {
    "heater in range, insulation low": ("fl7-u", (Symptom.TRIPS,), ("heater 26.4", "heater pe 0.05M"), "heater"),
    "hums, capacitor far under its marking": ("tl4-c", (Symptom.HUMS,), ("capacitor 8u",), "capacitor"),
    "no drain, coil open": ("fl7-u", (Symptom.NO_DRAIN,), ("pump OL", "pump OL"), "pump"),
    "dead, no volts at the socket": ("fl7-u", (Symptom.DEAD,), ("outlet 0V", "outlet le 0V"), "outlet"),
    "no heat, element open": ("fl9-t", (Symptom.NO_HEAT,), ("heater OL", "heater OL"), "heater"),
    "fills and turns, never spins, no click at the lid": ("tl4-c", (Symptom.NO_SPIN,), ("lid OL",), "lid"),
    "turns up, then stops, no pulses by hand": ("tl6-s", (Symptom.NO_TURN,), ("shift tacho 0V",), "shift"),
    "heats without water": ("fl7-u", (Symptom.OVERHEATS,), ("level rest 0.2", "level rest 0.2"), "level"),
    "heats in a rinse": ("fl7-u", (Symptom.OVERHEATS,), ("relay 0.2", "relay 0.2"), "board"),
}


@pytest.mark.parametrize(("sheet_id", "told", "lines", "part"), CHAINS.values(), ids=CHAINS)
def test_chains_of_practice(sheet_id: str, told: tuple[Symptom, ...], lines: tuple[str, ...], part: str) -> None:
    known = believed(complaint(find_sheet(sheet_id), *told).read(*lines))
    assert known.leader == part
    assert known.of_part.max() > 0.8


def test_practice_beyond_single_readings(fl7: Sheet) -> None:
    """A jam before the motor, connectors before boards, a broken handle before the lock (common practice)."""
    hums = complaint(find_sheet("tl4-c"), Symptom.HUMS).read("capacitor 52u", "motor run 2.1", "motor start 4.5")
    jam = believed(hums)
    chance = dict(zip(jam.table.parts, jam.of_part.tolist(), strict=True))
    assert chance["bearings"] + chance["pump"] > chance["motor"]
    assert chance["capacitor"] < 0.1
    link = believed(complaint(find_sheet("fl9-t"), Symptom.CODE).read("panel link 0V"))
    chance = dict(zip(link.table.parts, link.of_part.tolist(), strict=True))
    assert link.leader == "panel"
    assert chance["board"] < 0.1
    joints = [row for row in likely_faults(link.table.sheet) if row.part == "panel" and row.fault]
    assert max(joints, key=lambda row: row.weight).fault.mode is FaultMode.BAD_JOINT  # type: ignore[union-attr]
    for outcome, leader in ((CheckOutcome.GOOD, "lock"), (CheckOutcome.BAD, "handle")):
        log = complaint(fl7, Symptom.NO_OPEN).did(Checked(check="handle.look_handle", outcome=outcome))
        assert believed(log).leader == leader


def test_ohms_in_range_do_not_clear_a_heater_that_leaks(fl7: Sheet) -> None:
    before = believed(complaint(fl7, Symptom.TRIPS))
    after = believed(complaint(fl7, Symptom.TRIPS).read("heater 26.4"))
    at = before.table.parts.index("heater")
    assert after.of_part[at] > 0.9 * before.of_part[at]


@pytest.mark.parametrize(
    ("outcome", "likelier", "than"),
    [("drain", "pump", "heater"), ("heat", "heater", "pump"), ("turn", "motor", "valve"), ("trips", "heater", "belt")],
)
def test_a_watched_run_points_at_the_parts_of_its_step(fl7: Sheet, outcome: str, likelier: str, than: str) -> None:
    known = believed(Log(fl7).did(RunWatched(outcome=outcome)))
    parts = known.table.parts
    assert known.of_part[parts.index(likelier)] > 3 * known.of_part[parts.index(than)]


def test_looks_changes_and_what_trips_are_evidence(fl7: Sheet) -> None:
    bad = believed(Log(fl7).did(Checked(check="strike.look_strike", outcome=CheckOutcome.BAD)))
    assert bad.leader == "strike"
    leaks = believed(Log(fl7).did(Skipped(test="heater.element", why=WhySkipped.TRIPS)))
    assert leaks.of_part[leaks.table.parts.index("heater")] > 0.3
    swapped = Changed(part="heater", intervention=Intervention.REPLACED)
    log = complaint(fl7, Symptom.NO_HEAT).did(swapped, RunWatched(outcome="heat"))
    stayed, before = believed(log), believed(complaint(fl7, Symptom.NO_HEAT).did(RunWatched(outcome="heat")))
    at = stayed.table.parts.index("heater")
    assert stayed.of_part[at] < 0.3 * before.of_part[at]


def test_readings_of_a_part_before_it_was_changed_say_nothing_of_the_new_one(fl7: Sheet) -> None:
    log = Log(fl7).read("heater OL", "heater OL").did(Changed(part="heater", intervention=Intervention.REPLACED))
    found = believed(log)
    assert [row.id for row in found.observations if row.outcome is not None] == []
    assert found.of_part[table().parts.index("heater")] < believed(Log(fl7)).of_part[table().parts.index("heater")]


def test_three_hundred_readings_are_weighed(fl7: Sheet) -> None:
    known = believed(Log(fl7).read(*["heater 26.4", "ntc 12.5k", "pump 150"] * 100))
    assert len(known.observations) == 3
    assert conclude(known).standing is Standing.UNDECIDED


def test_a_doubtful_reading_is_worth_a_second_one_and_a_confirmed_one_is_not() -> None:
    told = symptom_told(table(), Symptom.NO_DRAIN)
    odd = ("heater.element", 4e7, math.inf)
    bits = dict(repeats(diagnose(table(), [told, read(*odd)])))
    assert 0 < bits["heater.element"] <= diagnose(table(), [told, read(*odd)]).bits + 1
    assert dict(repeats(diagnose(table(), [told, read(*odd, twice=True)]))) == {}
    asked = ask(diagnose(table(), [told, read(*odd)]), Reach(left_out=frozenset({"heater.element"})))
    assert any(row.is_repeat and row.test == "heater.element" for row in asked)


def test_nothing_is_asked_once_a_part_is_named_and_a_guarded_reading_comes_first() -> None:
    told = symptom_told(table(), Symptom.NO_HEAT)
    once = ask(diagnose(table(), [told, read("heater.element", 4e7, math.inf)]), Reach())
    assert (once[0].test, once[0].is_repeat, once[0].score) == ("heater.element", True, math.inf)
    assert ask(diagnose(table(), [told, read("heater.element", 4e7, math.inf, twice=True)]), Reach()) == ()


def test_tests_that_allow_power_come_first_where_much_hangs_on_it() -> None:
    known = diagnose(table(), [symptom_told(table(), Symptom.SMELLS)])
    gates = ("cord.pe", "cord.insulation")
    barred = ask(known, Reach(has_power=False, before_power=gates))
    place = {row.test: at for at, row in enumerate(barred)}
    without = {row.test: at for at, row in enumerate(ask(known, Reach(has_power=False)))}
    assert all(place[name] <= without.get(name, 99) for name in gates)
    assert min(place[name] for name in gates) < 3


def test_two_leaks_that_no_test_is_left_for_are_told_as_alike() -> None:
    known = diagnose(table(), [symptom_told(table(), Symptom.NO_DRAIN)])
    assert list(alike(known)) == []
    everything = frozenset(table().tests)
    rows = list(alike(known, everything))
    assert rows
    assert all(row.test == "" and row.variation == 0 for row in rows)


def changed(part: str, how: Intervention = Intervention.REPLACED) -> Changed:
    return Changed(part=part, intervention=how)


FAILS, PASSES = RunWatched(outcome="heat"), RunWatched(outcome="through")
SEATED = changed("harness", Intervention.RESEATED)


@pytest.mark.parametrize(
    ("done", "changes", "is_conclusive", "swap_back"),
    [
        ((FAILS, changed("heater"), PASSES), 1, True, ""),
        ((FAILS, SEATED, changed("board"), changed("ntc"), PASSES), 3, False, "ntc"),
        ((FAILS, SEATED, FAILS, changed("heater"), PASSES), 1, True, ""),
        ((changed("heater"), PASSES), 1, False, "heater"),
        ((FAILS, PASSES), 0, False, ""),
    ],
    ids=["one change", "three at once", "one after the other", "nobody saw it fail", "comes and goes"],
)
def test_only_one_change_between_two_runs_is_conclusive(
    fl7: Sheet, done: tuple[Body, ...], changes: int, is_conclusive: bool, swap_back: str
) -> None:
    found = cure(Log(fl7).did(*done).case)
    assert found is not None
    assert (len(found.changes), found.is_conclusive, found.swap_back) == (changes, is_conclusive, swap_back)
    assert cure(Log(fl7).did(*done[:-1]).case) is None
