"""Plates that can and cannot be, the outlet's verdict, the van list, and what comes next."""

from __future__ import annotations

from dataclasses import replace

import pytest
from tests.core.case_of import PROOF, START, Log

from ohmcensus.core.course.stages import stages
from ohmcensus.core.course.what_next import what_next
from ohmcensus.core.errors import InputError
from ohmcensus.core.event import Checked, CheckOutcome, CodesRead, Ended, Isolated, LiveBegun, Reopened
from ohmcensus.core.intake import Complaint, DataPlate, asks_shock, plate_remarks
from ohmcensus.core.job.case import Case
from ohmcensus.core.job.first_look import OutletFinding, conclude_outlet, eye_checks, outlet_verdict
from ohmcensus.core.job.van_list import van_list
from ohmcensus.core.judgement import census_lines
from ohmcensus.core.parts.kind import Role
from ohmcensus.core.safety import safety_at
from ohmcensus.core.sheet import Sheet
from ohmcensus.core.symptom import Symptom
from ohmcensus.services.at_hand.sheets import find_sheet


@pytest.mark.parametrize(
    ("plate", "says"),
    [
        ({"volts": 2300.0}, "2300 V on the plate"),
        ({"volts": 23.0}, "23 V on the plate"),
        ({"hertz": 500.0}, "500 Hz on the plate"),
        ({"watts": 22000.0}, "22000 W on the plate"),
    ],
)
def test_a_plate_that_no_household_machine_has_is_refused(plate: dict[str, float], says: str) -> None:
    with pytest.raises(InputError, match=says):
        DataPlate.model_validate(plate).refuse_impossible()


@pytest.mark.parametrize(
    ("plate", "says"),
    [
        ({"volts": 230.0, "hertz": 50.0, "watts": 2200.0, "protection_class": "I"}, ""),
        ({"volts": 240.0}, ""),
        ({"volts": 160.0}, "is the voltage of no usual supply"),
        ({"volts": 120.0}, "sheet fl7-u is for 230 V: choose another sheet"),
        ({"hertz": 60.0}, "sheet fl7-u is for 50 Hz"),
        ({"protection_class": "II"}, "sheet fl7-u is class I"),
        ({"watts": 1900.0}, "less than the heater of 2000 W alone"),
        ({"watts": 3600.0}, "3600 W is a lot: its heaters take 2000 W"),
        ({"watts": 4000.0}, "draws 17 A, more than the 16 A that a plug carries"),
    ],
)
def test_what_does_not_fit_together_is_said(fl7: Sheet, plate: dict[str, float], says: str) -> None:
    read = DataPlate.model_validate(plate)
    read.refuse_impossible()
    remarks = plate_remarks(read, fl7)
    assert any(says in remark for remark in remarks) if says else remarks == ()


@pytest.mark.parametrize(
    ("volts", "finding"),
    [
        ((None, None, None), OutletFinding.INCOMPLETE),
        ((231, None, None), OutletFinding.INCOMPLETE),
        ((0.3, 0.2, None), OutletFinding.DEAD),
        ((0.3, 0.2, 0.1), OutletFinding.DEAD),
        ((0.3, 229, 228), OutletFinding.NEUTRAL_OPEN),
        ((0.3, 229, 2), OutletFinding.NEUTRAL_OPEN),
        ((0.3, 90, 2), OutletFinding.ODD),
        ((231, 229, 1.5), OutletFinding.RIGHT),
        ((231, 2, 229), OutletFinding.CHANGED_OVER),
        ((231, 1, 1), OutletFinding.NO_EARTH),
        ((231, 116, 114), OutletFinding.FLOATING),
        ((199, 198, 1), OutletFinding.OUT_OF_RANGE),
        ((260, 259, 1), OutletFinding.OUT_OF_RANGE),
        ((231, 229, 228), OutletFinding.ODD),
        ((200, 0.5, 0.4), OutletFinding.NO_EARTH),
        ((231, 80, 15), OutletFinding.NO_EARTH),
        ((231, 200, 30), OutletFinding.NO_EARTH),
        ((231, 230, 8), OutletFinding.NEUTRAL_DROP),
        ((231, 190, 3), OutletFinding.RIGHT),
    ],
)
def test_what_three_voltages_say_of_an_outlet(
    volts: tuple[float | None, float | None, float | None], finding: OutletFinding
) -> None:
    verdict = conclude_outlet(*volts, nominal_v=230.0)
    assert verdict.finding is finding
    assert bool(verdict.ends_with) == (finding in {OutletFinding.DEAD, OutletFinding.NEUTRAL_OPEN})


def test_a_plug_that_goes_in_either_way_round_is_right_both_ways() -> None:
    assert conclude_outlet(231, 2, 229, nominal_v=230.0, is_reversible=True).finding is OutletFinding.TURNED
    assert conclude_outlet(231, 1, 1, nominal_v=230.0, is_reversible=True).finding is OutletFinding.NO_EARTH


def test_the_outlet_is_read_from_the_lines(fl7: Sheet) -> None:
    log = Log(fl7).read("outlet 229", "outlet le 2", "outlet ne 228", "outlet le 228", "outlet ne 2")
    assert outlet_verdict(log.case).finding is OutletFinding.RIGHT


def asked(case: Case) -> list[str]:
    return [check.id for check, _ in eye_checks(case)]


@pytest.mark.parametrize("machine", ["tl4-c", "tl6-s"])
def test_a_first_look_asks_for_no_strike_on_a_lid_and_no_filter_under_the_base(machine: str) -> None:
    top = Log(find_sheet(machine))
    assert asked(top.case) == ["protective_devices", "cord", "taps", "standing"]
    answered = top.did(Checked(check="drain_filter", outcome=CheckOutcome.GOOD))
    assert "drain_filter" in asked(answered.case)


def test_a_first_look_asks_for_both_on_a_door_or_where_the_sheet_lists_nothing_to_look_at(any_sheet: Sheet) -> None:
    both = {"drain_filter", "strike"}
    if "door" in any_sheet.states:
        assert both <= set(asked(Case(any_sheet)))
    measured = tuple(part for part in any_sheet.parts if part.traits.role is not Role.MECHANICAL)
    assert both <= set(asked(Case(any_sheet.model_copy(update={"parts": measured}))))


def complaint(fl7: Sheet, *symptoms: Symptom) -> Case:
    return Case(fl7, complaint=Complaint(symptoms=symptoms))


def test_the_van_holds_what_explains_the_complaint(fl7: Sheet) -> None:
    assert van_list(complaint(fl7)).parts == ()
    heat = van_list(complaint(fl7, Symptom.NO_HEAT))
    assert [row.part for row in heat.parts][:2] == ["heater", "board"]
    assert "socket for the clamp nut" in heat.tools
    assert "paper for the codes" not in heat.tools
    trips = van_list(complaint(fl7, Symptom.TRIPS, Symptom.CODE))
    assert trips.parts[0].part == "heater"
    assert trips.parts[0].weight == pytest.approx(1 - 0.45 * 0.85)
    assert "paper for the codes" in trips.tools
    kinds = [fl7.part(row.part) for row in van_list(complaint(fl7, *Symptom)).parts]
    assert len({part.kind for part in kinds if part}) == len(kinds)


def test_every_symptom_finds_something_to_take_or_a_look_to_begin_with(fl7: Sheet) -> None:
    for symptom in Symptom:
        assert van_list(complaint(fl7, symptom)).parts, symptom


def at_hand(log: Log) -> tuple[str, str]:
    step = what_next(log.case, safety_at(log.case, log.now), census_lines(log.case))
    return step.room, step.words


def test_one_thing_is_next_from_the_complaint_to_the_first_reading(fl7: Sheet) -> None:
    log = Log(fl7)
    assert at_hand(log) == ("intake", "Take the complaint: what does it do?")
    log.complains(Complaint(symptoms=(Symptom.NO_HEAT,)))
    assert at_hand(log)[1].startswith("Look outside the machine first")
    log.did(Checked(check="taps", outcome=CheckOutcome.NOT_SEEN))
    assert at_hand(log)[1].startswith("Look outside the machine first")
    log.read("outlet 229")
    assert at_hand(log)[0] == "codes"
    log.did(CodesRead(scheme="lamps", codes=()))
    assert at_hand(log) == ("safe", "Make it safe and prove it dead")
    log.did(Isolated()).read(*PROOF)
    assert at_hand(log)[0] == "trace"
    log.wait(minutes=11)
    assert at_hand(log) == ("safe", "Prove it dead again")
    log.did(LiveBegun(reason="volts at the relay"))
    assert at_hand(log) == ("trace", "Live: volts at the relay")
    log.did(Ended(why="not the machine"))
    assert at_hand(log) == ("sheet-out", "Ended: not the machine")
    log.did(Reopened())
    assert at_hand(log)[0] == "safe"


def test_the_stages_say_done_open_or_blocked(fl7: Sheet) -> None:
    def states(log: Log) -> dict[str, str]:
        return {stage.id: stage.state for stage in stages(log.case, safety_at(log.case, log.now))[:5]}

    log = Log(fl7)
    assert states(log) == {"intake": "open", "safe": "open", "codes": "open", "trace": "blocked", "trip": "open"}
    log.complains(Complaint(symptoms=(Symptom.TRIPS,)))
    assert states(log) == {"intake": "done", "safe": "open", "codes": "blocked", "trace": "blocked", "trip": "open"}
    log.did(Isolated()).read(*PROOF)
    assert states(log) == {"intake": "done", "safe": "done", "codes": "blocked", "trace": "open", "trip": "open"}
    last = {stage.id: stage.words for stage in stages(log.case, safety_at(log.case, log.now))[5:]}
    assert last == {"repair": "nothing changed", "prove": "9 to show", "sheet-out": "not signed off"}
    plain = replace(log.case, sheet=fl7.model_copy(update={"service": type(fl7.service)()}))
    assert {s.id: s.state for s in stages(plain, safety_at(plain, log.now))}["codes"] == "done"


@pytest.mark.parametrize(
    ("words", "is_asked"),
    [
        ("It zapped my wife when she touched the tap", True),
        ("Tingles at the door, trips at night", True),
        ("it bit me", True),
        ("The drum buzzes and does not turn", False),
        ("A bit loud", False),
        ("No heat", False),
    ],
)
def test_words_that_smell_of_a_shock_are_reason_to_ask_and_open_nothing(words: str, is_asked: bool, fl7: Sheet) -> None:
    said = Complaint(words=words)
    assert asks_shock(said) is is_asked
    assert not asks_shock(said.model_copy(update={"no_shock": True}))
    assert not asks_shock(said.model_copy(update={"symptoms": (Symptom.SHOCK,)}))
    assert safety_at(Case(fl7, (), complaint=said), START).dangers == ()
