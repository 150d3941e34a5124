"""How a search ends: two faults, nothing that separates, settled; and that nothing is asked for ever."""

from __future__ import annotations

from dataclasses import replace

import pytest
from tests.core.case_of import Log
from tests.tables import table

from ohmcensus.core.course.after_change import BEFORE_POWER
from ohmcensus.core.course.following import NextKind, leak_test
from ohmcensus.core.course.outlook import NOT_SETTLED, Outlook, outlook
from ohmcensus.core.diagnosis.apart import separating
from ohmcensus.core.diagnosis.changes import cure
from ohmcensus.core.diagnosis.conclusion import Standing
from ohmcensus.core.diagnosis.mending import mending
from ohmcensus.core.diagnosis.of_case import OFTEN_ENOUGH, diagnosed, reach_of
from ohmcensus.core.diagnosis.question import Reach
from ohmcensus.core.diagnosis.search import search
from ohmcensus.core.diagnosis.words import cured_words
from ohmcensus.core.event import (
    Body,
    Changed,
    Checked,
    CheckOutcome,
    Ended,
    Hazard,
    HazardFound,
    Intervention,
    RunMade,
    RunWatched,
)
from ohmcensus.core.intake import Complaint
from ohmcensus.core.judgement import census_lines
from ohmcensus.core.machine.asked import RUN
from ohmcensus.core.meter import GENERIC_METERS
from ohmcensus.core.symptom import Symptom
from ohmcensus.core.trip.of_case import leaky_parts
from ohmcensus.core.trip.problem import Method
from ohmcensus.services.at_hand.sheets import all_sheets, find_sheet

COLD_AND_STOPS = (Symptom.NO_HEAT, Symptom.STOPS)
FAILS, PASSES = RunWatched(outcome="lock"), RunWatched(outcome="through")
SEATED = Changed(part="ntc", intervention=Intervention.RESEATED)


def told(*symptoms: Symptom, sheet: str = "fl7-u") -> Log:
    log = Log(find_sheet(sheet))
    log.case = replace(log.case, complaint=Complaint(symptoms=symptoms))
    return log


def seen(log: Log, sheet: str = "fl7-u") -> Outlook:
    lines = census_lines(log.case)
    return outlook(log.case, lines, table(sheet), reach_of(log.case, lines, log.safety))


def swapped(part: str) -> Changed:
    return Changed(part=part, intervention=Intervention.REPLACED)


TWO = ("heater OL", "heater OL", "lock locked 38", "lock locked 0.4", "lock locked 38", "lock locked 41")


def test_two_faults_are_both_named_each_with_what_it_explains() -> None:
    found = seen(told(*COLD_AND_STOPS).read(*TWO))
    assert (found.standing, set(found.named)) == (Standing.TWO_NAMED, {"heater", "lock"})
    assert found.next is not None
    assert (found.next.kind, found.next.part) == (NextKind.REPAIR, "lock")
    assert "Explains no heat" in found.sentence
    assert "Door lock: contact, locked reads 38 Ω, then 41 Ω" in found.sentence
    assert found.search.of_part[table().parts.index("lock")] > 0.9


@pytest.mark.parametrize("lines", [(), TWO[:1]])
def test_a_job_that_ended_before_anything_was_settled_asks_for_no_more(lines: tuple[str, ...]) -> None:
    found = seen(told(*COLD_AND_STOPS).read(*lines).did(Ended(why="No part to be had.", is_labelled_unsafe=True)))
    assert (found.next, found.sentence) == (None, NOT_SETTLED)


def test_of_two_faults_the_first_is_named_and_the_second_after_the_change() -> None:
    log = told(*COLD_AND_STOPS).read(*TWO[:2])
    assert seen(log).named == ("heater",)
    log = log.did(swapped("heater")).read("heater 26").did(FAILS)
    assert seen(log).named == ()
    log = log.read("lock locked 38", "lock locked 0.4", "lock locked 39")
    assert seen(log).named == ("lock",)
    done = seen(log.did(swapped("lock")).read("lock locked 0.2").did(PASSES))
    assert (done.standing, done.named, done.next) == (Standing.SETTLED, ("heater", "lock"), None)


def test_nobody_is_named_alone_while_a_line_of_another_part_stands_outside() -> None:
    log = told(Symptom.NO_HEAT).read("heater OL", "heater OL")
    assert seen(log).named == ("heater",)
    found = seen(log.read("lock locked 38"))
    assert found.named == ()
    assert found.next is not None
    assert found.next.test != "lock.locked", "only voltage closes it: nobody is asked for it at a dead machine"
    settled = seen(log.read("lock locked 38", "lock locked 0.2", "lock locked 0.2"))
    assert settled.named == ("heater",)


def test_a_line_that_comes_and_goes_keeps_its_part_suspect() -> None:
    log = told(Symptom.STOPS).read("lock locked 38", "lock locked 0.4")
    known = seen(log).search
    assert known.of_part[table().parts.index("lock")] > 0.5
    steady = seen(told(Symptom.STOPS).read("lock locked 0.4", "lock locked 0.4")).search
    assert steady.of_part[table().parts.index("lock")] < 0.2


def test_after_another_piece_it_is_read_then_run_and_the_former_readings_say_nothing() -> None:
    log = told(Symptom.NO_HEAT).read("heater OL", "heater OL").did(swapped("heater"))
    first = seen(log)
    assert first.next is not None
    assert (first.next.kind, first.next.test) == (NextKind.TEST, "heater.element")
    assert first.questions[0].because
    barred = seen(log.read("heater 26"))
    assert barred.next is not None
    assert (barred.next.test, barred.sentence) == ("heater.earth", BEFORE_POWER), "no run before there may be power"
    then = seen(log.read("heater earth 0.1", "cord insulation >299M"))
    assert then.next is not None
    assert then.next.kind is NextKind.RUN
    read = {row.id for row in then.search.known.observations if row.interval is not None}
    assert read == {"heater.element", "heater.earth", "cord.insulation"}


@pytest.mark.parametrize(
    ("before", "done", "is_conclusive", "says"),
    [
        ((), (swapped("heater"), PASSES), False, "heater"),
        (("heater OL", "heater OL"), (swapped("heater"), PASSES), False, ""),
        (("heater pe 0.041M", "heater pe 0.041M"), (swapped("heater"), swapped("ntc"), PASSES), False, "ntc"),
        (
            ("heater pe 0.041M",),
            (swapped("heater"), Changed(part="ntc", intervention=Intervention.RESEATED), PASSES),
            False,
            "",
        ),
    ],
)
def test_a_change_proves_what_was_seen_or_measured_and_no_failed_piece_goes_back(
    before: tuple[str, ...], done: tuple[Body, ...], *, is_conclusive: bool, says: str
) -> None:
    found = cure(told().read(*before).did(*done).case)
    assert found is not None
    assert (found.is_conclusive, found.swap_back) == (is_conclusive, says)


def test_what_read_outside_is_read_good_before_anything_is_conclusive() -> None:
    dead = told(Symptom.NO_DRAIN).read("pump coil OL", "pump coil OL")
    cleaned = Changed(part="pump", intervention=Intervention.CLEANED)
    unread = dead.did(cleaned, PASSES)
    found = cure(unread.case)
    assert found is not None
    assert (found.is_conclusive, found.unread) == (False, ("coil",))
    assert cured_words(unread.case).endswith("Not conclusive: coil was not read good since.")
    good = cure(unread.read("pump coil 148").case)
    assert good is not None
    assert good.is_conclusive


def test_what_is_done_follows_what_was_found() -> None:
    def fits(log: Log, part: str) -> tuple[Intervention, ...]:
        return mending(log.case, census_lines(log.case), part).fits

    both = (Intervention.CLEANED, Intervention.REPLACED)
    assert fits(told(), "pump") == both
    assert fits(told().read("pump coil OL"), "pump") == (Intervention.REPLACED, Intervention.MENDED)
    assert fits(told().read("pump coil 148"), "pump") == both
    looked = Checked(check="pump.look_impeller", outcome=CheckOutcome.BAD)
    assert fits(told().did(looked), "pump") == (Intervention.CLEANED,)
    assert fits(told().read("heater OL"), "heater") == (Intervention.REPLACED,)
    mended = told().read("pump coil OL").did(Changed(part="pump", intervention=Intervention.REPLACED))
    assert fits(mended, "pump") == both


def test_whoever_saw_it_fail_needs_no_second_failure() -> None:
    change = Changed(part="heater", intervention=Intervention.REPLACED, saw_fail=True)
    found = cure(told().did(change, PASSES).case)
    assert found is not None
    assert found.is_conclusive


def test_a_failed_piece_settles_it_on_the_bench() -> None:
    found = cure(told().read("heater pe 0.041M").did(swapped("heater"), SEATED, PASSES).case)
    assert found is not None
    assert (found.swap_back, found.on_the_bench) == ("", "heater")


def test_what_the_piece_before_read_is_not_held_against_the_next_one() -> None:
    first = told().read("heater OL", "heater OL").did(swapped("heater")).read("heater 26", "heater 26")
    found = cure(first.did(FAILS, swapped("heater"), SEATED, PASSES).case)
    assert found is not None
    assert (found.failed, found.is_conclusive, found.swap_back) == ("", False, "heater")


def test_a_load_that_reads_wrong_through_its_lead_alone_is_not_certain() -> None:
    through = ("board heater load 900", "board heater load 900", "heater 26", "heater 26")
    found = seen(told(*COLD_AND_STOPS).read(*through, "lock locked 38", "lock locked 38", "lock locked 39"))
    assert "heater" not in found.named
    assert "lock" in found.named or found.next is not None


def test_nothing_separates_only_where_no_test_left_tells_two_of_them_apart() -> None:
    log = told(Symptom.NO_DRAIN)
    lines = census_lines(log.case)
    known = diagnosed(log.case, lines, table())
    everything = frozenset(table().tests)
    none = search(known, Reach(left_out=everything, barred=everything))
    assert (none.standing, none.questions, none.named) == (Standing.NOTHING_SEPARATES, (), ())
    best = separating(known, everything)
    assert "pump.coil" in best
    some = search(known, Reach(left_out=everything - best, barred=everything - best))
    assert some.standing is Standing.UNDECIDED
    assert some.questions


def test_where_no_test_is_left_a_figure_or_a_change_is_what_comes_next() -> None:
    log = told(Symptom.NO_DRAIN, sheet="dd8-r").read("pump 160", "pump 160")
    everything = frozenset(table("dd8-r").tests)
    lines = census_lines(log.case)
    found = outlook(log.case, lines, table("dd8-r"), Reach(left_out=everything, barred=everything))
    assert found.standing in {Standing.SERVICE_DATA, Standing.NOTHING_SEPARATES}
    assert found.next is not None
    assert found.next.kind in {NextKind.SERVICE, NextKind.REPAIR}
    assert "No test left" in found.sentence


@pytest.mark.parametrize("sheet", sorted(all_sheets()))
def test_nothing_is_asked_for_ever(sheet: str) -> None:
    """Whatever is answered at random: no test more than twice, and it ends."""
    log, asked = told(Symptom.STOPS, Symptom.NO_HEAT, sheet=sheet), dict[str, int]()
    for turn in range(40):
        found = seen(log, sheet)
        if found.next is None or found.next.kind in {NextKind.REPAIR, NextKind.SERVICE, NextKind.PLATE}:
            return
        for name in (found.next.test, *found.next.also):
            asked[name] = asked.get(name, 0) + 1
            log = _answered(log, name, turn, sheet)
        assert max(asked.values()) <= OFTEN_ENOUGH, asked


def _answered(log: Log, name: str, turn: int, sheet: str) -> Log:
    outcomes = table(sheet).tests[name]
    if name == "machine.run":
        return log.did(RunWatched(outcome="through"))
    if "look_" in name:
        return log.did(Checked(check=name, outcome=CheckOutcome.GOOD))
    line, window = name.replace(".", " "), outcomes.window
    if window is None or outcomes.function is None or not window.finite_lo or window.lo <= 0:
        return log.read(f"{line} 0.1")
    value = window.lo * (1.05 if turn % 4 else 0.6)
    return log.read(f"{line} {value:.9f} {outcomes.function.unit.symbol}")


def test_a_current_read_one_way_round_wants_the_plug_turned_next() -> None:
    """What Trip advises is what is next."""
    log = told(Symptom.TRIPS)
    names = tuple(part.id for part in leaky_parts(log.case.sheet, Method.LEAKAGE))
    clamp = next(meter for meter in GENERIC_METERS if meter.id == "leakage-clamp")

    def read(text: str, *inside: str) -> RunMade:
        return RunMade(method="leakage", connected=inside, text=text, polarity="normal", instrument=clamp)

    log.did(read("9", *names), *(read("8" if name == "heater" else "0.02", name) for name in names))
    found = leak_test(log.case)
    assert found is not None
    assert (found.kind, found.words.startswith("Leak test. Turn the plug")) == (NextKind.LEAK_TEST, True)


@pytest.mark.parametrize("hazard", [Hazard.BYPASS, Hazard.DRY])
def test_what_may_not_run_through_its_steps_is_not_asked_for_a_current_in_one(hazard: Hazard) -> None:
    free, held = told(Symptom.NO_HEAT), told(Symptom.NO_HEAT).did(HazardFound(hazard=hazard))
    left_out = [reach_of(log.case, census_lines(log.case), log.safety).left_out for log in (free, held)]
    asked = {RUN, "outlet.amps_drain", "outlet.amps_heat"}
    assert asked & left_out[0] == frozenset()
    assert asked <= left_out[1]
