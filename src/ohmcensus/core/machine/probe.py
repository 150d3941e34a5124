"""What a meter between two points of a machine must show: the circuit, asked as the instrument asks it."""

from __future__ import annotations

import math
from collections import defaultdict
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field, replace
from functools import lru_cache

import numpy as np
from numpy.typing import NDArray

from ohmcensus.core.circuit import Branch
from ohmcensus.core.circuit.network import Network, Source
from ohmcensus.core.errors import InputError
from ohmcensus.core.machine.netlist import Configuration, Netlist, PartFault, elements_of, netlist, not_on_sheet
from ohmcensus.core.meter import Function
from ohmcensus.core.parts.element import CHASSIS
from ohmcensus.core.quantity import Bound
from ohmcensus.core.sheet import Sheet

# Beyond these a meter of the usual kind shows over-range (our choice, CONTRACTS).
OHM_LIMIT = 60e6
INSULATION_LIMIT = 2e9
# Input impedance of the usual multimeter on volts; what an ammeter adds (ours).
VOLTMETER_OHM = 10e6
AMMETER_OHM = 0.01
CAPACITANCE_LIMIT = 6e-3
NEUTRAL_TO_EARTH_OHM = 0.1
# A branch of more than this passes no test current on (ours); −Im Z must be a tenth of |Z| for a capacitance.
PASSES_BELOW_OHM = 1e8
CAPACITIVE_SHARE = 0.1
# The diode test drives this current; a junction adds this resistance, beyond this voltage it shows over-range,
# and beyond this resistance a junction is broken (ours).
DIODE_A = 1e-3
JUNCTION_OHM = 0.1
DIODE_LIMIT_V = 2.0
BROKEN_OHM = 1e9
POLARITY = "polarity"
OUTLET_L, OUTLET_N, OUTLET_PE = "outlet.l", "outlet.n", "outlet.pe"

LIVE = frozenset({Function.VOLTS_AC, Function.VOLTS_DC, Function.LEAKAGE, Function.AMPERE, Function.HERTZ})
PREDICTED = LIVE | {Function.OHM, Function.CONTINUITY, Function.INSULATION, Function.CAPACITANCE, Function.DIODE}


@dataclass(frozen=True, slots=True)
class Probe:
    """An instrument between two points.

    Parameters
    ----------
    function
        What it does.
    between
        The two points; for a protective conductor current they only name the test.
    joined
        Points that are joined before.
    reversed
        Whether the plug sits the other way round: neutral at the line contact.
    """

    function: Function
    between: tuple[str, str]
    joined: tuple[str, ...] = ()
    reversed: bool = False


@dataclass(frozen=True, slots=True)
class Prediction:
    """What the meter shows.

    Parameters
    ----------
    value
        In the SI unit of the function; the limit where it is above.
    bound
        Exact, or above the limit.
    reaches
        Parts that current comes to, in the order of the sheet.
    is_linear
        False where a rectifier or a self-heating part is reached: the true reading will differ.
    """

    value: float | None
    bound: Bound
    reaches: tuple[str, ...]
    is_linear: bool


@dataclass(frozen=True, slots=True)
class Setup:
    """A machine with an instrument on it, ready to be asked with or without faults."""

    network: Network
    probe: Probe
    hertz: float
    meters: Mapping[str, Branch] = field(default_factory=dict)


def predict(sheet: Sheet, probe: Probe, configuration: Configuration, faults: Sequence[PartFault] = ()) -> Prediction:
    """Return what a meter must show on a machine.

    Parameters
    ----------
    sheet
        The machine's type.
    probe
        The instrument and its points.
    configuration
        Plugs that are off and states of the machine.
    faults
        What is wrong with it, nothing for a healthy one.

    Raises
    ------
    UnknownNameError
        If a name is not on the sheet.
    InputError
        If the instrument is one that no circuit answers (length, temperature).
    """
    refuse_unknown(sheet, probe)
    circuit = netlist(sheet, configuration, faults)
    setup = prepared(sheet, probe, circuit)
    value, bound = shown(setup)
    ids = _reached(setup)
    order = [part.id for part in sheet.parts]
    parts = {branch_id.partition(".")[0] for branch_id in ids}
    return Prediction(value, bound, tuple(part for part in order if part in parts), not ids & circuit.not_linear)


def refuse_unknown(sheet: Sheet, probe: Probe) -> None:
    """Refuse points that the sheet does not have, and instruments that no circuit answers."""
    if probe.function not in PREDICTED:
        what = f"no circuit answers a {probe.function.value} reading"
        raise InputError(what=what, remedy=f"choose one of {', '.join(sorted(PREDICTED))}", field="meter")
    for point in (*probe.between, *probe.joined):
        if point not in sheet.points and point != CHASSIS:
            raise not_on_sheet(what="point", name=point, known=sheet.points)


def refuse_unanswered(sheet: Sheet, probe: Probe, configuration: Configuration) -> None:
    """Refuse volts and hertz at a point that the circuit does not feed: 0 V would be an answer that nobody gave.

    Raises
    ------
    InputError
        Behind a rectifier, in electronics, on a plug that is off, or where only a hand or water makes the voltage.
    """
    if probe.function not in {Function.VOLTS_AC, Function.VOLTS_DC, Function.HERTZ}:
        return
    fed = fed_points(sheet, configuration.pulled)
    for point in probe.between:
        if point not in fed:
            what = f"no circuit of this sheet feeds {point}: its volts are made by electronics, by hand or not at all"
            raise InputError(what=what, remedy="measure it; the test's own window says what to expect", field="between")


@lru_cache(maxsize=256)
def fed_points(sheet: Sheet, pulled: frozenset[str]) -> frozenset[str]:
    """Return the points to which wires, contacts whatever their state, and linear loads lead from the outlet.

    Parameters
    ----------
    sheet
        The machine's type.
    pulled
        Plugs that are off.
    """
    circuit = netlist(sheet, Configuration(pulled))
    contacts = {
        f"{part.id}.{element.contact}"
        for part in sheet.parts
        for element in elements_of(sheet, part.id)
        if element.contact
    }
    linear = [
        replace(branch, ohm=0.0) if branch.id in contacts else branch
        for branch in circuit.branches
        if branch.id not in circuit.not_linear
        and (branch.id in contacts or branch.farad is not None or branch.ohm <= PASSES_BELOW_OHM)
    ]
    ways = [(branch.a, branch.b) for branch in linear]
    met, waiting = set[str](), [OUTLET_L, OUTLET_N, OUTLET_PE]
    joined: dict[str, set[str]] = defaultdict(set)
    for one, other in (*ways, *circuit.joints):
        joined[one].add(other)
        joined[other].add(one)
    while waiting:
        point = waiting.pop()
        if point not in met:
            met.add(point)
            waiting += joined[point]
    return frozenset(met)


def prepared(sheet: Sheet, probe: Probe, circuit: Netlist, *, is_loaded: bool = True) -> Setup:
    """Return the network with the instrument on it, the house behind the outlet where the supply is on.

    Parameters
    ----------
    sheet
        The machine's type.
    probe
        The instrument on its two points.
    circuit
        The machine in its configuration.
    is_loaded
        Whether a voltmeter's own resistance lies between its points.
    """
    branches, joints = list(circuit.branches), list(circuit.joints)
    joints += [(probe.joined[0], point) for point in probe.joined[1:]]
    sources: list[Source] = []
    meters: dict[str, Branch] = {}
    if probe.function in LIVE:
        hot, cold = (OUTLET_N, OUTLET_L) if probe.reversed else (OUTLET_L, OUTLET_N)
        sources = [Source(hot, cold, sheet.volts, circuit.house_ohm)]
        branches.append(Branch("house.bond", cold, OUTLET_PE, NEUTRAL_TO_EARTH_OHM))
    if probe.function in {Function.VOLTS_AC, Function.VOLTS_DC, Function.HERTZ}:
        branches += [Branch("meter", *probe.between, VOLTMETER_OHM)] if is_loaded else []
    elif probe.function is Function.LEAKAGE:
        joints, meters["meter"] = _cut(joints, OUTLET_PE)
    elif probe.function is Function.AMPERE:
        joints, meters["meter"] = _cut(joints, probe.between[0])
    branches += meters.values()
    reference = OUTLET_PE if probe.function in LIVE else CHASSIS
    return Setup(Network(branches, joints, reference, sources), probe, sheet.hertz, meters)


def shown(setup: Setup, changed: Mapping[str, Branch] | None = None) -> tuple[float | None, Bound]:
    """Return what the instrument shows, with other values of some branches where faults are asked for."""
    function, (p, q) = setup.probe.function, setup.probe.between
    omega = 2 * math.pi * setup.hertz
    if function in {Function.OHM, Function.CONTINUITY, Function.INSULATION}:
        limit = INSULATION_LIMIT if function is Function.INSULATION else OHM_LIMIT
        ohm = setup.network.impedance_ohm(p, q, 0.0, changed).real
        return (limit, Bound.ABOVE) if not ohm <= limit else (ohm, Bound.EXACT)
    if function is Function.DIODE:
        ohm = setup.network.impedance_ohm(p, q, 0.0, changed).real
        drop = setup.network.forward_volts(p, q, below_ohm=BROKEN_OHM, changed=changed)
        dropped = float(diode_volts(np.array(ohm), np.array(drop)))
        return (DIODE_LIMIT_V, Bound.ABOVE) if not dropped <= DIODE_LIMIT_V else (dropped, Bound.EXACT)
    if function is Function.CAPACITANCE:
        z = setup.network.impedance_ohm(p, q, omega, changed)
        is_capacitive = math.isfinite(abs(z)) and -z.imag > CAPACITIVE_SHARE * abs(z)
        farad = -1 / (omega * z.imag) if is_capacitive else math.inf
        return (farad, Bound.EXACT) if farad <= CAPACITANCE_LIMIT else (CAPACITANCE_LIMIT, Bound.ABOVE)
    if function is Function.VOLTS_DC:
        return 0.0, Bound.EXACT
    volts = setup.network.solve(omega, {}, changed)
    a, b = (setup.meters["meter"].a, setup.meters["meter"].b) if setup.meters else (p, q)
    difference = float(abs(volts[setup.network.node(a)] - volts[setup.network.node(b)]))
    if function is Function.HERTZ:
        return (setup.hertz, Bound.EXACT) if difference > 1 else (0.0, Bound.EXACT)
    return (difference / AMMETER_OHM if setup.meters else difference), Bound.EXACT


def diode_volts(ohm: NDArray[np.float64], forward_volts: NDArray[np.float64]) -> NDArray[np.float64]:
    """Return what the diode test's current drops across resistances with junctions beside them.

    I = U/R + max(0, U − U_f)/r: the resistance takes all of it until the junctions conduct.
    """
    alone = DIODE_A * ohm
    shunt_s = 1 / np.maximum(ohm, JUNCTION_OHM)
    conducting = (DIODE_A + forward_volts / JUNCTION_OHM) / (shunt_s + 1 / JUNCTION_OHM)
    return np.where(alone <= forward_volts, alone, conducting)


def _cut(joints: Sequence[tuple[str, str]], point: str) -> tuple[list[tuple[str, str]], Branch]:
    """Open the wire at a point and put an ammeter into the gap."""
    others = [other for pair in joints if point in pair for other in pair if other != point]
    kept = [pair for pair in joints if point not in pair]
    kept += [(others[0], other) for other in others[1:]]
    return kept, Branch("meter", point, others[0] if others else f"{point}.loose", AMMETER_OHM)


def _reached(setup: Setup) -> frozenset[str]:
    """Return the branches that the instrument's current comes to."""
    probe = setup.probe
    if probe.function in LIVE:
        start: tuple[str, ...] = (OUTLET_N if probe.reversed else OUTLET_L,)
    elif probe.function is Function.INSULATION:
        start = (probe.between[0], *probe.joined)
    else:
        start = probe.between
    return setup.network.reached(start, below_ohm=PASSES_BELOW_OHM)
