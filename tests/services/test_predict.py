"""Predictions as they are asked for: what is kept, what is refused, and every fault that is listed."""

from __future__ import annotations

import shutil
import subprocess
from pathlib import Path

import pytest

from ohmcensus.core.errors import InputError, OhmcensusError
from ohmcensus.core.machine.netlist import all_modes, elements_of
from ohmcensus.core.quantity import Bound
from ohmcensus.core.sheet import Sheet
from ohmcensus.exchange.sheet_yaml import write_sheet
from ohmcensus.services.at_hand.sheets import all_sheets
from ohmcensus.services.reading.predict_reading import Asked, deck, predicted

LEAK = "heater:leak=50000"


def value(asked: Asked) -> float:
    found = predicted(asked)[1]
    assert found.value is not None
    return found.value


def spice(asked: Asked, tmp_path: Path) -> float:
    file = tmp_path / "deck.cir"
    file.write_text(deck(asked), encoding="utf-8")
    program = shutil.which("ngspice")
    assert program
    said = subprocess.run([program, "-b", str(file)], capture_output=True, text=True, check=False).stdout
    return float(next(line for line in said.splitlines() if line.startswith("reading =")).partition("=")[2])


def test_a_test_that_turns_the_plug_keeps_it_turned() -> None:
    turned = Asked("fl7-u", test="filter.leakage_turned", faults=[LEAK])
    assert value(turned) == pytest.approx(4.61e-3, rel=0.01)
    assert value(Asked("fl7-u", test="filter.leakage", faults=[LEAK])) == pytest.approx(0.34e-3, rel=0.02)
    assert value(Asked("fl7-u", test="filter.leakage", states=["polarity=reversed"], faults=[LEAK])) == value(turned)


@pytest.mark.parametrize(
    "asked",
    [
        Asked("fl9-t", meter="volts_dc", between=("drive.plus", "drive.minus")),
        Asked("fl9-t", meter="volts_ac", between=("drive.plus", "drive.minus")),
        Asked("dd8-r", test="sensor.supply"),
        Asked("dd8-r", test="level.frequency"),
        Asked("fl7-u", meter="volts_ac", between=("ntc.a", "ntc.b")),
        Asked("fl7-u", meter="volts_ac", between=("heater.a", "heater.b"), pulled=["heater_tags"]),
        Asked("fl7-u", meter="hertz", between=("heater.a", "heater.b")),
    ],
)
def test_volts_and_hertz_that_no_circuit_answers_are_refused_and_never_nought(asked: Asked) -> None:
    for ask in (predicted, deck):
        with pytest.raises(InputError, match=r"no circuit of this sheet feeds|no volts between"):
            ask(asked)


@pytest.mark.parametrize("sheet", all_sheets().values(), ids=lambda sheet: sheet.id)
def test_every_fault_and_every_element_that_a_sheet_lists_can_be_predicted(sheet: Sheet) -> None:
    for part in sheet.parts:
        for mode in all_modes(sheet, part.id):
            predicted(Asked(sheet.id, test="filter.leakage", faults=[f"{part.id}:{mode.value}"]))
        for element in elements_of(sheet, part.id):
            for mode in element.effects:
                predicted(Asked(sheet.id, test="filter.leakage", faults=[f"{part.id}.{element.name}:{mode.value}"]))
        if part.is_earthed:
            strap = predicted(Asked(sheet.id, test=f"{part.id}.earth", faults=[f"{part.id}.pe:open"]))[1]
            assert strap.bound is Bound.ABOVE, part.id


@pytest.mark.parametrize(
    ("sheet", "test", "fault", "is_over"),
    [
        ("fl7-u", "harness.heater", "harness.heater:open", True),
        ("fl7-u", "harness.pump", "harness.heater:open", False),
        ("fl9-t", "motor.uv", "motor.v:open", True),
        ("fl9-t", "motor.uv", "motor.w:open", False),
        ("fl7-u", "cord.pe", "cord.pe:open", True),
        ("fl7-u", "cord.n", "cord.n:open", True),
    ],
)
def test_a_lead_a_phase_and_a_core_are_named_by_themselves(sheet: str, test: str, fault: str, is_over: bool) -> None:
    assert (predicted(Asked(sheet, test=test, faults=[fault]))[1].bound is Bound.ABOVE) is is_over


def test_one_valve_of_an_inverter_is_shorted_by_itself() -> None:
    assert value(Asked("fl9-t", test="drive.u_plus", faults=["drive.u_plus:short"])) < 0.01
    assert value(Asked("fl9-t", test="drive.v_plus", faults=["drive.u_plus:short"])) == pytest.approx(0.5, abs=0.1)


def test_a_leak_sits_where_it_is_said_to(tmp_path: Path) -> None:
    """Of a heater under power: at its line end the whole supply drives it, at its neutral end none."""
    states = ["programme=heat", "heater_relay=closed", "door=locked"]
    ends = [
        Asked("fl7-u", test="filter.leakage", states=states, faults=[f"heater:leak{place}=50000"])
        for place in ("@a", "", "@b")
    ]
    found = [value(each) for each in ends]
    assert found[0] > found[1] > found[2]
    assert found[0] == pytest.approx(4.5e-3, rel=0.02)
    assert [spice(each, tmp_path) for each in ends] == pytest.approx(found, rel=1e-6)


@pytest.mark.parametrize(
    ("fault", "says"),
    [
        ("heater:open@a", "open has no place"),
        ("heater:leak@pe", "no end of heater.element 'pe'"),
        ("heater.coil:open", "no element 'coil'"),
        ("heater:melted", "no fault mode 'melted'"),
        ("stove:open", "no part 'stove'"),
    ],
)
def test_a_fault_that_cannot_be_is_refused_in_one_sentence(fault: str, says: str) -> None:
    with pytest.raises(OhmcensusError, match=says):
        predicted(Asked("fl7-u", test="heater.element", faults=[fault]))


@pytest.mark.parametrize(
    ("asked", "least"),
    [
        (Asked("fl9-t", meter="insulation", between=("level.out", "pump.a"), pulled=["level_plug"]), 2e9),
        (Asked("fl7-u", meter="capacitance", between=("heater.a", "heater.b"), pulled=["heater_tags"]), 6e-3),
    ],
    ids=["a point joined to nothing", "a capacitance across a resistance"],
)
def test_beyond_the_scale_prediction_and_deck_say_the_same(asked: Asked, least: float, tmp_path: Path) -> None:
    found = predicted(asked)[1]
    assert (found.value, found.bound) == (least, Bound.ABOVE)
    assert spice(asked, tmp_path) > least


@pytest.mark.parametrize(
    "asked",
    [
        Asked("fl7-u", meter="volts_dc", between=("board.l", "board.n")),
        Asked("fl7-u", meter="hertz", between=("board.l", "board.n")),
        Asked("fl7-u", test="outlet.ln", faults=["outlet:open"]),
    ],
    ids=["direct volts of the mains", "hertz of the mains", "a dead outlet"],
)
def test_the_deck_prints_what_the_prediction_says(asked: Asked, tmp_path: Path) -> None:
    assert spice(asked, tmp_path) == pytest.approx(value(asked), rel=1e-6)


def test_a_sheet_in_a_file_is_asked_as_a_built_in_one(tmp_path: Path) -> None:
    file = tmp_path / "mine.yaml"
    file.write_text(write_sheet(all_sheets()["fl7-u"]), encoding="utf-8")
    assert value(Asked(str(file), test="heater.element")) == value(Asked("fl7-u", test="heater.element"))
