"""The fault dictionary of every sheet at 200 specimens, beside solving every entry anew, ngspice and lcapy."""

from __future__ import annotations

import math
import time
import warnings
from functools import partial

import numpy as np

from benchmarks.slice_speed import milliseconds, say
from ohmcensus.core.circuit import Branch
from ohmcensus.core.circuit.batch import Batch
from ohmcensus.core.circuit.network import Network
from ohmcensus.core.machine import dictionary as made
from ohmcensus.core.machine.coverage import configuration_of, is_answered, probe_of
from ohmcensus.core.machine.netlist import netlist
from ohmcensus.core.machine.probe import prepared
from ohmcensus.core.machine.specimen import specimens
from ohmcensus.core.sheet import Sheet
from ohmcensus.services.at_hand.sheets import all_sheets


def main() -> None:
    """Print every figure beside what is wanted."""
    for sheet in all_sheets().values():
        found = made.dictionary(sheet)
        faults, tests, count = found.faulty.shape
        label = f"dictionary {sheet.id}, {faults} faults × {tests} tests × {count}"
        ours = say(label, milliseconds(partial(made.dictionary, sheet), 3), "wanted < 1500")
        print(f"{'  microseconds an entry':46} {1e3 * ours / found.faulty.size:12.3f}")
    sheet = all_sheets()["tl4-c"]
    ours = say("corrections, tl4-c", milliseconds(lambda: made.dictionary(sheet), 3), "")
    direct = say(f"every {SKIPPED}th fault solved directly × {SKIPPED}", [SKIPPED * _direct(sheet)], "whole matrix")
    print(f"{'  times one of corrections':46} {direct / ours:12.1f}  wanted >= 10")
    _beside_lcapy()


SKIPPED = 8


def _direct(sheet: Sheet) -> float:
    """Return the milliseconds for a share of all entries, each fault with its own matrix over all specimens."""
    machines = specimens(sheet, made.SPECIMENS, np.random.default_rng(made.SEED))
    start = time.perf_counter()
    for part, spec in ((p, s) for p in sheet.parts for s in p.tests() if is_answered(sheet, p, s)):
        configuration, probe = configuration_of(sheet, part, spec), probe_of(part, spec)
        omega = 2 * math.pi * sheet.hertz if spec.function.unit.value in {"farad", "ampere"} else 0.0
        for fault in made.single_faults(sheet)[::SKIPPED]:
            network = prepared(sheet, probe, netlist(sheet, configuration, [fault])).network
            admittance = made.values_of(network, machines).admittance_s(omega)
            batch = Batch(network, admittance, range(1, network.nodes))
            batch.solved([{network.node(probe.between[0]): 1.0, network.node(probe.between[1]): -1.0}])
    return 1000 * (time.perf_counter() - start)


def _beside_lcapy() -> None:
    """One resistance of seven branches: nodal solve beside exact algebra."""
    edges = [(0, 1, 10), (1, 2, 20), (2, 3, 30), (3, 4, 40), (4, 0, 50), (0, 2, 60), (1, 4, 70)]
    network = Network([Branch(f"r{i}", f"n{a}", f"n{b}", ohm) for i, (a, b, ohm) in enumerate(edges)], [], "n0")
    ours = say("seven resistors, ours", milliseconds(lambda: network.impedance_ohm("n0", "n3"), 200), "")
    with warnings.catch_warnings():
        warnings.simplefilter("ignore")
        from lcapy import Circuit  # noqa: PLC0415 - seconds to load

        text = "\n".join(f"R{i} {a} {b} {ohm}" for i, (a, b, ohm) in enumerate(edges, start=1))
        theirs = say("seven resistors, lcapy", milliseconds(lambda: Circuit(text).resistance(0, 3), 5), "")
    print(f"{'  times one of ours':46} {theirs / ours:12.1f}")


if __name__ == "__main__":
    main()
