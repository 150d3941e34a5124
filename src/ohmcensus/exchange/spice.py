"""The same circuit as a SPICE deck that ``ngspice -b`` runs: it prints one real magnitude, ``reading = …``.

It carries the solver's own conductance at every node and the meter's input impedance, so that the two must
agree to the digits of the machine.
"""

from __future__ import annotations

import math
from collections.abc import Iterator

from ohmcensus.core.circuit import Branch
from ohmcensus.core.circuit.network import GMIN_S, Network
from ohmcensus.core.machine.probe import AMMETER_OHM, BROKEN_OHM, CAPACITIVE_SHARE, DIODE_A, JUNCTION_OHM, LIVE, Setup
from ohmcensus.core.meter import Function

# Test current of the deck's ohmmeter, in amperes; any will do in a linear circuit.
TEST_A = 1e-6
# A junction's exponential, soft enough to be solved; kT/q at the simulator's 27 °C.
EMISSION, SATURATION_A, THERMAL_V = 0.5, 1e-12, 0.025865


def write_deck(setup: Setup, title: str) -> str:
    """Return the deck of a machine with an instrument on it.

    Parameters
    ----------
    setup
        As ``core.machine.probe.prepared`` makes it.
    title
        First line.
    """
    return "\n".join([f"* {title}", *_elements(setup.network), *_instrument(setup), ".end", ""])


def _elements(network: Network) -> Iterator[str]:
    """Yield every branch, the sources, and the small conductance at every node."""
    for number, branch in enumerate(network.branches, start=1):
        yield f"* {branch.id}"
        yield from _branch(number, branch, network)
    for number, source in enumerate(network.sources, start=1):
        plus, minus = network.node(source.plus), network.node(source.minus)
        yield f"V{number} s{number} {minus} DC 0 AC {source.volts:.12g}"
        yield f"RS{number} s{number} {plus} {source.ohm:.12g}"
    for node in range(1, network.nodes):
        yield f"RG{node} {node} 0 {1 / GMIN_S:.12g}"


def _branch(number: int, branch: Branch, network: Network) -> Iterator[str]:
    a, b = network.node(branch.a), network.node(branch.b)
    if branch.farad is None and not branch.henry:
        yield f"R{number} {a} {b} {branch.ohm:.12g}"
        return
    yield f"R{number} {a} m{number} {branch.ohm:.12g}"
    if branch.farad is not None:
        yield f"C{number} m{number} {b} {branch.farad:.12g}"
    else:
        yield f"L{number} m{number} {b} {branch.henry:.12g}"


def _junctions(network: Network) -> Iterator[str]:
    """Yield what conducts beside the resistances once its drop is reached; only the diode test comes so far.

    An exponential with a voltage in series, so that both together drop what is stated at the test current.
    """
    own = EMISSION * THERMAL_V * math.log(DIODE_A / SATURATION_A + 1)
    yield f".model junction D(is={SATURATION_A:g} n={EMISSION:g} rs={JUNCTION_OHM:g})"
    for number, branch in enumerate(network.branches, start=1):
        if branch.forward_volts is not None and branch.ohm <= BROKEN_OHM:
            a, b = network.node(branch.a), network.node(branch.b)
            yield f"D{number} {a} k{number} junction"
            yield f"VD{number} k{number} {b} DC {branch.forward_volts - own:.12g}"


def _instrument(setup: Setup) -> Iterator[str]:
    """Yield what drives the circuit, the analysis, and the reading."""
    function, network = setup.probe.function, setup.network
    first, second = (setup.meters["meter"].a, setup.meters["meter"].b) if setup.meters else setup.probe.between
    a, b = _node(network, first, 1), _node(network, second, 2)
    for node in sorted({a, b} - set(range(network.nodes))):
        yield f"RG{node} {node} 0 {1 / GMIN_S:.12g}"
    across = f"({_volts(a)} - {_volts(b)})"
    omega = 2 * math.pi * setup.hertz
    if function is Function.VOLTS_DC:
        reading, analysis = f"abs{across}", "op"
    elif function is Function.HERTZ:
        reading, analysis = f"{setup.hertz:g}*(mag{across} gt 1)", f"ac lin 1 {setup.hertz:g} {setup.hertz:g}"
    elif function in LIVE:
        divisor = f"/{AMMETER_OHM:g}" if setup.meters else ""
        reading, analysis = f"mag{across}{divisor}", f"ac lin 1 {setup.hertz:g} {setup.hertz:g}"
    elif function is Function.CAPACITANCE:
        yield f"IP {b} {a} DC 0 AC 1"
        # Where next to nothing is capacitive a meter shows over-range: a farad stands for it.
        is_capacitive = f"(-imag{across} gt {CAPACITIVE_SHARE:g}*mag{across})"
        farad = f"1/({omega:.12g}*(abs(imag{across})+1e-15))"
        reading = f"{is_capacitive}*{farad}+1-{is_capacitive}"
        analysis = f"ac lin 1 {setup.hertz:g} {setup.hertz:g}"
    elif function is Function.DIODE:
        yield from _junctions(network)
        yield f"IP {b} {a} DC {DIODE_A:g}"
        reading, analysis = across, "op"
    else:
        yield f"IP {b} {a} DC {TEST_A:g}"
        reading, analysis = f"{across}/{TEST_A:g}", "op"
    yield from (".control", "set numdgt=12", analysis, f"let reading = {reading}", "print reading", "quit 0", ".endc")


def _node(network: Network, point: str, number: int) -> int:
    """Return the node of a point; one that nothing is joined to is a node of its own, and never the reference."""
    found = network.node(point)
    return found if found >= 0 else network.nodes + number


def _volts(node: int) -> str:
    return f"v({node})" if node else "0"
