"""Every reading of every machine, healthy and with every fault, against ngspice: it runs our deck, not our solver."""

from __future__ import annotations

import math
import random
import re
import subprocess
from collections.abc import Iterator
from pathlib import Path

import pytest

from ohmcensus.core.machine.coverage import configuration_of, probe_of
from ohmcensus.core.machine.netlist import Configuration, PartFault, netlist, part_modes
from ohmcensus.core.machine.probe import LIVE, PREDICTED, Probe, predict, prepared
from ohmcensus.core.meter import Function
from ohmcensus.core.parts.kind import MachineState
from ohmcensus.core.quantity import Bound
from ohmcensus.core.sheet import Sheet
from ohmcensus.exchange.spice import write_deck
from ohmcensus.services.at_hand.sheets import all_sheets

pytestmark = pytest.mark.system
# Sums of conductances of tens of siemens and of picosiemens leave fewer digits for gigaohms, in either solver.
AGREES = 1e-6
AGREES_BEYOND_20_MEGOHM = 1e-4


def spice(sheet: Sheet, probe: Probe, configuration: Configuration, faults: list[PartFault], folder: Path) -> float:
    deck = folder / "deck.cir"
    deck.write_text(write_deck(prepared(sheet, probe, netlist(sheet, configuration, faults)), "check"))
    done = subprocess.run(["ngspice", "-b", str(deck)], capture_output=True, text=True, check=True, timeout=60)
    found = re.search(r"^reading = (\S+)", done.stdout, re.MULTILINE)
    assert found, done.stdout + done.stderr
    return float(found[1])


def questions(sheet: Sheet) -> Iterator[tuple[str, Probe, Configuration, list[PartFault]]]:
    """Yield every test that the circuit answers, healthy and with each fault of its part."""
    for part in sheet.parts:
        for spec in part.tests():
            is_turned = spec.function in LIVE and spec.state is not MachineState.LIVE
            if spec.function not in PREDICTED or is_turned:
                continue
            probe, configuration = probe_of(part, spec), configuration_of(sheet, part, spec)
            yield f"{part.id}.{spec.name}", probe, configuration, []
            for mode in part_modes(sheet, part.id):
                yield f"{part.id}.{spec.name} {mode}", probe, configuration, [PartFault(part.id, mode)]


@pytest.mark.parametrize("sheet_id", sorted(all_sheets()))
def test_every_test_of_a_sheet_healthy_and_faulty(sheet_id: str, tmp_path: Path) -> None:
    sheet = all_sheets()[sheet_id]
    asked = 0
    for name, probe, configuration, faults in questions(sheet):
        ours = predict(sheet, probe, configuration, faults)
        if ours.bound is Bound.ABOVE or ours.value is None or abs(ours.value) < 1e-9:
            continue
        theirs = spice(sheet, probe, configuration, faults, tmp_path)
        most = AGREES if ours.value < 20e6 else AGREES_BEYOND_20_MEGOHM
        # Their junction is an exponential, ours a corner.
        most = 1e-4 if probe.function is Function.DIODE else most
        assert ours.value == pytest.approx(theirs, rel=most), name
        asked += 1
    assert asked > 100


POWERED = [
    {},
    {"door": "locked", "programme": "heat", "heater_relay": "closed"},
    {"door": "locked", "programme": "spin"},
    {"door": "locked", "programme": "turn"},
]


@pytest.mark.parametrize("states", POWERED, ids=["at rest", "heating", "spinning", "turning"])
@pytest.mark.parametrize("is_reversed", [False, True])
def test_currents_and_voltages_of_a_running_machine(
    fl7: Sheet, states: dict[str, str], is_reversed: bool, tmp_path: Path
) -> None:
    configuration = Configuration(frozenset(), states)
    for function, between in (
        (Function.LEAKAGE, ("cord.plug_l", "cord.plug_pe")),
        (Function.AMPERE, ("outlet.l", "cord.plug_l")),
        (Function.VOLTS_AC, ("heater.a", "heater.b")),
        (Function.VOLTS_AC, ("motor.field_a", "chassis")),
        (Function.VOLTS_AC, ("pump.a", "pump.b")),
    ):
        probe = Probe(function, between, reversed=is_reversed)
        ours = predict(fl7, probe, configuration)
        assert ours.value is not None
        assert ours.value == pytest.approx(spice(fl7, probe, configuration, [], tmp_path), rel=AGREES, abs=1e-9)


METERS = [Function.OHM, Function.INSULATION, Function.CAPACITANCE, Function.VOLTS_AC, Function.LEAKAGE]
CASES = 40


def any_question(sheet: Sheet, chance: random.Random) -> tuple[Probe, Configuration, list[PartFault]]:
    """Return any instrument between any two wired points, in any configuration, with none to two faults."""
    wired = sorted({point for pins in sheet.nets.values() for point in pins if point != "chassis"})
    first, second = chance.sample(wired, 2)
    pulled = frozenset(name for name in sheet.plugs if chance.random() < 0.2)
    states = {name: chance.choice(values) for name, values in sheet.states.items()}
    faulty = [part.id for part in sheet.parts if part_modes(sheet, part.id)]
    chosen = chance.sample(faulty, chance.randrange(3))
    faults = [PartFault(part_id, chance.choice(part_modes(sheet, part_id))) for part_id in chosen]
    probe = Probe(chance.choice(METERS), (first, second), reversed=chance.random() < 0.3)
    return probe, Configuration(pulled, states), faults


@pytest.mark.parametrize("sheet_id", sorted(all_sheets()))
def test_any_question_in_any_configuration(sheet_id: str, tmp_path: Path) -> None:
    sheet, chance = all_sheets()[sheet_id], random.Random(sheet_id)  # noqa: S311 - no secret
    asked = 0
    while asked < CASES:
        probe, configuration, faults = any_question(sheet, chance)
        ours = predict(sheet, probe, configuration, faults)
        assert ours.value is None or math.isfinite(ours.value)
        if ours.value is None or ours.bound is Bound.ABOVE:
            continue
        theirs = spice(sheet, probe, configuration, faults, tmp_path)
        is_resistance = probe.function in {Function.OHM, Function.INSULATION}
        most = 1e-6 if is_resistance and ours.value < 1e6 else 1e-3
        # The difference of two points at 230 V has no more digits than a ten-millionth of them.
        least = 2.3e-5 if probe.function is Function.VOLTS_AC else 1e-9
        assert ours.value == pytest.approx(theirs, rel=most, abs=least), (probe, configuration, faults)
        asked += 1
