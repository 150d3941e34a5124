"""Lamps, rhythms and discharges against things nobody here wrote."""

from __future__ import annotations

import re
import subprocess
from pathlib import Path

import pytest
from hypothesis import given
from hypothesis import strategies as st

from ohmcensus.core.codes import Click, EntrySequence, Hint, LampRow, SequenceStep, TwoFrames, follow
from ohmcensus.core.parts.kind import StoredCharge
from ohmcensus.core.physics.capacitor import discharge_seconds, stored_energy_j
from ohmcensus.core.safety import discharge_of
from ohmcensus.core.sheet import Sheet

EIGHT = LampRow(id="row", title="Row", weights=(128, 64, 32, 16, 8, 4, 2, 1))
FOUR = LampRow(id="row", title="Row", weights=(8, 4, 2, 1))


@given(st.integers(0, 255))
def test_a_row_of_doubling_lamps_is_a_binary_number(code: int) -> None:
    """Against Python's own reading of base two."""
    lit = EIGHT.encode(str(code))
    assert int(lit, 2) == code == int(EIGHT.decode(lit))


@pytest.mark.parametrize(("lit", "code"), [("10010110", 150), ("01011001", 89), ("00000000", 0), ("11111111", 255)])
def test_codes_worked_out_by_hand(lit: str, code: int) -> None:
    assert EIGHT.decode(lit) == str(code)


def test_two_frames_of_four_lamps() -> None:
    """8 + 4 = 12, then 4 + 2 + 1 = 7; 8 + 2 = 10, then 1. Common practice, no source."""
    frames = TwoFrames(id="f", title="F", marker="M", weights=(8, 4, 2, 1))
    assert frames.decode("1100/0111") == "12/7"
    assert frames.decode("1010/0001") == "10/1"


def test_a_step_shows_the_lamps_that_add_up_to_its_number() -> None:
    """Step 14 lights 8, 4 and 2; step 11 lights 8, 2 and 1. Common practice, no source."""
    assert FOUR.encode("14") == "1110"
    assert FOUR.encode("11") == "1011"


RUN = EntrySequence(
    id="run",
    title="Run of five",
    steps=(SequenceStep(direction="right", count=5),),
    window_s=6.0,
    settle_s=0.0,
    gap_s=1.2,
    fastest_gap_s=0.25,
    leave_hold_s=0.0,
    erases_on_leaving=True,
    success="The lamps flash.",
)


def run(*times: float) -> Hint:
    return follow(RUN, [Click(direction="right", at_s=at) for at in times]).hint


def test_a_run_of_five_clicks_each_a_little_under_a_second() -> None:
    """Within about 6 s; a late click is refused. Common practice, no source."""
    assert run(0.0, 0.9, 1.8, 2.7, 3.6) is Hint.DONE
    assert run(0.0, 0.9, 1.8, 2.7, 7.0) is Hint.FASTER
    assert run(0.0, 0.9, 1.8, 4.0) is Hint.FASTER


def test_figures_of_the_trade_that_the_sheet_must_be_able_to_say(fl7: Sheet) -> None:
    """Settle one to two minutes, leave by a press of about 3 s, ended by itself after about 5 min, four codes and more.

    Fills of about 45 s are usual. Common practice, no source.
    """
    assert 60 <= fl7.service.sequences[0].settle_s <= 120
    said = RUN.model_copy(update={"leave_hold_s": 3.0, "times_out_min": 5.0})
    assert EntrySequence.model_validate(said.model_dump()) == said
    fill = next(step for step in fl7.service.cycles[0].steps if step.id == "main_valve")
    assert fill.seconds[0] <= 45 <= fill.seconds[1]


def spice_seconds(capacitance_f: float, ohms: float, start_volts: float, end_volts: float, folder: Path) -> float:
    """Return the time that a transient of ngspice takes to fall to the end voltage."""
    guess = 8 * capacitance_f * ohms
    deck = folder / "discharge.cir"
    deck.write_text(
        f"""discharge
c1 a 0 {capacitance_f:g} ic={start_volts:g}
r1 a 0 {ohms:g}
.tran {guess / 20_000:g} {guess:g} uic
.control
run
meas tran at when v(a)={end_volts:g}
quit 0
.endc
.end
"""
    )
    done = subprocess.run(["ngspice", "-b", str(deck)], capture_output=True, text=True, check=True, timeout=60)
    found = re.search(r"^at\s*=\s*(\S+)", done.stdout, re.MULTILINE)
    assert found, done.stdout
    return float(found[1])


@pytest.mark.system
@pytest.mark.parametrize(
    ("capacitance_f", "ohms", "start", "end"),
    [
        (470e-6, 10e3, 400, 34),
        (470e-6, 10e3, 400, 10),
        (50e-6, 10e3, 400, 34),
        (470e-6, 100e3, 325, 60),
        (0.47e-6, 680e3, 325, 34),
    ],
)
def test_discharge_times_against_a_transient(
    capacitance_f: float, ohms: float, start: float, end: float, tmp_path: Path
) -> None:
    ours = discharge_seconds(capacitance_f, ohms, start, end)
    assert ours == pytest.approx(spice_seconds(capacitance_f, ohms, start, end, tmp_path), rel=2e-3)


def test_discharges_of_link_and_run_capacitors() -> None:
    """470 µF: 25 to 38 J, 11.6 s to 34 V and 17.3 s to 10 V through 10 kΩ of at least 10 W; bleeds of 100 to 220 kΩ
    take 79 to 175 s from 325 to 60 V. A 50 µF run capacitor at 400 V: 4.0 J, 1.2 s, hold 5 s. Common practice.
    """
    assert (round(stored_energy_j(470e-6, 325)), round(stored_energy_j(470e-6, 400))) == (25, 38)
    assert round(discharge_seconds(470e-6, 100e3, 325, 60)) == 79
    assert round(discharge_seconds(470e-6, 220e3, 325, 60)) == 175
    link = discharge_of(StoredCharge("Link", ("a", "b"), 470e-6, 400.0, None))
    assert (round(link.to_plug_safe_s, 1), round(link.to_hand_safe_s, 1)) == (11.6, 17.3)
    assert (link.resistor_ohm, link.resistor_w, link.wait_s, link.is_dangerous) == (10e3, 10.0, 300.0, True)
    run_capacitor = discharge_of(StoredCharge("Run", ("a", "b"), 50e-6, 400.0, None))
    assert round(run_capacitor.energy_j, 1) == 4.0
    assert (round(run_capacitor.to_plug_safe_s, 1), run_capacitor.hold_s) == (1.2, 5.0)


def test_the_bleed_of_an_x_capacitor_keeps_the_plug_safe(fl7: Sheet) -> None:
    """34 V within 1 s at the plug, IEC 60335-1 (from memory): 0.94 MΩ does it for 0.47 µF from 325 V."""
    assert discharge_seconds(0.47e-6, 0.94e6, 325, 34) == pytest.approx(1.0, rel=0.01)
    part = fl7.part("filter")
    assert part is not None
    charge = part.part_kind.stored_charges(part.ratings)[0]
    assert charge.bleed_ohm is not None
    assert discharge_seconds(charge.capacitance_f, charge.bleed_ohm, charge.volts, 34.0) < 1.0
    assert not discharge_of(charge).is_dangerous
